import { sumAbove, sumBelow } from './directed.ts';
import * as intervals from './interval.ts';
import type { Interval } from './interval.ts';

/**
 * Taylor coefficients c₀, c₁, … as intervals: over a part of the axis, cₖ holds f⁽ᵏ⁾(x)/k! of every x in it. They are kept
 * as two arrays, since there are many of them; the values themselves, c₀, are worked out as intervals are.
 * Method: Moore, Kearfott & Cloud, Introduction to Interval Analysis (2009), section 9.3; the recurrences are those of
 * Griewank & Walther, Evaluating Derivatives (2nd ed. 2008), chapter 13.
 */
export interface IntervalJet {
  readonly low: Float64Array;
  readonly high: Float64Array;
  /** How many of the first coefficients are sure: that derivative exists, and is continuous, on the whole part. */
  readonly known: number;
}

export const lengthOf = ({ low }: IntervalJet): number => low.length;

export const coefficient = ({ low, high, known }: IntervalJet, k: number): Interval => ({
  low: low[k] as number,
  high: high[k] as number,
  sure: k < known,
});

/** The enclosure of the values themselves. */
export const valuesOf = (u: IntervalJet): Interval => coefficient(u, 0);

/** A jet that is filled in from the first coefficient on. */
class Growing implements IntervalJet {
  readonly low: Float64Array;
  readonly high: Float64Array;

  constructor(
    length: number,
    /** How many coefficients may be sure, as far as it is known. */
    public known: number,
  ) {
    this.low = new Float64Array(length);
    this.high = new Float64Array(length);
  }

  put(k: number, low: number, high: number): void {
    const isBounded = low > -Infinity && high < Infinity;
    this.low[k] = isBounded || k === 0 ? low : -Infinity;
    this.high[k] = isBounded || k === 0 ? high : Infinity;
    if (!isBounded && k > 0) this.known = Math.min(this.known, k);
  }

  putValues({ low, high, sure }: Interval): void {
    this.put(0, low, high);
    if (!sure) this.known = 0;
  }

  putInterval(k: number, { low, high }: Interval): void {
    this.put(k, low, high);
  }
}

/** A jet of such values, with nothing known yet of its derivatives. */
function growing(values: Interval, length: number, known = length): Growing {
  const jet = new Growing(length, known);
  jet.putValues(values);
  return jet;
}

export const constant = (value: Interval, length: number): IntervalJet => growing(value, length);

/** The identity over an interval. */
export function variable(x: Interval, length: number): IntervalJet {
  const jet = growing(x, length);
  if (length > 1) jet.put(1, 1, 1);
  return jet;
}

/** A value of which no derivative is known. */
export function rough(value: Interval, length: number): IntervalJet {
  const jet = growing(value, length);
  for (let k = 1; k < length; k++) jet.put(k, -Infinity, Infinity);
  return jet;
}

/** Whether all coefficients but the first are 0. */
export const standsStill = ({ low, high }: IntervalJet): boolean =>
  low.every((c, k) => k === 0 || (c === 0 && high[k] === 0));

/** The same jet with another enclosure of its values. */
export function withValues({ low, high, known }: IntervalJet, values: Interval): IntervalJet {
  const jet = { low: low.slice(), high: high.slice(), known: values.sure ? Math.max(1, known) : 0 };
  jet.low[0] = values.low;
  jet.high[0] = values.high;
  return jet;
}

/** The first coefficients, one fewer. */
const shortened = ({ low, high, known }: IntervalJet): IntervalJet => ({
  low: low.subarray(0, -1),
  high: high.subarray(0, -1),
  known: Math.min(known, low.length - 1),
});

/** The same jet to another length, no longer than it is. */
export const cut = ({ low, high, known }: IntervalJet, length: number): IntervalJet => ({
  low: low.subarray(0, length),
  high: high.subarray(0, length),
  known: Math.min(known, length),
});

/** The coefficients from one on. */
export const withoutFirst = ({ low, high, known }: IntervalJet, count: number): IntervalJet => ({
  low: low.subarray(count),
  high: high.subarray(count),
  known: Math.max(0, known - count),
});

export const negate = ({ low, high, known }: IntervalJet): IntervalJet => ({
  low: high.map((c) => -c),
  high: low.map((c) => -c),
  known,
});

export function add(u: IntervalJet, v: IntervalJet): IntervalJet {
  const w = growing(intervals.add(valuesOf(u), valuesOf(v)), lengthOf(u), Math.min(u.known, v.known));
  for (let k = 1; k < lengthOf(u); k++)
    w.put(
      k,
      sumBelow(u.low[k] as number, v.low[k] as number),
      sumAbove(u.high[k] as number, v.high[k] as number),
    );
  return w;
}

