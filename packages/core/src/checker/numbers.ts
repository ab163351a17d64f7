/**
 * Numbers m·2^e with m a whole number, and intervals of them whose ends are rounded outwards. This arithmetic belongs to
 * the checker alone: what the search proves is looked at again by other means (directed rounding after Moore, Interval
 * Analysis, 1966).
 */

export interface Float {
  readonly m: bigint;
  /** ±Infinity where the number is infinite; its sign is that of m. */
  readonly e: number;
}

/** All x with low ≤ x ≤ high. */
export interface Range {
  readonly low: Float;
  readonly high: Float;
}

/** Binary digits that are kept: three times those of a double. */
const precision = 160;
const largest = 1n << BigInt(precision);

export const zero: Float = { m: 0n, e: 0 };
const infinite = (sign: 1 | -1): Float => ({ m: BigInt(sign), e: Infinity });
const isInfinite = (x: Float): boolean => x.e === Infinity;

/** How many binary digits a whole number has, up to one less or three more. */
export function bitsOf(m: bigint): number {
  const size = Math.abs(Number(m));
  return size < Infinity ? Math.ceil(Math.log2(size + 1)) : m.toString(16).length * 4;
}
/** What two such counts differ by at least where one of the numbers is larger. */
const certainly = 6;

/** Rounded to the digits that are kept, down (−1) or up (1). */
function rounded(m: bigint, e: number, way: 1 | -1): Float {
  if (-largest < m && m < largest) return { m, e };
  const excess = bitsOf(m) - precision;
  if (excess <= 0) return { m, e };
  const digits = BigInt(excess);
  return { m: way < 0 ? m >> digits : -(-m >> digits), e: e + excess };
}

/** All from (m − slack)·2^e to (m + slack)·2^e. */
export const around = (m: bigint, slack: bigint, e: number): Range => ({
  low: rounded(m - slack, e, -1),
  high: rounded(m + slack, e, 1),
});

export const signOf = ({ m }: Float): -1 | 0 | 1 => (m > 0n ? 1 : m < 0n ? -1 : 0);

export const opposite = ({ m, e }: Float): Float => ({ m: -m, e });

function plus(a: Float, b: Float, way: 1 | -1): Float {
  if (isInfinite(a)) return isInfinite(b) && a.m !== b.m ? infinite(way) : a;
  if (isInfinite(b) || a.m === 0n) return b;
  if (b.m === 0n) return a;
  const [low, high] = a.e < b.e ? [a, b] : [b, a];
  const gap = high.e - low.e;
  if (gap > 4 * precision + bitsOf(low.m)) {
    // Too small to be seen beside the other, but for the way of rounding.
    const shifted = high.m << BigInt(2 * precision);
    return rounded(shifted + BigInt(signOf(low)), high.e - 2 * precision, way);
  }
  return rounded(low.m + (high.m << BigInt(gap)), low.e, way);
}

function times(a: Float, b: Float, way: 1 | -1): Float {
  // An end that is infinite stands for all large numbers, none of which is anything but 0 times 0.
  if (a.m === 0n || b.m === 0n) return zero;
  if (isInfinite(a) || isInfinite(b)) return infinite(a.m > 0n === b.m > 0n ? 1 : -1);
  return rounded(a.m * b.m, a.e + b.e, way);
}

function over(a: Float, b: Float, way: 1 | -1): Float {
  if (a.m === 0n || isInfinite(b)) return zero;
  if (isInfinite(a)) return infinite(a.m > 0n === b.m > 0n ? 1 : -1);
  const shift = precision + Math.max(0, bitsOf(b.m) - bitsOf(a.m)) + 8;
  const [top, bottom] = b.m < 0n ? [-a.m, -b.m] : [a.m, b.m];
  const scaled = top << BigInt(shift);
  let quotient = scaled / bottom;
  const isExact = quotient * bottom === scaled;
  if (!isExact && scaled < 0n) quotient -= 1n;
  // Now rounded down.
  return rounded(way < 0 || isExact ? quotient : quotient + 1n, a.e - b.e - shift, way);
}

