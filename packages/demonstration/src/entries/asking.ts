import type { WhyUnanswerable } from './answers.ts';
import {
  closedFormula,
  indicator,
  knownNumber,
  literal,
  rational,
  readCondition,
  readExpression,
  TooLarge,
  tree,
  type Answer,
  type AnswerTo,
  type Condition,
  type ExactEnds,
  type Expression,
  type KnownNumber,
  type QuestionKind,
  type Rational,
  type QuestionOf,
  type Reading,
  type Scope,
} from '@yperkine/core';
import { format, type RoundingRule } from '../numbers/format.ts';
import { common, idSchema, typedSchema, type Id } from '../fields/fields.ts';
import type { Directory } from './names.ts';
import type { CurveResult } from './curve.ts';
import { functionsMentioned, idsMentioned, unreadable } from './formula.ts';
import { idsInText, remembered, typedValue } from './formulaValue.ts';
import type { WorkContext } from './kind.ts';
import { failed, waiting, worked, type Outcome } from './outcome.ts';
import { parameterMap, unknownNumber } from './provedPlaces.ts';

/** What is being done while there is no answer yet. */
const doing: Readonly<Record<QuestionKind, string>> = {
  keyPoints: 'Key points are being looked for, with the proof that none is missed …',
  signs: 'The signs are being worked out …',
  solve: 'Solutions are being looked for, with the proof that none is missed …',
  holds: 'The stretches are being worked out …',
  joins: 'The joins are being looked at …',
  reading: 'The graph is being read …',
  meanValue: 'Parallel tangents are being looked for …',
  nearest: 'The nearest point is being looked for, with the proof that none is nearer …',
  integral: 'The integral is being worked out …',
  curve: 'The curve is being drawn …',
  derivative: 'The derivative is being worked out …',
  value: 'The value is being worked out …',
  sum: 'The sum is being worked out …',
};

const toBeChecked = 'All is found; once nothing moves the proof is checked a second time …';

const whyUnanswerable: Readonly<Record<WhyUnanswerable, string>> = {
  tooLarge: 'This is too large to be worked out.',
  singleValues: 'A factorial has values at whole numbers only: between them there is nothing to look at.',
  tooLong: 'This takes so long that it was given up; a shorter interval may help.',
  fault: 'This cannot be worked out, through a fault of the program. All else works on.',
  notLoaded: 'What works this out could not be loaded. Once the server is there again, reload the page.',
};

/**
 * What an entry makes of the answer to its question, which may come some frames later.
 * @param otherwise what it is without one, told what is being done, or why there is none; nothing, unless given
 */
export function withAnswer<K extends QuestionKind, R>(
  context: WorkContext,
  question: QuestionOf<K>,
  work: (answer: AnswerTo[K]) => Outcome<R>,
  otherwise?: () => R,
): Outcome<R> {
  const answered = context.ask<K>(question);
  switch (answered.state) {
    case 'waiting':
      return without(otherwise, doing[question.ask]) ?? waiting(doing[question.ask]);
    case 'unanswerable': {
      const why = whyUnanswerable[answered.reason];
      return without(otherwise, why) ?? failed(why);
    }
    case 'answered': {
      const outcome = work(answered.answer);
      if (answered.of === 'now' || !outcome.ok) return outcome;
      if (answered.of === 'before') return { ...outcome, progress: { isPending: true } };
      if (answered.of === 'found' || answered.of === 'foundBefore') {
        const isPending = answered.of === 'foundBefore';
        return { ...outcome, progress: { sentence: toBeChecked, ...(isPending ? { isPending } : {}) } };
      }
      const decided = 'interval' in question ? decidedShare(answered.answer, question.interval) : null;
      return { ...outcome, progress: { sentence: doing[question.ask], decided } };
    }
  }
}

/** What there is all the same, with a sentence in place of what it says. */
const without = <R>(otherwise: (() => R) | undefined, sentence: string): Outcome<R> | null =>
  otherwise ? { ok: true, result: otherwise(), progress: { sentence } } : null;