export const subtract = (u: IntervalJet, v: IntervalJet): IntervalJet => add(u, negate(v));

export function scale(u: IntervalJet, factor: Interval): IntervalJet {
  const w = growing(intervals.multiply(valuesOf(u), factor), lengthOf(u), u.known);
  for (let k = 1; k < lengthOf(u); k++) w.putInterval(k, intervals.multiply(coefficient(u, k), factor));
  return w;
}

export const plus = (u: IntervalJet, n: number): IntervalJet =>
  withValues(u, intervals.add(valuesOf(u), intervals.exactly(n)));

/** Half a unit in the last place, relative; and what underflow may lose. */
const unit = 2 ** -53;
const smallest = 5e-324;

/** The sum that a convolution comes to, in place of an object for each. */
const convolution = { low: 0, high: 0 };

/**
 * Σ weight(j)·uⱼ·vₖ₋ⱼ for j from `first` to `last`, into `convolution`. The sums are rounded to nearest, and widened in
 * the end by what that may have lost. Source: Higham, Accuracy and Stability of Numerical Algorithms (2nd ed. 2002),
 * section 3.1: m + 4 roundings a term, of terms whose sizes add up to A.
 */
function convolve(
  u: IntervalJet,
  v: IntervalJet,
  k: number,
  first: number,
  last: number,
  weights: Float64Array | null,
): void {
  let [low, high, size, terms, heaviest] = [0, 0, 0, 0, 1];
  for (let j = first; j <= last; j++) {
    const [a, b] = [u.low[j] as number, u.high[j] as number];
    const [c, d] = [v.low[k - j] as number, v.high[k - j] as number];
    if ((a === 0 && b === 0) || (c === 0 && d === 0)) continue;
    const weight = weights ? (weights[j] as number) : 1;
    const [p, q, r, s] = [a * c * weight, a * d * weight, b * c * weight, b * d * weight];
    const least = Math.min(p, q, r, s);
    const most = Math.max(p, q, r, s);
    low += least;
    high += most;
    size += Math.max(-least, most);
    heaviest = Math.max(heaviest, Math.abs(weight));
    terms++;
  }
  if (terms === 0) {
    convolution.low = convolution.high = 0;
    return;
  }
  const lost = size * (terms + 8) * unit + (heaviest + 1) * terms * smallest;
  // Where a term was beyond all bounds nothing is known.
  const isBounded = lost < Infinity;
  convolution.low = isBounded ? low - lost : -Infinity;
  convolution.high = isBounded ? high + lost : Infinity;
}

const convolved = (): Interval => ({ low: convolution.low, high: convolution.high, sure: true });

export function multiply(u: IntervalJet, v: IntervalJet): IntervalJet {
  const w = growing(intervals.multiply(valuesOf(u), valuesOf(v)), lengthOf(u), Math.min(u.known, v.known));
  for (let k = 1; k < lengthOf(u); k++) {
    convolve(u, v, k, 0, k, null);
    w.put(k, convolution.low, convolution.high);
  }
  return w;
}

export function divide(u: IntervalJet, v: IntervalJet): IntervalJet {
  const below = valuesOf(v);
  const w = growing(intervals.divide(valuesOf(u), below), lengthOf(u), Math.min(u.known, v.known));
  for (let k = 1; k < lengthOf(u); k++) {
    convolve(v, w, k, 1, k, null);
    w.putInterval(k, intervals.divide(intervals.subtract(coefficient(u, k), convolved()), below));
  }
  return w;
}

export const reciprocal = (u: IntervalJet): IntervalJet =>
  divide(constant(intervals.exactly(1), lengthOf(u)), u);

/** 0, 1, 2, … */
const indices = Float64Array.from({ length: 64 }, (_, j) => j);

const over = (a: Interval, n: number): Interval => (n === 1 ? a : intervals.divide(a, intervals.exactly(n)));

/**
 * A function along u, from its slope and its values.
 * @param slope the slope of the function, along what is given to it
 */
export function along(
  u: IntervalJet,
  slope: (u: IntervalJet) => IntervalJet,
  values: (x: Interval) => Interval,
): IntervalJet {
  const length = lengthOf(u);
  const w = growing(values(valuesOf(u)), length, u.known);
  if (length === 1) return w;
  const rise = slope(shortened(u));
  w.known = Math.min(w.known, rise.known + 1);
  for (let k = 1; k < length; k++) {
    // k·wₖ = Σ j·uⱼ·slopeₖ₋ⱼ
    convolve(u, rise, k, 1, k, indices);
    w.putInterval(k, over(convolved(), k));
  }
  return w;
}

