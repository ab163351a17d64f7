import {
  evaluateAt,
  exactValue,
  knownNumber,
  latexFunction,
  latexName,
  type AnswerTo,
  type KnownNumber,
  type Obstacle,
} from '@yperkine/core';
import { z } from 'zod';
import { exactText } from '../../numbers/exactText.ts';
import type { RoundingRule } from '../../numbers/format.ts';
import { equalsResult, latex, words, type Line } from '../../numbers/line.ts';
import type { Mark } from '../../marks/mark.ts';
import { dashes, toneOf } from '../../fields/tone.ts';
import type { TierView } from '../../marks/view.ts';
import { common, idSchema } from '../../fields/fields.ts';
import type { Directory } from '../names.ts';
import { per } from '../../units/unit.ts';
import { closedCurve, guarded, noFunction, withAnswer, completeness } from '../asking.ts';
import { primed, type CurveResult } from '../curve.ts';
import type { EntryKind } from '../kind.ts';
import { failed, waiting, worked } from '../outcome.ts';
import type { ParameterResult } from '../parameter/result.ts';
import { valueOn } from '../point/point.ts';
import { countedPlaces, intervalText, placeParts, placeResults, shortPlace } from '../provedPlaces.ts';

const meanValueSchema = z.strictObject({
  ...common,
  kind: z.literal('meanValue'),
  on: idSchema,
  /** The parameters at the ends of the interval. */
  left: idSchema,
  right: idSchema,
});
export type MeanValueEntry = z.infer<typeof meanValueSchema>;

type Told = NonNullable<AnswerTo['meanValue']>;

interface End {
  readonly at: ParameterResult;
  readonly y: KnownNumber;
}

export interface MeanValueResult {
  readonly curve: CurveResult;
  readonly ends: readonly [End, End];
  readonly told: Told;
  /** What the places are called: a letter that means nothing else. */
  readonly letter: string;
}

/** The secant over an interval and all tangents that are parallel to it. */
export const meanValueKind: EntryKind<MeanValueEntry, MeanValueResult> = {
  schema: meanValueSchema,
  defaults: {},
  standsOn: ({ on, left, right }) => [on, left, right],
  head: (_entry, result) => ({
    heading: result
      ? `Mean value theorem for ${primed(result.curve.name, result.curve.order)} on [${result.ends[0].at.name}, ${result.ends[1].at.name}]`
      : 'Mean value theorem',
    tone: result ? toneOf(result.curve.order + 1, result.curve.family) : 'quiet',
  }),

  workOut(entry, context) {
    const curve = context.curve(entry.on);
    if (!curve) return waiting(noFunction);
    const [left, right] = [context.parameter(entry.left), context.parameter(entry.right)];
    if (!left || !right) return waiting('This waits for its sliders, which cannot be worked out yet.');
    const [a, b] = [left.value.value, right.value.value];
    if (!(a < b)) {
      return failed(
        `An interval goes from a smaller to a larger number: ${left.name} has to be smaller than ${right.name}.`,
      );
    }
    const ends = [
      { at: left, y: valueOn(curve, left) },
      { at: right, y: valueOn(curve, right) },
    ] as const;
    return guarded(() => {
      const closed = closedCurve(curve, context);
      if (!closed.ok) return closed;
      const { body } = closed.result;
      const question = { ask: 'meanValue', body, variable: curve.variable, interval: [a, b] } as const;
      return withAnswer(context, question, (told) => {
        if (!told)
          return failed(`${primed(curve.name, curve.order)} has no value at an end of the interval.`);
        return worked({ curve, ends, told, letter: freeLetter(curve, context.directory) });
      });
    });
  },

  say: (result, _entry, { rule }) => ({
    lines: linesOf(result, rule),
    sentence: sentenceOf(result, rule),
    certainty: completeness(result.told.points.complete),
  }),

  results: ({ told, curve }, xUnit) => [
    { key: 'slope', label: 'slope of the secant', number: slopeOf(told), unit: per(curve.unit, xUnit) },
    ...placeResults(told.points.solutions, xUnit),
  ],

  places: ({ curve, told }) =>
    told.points.solutions.map(({ value }, i) => ({
      key: `place ${i}`,
      label: `place ${i + 1}`,
      x: value,
      y: evaluateAt(curve.program, value, curve.parameters),
      tier: curve.tier,
    })),

  marks(id, entry, { curve, ends, told }, tier) {
    if (curve.tier !== tier.id) return [];
    const tone = toneOf(curve.order + 1, curve.family);
    const [a, b] = ends;
    const secant = through(a.at.value.value, a.y.value, told.slope, tier);
    const points = ends.flatMap(({ at, y }, i): Mark[] => [
      {
        kind: 'point',
        entry: id,
        x: tier.toX(at.value.value),
        y: tier.toY(y.value),
        tone: toneOf(curve.order, curve.family),
        parameter: i === 0 ? entry.left : entry.right,
      },
    ]);
    const tangents = told.points.solutions.flatMap(({ value: c }): Mark[] => {
      const y = evaluateAt(curve.program, c, curve.parameters);
      if (!Number.isFinite(y)) return [];
      return [
        { kind: 'line', entry: id, ...through(c, y, told.slope, tier), tone, weight: 2.5, dash: [] },
        { kind: 'dot', entry: id, x: tier.toX(c), y: tier.toY(y), tone },
      ];
    });
    if (![a.y.value, b.y.value].every(Number.isFinite)) return [];
    return [
      { kind: 'line', entry: id, ...secant, tone: 'quiet', weight: 2, dash: dashes.dotted },
      ...tangents,
      ...points,
    ];
  },
};

