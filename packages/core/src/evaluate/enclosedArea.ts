import { endedEarly, stepsAllowed } from '../budget/thoroughness.ts';
import { enclosedJet } from './enclosedJets.ts';
import * as intervals from '../numbers/interval.ts';
import type { Interval } from '../numbers/interval.ts';
import * as jets from '../numbers/intervalJet.ts';
import type { IntervalJet } from '../numbers/intervalJet.ts';
import type { Program } from './program.ts';

/** A part of the way of an integral with the bounds between which its integral is proved to lie. */
export interface EnclosedPart {
  readonly from: number;
  readonly to: number;
  /** Not sure where the function may jump, or have no value. */
  readonly value: Interval;
  /** Infinite where there are no bounds. */
  readonly width: number;
  /** Whether nothing is gained from halving it: it is as narrow as doubles are, or only rounding is left. */
  readonly isSettled: boolean;
  /** Whether it is rounding that keeps the bounds apart. */
  readonly isRounding: boolean;
}

/** The Taylor coefficients of an integrand over an interval, as many as are asked for. */
export type Integrand = (x: Interval, length: number) => IntervalJet;

/** A function as an integrand. */
export const integrandOf =
  (program: Program): Integrand =>
  (x, length) =>
    enclosedJet(program, jets.variable(x, length));

/**
 * ∫ f from `start` to ±∞ as an integral over s from 0 to 1, where x = start ± (1 − s)/s, which is 1/s − 1 beyond.
 * @param side 1 to ∞, −1 to −∞
 */
export const integrandToInfinity =
  (program: Program, start: number, side: 1 | -1): Integrand =>
  (s, length) => {
    const inverse = jets.reciprocal(jets.variable(s, length));
    const beyond = jets.plus(inverse, -1);
    const x = jets.plus(side > 0 ? beyond : jets.negate(beyond), start);
    return jets.multiply(enclosedJet(program, x), jets.integerPower(inverse, 2));
  };

/** Parts that one integral may be split into. */
const mostParts = 800;
/** The highest derivative that is used. */
const order = 16;
/** Coefficients that tell whether the polynomial is of any use. */
const fewest = 3;
/** Bounds that are so near to each other are as near as doubles without underflow can be. */
const leastWidth = 1e-290;
/** Halvings after which a part without bounds is taken to end at a pole. */
const deepest = 32;

/**
 * The way of an integral in parts, each with proved bounds. On a part the Taylor polynomial at its middle is integrated
 * with its remainder enclosed by interval arithmetic; where the function or a derivative is not shown to be continuous,
 * its range times the width is taken instead. Parts with the widest bounds are halved until the whole is narrow enough.
 * Source: Moore, Methods and Applications of Interval Analysis (1979), chapter 8.
 * @param tolerance the width of the bounds that is asked for, relative to the integral of |f|
 * @param first bounds over the first part, from a up to a number, where f need not have a value at a
 */
export function enclosedParts(
  f: Integrand,
  a: number,
  b: number,
  tolerance = 1e-10,
  first: ((to: number) => Interval | null) | null = null,
): EnclosedPart[] {
  const part = (from: number, to: number): EnclosedPart =>
    first && from === a ? firstPart(first(to), a, to) : partOver(f, from, to, b - a);
  let parts = [part(a, b)];
  for (;;) {
    const size = parts.reduce((total, one) => total + sizeOf(one), 0);
    const open = parts.filter(({ isSettled }) => !isSettled);
    const width = open.reduce((total, one) => total + one.width, 0);
    if (width <= tolerance * Math.max(size, Number.MIN_VALUE)) return parts;
    if (parts.length >= stepsAllowed(mostParts)) {
      endedEarly();
      return parts;
    }
    // All parts of more than their share at once, so that the list is gone through a few times only.
    const share = Math.max(...open.map(({ width: one }) => one)) / 8;
    parts = parts.flatMap((one) => (one.width >= share && !one.isSettled ? halves(one, part) : [one]));
  }
}

/** What ∫ |f| over a part is at least. */
export const sizeOf = ({ value: { low, high } }: EnclosedPart): number => Math.max(0, low, -high);

function halves(
  { from, to }: EnclosedPart,
  part: (from: number, to: number) => EnclosedPart,
): EnclosedPart[] {
  const middle = from + (to - from) / 2;
  return [part(from, middle), part(middle, to)];
}

/** A part that begins where the integrand need not have a value. */
function firstPart(bounds: Interval | null, from: number, to: number): EnclosedPart {
  const value = bounds ?? intervals.everything;
  const width = value.high - value.low;
  const isSettled = to - from < leastWidth || width < leastWidth;
  return { from, to, value, width, isSettled, isRounding: false };
}

function partOver(f: Integrand, from: number, to: number, whole: number): EnclosedPart {
  const middle = from + (to - from) / 2;
  const { value, remainder } = integralOver(f, from, to, middle);
  const known = value.high - value.low;
  const width = Number.isNaN(known) ? Infinity : known;
  const isAtPole = width === Infinity && to - from <= whole * 2 ** -deepest;
  const isNarrow = isAtPole || middle <= from || middle >= to || width < leastWidth;
  const isRounding = width < Infinity && width - remainder > remainder;
  return { from, to, value, width, isSettled: isNarrow || isRounding, isRounding };
}

