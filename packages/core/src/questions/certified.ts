import { isTooLarge } from '../budget/tooLarge.ts';
import { check, checkSigns, checkSolutions } from '../checker/check.ts';
import type { Certificate, Listed } from '../checker/claims.ts';
import { followsCondition, type SignedDifference } from '../checker/conditions.ts';
import { isSignAt } from '../checker/values.ts';
import {
  boundsBetweenNumbers,
  checkedIntegral,
  shownIntegral,
  type ShownIntegral,
} from '../area/certificate.ts';
import type { IntegralFound } from '../area/parts.ts';
import { unpacked } from '../interpolation/packed.ts';
import * as tree from '../language/tree.ts';
import type { Expression } from '../language/tree.ts';
import {
  conditionIn,
  squaredDistances,
  type AnswerTo,
  type Question,
  type QuestionKind,
  type QuestionOf,
  type ToldSolutions,
} from './answers.ts';
import { certificateOf, certificateOfSolutions, type ToldCertificate } from '../analysis/certificate.ts';
import { withoutItsClaim } from './claimed.ts';
import { differenceOf } from '../analysis/holds.ts';
import { keyPoints } from '../analysis/keyPoints.ts';
import { meanValuePoints } from '../slope/meanValue.ts';
import { withFormulas, type Outcome } from './sentAnswers.ts';
import { signs } from '../analysis/signs.ts';
import { SingleValues } from '../analysis/singleValues.ts';

/**
 * An answer as it is told once the checker has looked at what it claims: where it refuses that, the answer is not called
 * complete or proved. The checker is large and comes by itself: it is no part of what answers questions.
 */
export function certified(question: Question, outcome: Outcome): Outcome {
  const refused = withoutItsClaim(question, outcome);
  if (!refused || !outcome.ok) return outcome;
  try {
    return checkedOutcome(withFormulas(question, unpacked), outcome, refused);
  } catch (error) {
    // Of what grows too large, or has values at single numbers only, there is no certificate.
    if (isTooLarge(error) || error instanceof SingleValues) return refused;
    throw error;
  }
}

function checkedOutcome(asked: Question, outcome: Outcome & { ok: true }, refused: Outcome): Outcome {
  if (asked.ask === 'keyPoints') {
    const { points } = outcome.answer as AnswerTo['keyPoints'];
    const certificate = toldCertificate(asked, points);
    const { answer } = certificate.isAccepted ? outcome : (refused as typeof outcome);
    return { ok: true, answer: { ...(answer as AnswerTo['keyPoints']), certificate } };
  }
  if (asked.ask === 'integral') return checkedArea(asked, outcome);
  if (asked.ask === 'value') return withBounds(asked, outcome);
  const isConfirmed = confirmed[asked.ask] as ((asked: Question, answer: unknown) => boolean) | undefined;
  return isConfirmed?.(asked, outcome.answer) ? outcome : refused;
}

/** An integral with the checker's bounds; it is called proved where they say so. */
function checkedArea(
  { body, variable, interval, isTotal }: QuestionOf<'integral'>,
  outcome: Outcome & { ok: true },
): Outcome {
  const answer = outcome.answer as AnswerTo['integral'];
  return { ok: true, answer: { ...answer, ...shownBetween(body, variable, interval, answer, isTotal) } };
}

/** The value of a formula that is one integral, with the checker's bounds. */
function withBounds({ body }: QuestionOf<'value'>, outcome: Outcome & { ok: true }): Outcome {
  const answer = outcome.answer as AnswerTo['value'];
  if (body.kind !== 'integral' || !answer.integral) return outcome;
  const { interval } = answer.integral;
  const { bounds } = shownBetween(body.body, body.variable, interval, answer.integral, false);
  return { ok: true, answer: { ...answer, bounds } };
}

/** How sure an integral is, with bounds that hold between the numbers for which the doubles of its interval stand. */
function shownBetween(
  body: Expression,
  variable: string,
  interval: readonly [number, number],
  told: IntegralFound,
  isTotal: boolean,
): ShownIntegral {
  const shown = shownIntegral(told, checkedIntegral(body, variable, interval, told, isTotal));
  const bounds = shown.bounds && boundsBetweenNumbers(body, variable, interval, shown.bounds);
  return { ...shown, bounds };
}

