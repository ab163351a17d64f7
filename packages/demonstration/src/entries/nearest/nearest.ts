import {
  compile,
  exactValue,
  knownNumber,
  latexFunction,
  latexName,
  numberFormula,
  printLatex,
  rational,
  simplify,
  squaredDistance,
  tree,
  type ExactPoint,
  type Expression,
  type KnownNumber,
  type NearestPoint,
  type Program,
} from '@yperkine/core';
import { z } from 'zod';
import { exactText } from '../../numbers/exactText.ts';
import { format, type RoundingRule } from '../../numbers/format.ts';
import { equalsResult, latex, live, liveNumber, unitPart, words, type Line } from '../../numbers/line.ts';
import type { Mark } from '../../marks/mark.ts';
import { dashes, toneOf } from '../../fields/tone.ts';
import { atPlace, typedSchema } from '../../fields/fields.ts';
import { decimalText } from '../../numbers/slider.ts';
import {
  closedCurve,
  guarded,
  idsInInterval,
  intervalOf,
  overTyped,
  withAnswer,
  type TypedInterval,
} from '../asking.ts';
import { primed, type CurveResult } from '../curve.ts';
import type { EntryKind } from '../kind.ts';
import { failed, waiting, worked } from '../outcome.ts';
import { shownValue } from '../parameter/result.ts';
import { placeOn, valueOn, type Place } from '../point/point.ts';
import { readPoint } from '../throughPoints/pointList.ts';

const nearestSchema = z.strictObject({
  ...atPlace,
  kind: z.literal('nearest'),
  /** The free point as typed: (3, 1). */
  points: typedSchema,
  /** Where it stands at the start. */
  start: typedSchema,
  /** The part of the curve that is looked at. */
  from: typedSchema,
  to: typedSchema,
});
export type NearestEntry = z.infer<typeof nearestSchema>;

export interface NearestResult extends Place {
  /** The free point, alone. */
  readonly points: readonly ExactPoint[];
  /** Where on the curve the segment ends just now, and how long it is. */
  readonly end: KnownNumber;
  readonly length: KnownNumber;
  readonly nearest: readonly NearestPoint[];
  readonly isProved: boolean;
  /** The formula of the curve, free of parameters, and the part of it that was looked at. */
  readonly body: Expression;
  readonly interval: TypedInterval;
}

