import {
  isContinuousBetween,
  knownNumber,
  latexFunction,
  secant,
  type QuotientKind,
  type Secant,
} from '@yperkine/core';
import { z } from 'zod';
import { equalsResult, latex, live, unitPart, type Line } from '../../numbers/line.ts';
import { per, rateWords } from '../../units/unit.ts';
import { format } from '../../numbers/format.ts';
import { lineMark } from '../../marks/lineMark.ts';
import type { Mark } from '../../marks/mark.ts';
import { toneOf } from '../../fields/tone.ts';
import { atPlace, idSchema } from '../../fields/fields.ts';
import { primed } from '../curve.ts';
import type { EntryKind, Wording } from '../kind.ts';
import { waiting, worked } from '../outcome.ts';
import { shownValue, type ParameterResult } from '../parameter/result.ts';
import { placeOn, type Place } from '../point/point.ts';
import { quotients } from './quotients.ts';

const secantSchema = z.strictObject({
  ...atPlace,
  kind: z.literal('secant'),
  /** The parameter that is the step h. */
  step: idSchema,
  direction: z.enum(['forward', 'backward', 'symmetric']),
  table: z.enum(['none', 'school', 'tooSmall']),
  /** Whether the window along x keeps the step at the same length, whatever it shrinks to. */
  windowFollows: z.boolean(),
});
export type SecantEntry = z.infer<typeof secantSchema>;

export interface SecantResult extends Place {
  readonly step: ParameterResult;
  readonly direction: QuotientKind;
  readonly secant: Secant;
  /** Why there is none, in one sentence; null where there is one. */
  readonly fault: string | null;
}

/** The line through two points of a curve that are h apart, its slope, and what becomes of it as h shrinks. */
export const secantKind: EntryKind<SecantEntry, SecantResult> = {
  schema: secantSchema,
  defaults: { direction: 'forward', table: 'school', windowFollows: false },
  standsOn: (entry) => [entry.on, entry.parameter, entry.step],
  head: (entry, result) => ({
    heading: result
      ? `Secant of ${primed(result.curve.name, result.curve.order)} ${ends(result, entry.direction)}`
      : 'Secant',
    tone: 'quiet',
  }),

  workOut(entry, context) {
    const place = placeOn(entry, context);
    if (typeof place === 'string') return waiting(place);
    const step = context.parameter(entry.step);
    if (!step) return waiting('This waits for its step h, which cannot be worked out yet.');
    const { curve, at } = place;
    const { direction } = entry;
    const line = secant(curve.program, at.value.value, step.value.value, direction, curve.parameters);
    const result = { ...place, step, direction, secant: line };
    const fault = faultOf(result);
    return worked({ ...result, secant: fault === null ? line : { ...line, slope: NaN }, fault });
  },

  say: (result, { table }, wording) => ({
    lines: result.fault === null ? linesOf(result, wording) : [],
    sentence: result.fault ?? sentenceOf(result, wording),
    ...(table === 'none' ? {} : { table: quotients(result, table, wording.rule) }),
  }),

  results: ({ secant: { slope }, curve }, xUnit) =>
    Number.isNaN(slope)
      ? []
      : [{ key: 'slope', label: 'slope', number: knownNumber(slope), unit: per(curve.unit, xUnit) }],

  places: ({ curve, secant: { from, to } }) => [
    { key: 'first', label: 'the first point', ...from, tier: curve.tier },
    { key: 'second', label: 'the second point', ...to, tier: curve.tier },
  ],

  marks(id, entry, result, tier) {
    if (result.curve.tier !== tier.id) return [];
    const { from, to, slope } = result.secant;
    const dots = [from, to].filter(({ y }) => Number.isFinite(y));
    const a = result.at.value.value;
    const points = dots.map(({ x, y }): Mark => {
      const isBase = x === a && entry.direction !== 'symmetric';
      const pixels = { x: tier.toX(x), y: tier.toY(y) };
      const tone = isBase ? toneOf(result.curve.order, result.curve.family) : 'quiet';
      const grip = isBase
        ? { parameter: entry.parameter }
        : { parameter: entry.step, offset: a, sign: x < a ? -1 : 1 };
      return { kind: 'point', entry: id, ...pixels, tone, ...grip };
    });
    if (Number.isNaN(slope)) return points;
    return [{ ...lineMark(id, from, slope, tier, 'quiet'), dash: [3, 4] }, ...points];
  },
};

type Quotient = Omit<SecantResult, 'fault'>;

/** "from x = a to a + h", for headings. */
function ends({ curve, at, step }: Quotient, direction: QuotientKind): string {
  const [a, h] = [at.name, step.name];
  const from = direction === 'forward' ? a : `${a} − ${h}`;
  const to = direction === 'backward' ? a : `${a} + ${h}`;
  return `from ${curve.variable} = ${from} to ${to}`;
}

/** Why there is no secant, in one sentence; null where there is one. */
function faultOf({ curve, step, secant: { from, to } }: Quotient): string | null {
  const name = primed(curve.name, curve.order);
  const { variable } = curve;
  if (step.value.value === 0) {
    return `With ${step.name} = 0 both points are one, and one point has no secant.`;
  }
  const missing = [from, to].find(({ y }) => !Number.isFinite(y));
  if (missing) return `${name} has no value at ${variable} = ${short(missing.x)}, so there is no secant.`;
  const [low, high] = from.x < to.x ? [from.x, to.x] : [to.x, from.x];
  if (!isContinuousBetween(curve.program, low, high, curve.parameters)) {
    return `Between ${variable} = ${short(low)} and ${short(high)} ${name} has a gap, and a secant across it would say nothing.`;
  }
  return null;
}

const short = (x: number): string => String(Number(x.toPrecision(6))).replace('-', '−');

function linesOf(
  { curve, at, step, direction, secant: { slope } }: Quotient,
  { rule, xUnit }: Wording,
): Line[] {
  const f = latexFunction(curve.name, curve.order);
  const [a, h] = [at.name, step.name];
  const upper = direction === 'backward' ? `${f}(${a})` : `${f}(${a}+${h})`;
  const lower = direction === 'forward' ? `${f}(${a})` : `${f}(${a}-${h})`;
  const divisor = direction === 'symmetric' ? `2${h}` : h;
  const quotient = latex(`\\frac{${upper}-${lower}}{${divisor}}`);
  const settings = [
    latex(a),
    live(` = ${shownValue(at, rule)},   `),
    latex(h),
    live(` = ${shownValue(step, rule)}`),
  ];
  return [
    [quotient, ...equalsResult(knownNumber(slope), rule), ...unitPart(per(curve.unit, xUnit))],
    settings,
  ];
}

function sentenceOf({ curve, secant: { from, to, slope } }: Quotient, { rule, xUnit }: Wording): string {
  const { text } = format(knownNumber(Math.abs(slope)), rule);
  const rate = rateWords(text, per(curve.unit, xUnit), curve.variable, true);
  const way = slope < 0 ? 'falls' : 'rises';
  const [low, high] = from.x < to.x ? [from.x, to.x] : [to.x, from.x];
  const where = `Between ${curve.variable} = ${short(low)} and ${short(high)}`;
  return `${where}, ${primed(curve.name, curve.order)} ${way} ${rate}.`;
}