/** Whether the checker accepts what an answer claims. */
type Confirmed = {
  readonly [K in QuestionKind]?: (question: QuestionOf<K>, answer: AnswerTo[K]) => boolean;
};

const confirmed: Confirmed = {
  signs: ({ body, variable, interval, order }, { intervals }) =>
    areSigns(certificateOf(body, variable, interval, order, 0), intervals),
  solve: ({ body, equals, variable, interval, order }, found) =>
    areSolutions(certificateOfSolutions(body, equals, variable, interval, order), found),
  meanValue({ body, variable, interval }, answer) {
    const found = answer && meanValuePoints(body, variable, interval);
    if (!found) return false;
    const certificate = certificateOfSolutions(body, found.slope, variable, interval, 1);
    return areSolutions(certificate, answer.points);
  },
  holds: ({ body, variable, interval }, { stretches }) => {
    const condition = conditionIn(body);
    if (!condition) return stretches.length === 0;
    const differences = tree
      .comparedPairs(condition)
      .map(([left, right]) => signedDifference(left, right, variable, interval));
    if (!differences.every((one) => one !== null)) return false;
    const held = stretches.map(({ from, to, ...ends }) => ({ ...ends, from: from.value, to: to.value }));
    return followsCondition(condition, differences, held, interval);
  },
  reading: ({ body, variable, interval }) =>
    [0, 1].every((order) => {
      const { intervals } = signs(body, variable, interval, order);
      return areSigns(certificateOf(body, variable, interval, order, 0), intervals);
    }),
  // Where the distance is least follows from where it turns and what it does at its joints.
  nearest(question) {
    const squared = squaredDistances(question);
    const { variable, interval } = question;
    const certificate = certificateOf(squared, variable, interval, 0, 1);
    return check(certificate, keyPoints(squared, variable, interval, 0, 1).points).isAccepted;
  },
};

/** A part of the axis whose ends are places. */
interface Between {
  readonly from: { readonly value: number };
  readonly to: { readonly value: number };
}
const ended = <S extends Between>({ from, to }: S) => ({ from: from.value, to: to.value });

const areSigns = (
  certificate: Certificate,
  intervals: readonly (Between & { readonly sign: -1 | 0 | 1 })[],
): boolean =>
  checkSigns(
    certificate,
    intervals.map((one) => ({ ...ended(one), sign: one.sign })),
  ).isAccepted;

/** Of a derivative that is compared with a function there is no certificate. */
const areSolutions = (
  certificate: Certificate | null,
  { solutions, everywhere }: Pick<ToldSolutions, 'solutions' | 'everywhere'>,
): boolean =>
  certificate !== null &&
  checkSolutions(certificate, { at: solutions.map(({ value }) => value), everywhere: everywhere.map(ended) })
    .isAccepted;

/** The signs of the difference of two formulas; null where they are not shown. */
function signedDifference(
  left: Expression,
  right: Expression,
  variable: string,
  interval: readonly [number, number],
): SignedDifference | null {
  const difference = differenceOf(left, right);
  const { intervals, ends, complete } = signs(difference, variable, interval);
  if (!complete || !areSigns(certificateOf(difference, variable, interval, 0, 0), intervals)) return null;
  const told = ends.map(({ place, value }) => ({
    place,
    sign: value === null ? null : (Math.sign(value) as -1 | 0 | 1),
  }));
  const areShown = told.every(({ place: { low, high, exact }, sign }) =>
    isSignAt(difference, variable, { low, high, ...(exact && { at: exact }) }, sign),
  );
  if (!areShown) return null;
  return {
    stretches: intervals.map((one) => ({ ...ended(one), sign: one.sign })),
    ends: told.map(({ place, sign }) => ({ at: place.value, sign })),
  };
}

/** The certificate of the key points of a derivative, checked. */
function toldCertificate(
  { body, variable, interval, order }: QuestionOf<'keyPoints'>,
  points: readonly Listed[],
): ToldCertificate {
  const certificate = certificateOf(body, variable, interval, order);
  const { isAccepted, shown, signs: found } = check(certificate, points);
  const parts = certificate.claims.map(({ order: k, from, to, zeros }, i) => ({
    ...{ above: k - order, from, to, zeros },
    sign: found[i] ?? 0,
    isAfterJoint: certificate.joints.some(({ low, high }) => low <= from && from <= high),
    shown: shown[i] ?? null,
  }));
  return { isAccepted, parts };
}
