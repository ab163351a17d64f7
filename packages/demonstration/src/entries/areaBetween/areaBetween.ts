import { evaluatorFor, knownNumber, tree, type ToldIntegral } from '@yperkine/core';
import { z } from 'zod';
import { format, type RoundingRule } from '../../numbers/format.ts';
import { latex } from '../../numbers/line.ts';
import type { Mark } from '../../marks/mark.ts';
import { dashes, toneOf } from '../../fields/tone.ts';
import type { TierView } from '../../marks/view.ts';
import { idSchema } from '../../fields/fields.ts';
import { withUnit, type Unit } from '../../units/unit.ts';
import {
  areaUnit,
  baseSpan,
  bracketed,
  curveLatex,
  integralCertainty,
  integralLatex,
  integralParts,
  missingIntegral,
  numberOf,
} from '../areas.ts';
import {
  closedCurve,
  idsInInterval,
  noFunction,
  onInterval,
  studied,
  withAnswer,
  type TypedInterval,
} from '../asking.ts';
import { primed, type CurveResult } from '../curve.ts';
import type { EntryKind } from '../kind.ts';
import { failed, waiting, worked } from '../outcome.ts';
import { shortPlace } from '../provedPlaces.ts';

const areaBetweenSchema = z.strictObject({
  ...onInterval,
  kind: z.literal('areaBetween'),
  /** The other curve. */
  with: idSchema,
});
export type AreaBetweenEntry = z.infer<typeof areaBetweenSchema>;

export interface AreaBetweenResult {
  readonly curve: CurveResult;
  readonly other: CurveResult;
  readonly interval: TypedInterval;
  readonly told: ToldIntegral;
  readonly unit: Unit;
  /** The integral as LaTeX. */
  readonly statement: string;
}

/** The area between two curves, split where they cross. */
export const areaBetweenKind: EntryKind<AreaBetweenEntry, AreaBetweenResult> = {
  schema: areaBetweenSchema,
  defaults: {},
  standsOn: (entry) => [entry.on, entry.with],
  dependsOn: (entry, directory) => [entry.on, entry.with, ...idsInInterval(entry, directory)],
  head: (_entry, result) => ({
    heading: result
      ? `Area between ${nameOf(result.curve)} and ${nameOf(result.other)} on ${bracketed(result.interval.texts)}`
      : 'Area between two curves',
    tone: result ? toneOf(result.curve.order, result.curve.family) : 'quiet',
  }),

  workOut: (entry, context) =>
    studied(entry, context, ({ curve, interval, asked }) => {
      const other = context.curve(entry.with);
      if (!other) return waiting(noFunction);
      if (entry.with === entry.on) return failed('An area between two curves needs two different ones.');
      const closed = closedCurve(other, context);
      if (!closed.ok) return closed;
      const second = tree.substitute(closed.result.body, other.variable, tree.name(curve.variable));
      const body = tree.subtract(asked.body, second);
      return withAnswer(context, { ...asked, ask: 'integral', isTotal: true, body }, (told) => {
        const missing = missingIntegral(told, `${nameOf(curve)} − ${nameOf(other)}`, context);
        if (missing) return missing;
        const unit = areaUnit(curve, context.xUnit);
        const integrand = `\\bigl|${curveLatex(curve)} - ${curveLatex({ ...other, variable: curve.variable })}\\bigr|`;
        const statement = integralLatex(curve, interval, context, integrand);
        return worked({ curve, other, interval, told, unit, statement });
      });
    }),

  say: (result, _entry, { rule }) => ({
    lines: [[latex(result.statement), ...integralParts(result.told, result.unit, rule)]],
    sentence: sentenceOf(result, rule),
    certainty: integralCertainty(result.told, rule),
  }),

  results: ({ told, unit }) => [{ key: 'area', label: 'area', number: numberOf(told), unit }],

  marks(id, _entry, result, tier) {
    const { curve, interval } = result;
    if (curve.tier !== tier.id) return [];
    const tone = toneOf(curve.order, curve.family);
    return [...between(id, result, tier), baseSpan(id, [interval.from, interval.to], tone, tier)];
  },
};

const nameOf = (curve: CurveResult): string => primed(curve.name, curve.order);

/** Share of the whole below which a part is what rounding leaves at an end. */
const sliver = 1e-9;

/** The stretches on which one curve lies over the other, each with its area. */
function sentenceOf({ told: { parts }, curve, other, unit }: AreaBetweenResult, rule: RoundingRule): string {
  const size = parts.reduce((total, { value }) => total + Math.abs(value), 0);
  const told = parts.filter(({ sign, value }) => Math.abs(sign) === 1 && Math.abs(value) > size * sliver);
  if (told.length === 0) return '';
  const text = (value: number): string => format(knownNumber(value), rule).text;
  const shown = told.slice(0, 4).map(({ from, to, sign, value }) => {
    const [upper, lower] = sign > 0 ? [curve, other] : [other, curve];
    const place = (x: number): string => shortPlace({ value: x, exact: null }, rule);
    return `${nameOf(upper)} lies over ${nameOf(lower)} from ${place(from)} to ${place(to)} (${withUnit(text(Math.abs(value)), unit)})`;
  });
  return `${shown.join('; ')}${told.length > 4 ? '; and so on' : ''}.`;
}

/** Pixels between two points of an outline. */
const sampleGap = 1.5;

/** The area between the curves, hatched one way where the first lies over the second and the other way where not. */
function between(id: string, { curve, other, interval }: AreaBetweenResult, tier: TierView): Mark[] {
  const from = Math.max(interval.from, tier.x.from);
  const to = Math.min(interval.to, tier.x.to);
  const count = Math.ceil(((to - from) * tier.pixelsPerX) / sampleGap);
  if (!(count > 0)) return [];
  const xs = Float64Array.from({ length: count + 1 }, (_, i) => from + ((to - from) * i) / count);
  const [upper, lower] = [curve, other].map((one) => {
    const ys = new Float64Array(xs.length);
    evaluatorFor(one.program).evaluate(xs, ys, one.parameters);
    return ys;
  }) as [Float64Array, Float64Array];
  return ([1, -1] as const).flatMap((sign): Mark[] => {
    const outlines = outlinesBetween(xs, upper, lower, sign, tier);
    if (outlines.length === 0) return [];
    const tone = sign > 0 ? toneOf(curve.order, curve.family) : toneOf(other.order, other.family);
    const hatch = sign > 0 ? 'up' : 'down';
    return [{ kind: 'area', entry: id, outlines, tone, hatch, hasEdges: false, dash: dashes.whole }];
  });
}

function outlinesBetween(
  xs: Float64Array,
  first: Float64Array,
  second: Float64Array,
  sign: 1 | -1,
  tier: TierView,
): Float64Array[] {
  const outlines: Float64Array[] = [];
  let there: number[] = [];
  let back: number[] = [];
  const close = (): void => {
    if (there.length >= 4) {
      const turned: number[] = [];
      for (let i = back.length - 2; i >= 0; i -= 2) turned.push(back[i] as number, back[i + 1] as number);
      outlines.push(Float64Array.from([...there, ...turned]));
    }
    [there, back] = [[], []];
  };
  const limit = (y: number): number =>
    Math.min(
      tier.frame.top + 2 * tier.frame.height,
      Math.max(tier.frame.top - tier.frame.height, tier.toY(y)),
    );
  xs.forEach((x, i) => {
    const [p, q] = [first[i] as number, second[i] as number];
    if (!(sign * (p - q) >= 0)) return close();
    there.push(tier.toX(x), limit(p));
    back.push(tier.toX(x), limit(q));
  });
  close();
  return outlines;
}