interface Bounds {
  readonly value: Interval;
  /** What of the width halving makes smaller. */
  readonly remainder: number;
}

/** Σ 2 cₖ(m)·hᵏ⁺¹/(k + 1) over even k, the last with cₖ over the whole part; the best of those of all orders. */
function integralOver(f: Integrand, from: number, to: number, middle: number): Bounds {
  const part = { low: from, high: to, sure: true };
  const look = f(part, fewest);
  const wide = look.known < fewest ? look : f(part, order + 1);
  const width = intervals.subtract(intervals.exactly(to), intervals.exactly(from));
  const range = jets.valuesOf(wide);
  let best = intervals.multiply(range, width);
  let remainder = best.high - best.low;
  // Of even order, so that the last term has one sign.
  const highest = wide.known - 1 - ((wide.known - 1) % 2);
  if (highest < 2 || remainder === 0) return { value: best, remainder };
  const centre = f(intervals.exactly(middle), highest);
  // The middle is rounded: the polynomial serves as far as it reaches on both sides.
  const reach = Math.min(
    intervals.subtract(intervals.exactly(to), intervals.exactly(middle)).low,
    intervals.subtract(intervals.exactly(middle), intervals.exactly(from)).low,
  );
  const half = intervals.exactly(reach);
  const sliver = intervals.multiply(range, intervals.subtract(width, intervals.exactly(2 * reach)));
  let [total, power] = [sliver, half];
  const square = intervals.multiply(half, half);
  for (let k = 0; k <= highest; k += 2) {
    const weight = intervals.divide(
      intervals.multiply(intervals.exactly(2), power),
      intervals.exactly(k + 1),
    );
    const last = intervals.multiply(jets.coefficient(wide, k), weight);
    const fine = intervals.add(total, last);
    if (k > 0 && fine.high - fine.low < best.high - best.low) {
      best = { low: Math.max(best.low, fine.low), high: Math.min(best.high, fine.high), sure: true };
      remainder = last.high - last.low;
    }
    if (k < highest) total = intervals.add(total, intervals.multiply(jets.coefficient(centre, k), weight));
    power = intervals.multiply(power, square);
  }
  return { value: best, remainder };
}

/** The bounds of all parts together, which are sure where the function is shown to be defined on all of them. */
export const togetherOf = (parts: readonly EnclosedPart[]): Interval =>
  parts.reduce((sum, part) => intervals.add(sum, part.value), intervals.exactly(0));

export const isBounded = ({ low, high }: Interval): boolean => Number.isFinite(high - low);

/** Ranges that are looked at to see that an integrand has bounds, and halvings before it is taken to have none. */
const mostLooks = 300;
const mostHalvings = 20;

/** Whether an integrand is shown to have bounds all the way: a pole is seen before any time is spent on the rest. */
function isBoundedBetween(f: Integrand, a: number, b: number): boolean {
  const open = [{ low: a, high: b, halvings: 0 }];
  for (let looks = 0; looks < mostLooks; looks++) {
    const part = open.pop();
    if (!part) return true;
    const { low, high, halvings } = part;
    if (isBounded(jets.valuesOf(f({ low, high, sure: true }, 1)))) continue;
    if (halvings >= mostHalvings) return false;
    const middle = low + (high - low) / 2;
    open.push({ low: middle, high, halvings: halvings + 1 }, { low, high: middle, halvings: halvings + 1 });
  }
  return false;
}

/** The width of the bounds of an integral inside a formula, relative to the integral of |f|. */
const sharp = 1e-14;

/**
 * Bounds of the integral of a program from one place to another, each of which is known to lie between two doubles;
 * null where it has none.
 * @param parameters values in the order of `program.parameters`
 */
export function areaBetween(
  program: Program,
  from: Interval,
  to: Interval,
  parameters: readonly Interval[],
): Interval | null {
  const f: Integrand = (x, length) => enclosedJet(program, jets.variable(x, length), parameters);
  const middleOf = ({ low, high }: Interval): number => low + (high - low) / 2;
  const [a, b] = [middleOf(from), middleOf(to)];
  const [least, most] = [Math.min(a, b), Math.max(a, b)];
  if (!isBoundedBetween(f, least, most)) return null;
  const parts = a === b ? [] : enclosedParts(f, least, most, sharp);
  const between = togetherOf(parts);
  // What lies between an end and the double that stands for it.
  const rest = ([end, at]: readonly [Interval, number]): Interval =>
    end.low === end.high
      ? intervals.exactly(0)
      : intervals.multiply(jets.valuesOf(f(end, 1)), intervals.subtract(end, intervals.exactly(at)));
  const all = [
    a <= b ? between : intervals.negate(between),
    rest([to, b]),
    intervals.negate(rest([from, a])),
  ].reduce(intervals.add);
  return all.sure && isBounded(all) ? all : null;
}