/** The share of the interval on which an answer leaves nothing open; null where that is not told. */
function decidedShare(answer: Answer, [from, to]: readonly [number, number]): number | null {
  const told = answer !== null && 'points' in answer && 'undecided' in answer.points ? answer.points : answer;
  if (told === null || !('undecided' in told)) return null;
  const open = told.undecided.reduce((width, { low, high }) => width + high - low, 0);
  const share = 1 - open / (to - from);
  return Number.isFinite(share) ? Math.max(0, share) : null;
}

/** Work on formulas that may grow too large. */
export function guarded<R>(work: () => Outcome<R>): Outcome<R> {
  try {
    return work();
  } catch (error) {
    if (error instanceof TooLarge) return failed('This is too large to be worked out.');
    throw error;
  }
}

export const noFunction = 'This waits for its function, which cannot be worked out yet.';

export interface TypedInterval {
  /** A number, or −∞ for a study that takes it. */
  readonly from: number;
  /** A number, or ∞ for a study that takes it. */
  readonly to: number;
  /** As it is typed, or shown while it is dragged. */
  readonly texts: { readonly from: string; readonly to: string };
  /** The ends as rational numbers, where they are such. */
  readonly exact: readonly [Rational | null, Rational | null];
}

/** How an interval stands on the stage while one of its ends is dragged. */
export const stagedInterval = (from: string, to: string): string => `${from} ; ${to}`;
export function readStagedInterval(staged: string | number | undefined): { from: string; to: string } | null {
  const [from, to] = typeof staged === 'string' ? staged.split(' ; ') : [];
  return from === undefined || to === undefined ? null : { from, to };
}

/** ∞ or −∞, where an end of an interval is typed as such; null for anything else. */
export function infiniteEnd(text: string): number | null {
  const match = /^([-−+]?)\s*(∞|inf(inity)?)$/i.exec(text.trim());
  if (!match) return null;
  return match[1] === '-' || match[1] === '−' ? -Infinity : Infinity;
}

/** An end of an interval as it is kept: ∞ by its sign, however it was typed. */
export function keptEnd(text: string): string {
  const infinite = infiniteEnd(text);
  if (infinite === null) return text;
  return infinite > 0 ? '∞' : '−∞';
}

/** Which ends the interval of a study may have. */
interface EndsAllowed {
  /** Whether it may go on to ∞ or −∞. */
  readonly mayBeInfinite?: boolean;
}

/** The interval of a study, whose ends are formulas of numbers and parameters. */
export function intervalOf(
  entry: { readonly from: string; readonly to: string },
  context: WorkContext,
  { mayBeInfinite = false }: EndsAllowed = {},
): Outcome<TypedInterval> {
  const texts = readStagedInterval(context.staged) ?? { from: entry.from, to: entry.to };
  const end = (text: string): Outcome<KnownNumber> => {
    const infinite = infiniteEnd(text);
    if (infinite !== null) {
      return mayBeInfinite
        ? worked(knownNumber(infinite))
        : failed('The ends of this interval are numbers; ∞ is none.');
    }
    const typed = typedValue(text, context);
    if (!typed.ok) return typed;
    const { value } = typed.result;
    return Number.isFinite(value.value) ? worked(value) : failed('The ends of the interval are numbers.');
  };
  const [start, finish] = [end(texts.from), end(texts.to)];
  if (!start.ok) return start;
  if (!finish.ok) return finish;
  const [a, b] = [start.result, finish.result];
  if (!(a.value < b.value)) {
    const order = `${asWritten(texts.from)} is not smaller than ${asWritten(texts.to)}`;
    return failed(`An interval goes from a smaller to a larger number; ${order}.`);
  }
  return worked({ from: a.value, to: b.value, texts, exact: [a.exact, b.exact] });
}

/** What a study of a curve over an interval has: the curve, and the ends as numbers or formulas of parameters. */
export const onInterval = { ...common, on: idSchema, from: typedSchema, to: typedSchema };