export function exp(u: IntervalJet): IntervalJet {
  const w = growing(intervals.exp(valuesOf(u)), lengthOf(u), u.known);
  for (let k = 1; k < lengthOf(u); k++) {
    convolve(u, w, k, 1, k, indices);
    w.putInterval(k, over(convolved(), k));
  }
  return w;
}

export function ln(u: IntervalJet): IntervalJet {
  const w = growing(intervals.ln(valuesOf(u)), lengthOf(u), u.known);
  for (let k = 1; k < lengthOf(u); k++) {
    convolve(w, u, k, 1, k - 1, indices);
    const rest = intervals.subtract(coefficient(u, k), over(convolved(), k));
    w.putInterval(k, intervals.divide(rest, valuesOf(u)));
  }
  return w;
}

/** Two functions each the other's slope along u, the second with a sign: sine and cosine, sinh and cosh. */
function pair(
  u: IntervalJet,
  values: readonly [Interval, Interval],
  sign: 1 | -1,
): [IntervalJet, IntervalJet] {
  const s = growing(values[0], lengthOf(u), u.known);
  const c = growing(values[1], lengthOf(u), u.known);
  for (let k = 1; k < lengthOf(u); k++) {
    convolve(u, c, k, 1, k, indices);
    s.putInterval(k, over(convolved(), k));
    convolve(u, s, k, 1, k, indices);
    const other = over(convolved(), k);
    c.putInterval(k, sign < 0 ? intervals.negate(other) : other);
  }
  return [s, c];
}

export const sinCos = (u: IntervalJet): [IntervalJet, IntervalJet] =>
  pair(u, [intervals.sin(valuesOf(u)), intervals.cos(valuesOf(u))], -1);

export const sinhCosh = (u: IntervalJet): [IntervalJet, IntervalJet] => {
  const x = valuesOf(u);
  const values = [
    intervals.monotone(Math.sinh, x),
    intervals.monotone(Math.cosh, intervals.absolute(x)),
  ] as const;
  return pair(u, values, 1);
};

/** uⁿ for a whole number n. */
export function integerPower(u: IntervalJet, n: number): IntervalJet {
  if (n < 0) return reciprocal(integerPower(u, -n));
  if (n === 1) return u;
  let result = constant(intervals.integerPower(valuesOf(u), 0), lengthOf(u));
  let square = u;
  let [done, reached] = [0, 1];
  for (let rest = n; rest > 0; rest = Math.floor(rest / 2)) {
    if (rest % 2 === 1) {
      const product = done === 0 ? square : multiply(result, square);
      done += reached;
      result = withValues(product, intervals.integerPower(valuesOf(u), done));
    }
    reached *= 2;
    if (rest > 1) square = withValues(multiply(square, square), intervals.integerPower(valuesOf(u), reached));
  }
  return result;
}

/** u^(p/q), p/q in lowest terms; without derivatives where u may be 0. */
export function rationalPower(u: IntervalJet, p: number, q: number): IntervalJet {
  const length = lengthOf(u);
  const w = growing(intervals.rationalPower(valuesOf(u), p, q), length, u.known);
  const weights = new Float64Array(length);
  for (let k = 1; k < length; k++) {
    for (let j = 1; j <= k; j++) weights[j] = (p * j - q * (k - j)) / q;
    convolve(u, w, k, 1, k, weights);
    if (convolution.low === 0 && convolution.high === 0) continue;
    w.putInterval(k, intervals.divide(over(convolved(), k), valuesOf(u)));
  }
  return w;
}

/** A function that is constant between jumps. */
export function stepwise(f: (x: number) => number, u: IntervalJet): IntervalJet {
  const values = intervals.stepwise(f, valuesOf(u));
  return values.sure ? constant(values, lengthOf(u)) : rough(values, lengthOf(u));
}

/** The larger of two (sign 1) or the smaller one. */
export function either(
  u: IntervalJet,
  v: IntervalJet,
  sign: 1 | -1,
  values: (x: Interval, y: Interval) => Interval,
): IntervalJet {
  const gap = intervals.subtract(valuesOf(u), valuesOf(v));
  if (sign * gap.low >= 0 && sign * gap.high >= 0) return u;
  if (sign * gap.low <= 0 && sign * gap.high <= 0) return v;
  return rough(values(valuesOf(u), valuesOf(v)), lengthOf(u));
}