/** −1, 0 or 1 as a is smaller than, the same as or larger than b. */
export function compare(a: Float, b: Float): -1 | 0 | 1 {
  if (a === b) return 0;
  const sign = signOf(a);
  if (sign !== signOf(b)) return sign > signOf(b) ? 1 : -1;
  if (sign === 0 || (isInfinite(a) && isInfinite(b))) return 0;
  if (isInfinite(a) || isInfinite(b)) return isInfinite(a) === sign > 0 ? 1 : -1;
  if (a.e === b.e) return orderOf(a.m, b.m);
  const difference = a.e + bitsOf(a.m) - b.e - bitsOf(b.m);
  if (Math.abs(difference) > certainly) return difference > 0 === sign > 0 ? 1 : -1;
  const least = Math.min(a.e, b.e);
  return orderOf(a.m << BigInt(a.e - least), b.m << BigInt(b.e - least));
}

const orderOf = (a: bigint, b: bigint): -1 | 0 | 1 => (a < b ? -1 : a > b ? 1 : 0);

const least = (a: Float, b: Float): Float => (compare(a, b) <= 0 ? a : b);
const most = (a: Float, b: Float): Float => (compare(a, b) >= 0 ? a : b);

/** The double itself, with no rounding. @throws RangeError for NaN */
export function fromDouble(x: number): Float {
  if (Number.isNaN(x)) throw new RangeError('not a number');
  if (!Number.isFinite(x)) return infinite(x > 0 ? 1 : -1);
  let [m, e] = [x, 0];
  while (!Number.isInteger(m)) {
    m *= 2 ** 30;
    e -= 30;
  }
  return { m: BigInt(m), e };
}

/** The nearest double, for showing. */
export function toDouble({ m, e }: Float): number {
  if (e === Infinity) return Number(m) * Infinity;
  const excess = Math.max(0, bitsOf(m) - 64);
  return Number(m >> BigInt(excess)) * 2 ** (e + excess);
}

export const point = (x: Float): Range => ({ low: x, high: x });
export const whole = (n: number | bigint): Range => point({ m: BigInt(n), e: 0 });
export const between = (low: number, high: number): Range => ({
  low: fromDouble(low),
  high: fromDouble(high),
});
export const everything: Range = { low: infinite(-1), high: infinite(1) };

/** Whether a range tells nothing of a number, not even that it is one. */
export const isNothing = ({ low, high }: Range): boolean =>
  low.e === Infinity && high.e === Infinity && low.m < 0n && high.m > 0n;

export const add = (x: Range, y: Range): Range => ({
  low: plus(x.low, y.low, -1),
  high: plus(x.high, y.high, 1),
});
export const negate = ({ low, high }: Range): Range => ({ low: opposite(high), high: opposite(low) });
export const subtract = (x: Range, y: Range): Range => add(x, negate(y));

/** Whether it lies below 0, which it may touch. */
const isTurned = ({ low, high }: Range): boolean => high.m <= 0n && low.m < 0n;

/** By the signs of the ends, so that two products are enough but where 0 lies inside both. */
export function multiply(x: Range, y: Range): Range {
  if (isTurned(x)) return negate(multiply(negate(x), y));
  if (isTurned(y)) return negate(multiply(x, negate(y)));
  if (x.low.m >= 0n) {
    return {
      low: times(y.low.m >= 0n ? x.low : x.high, y.low, -1),
      high: times(x.high, y.high, 1),
    };
  }
  if (y.low.m >= 0n) return { low: times(x.low, y.high, -1), high: times(x.high, y.high, 1) };
  return {
    low: least(times(x.low, y.high, -1), times(x.high, y.low, -1)),
    high: most(times(x.low, y.low, 1), times(x.high, y.high, 1)),
  };
}

/** 1/x; where 0 is an end of x, everything on its side, and everything where it lies inside. */
export function reciprocal({ low, high }: Range): Range {
  const [a, b] = [signOf(low), signOf(high)];
  if ((a < 0 && b > 0) || (a === 0 && b === 0)) return everything;
  const one: Float = { m: 1n, e: 0 };
  return {
    low: b === 0 ? infinite(-1) : over(one, high, -1),
    high: a === 0 ? infinite(1) : over(one, low, 1),
  };
}

export function divide(x: Range, y: Range): Range {
  if (y.high.m < 0n) return divide(negate(x), negate(y));
  if (y.low.m <= 0n) return multiply(x, reciprocal(y));
  return {
    low: over(x.low, x.low.m >= 0n ? y.high : y.low, -1),
    high: over(x.high, x.high.m >= 0n ? y.low : y.high, 1),
  };
}