interface OnInterval {
  readonly on: Id;
  readonly from: string;
  readonly to: string;
}

/** What such a study stands on and depends on. */
export const intervalStudy = {
  standsOn: ({ on }: OnInterval): readonly Id[] => [on],
  dependsOn: (entry: OnInterval, directory: Directory): readonly Id[] => [
    entry.on,
    ...idsInInterval(entry, directory),
  ],
};

/** A study's curve and interval, and its part of every question about them. */
export interface Studied extends ClosedCurve {
  readonly curve: CurveResult;
  readonly interval: TypedInterval;
  readonly asked: {
    readonly body: Expression;
    readonly variable: string;
    readonly interval: readonly [number, number];
  };
}

/** Works on the curve and interval of a study, or says what is missing or wrong with them. */
export function studied<R>(
  entry: OnInterval,
  context: WorkContext,
  work: (parts: Studied) => Outcome<R>,
  ends: EndsAllowed = {},
): Outcome<R> {
  const curve = context.curve(entry.on);
  if (!curve) return waiting(noFunction);
  const interval = intervalOf(entry, context, ends);
  if (!interval.ok) return interval;
  return guarded(() => {
    const closed = closedCurve(curve, context);
    if (!closed.ok) return closed;
    const { from, to } = interval.result;
    const { body } = closed.result;
    const asked = {
      body,
      variable: curve.variable,
      interval: [from, to],
      ...exactEnds(interval.result),
    } as const;
    return work({ ...closed.result, curve, interval: interval.result, asked });
  });
}

/** The ends of an interval as formulas, where they are fractions that no double is. */
function exactEnds({ from, to, exact }: TypedInterval): { ends?: ExactEnds } {
  const ends = [from, to].map((x, i) => {
    const fraction = exact[i] ?? null;
    const decimal = fraction && rational.parseDecimal(String(x).toUpperCase());
    return fraction && !(decimal && rational.equals(decimal, fraction)) ? literal(fraction) : null;
  });
  return ends.some((end) => end !== null) ? { ends: [ends[0] ?? null, ends[1] ?? null] } : {};
}

/** More parts than this are not named one by one. */
const mostParts = 3;

interface Sure {
  readonly complete: boolean;
  readonly undecided: readonly { readonly low: number; readonly high: number }[];
  readonly hasTooManyJumps?: boolean;
  readonly isUnconfirmed?: boolean;
}

/**
 * Whether an answer is proved to be all; where it is not, the parts in which the proof failed.
 * @param instead what is to be said of those parts
 */
export function certaintySentence(
  { complete, undecided, hasTooManyJumps, isUnconfirmed }: Sure,
  rule: RoundingRule,
  instead = '',
): string {
  if (complete) return 'these are all of them (proved).';
  if (isUnconfirmed) return 'a second check could not show that these are all of them.';
  if (hasTooManyJumps)
    return `there are more jumps than can be looked at; a shorter interval may help${instead}.`;
  if (undecided.length === 0) {
    return 'some of these rest on limits that were worked out with many digits, which is no proof.';
  }
  const text = (value: number): string => format(knownNumber(value), rule).text;
  const parts = undecided.slice(0, mostParts).map(({ low, high }) => {
    const [from, to] = [text(low), text(high)];
    return from === to ? `near ${from}` : `between ${from} and ${to}`;
  });
  const where = [...parts, ...(undecided.length > mostParts ? ['in further parts'] : [])].join(', ');
  return `${where} it could not be proved that nothing was missed${instead}.`;
}

/** The word beside a heading for a list of which it is proved whether it is all. */
export const completeness = (isComplete: boolean, otherwise = 'not complete') => ({
  text: isComplete ? 'complete (proved)' : otherwise,
  isProved: isComplete,
});

/** Ids that the ends of an interval mention. */
export const idsInInterval = (
  { from, to }: { readonly from: string; readonly to: string },
  directory: Directory,
): readonly Id[] => [from, to].flatMap((text) => idsInText(text, directory));

