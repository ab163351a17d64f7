import {
  exactValue,
  knownNumber,
  latexFunction,
  latexName,
  literal,
  printLatex,
  rational,
  type KnownNumber,
  type Rational,
  type ToldIntegral,
} from '@yperkine/core';
import { exactText } from '../numbers/exactText.ts';
import { format, type RoundingRule } from '../numbers/format.ts';
import { equalsResult, unitPart, type Line } from '../numbers/line.ts';
import { tooFewDigits } from './tooFewDigits.ts';
import { curveMark } from './curveMark.ts';
import type { Hatch, Mark } from '../marks/mark.ts';
import { partOfRuns } from './partOfCurve.ts';
import { dashes, type Tone } from '../fields/tone.ts';
import type { TierView } from '../marks/view.ts';
import type { Id } from '../fields/fields.ts';
import { times, type Unit } from '../units/unit.ts';
import { asWritten, infiniteEnd, type TypedInterval } from './asking.ts';
import type { CurveResult } from './curve.ts';
import { readFormula } from './formulaValue.ts';
import type { WorkContext } from './kind.ts';
import { failed, type Outcome } from './outcome.ts';

/** The unit of an area under a curve: that of its heights times that along the axis. */
export const areaUnit = (curve: CurveResult, xUnit: Unit): Unit => times(curve.unit, xUnit);

/** An integral as a number that can be rounded, opened and named. */
export const numberOf = ({ value, exact }: ToldIntegral): KnownNumber =>
  knownNumber(value, exact && exactValue(exact, new Map()));

/** A total minus an integral, exactly where both are. */
export function errorOf(total: KnownNumber, integral: ToldIntegral): KnownNumber {
  const truth = numberOf(integral);
  const exact = total.exact && truth.exact && rational.subtract(total.exact, truth.exact);
  return knownNumber(exact ? rational.toNumber(exact) : total.value - truth.value, exact);
}

/** `= 64/3 ≈ 21.333 m³`, as the end of a statement. */
export const integralParts = (told: ToldIntegral, unit: Unit, rule: RoundingRule): Line => [
  ...equalsResult(numberOf(told), rule, told.exact && exactText(told.exact), told.bounds),
  ...unitPart(unit),
];

/** 32/3, for a rational number that no decimal shows; null for any other. */
export function fractionText(exact: Rational | null): string | null {
  if (!exact) return null;
  return exact.denominator === 1n ? null : exactText(literal(exact));
}

/** A typed bound as LaTeX. */
export function boundLatex(text: string, context: WorkContext): string {
  const infinite = infiniteEnd(text);
  if (infinite !== null) return infinite > 0 ? '\\infty' : '-\\infty';
  const reading = readFormula(text, context.directory);
  return reading.ok ? printLatex(reading.value) : text;
}

/** f(x), as LaTeX. */
export const curveLatex = ({ name, order, variable }: CurveResult): string =>
  `${latexFunction(name, order)}(${latexName(variable)})`;

/** ∫ from a to b of an integrand in x, as LaTeX: f(x), unless another is given. */
export function integralLatex(
  curve: CurveResult,
  { texts }: TypedInterval,
  context: WorkContext,
  integrand = curveLatex(curve),
): string {
  const [a, b] = [boundLatex(texts.from, context), boundLatex(texts.to, context)];
  return `\\int_{${a}}^{${b}} ${integrand}\\,d${latexName(curve.variable)}`;
}

/** How sure an integral is, in a word. */
export function integralCertainty({ certainty, bound }: ToldIntegral, rule: RoundingRule) {
  if (certainty === 'exact') return { text: 'exact', isProved: true };
  const isToAllDecimals = bound < 0.5 * 10 ** -rule.decimals;
  if (certainty === 'proved') {
    const places = isToAllDecimals ? ` to ${rule.decimals} decimals` : '';
    return { text: `proved${places}`, isProved: true };
  }
  const size = isToAllDecimals
    ? ''
    : `, it may be off by ${format(knownNumber(bound), { ...rule, decimals: 1 }).text}`;
  return { text: `estimated${size}`, isProved: false };
}

/** Whether an integral has no value that could be told. */
export const isMissing = ({ value, diverges, undefinedOn }: ToldIntegral): boolean =>
  undefinedOn.length > 0 || diverges || Number.isNaN(value);