/** A straight line from edge to edge of a tier. */
function through(x: number, y: number, slope: number, tier: TierView) {
  const at = (end: number) => ({ x: tier.toX(end), y: tier.toY(y + slope * (end - x)) });
  const [left, right] = [at(tier.x.from), at(tier.x.to)];
  return { x0: left.x, y0: left.y, x1: right.x, y1: right.y };
}

const slopeOf = ({ slope, exactSlope }: Told): KnownNumber =>
  knownNumber(slope, exactSlope && exactValue(exactSlope, new Map()));

function linesOf({ told, curve, ends: [a, b], letter }: MeanValueResult, rule: RoundingRule): Line[] {
  const { name, order, variable } = curve;
  const f = latexFunction(name, order);
  const c = latexName(letter);
  const [p, q] = [latexName(a.at.name), latexName(b.at.name)];
  const quotient = `\\frac{${f}(${q}) - ${f}(${p})}{${q} - ${p}}`;
  const form = told.exactSlope && exactText(told.exactSlope);
  const places = told.points.solutions.map((place): Line => [latex(c), ...placeParts(place, rule)]);
  return [
    [latex(quotient), ...equalsResult(slopeOf(told), rule, form)],
    [
      latex(`${latexFunction(name, order + 1)}(${c})`),
      ...equalsResult(slopeOf(told), rule, form),
      words(` for ${variable} = ${letter}`),
    ],
    ...places,
  ];
}

const obstacles: Readonly<Record<Obstacle['kind'], string>> = {
  noValue: 'has no value at',
  pole: 'has a pole at',
  jump: 'jumps at',
  corner: 'has a corner at',
  verticalTangent: 'has a vertical tangent at',
};

function sentenceOf(
  { told: { points, conditions }, curve, letter }: MeanValueResult,
  rule: RoundingRule,
): string {
  const f = primed(curve.name, curve.order);
  const parallel = parallelWords(points, rule);
  if (conditions === 'hold')
    return `${f} is continuous and has a slope everywhere between, so the theorem promises at least one ${letter}; ${parallel}.`;
  if (conditions === 'undecided')
    return `Whether ${f} is continuous and has a slope everywhere between is not decided, so nothing is promised; ${parallel}.`;
  const place = `${curve.variable} = ${shortPlace(conditions.at, rule)}`;
  const link = points.solutions.length + points.everywhere.length > 0 ? 'all the same ' : '';
  return `${f} ${obstacles[conditions.kind]} ${place}, so the theorem promises nothing; ${link}${parallel}.`;
}

function parallelWords({ solutions, everywhere, complete }: Told['points'], rule: RoundingRule): string {
  const [stretch] = everywhere;
  if (stretch) return `the tangent is parallel to the secant on ${intervalText(stretch, rule)}`;
  if (solutions.length === 0)
    return complete
      ? 'no tangent is parallel to the secant'
      : 'no tangent was found that is parallel to the secant';
  const where = `the tangent is parallel to the secant ${countedPlaces(solutions.length)}`;
  return complete ? where : `${where} that could be proved`;
}

/** Letters for the places, the usual one first. */
const letters = ['c', 'd', 'p', 'q', 'u', 'v', 'w', 'z'];

/** A letter that means nothing else in the demonstration. */
function freeLetter({ variable }: CurveResult, { scope }: Directory): string {
  const isFree = (letter: string): boolean =>
    letter !== variable && !scope.names.has(letter) && !scope.functions.has(letter);
  return letters.find(isFree) ?? 'c_0';
}