/** "For x from 0 to 2π", for sentences about an interval. */
export const overTyped = (variable: string, { texts: { from, to } }: TypedInterval): string =>
  `For ${variable} from ${asWritten(from)} to ${asWritten(to)}`;

export const asWritten = (text: string): string =>
  keptEnd(text)
    .trim()
    .replaceAll('-', '−')
    .replace(/(?<![\p{L}_])pi(?![\p{L}\d_])/gu, 'π')
    .replace(/sqrt\((\w+)\)/g, '√$1');

export interface ClosedCurve {
  /** The formula in the variable alone. */
  readonly body: Expression;
  readonly values: ReadonlyMap<string, number>;
}

/** A curve's formula with its functions and the values of its parameters put in. */
export function closedCurve(curve: CurveResult, context: WorkContext): Outcome<ClosedCurve> {
  const values = parameterMap(curve, context);
  if (!values) return waiting(unknownNumber);
  return worked({ body: closedFormula(curve.body, values, curve.functions), values });
}

export const withVariable = (scope: Scope, variable: string): Scope => ({
  ...scope,
  names: new Set([...scope.names, variable]),
});

/** A typed formula in the variable of a curve. */
const readInVariable = (text: string, variable: string, directory: Directory): Reading<Expression> =>
  remembered(directory, `formula in ${variable}`, text, () =>
    readExpression(text, withVariable(directory.scope, variable)),
  );

/** A typed condition on the variable of a curve, as the formula that is 1 where it holds. */
const readConditionIn = (text: string, variable: string, directory: Directory): Reading<Expression> =>
  remembered(directory, `condition on ${variable}`, text, () =>
    conditionAsFormula(readCondition(text, withVariable(directory.scope, variable))),
  );

const conditionAsFormula = (reading: Reading<Condition>): Reading<Expression> =>
  reading.ok ? { ok: true, value: indicator(reading.value) } : reading;

/** Ids that a formula or condition in a curve's variable mentions, whatever the variable is called. */
export function idsInVariableText(
  text: string,
  directory: Directory,
  manner: 'formula' | 'condition' = 'formula',
): readonly Id[] {
  return remembered(directory, `ids in a ${manner}`, text, () => {
    // Letters that are not known yet may be the variable.
    const letters = text.match(/\p{L}/gu) ?? [];
    const scope = { ...directory.scope, names: new Set([...directory.scope.names, ...letters]) };
    const reading =
      manner === 'formula' ? readExpression(text, scope) : conditionAsFormula(readCondition(text, scope));
    return reading.ok ? idsMentioned(reading.value, directory) : [];
  });
}

/** A typed formula (or condition) in a curve's variable, with functions and parameters put in. */
export function closedInVariable(
  text: string,
  { variable }: CurveResult,
  context: WorkContext,
  manner: 'formula' | 'condition' = 'formula',
): Outcome<{ readonly typed: Expression; readonly closed: Expression }> {
  const read = manner === 'formula' ? readInVariable : readConditionIn;
  const reading = read(text, variable, context.directory);
  if (!reading.ok) return unreadable(reading.problem);
  const functions = functionsMentioned(reading.value, context);
  if (!functions) return waiting('This waits for another entry that cannot be worked out yet.');
  const bodies = [reading.value, ...[...functions.values()].map(({ body }) => body)];
  const names = new Set(bodies.flatMap((body) => [...tree.mentioned(body).names]));
  const values = new Map<string, number>();
  for (const name of names) {
    const number = name === variable ? undefined : context.number(name);
    if (number) values.set(name, number.value);
  }
  if (![...values.values()].every(Number.isFinite)) return waiting(unknownNumber);
  const closed = closedFormula(reading.value, values, functions);
  const isClosed = [...tree.mentioned(closed).names].every((name) => name === variable);
  return isClosed ? worked({ typed: reading.value, closed }) : waiting(unknownNumber);
}