/** The point of a curve that is nearest to a free point, with a segment that runs along the curve. */
export const nearestKind: EntryKind<NearestEntry, NearestResult> = {
  schema: nearestSchema,
  defaults: ({ points = '' }) => ({ start: points }),
  standsOn: ({ on, parameter }) => [on, parameter],
  dependsOn: (entry, directory) => [entry.on, entry.parameter, ...idsInInterval(entry, directory)],
  head: (_entry, result) => ({
    heading: result
      ? `Point of ${primed(result.curve.name, result.curve.order)} nearest to P`
      : 'Nearest point',
    tone: result ? toneOf(result.curve.order, result.curve.family) : 'quiet',
  }),

  workOut(entry, context) {
    const place = placeOn(entry, context);
    if (typeof place === 'string') return waiting(place);
    const point = readPoint(typeof context.staged === 'string' ? context.staged : entry.points);
    if (!point.ok) return failed(point.message);
    // The stage holds the point, not the interval.
    const interval = intervalOf(entry, { ...context, staged: undefined });
    if (!interval.ok) return interval;
    const { curve, at } = place;
    return guarded(() => {
      const closed = closedCurve(curve, context);
      if (!closed.ok) return closed;
      const { body } = closed.result;
      const free = point.point;
      const to = [rational.toNumber(free.x), rational.toNumber(free.y)] as const;
      const end = valueOn(curve, at);
      const length = knownNumber(Math.hypot(at.value.value - to[0], end.value - to[1]));
      const { variable } = curve;
      const { from, to: until } = interval.result;
      const question = { ask: 'nearest', body, variable, interval: [from, until], to } as const;
      return withAnswer(context, question, ({ points: nearest, isProved }) => {
        if (nearest.length === 0) {
          return failed(
            `${overTyped(variable, interval.result)} ${primed(curve.name, curve.order)} has no nearest point.`,
          );
        }
        const places = { points: [free], end, length, nearest, isProved };
        return worked({ curve, at, ...places, body, interval: interval.result });
      });
    });
  },

  say: (result, _entry, { rule }) => ({
    lines: linesOf(result, rule),
    sentence: sentenceOf(result, rule),
    certainty: { text: result.isProved ? 'proved' : 'found by search', isProved: result.isProved },
  }),

  results: ({ nearest, length, curve }, xUnit) => [
    { key: 'length', label: 'length of the segment', number: length, unit: curve.unit },
    ...nearest.slice(0, 1).flatMap((point) => [
      { key: 'x', label: 'x of the nearest point', number: exactly(point.x, point.exactX), unit: xUnit },
      {
        key: 'distance',
        label: 'least distance',
        number: exactly(point.distance, point.exactDistance),
        unit: curve.unit,
      },
    ]),
  ],

  places: ({ curve, at, end, nearest }) => [
    { key: 'end', label: 'the end on the curve', x: at.value.value, y: end.value, tier: curve.tier },
    ...nearest.map(({ x, y }, i) => ({
      key: `nearest ${i}`,
      label: 'the nearest point',
      x,
      y,
      tier: curve.tier,
    })),
  ],

  marks(id, entry, { curve, at, points, end, length, nearest }, tier) {
    const [free] = points;
    if (curve.tier !== tier.id || !free) return [];
    const tone = toneOf(curve.order, curve.family);
    const p = { x: tier.toX(rational.toNumber(free.x)), y: tier.toY(rational.toNumber(free.y)) };
    const q = { x: tier.toX(at.value.value), y: tier.toY(end.value) };
    const to = (place: { x: number; y: number }) => ({ x0: p.x, y0: p.y, x1: place.x, y1: place.y });
    const found = nearest.map(({ x, y }) => ({ x: tier.toX(x), y: tier.toY(y) }));
    const segment: Mark[] = Number.isFinite(q.y)
      ? [
          { kind: 'line', entry: id, ...to(q), tone: 'ink', weight: 2, dash: [] },
          {
            kind: 'note',
            x: (p.x + q.x) / 2 + 8,
            y: (p.y + q.y) / 2 - 8,
            tone: 'ink',
            text: format(length, tier.rule).text,
            anchor: 'start',
          },
          { kind: 'point', entry: id, ...q, tone, parameter: entry.parameter },
        ]
      : [];
    return [
      ...found.flatMap((place): Mark[] => [
        { kind: 'line', entry: id, ...to(place), tone: 'here', weight: 2, dash: dashes.dashed },
        { kind: 'dot', entry: id, ...place, tone: 'here', shape: 'diamond', size: 6 },
      ]),
      ...segment,
      { kind: 'vertex', entry: id, index: 0, ...p, tone: 'ink', shape: 'disc' },
      { kind: 'note', x: p.x + 10, y: p.y - 8, tone: 'ink', text: 'P', anchor: 'start' },
    ];
  },
};

const exactly = (value: number, exact: Expression | null): KnownNumber =>
  knownNumber(value, exact && exactValue(exact, new Map()));

const textOf = (number: KnownNumber, form: Expression | null, rule: RoundingRule): Line =>
  equalsResult(number, rule, form && exactText(form));

/** The segment's length, the distance set up and simplified, and the nearest point with its distance. */
function linesOf({ curve, at, points, length, nearest, body }: NearestResult, rule: RoundingRule): Line[] {
  const [free] = points as [ExactPoint];
  const x = latexName(curve.variable);
  const f = `${latexFunction(curve.name, curve.order)}(${x})`;
  const [p, q] = [free.x, free.y].map((coordinate) => numberFormula(rational.toNumber(coordinate))) as [
    Expression,
    Expression,
  ];
  const name = tree.name(curve.variable);
  const square = (part: Expression): Expression => tree.power(part, tree.number(2));
  const across = printLatex(square(rational.isZero(free.x) ? name : tree.subtract(name, p)));
  const up = rational.isZero(free.y)
    ? `${f}^2`
    : `\\left(${f} ${rational.isNegative(free.y) ? '+' : '-'} ${printLatex(numberFormula(Math.abs(rational.toNumber(free.y))))}\\right)^2`;
  const setUp = latex(`D(${x}) = \\sqrt{${across} + ${up}}`);
  const simplified = simplifiedLatex(body, curve.variable, p, q);
  const places = nearest.map(({ x: where, exactX, distance, exactDistance }): Line => [
    latex(x),
    ...textOf(exactly(where, exactX), exactX, rule),
    words(': '),
    latex('|PQ|'),
    ...textOf(exactly(distance, exactDistance), exactDistance, rule),
    ...unitPart(curve.unit),
  ]);
  return [
    [
      latex('|PQ|'),
      ...equalsResult(length, rule),
      words(' at '),
      latex(`${x} =`),
      live(' '),
      liveNumber(shownValue(at, rule), at.value),
    ],
    [setUp],
    ...(simplified === null ? [] : [[latex(`D(${x}) = ${simplified}`)]]),
    ...places,
  ];
}

