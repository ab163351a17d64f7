import {
  above,
  below,
  powerAbove,
  powerBelow,
  productAbove,
  productBelow,
  quotientAbove,
  quotientBelow,
  rootAbove,
  rootBelow,
  sumAbove,
  sumBelow,
} from './directed.ts';

/**
 * Interval arithmetic with outward rounding. A result encloses every value that the operation takes
 * for arguments in the given intervals. Method: Moore, Kearfott & Cloud, Introduction to Interval
 * Analysis (2009); the `sure` flag is the `dac`/`trv` decoration of IEEE 1788-2015.
 */
export interface Interval {
  readonly low: number;
  readonly high: number;
  /** Whether the operation is defined and continuous for every argument in the box. */
  readonly sure: boolean;
}

/** Nowhere defined: no value at all. */
export const nothing: Interval = { low: NaN, high: NaN, sure: false };
export const everything: Interval = { low: -Infinity, high: Infinity, sure: false };

export const isNothing = (x: Interval): boolean => Number.isNaN(x.low);

const smallest = 5e-324;
const relative = 2 ** -52;

export function interval(low: number, high: number, sure = true): Interval {
  return Number.isNaN(low) || Number.isNaN(high) ? { ...everything } : { low, high, sure };
}
export const exactly = (x: number): Interval => ({ low: x, high: x, sure: true });
/** Widened by one unit in the last place on both sides. */
export const outward = (low: number, high: number, sure = true): Interval =>
  interval(below(low), above(high), sure);

/**
 * Widened by 4 units in the last place: the elementary functions of the platform stay within 1 ulp
 * in V8's fdlibm port, but the language promises nothing, so the margin is stated and generous.
 */
export function outwardElementary(low: number, high: number, sure = true): Interval {
  return interval(low - elementaryMargin(low), high + elementaryMargin(high), sure);
}

const elementaryMargin = (y: number): number => Math.abs(y) * 4 * relative + smallest;

export function add(a: Interval, b: Interval): Interval {
  if (isNothing(a) || isNothing(b)) return nothing;
  return interval(sumBelow(a.low, b.low), sumAbove(a.high, b.high), a.sure && b.sure);
}

export function subtract(a: Interval, b: Interval): Interval {
  if (isNothing(a) || isNothing(b)) return nothing;
  return interval(sumBelow(a.low, -b.high), sumAbove(a.high, -b.low), a.sure && b.sure);
}

export function negate(a: Interval): Interval {
  return isNothing(a) ? nothing : { low: -a.high, high: -a.low, sure: a.sure };
}

/** The signs of the factors tell which of their ends make the least and the greatest product. */
export function multiply(a: Interval, b: Interval): Interval {
  if (isNothing(a) || isNothing(b)) return nothing;
  const sure = a.sure && b.sure;
  if (b.low >= 0) return timesPositive(a, b, sure);
  if (a.low >= 0) return timesPositive(b, a, sure);
  if (b.high <= 0) return timesNegative(a, b, sure);
  if (a.high <= 0) return timesNegative(b, a, sure);
  return interval(
    Math.min(productBelow(a.low, b.high), productBelow(a.high, b.low)),
    Math.max(productAbove(a.low, b.low), productAbove(a.high, b.high)),
    sure,
  );
}

function timesPositive(a: Interval, b: Interval, sure: boolean): Interval {
  return interval(
    productBelow(a.low, a.low < 0 ? b.high : b.low),
    productAbove(a.high, a.high < 0 ? b.low : b.high),
    sure,
  );
}

function timesNegative(a: Interval, b: Interval, sure: boolean): Interval {
  return interval(
    productBelow(a.high, a.high < 0 ? b.high : b.low),
    productAbove(a.low, a.low < 0 ? b.low : b.high),
    sure,
  );
}