/** p/q between two neighbours of the digits that are kept. */
export const fraction = (p: bigint, q: bigint): Range => divide(whole(p), whole(q));

export function power(x: Range, n: number): Range {
  if (n < 0) return reciprocal(power(x, -n));
  if (n === 0) return whole(1);
  const raised = (a: Float, way: 1 | -1): Float => {
    let result: Float = { m: 1n, e: 0 };
    const size: Float = { m: a.m < 0n ? -a.m : a.m, e: a.e };
    const isNegative = a.m < 0n && n % 2 === 1;
    const inward = isNegative ? (-way as 1 | -1) : way;
    for (let i = 0; i < n; i++) result = times(result, size, inward);
    return isNegative ? opposite(result) : result;
  };
  if (n % 2 === 1) return { low: raised(x.low, -1), high: raised(x.high, 1) };
  if (signOf(x.low) >= 0) return { low: raised(x.low, -1), high: raised(x.high, 1) };
  if (signOf(x.high) <= 0) return { low: raised(x.high, -1), high: raised(x.low, 1) };
  return { low: zero, high: most(raised(x.low, 1), raised(x.high, 1)) };
}

/** The largest whole number that is not above x, which is not infinite. */
export function floor({ m, e }: Float): bigint {
  return e >= 0 ? m << BigInt(e) : m >> BigInt(-e);
}

/** Whether a whole number is among them. */
export const holdsWhole = (x: Range): boolean =>
  !isBounded(x) || floor(x.high) > floor(x.low) || compare({ m: floor(x.low), e: 0 }, x.low) === 0;

export const hull = (x: Range, y: Range): Range => ({ low: least(x.low, y.low), high: most(x.high, y.high) });

/** What both hold; null where they have nothing in common. */
export function common(x: Range, y: Range): Range | null {
  const [low, high] = [most(x.low, y.low), least(x.high, y.high)];
  return compare(low, high) <= 0 ? { low, high } : null;
}

/** 1 or −1 where every number of it is above or below 0, 0 where it is nothing but 0, otherwise undefined. */
export function signOfRange({ low, high }: Range): -1 | 0 | 1 | undefined {
  const [a, b] = [signOf(low), signOf(high)];
  if (a > 0) return 1;
  if (b < 0) return -1;
  return a === 0 && b === 0 ? 0 : undefined;
}

/** Whether all of it is above 0, or all below. */
export const isOneSided = (x: Range): boolean => Math.abs(signOfRange(x) ?? 0) === 1;

export const isBounded = ({ low, high }: Range): boolean => !isInfinite(low) && !isInfinite(high);

export const contains = (outer: Range, inner: Range): boolean =>
  compare(outer.low, inner.low) <= 0 && compare(inner.high, outer.high) <= 0;

/** x·2^n. */
export const scaled = ({ low, high }: Range, n: number): Range => ({
  low: { m: low.m, e: low.e + n },
  high: { m: high.m, e: high.e + n },
});

export const squareRoot = (x: Range): Range => root(x, 2);

/** Digits that a double holds before it is infinite, with some to spare. */
const digitsOfDouble = 1000;

/** A whole number above the n-th root of one above 0, and near to it. */
function rootAbove(m: bigint, n: number): bigint {
  const dropped = Math.max(0, Math.ceil((bitsOf(m) - digitsOfDouble) / n));
  const near = Number(m >> BigInt(n * dropped)) ** (1 / n);
  return (BigInt(Math.ceil(near * (1 + 1e-12))) + 1n) << BigInt(dropped);
}

/** The n-th root of numbers from 0 up, by whole roots (Newton). */
export function root({ low, high }: Range, n: number): Range {
  const of = (x: Float, way: 1 | -1): Float => {
    if (isInfinite(x) || x.m === 0n) return x;
    const least = Math.max(0, n * precision - bitsOf(x.m));
    // So that the exponent is a multiple of n.
    const shift = least + ((((x.e - least) % n) + n) % n);
    const [m, e] = [x.m << BigInt(shift), (x.e - shift) / n];
    const [count, others] = [BigInt(n), BigInt(n - 1)];
    let guess = rootAbove(m, n);
    for (;;) {
      const next = (others * guess + m / guess ** others) / count;
      if (next >= guess) break;
      guess = next;
    }
    return rounded(way < 0 || guess ** count === m ? guess : guess + 1n, e, way);
  };
  return { low: of(low, -1), high: of(high, 1) };
}