const simplifiedOf = new WeakMap<Expression, { readonly at: string; readonly latex: string | null }>();

/** The simplified distance as LaTeX, made again only when the function or the point changed, not as the segment moves. */
function simplifiedLatex(body: Expression, variable: string, p: Expression, q: Expression): string | null {
  const at = JSON.stringify([p, q]);
  const known = simplifiedOf.get(body);
  if (known?.at === at) return known.latex;
  const latex = simplifiedDistance(body, variable, p, q);
  simplifiedOf.set(body, { at, latex });
  return latex;
}

/** The distance with the function put in, as a person would tidy it; null where it is in pieces. */
function simplifiedDistance(body: Expression, variable: string, p: Expression, q: Expression): string | null {
  if (body.kind === 'piecewise' && (body.pieces.length > 1 || body.otherwise)) return null;
  const inside = body.kind === 'piecewise' ? (body.pieces[0]?.value as Expression) : body;
  return printLatex(tree.call('sqrt', simplify(squaredDistance(inside, variable, p, q))));
}

/** Tells the point from the distance: where it is, and how far. */
function sentenceOf(
  { curve, at, end, nearest, isProved, points, interval }: NearestResult,
  rule: RoundingRule,
): string {
  const text = (value: number): string => format(knownNumber(value), rule).text;
  const [free] = points as [ExactPoint];
  const [px, py] = [free.x, free.y].map((value) => decimalText(value).replace('-', '−'));
  const where = nearest.map(({ x, y }) => `(${text(x)}, ${text(y)})`).join(' and ');
  const far = text(nearest[0]?.distance ?? NaN);
  const many = nearest.length > 1;
  const lost = Number.isNaN(end.value)
    ? ` At ${curve.variable} = ${shownValue(at, rule)} the curve has no point, so there is no segment.`
    : '';
  const sure = isProved ? 'No point is nearer (proved).' : 'It was found by search.';
  const told = many
    ? `the nearest points are ${where}; their distance`
    : `the nearest point is ${where}; its distance`;
  return `${overTyped(curve.variable, interval)} ${told} from P(${px ?? ''}, ${py ?? ''}) is ${far}. ${sure}${lost}`;
}

const programs = new WeakMap<Program, { readonly program: Program; readonly body: Expression }>();
const freeNames = ['p_P', 'q_P'] as const;

/** The distance from a curve to the free point as a program of x, whose inputs are the curve's and the two coordinates. */
export function distanceProgram(curve: CurveResult): {
  readonly program: Program;
  readonly body: Expression;
} {
  const known = programs.get(curve.program);
  if (known) return known;
  const [p, q] = freeNames.map((name) => tree.name(name)) as [Expression, Expression];
  const body = tree.call('sqrt', squaredDistance(curve.body, curve.variable, p, q));
  const made = { body, program: compile(body, curve.variable, curve.functions) };
  programs.set(curve.program, made);
  return made;
}

/** The values of that program's inputs. */
export function distanceInputs({ curve, points }: NearestResult, program: Program): number[] {
  const [free] = points as [ExactPoint];
  const values = new Map(curve.program.parameters.map((name, i) => [name, curve.parameters[i] ?? NaN]));
  values.set(freeNames[0], rational.toNumber(free.x));
  values.set(freeNames[1], rational.toNumber(free.y));
  return program.parameters.map((name) => values.get(name) ?? NaN);
}