export function reciprocal(b: Interval): Interval {
  if (isNothing(b) || (b.low === 0 && b.high === 0)) return nothing;
  if (b.low > 0 || b.high < 0) return divide(exactly(1), b);
  if (b.low === 0) return interval(below(1 / b.high), Infinity, false);
  if (b.high === 0) return interval(-Infinity, above(1 / b.low), false);
  return everything;
}

export function divide(a: Interval, b: Interval): Interval {
  if (isNothing(a) || isNothing(b)) return nothing;
  const sure = a.sure && b.sure;
  if (b.low > 0) return overPositive(a, b, sure);
  if (b.high < 0) return overPositive(negate(a), negate(b), sure);
  return multiply(a, reciprocal(b));
}

/** Where b is above 0; its larger end makes the quotient smaller in size. */
function overPositive(a: Interval, b: Interval, sure: boolean): Interval {
  return interval(
    quotientBelow(a.low, a.low < 0 ? b.low : b.high),
    quotientAbove(a.high, a.high < 0 ? b.high : b.low),
    sure,
  );
}

/** xⁿ for a whole number n. */
export function integerPower(x: Interval, n: number): Interval {
  if (isNothing(x)) return nothing;
  if (n < 0) return reciprocal(integerPower(x, -n));
  if (n === 0) return { low: 1, high: 1, sure: x.sure };
  const widest = Math.max(Math.abs(x.low), Math.abs(x.high));
  if (n % 2 === 1) return interval(powerBelow(x.low, n), powerAbove(x.high, n), x.sure);
  if (x.low >= 0) return floorAtZero(interval(powerBelow(x.low, n), powerAbove(x.high, n), x.sure));
  if (x.high <= 0) return floorAtZero(interval(powerBelow(x.high, n), powerAbove(x.low, n), x.sure));
  return { low: 0, high: powerAbove(widest, n), sure: x.sure };
}

const floorAtZero = (x: Interval): Interval => ({ low: Math.max(0, x.low), high: x.high, sure: x.sure });

/** The part of x inside [low, high], as the argument of a function defined only there. */
export function within(x: Interval, low: number, high: number): Interval {
  if (isNothing(x) || x.high < low || x.low > high) return nothing;
  const inside = x.low >= low && x.high <= high;
  return { low: Math.max(x.low, low), high: Math.min(x.high, high), sure: x.sure && inside };
}

/** The range of a function that only rises (or only falls) on its domain. */
export function monotone(f: (x: number) => number, x: Interval, falling = false): Interval {
  if (isNothing(x)) return nothing;
  const at = falling ? { low: x.high, high: x.low } : x;
  const [low, high] = [f(at.low), f(at.high)];
  return interval(
    isExactAt(at.low, low, falling) ? low : lowered(low, at.low),
    isExactAt(at.high, high, falling) ? high : -lowered(-high, at.high),
    x.sure,
  );
}

/** A bound below a value that was found to be y at x; one that overflowed is no less than the greatest double. */
const lowered = (y: number, x: number): number =>
  y === Infinity ? (Number.isFinite(x) ? Number.MAX_VALUE : y) : y - elementaryMargin(y);

/** Rising elementary functions have a whole value at 0, and every one whose value at 1 is 0 has it exactly. */
const isExactAt = (x: number, y: number, falling: boolean): boolean =>
  (x === 0 && !falling) || (x === 1 && y === 0);

export function exp(x: Interval): Interval {
  return isNothing(x) ? nothing : floorAtZero(monotone(Math.exp, x));
}

export function ln(x: Interval): Interval {
  const positive = within(x, 0, Infinity);
  if (isNothing(positive) || positive.high === 0) return nothing;
  const result = monotone(Math.log, positive);
  return x.low > 0 ? result : { ...result, sure: false };
}