/** What is wrong with an integral that has no value, in one sentence. */
export function whyMissing(
  { diverges, undefinedOn, bounds }: ToldIntegral,
  name: string,
  rule: RoundingRule,
): string {
  const [gap] = undefinedOn;
  const text = (x: number): string => format(knownNumber(x), rule).text;
  if (gap)
    return `${name} has no value from ${text(gap.low)} to ${text(gap.high)}, so there is no area over this interval.`;
  if (diverges) return `This integral diverges: the area under ${name} has no finite value.`;
  return tooFewDigits(bounds, rule);
}

/** That an integral has no value, as the problem of its study; null where it has one. */
export const missingIntegral = (
  told: ToldIntegral,
  name: string,
  context: WorkContext,
): Outcome<never> | null => (isMissing(told) ? failed(whyMissing(told, name, context.rule())) : null);

/** [0, 8] or [1, ∞), for headings. */
export function bracketed({ from, to }: TypedInterval['texts']): string {
  const [open, close] = [infiniteEnd(from) === null ? '[' : '(', infiniteEnd(to) === null ? ']' : ')'];
  return `${open}${asWritten(from)}, ${asWritten(to)}${close}`;
}

/** The base line of areas in pixels, never outside what can be drawn. */
export function baseOf(tier: TierView): number {
  const { top, height } = tier.frame;
  return Math.min(Math.max(tier.toY(0), top - height), top + 2 * height);
}

/** How areas over and under the axis look. */
export const sides: readonly { readonly sign: 1 | -1; readonly hatch: Hatch }[] = [
  { sign: 1, hatch: 'up' },
  { sign: -1, hatch: 'down' },
];
export const toneOfSide = (sign: 1 | -1, tone: Tone): Tone => (sign > 0 ? tone : 'minus');
export const dashOfSide = (sign: 1 | -1): readonly number[] => (sign > 0 ? dashes.whole : [4, 3]);

/** The areas between a curve and the axis over an interval, one mark a side. */
export function areaMarks(
  id: Id,
  curve: CurveResult,
  [a, b]: readonly [number, number],
  tone: Tone,
  tier: TierView,
): Mark[] {
  const runs = partOfRuns(curveMark(id, curve, tier).runs, tier.toX(a), tier.toX(b));
  const base = baseOf(tier);
  return sides.flatMap(({ sign, hatch }): Mark[] => {
    const outlines = runs.flatMap((run) => outlinesOn(run, base, sign));
    if (outlines.length === 0) return [];
    const look = { tone: toneOfSide(sign, tone), hatch, hasEdges: false, dash: dashes.whole };
    return [{ kind: 'area', entry: id, outlines, ...look }];
  });
}

/** The parts of a run on one side of a base line (1 is above it), each closed along that line. */
export function outlinesOn(run: Float64Array, base: number, sign: 1 | -1): Float64Array[] {
  const outlines: Float64Array[] = [];
  let open: number[] = [];
  const close = (x: number): void => {
    if (open.length > 4) outlines.push(Float64Array.from([...open, x, base]));
    open = [];
  };
  for (let i = 0; i + 1 < run.length; i += 2) {
    const [x, y] = [run[i] as number, run[i + 1] as number];
    const isOn = sign * (base - y) > 0;
    if (i > 0) {
      const [x0, y0] = [run[i - 2] as number, run[i - 1] as number];
      const wasOn = sign * (base - y0) > 0;
      const crossing = x0 + ((x - x0) * (base - y0)) / (y - y0);
      if (isOn && !wasOn) open = [crossing, base];
      if (!isOn && wasOn) close(crossing);
    } else if (isOn) open = [x, base];
    if (isOn) open.push(x, y);
  }
  close(run[run.length - 2] as number);
  return outlines;
}

/** Pixels beyond the frame at which the end of an interval lies that has none. */
const beyond = 40;

/** The interval of a study along the base line, with its two grips. */
export function baseSpan(id: Id, [a, b]: readonly [number, number], tone: Tone, tier: TierView): Mark {
  const { left, top, width, height } = tier.frame;
  return {
    kind: 'span',
    entry: id,
    x0: a === -Infinity ? left - beyond : tier.toX(a),
    x1: b === Infinity ? left + width + beyond : tier.toX(b),
    y: Math.min(Math.max(tier.toY(0), top), top + height),
    tone,
  };
}