/** base^exponent for a positive base, through exp and ln. */
export function generalPower(base: Interval, exponent: Interval): Interval {
  if (exponent.low === exponent.high && Number.isInteger(exponent.low) && Math.abs(exponent.low) < 1e6) {
    return integerPower(base, exponent.low);
  }
  if (isNothing(base) || isNothing(exponent)) return nothing;
  const positive = exp(multiply(exponent, ln(base)));
  if (base.low > 0) return positive;
  const hasWhole = Math.floor(exponent.high) >= exponent.low;
  if (base.high < 0 && !hasWhole) return nothing;
  // A base of 0 or a negative base with a whole exponent inside the interval has values too.
  const magnitude = Math.max(Math.abs(base.low), Math.abs(base.high));
  const bound = Math.max(magnitude ** exponent.high, magnitude ** exponent.low, 1);
  return {
    low: base.low < 0 ? -above(bound) : 0,
    high: exponent.low < 0 ? Infinity : above(bound),
    sure: false,
  };
}

/** The real x^(p/q) with p/q in lowest terms: for odd q defined for negative x too. */
export function rationalPower(x: Interval, p: number, q: number): Interval {
  if (p < 0) return reciprocal(rationalPower(x, -p, q));
  const root = q % 2 === 0 ? evenRoot(within(x, 0, Infinity), q) : oddRoot(x, q);
  const rooted = q % 2 === 0 && !isNothing(root) ? floorAtZero(root) : root;
  return p === 1 ? rooted : integerPower(rooted, p);
}

function evenRoot(x: Interval, q: number): Interval {
  if (isNothing(x) || q !== 2) return monotone((v) => v ** (1 / q), x);
  return interval(rootBelow(x.low), rootAbove(x.high), x.sure);
}

function oddRoot(x: Interval, q: number): Interval {
  if (q === 3) return monotone(Math.cbrt, x);
  return monotone((v) => Math.sign(v) * Math.abs(v) ** (1 / q), x);
}

/**
 * sin or cos over an interval. It turns at (k + shift)·π, upwards turned for even k; whether such a place lies
 * inside is decided with a margin on the safe side.
 */
function wave(f: (x: number) => number, shift: number, x: Interval): Interval {
  if (isNothing(x)) return nothing;
  if (!Number.isFinite(x.low) || !Number.isFinite(x.high) || x.high - x.low >= 6.28) {
    return { low: -1, high: 1, sure: x.sure && Number.isFinite(x.low) && Number.isFinite(x.high) };
  }
  if (x.low === 0 && x.high === 0) return { low: f(0), high: f(0), sure: x.sure };
  const margin = Math.max(Math.abs(x.low), Math.abs(x.high)) * 1e-15;
  const first = Math.ceil((x.low - margin) / Math.PI - shift - 1e-15);
  const last = Math.floor((x.high + margin) / Math.PI - shift + 1e-15);
  const ends = [x.low, x.high].map((end) => exactlyAtZero(f, end));
  return {
    low: containsParity(first, last, 1) ? -1 : Math.max(-1, Math.min(...ends.map((end) => end.low))),
    high: containsParity(first, last, 0) ? 1 : Math.min(1, Math.max(...ends.map((end) => end.high))),
    sure: x.sure,
  };
}

function exactlyAtZero(f: (x: number) => number, x: number): Interval {
  const y = f(x);
  return x === 0 ? exactly(y) : outwardElementary(y, y);
}

function containsParity(first: number, last: number, parity: 0 | 1): boolean {
  if (last < first) return false;
  return last > first || Math.abs(first % 2) === parity;
}

export const cos = (x: Interval): Interval => wave(Math.cos, 0, x);
export const sin = (x: Interval): Interval => wave(Math.sin, 0.5, x);

export function absolute(x: Interval): Interval {
  if (isNothing(x) || x.low >= 0) return x;
  if (x.high <= 0) return negate(x);
  return { low: 0, high: Math.max(-x.low, x.high), sure: x.sure };
}

/** A function constant between jumps, such as floor or sign. */
export function stepwise(f: (x: number) => number, x: Interval): Interval {
  if (isNothing(x)) return nothing;
  const low = f(x.low);
  const high = f(x.high);
  return { low, high, sure: x.sure && low === high };
}
