import type { Rational } from './rational.ts';
import * as big from './bigFloat.ts';
import type { BigFloat } from './bigFloat.ts';

/**
 * A number known to lie within `radius` of `middle`, both with any number of binary digits. Every operation takes the
 * digits to keep in the middle and adds what it cuts off to the radius, so that the true result lies in the ball.
 * Method: midpoint-radius arithmetic; Rump, Fast and parallel interval arithmetic (1999).
 */
export interface Ball {
  readonly middle: BigFloat;
  /** From 0 up. */
  readonly radius: BigFloat;
}

/**
 * What is known of a value: a ball that holds it, null where there surely is none, or 'unsure' where the digits kept
 * do not tell whether there is one.
 */
export type Enclosed = Ball | null | 'unsure';

export const isBall = (x: Enclosed): x is Ball => x !== null && x !== 'unsure';

/** Digits of a radius. */
const radiusBits = 32;
/** Digits at the end that an elementary function may have wrong. */
const lost = 12;

/** A bound from above with few digits. */
function above(x: BigFloat): BigFloat {
  const short = big.rounded(x, radiusBits);
  return short === x ? x : { mantissa: short.mantissa + 1n, exponent: short.exponent };
}

const plusAbove = (a: BigFloat, b: BigFloat): BigFloat => {
  if (big.isZero(a)) return b;
  if (big.isZero(b)) return a;
  const [larger, smaller] = big.order(a) > big.order(b) ? [a, b] : [b, a];
  if (big.order(larger) - big.order(smaller) > BigInt(4 * radiusBits)) {
    const short = above(larger);
    return { mantissa: (short.mantissa << 8n) + 1n, exponent: short.exponent - 8n };
  }
  return above(big.add(larger, smaller, 8 * radiusBits));
};
const timesAbove = (a: BigFloat, b: BigFloat): BigFloat =>
  above({ mantissa: a.mantissa * b.mantissa, exponent: a.exponent + b.exponent });
/** a/b from above for b > 0. */
const overAbove = (a: BigFloat, b: BigFloat): BigFloat => {
  if (big.isZero(a)) return a;
  const quotient = big.divide(a, b, radiusBits);
  return { mantissa: quotient.mantissa + 1n, exponent: quotient.exponent };
};

const powerOfTwo = (exponent: bigint): BigFloat => ({ mantissa: 1n, exponent });

export const exactly = (middle: BigFloat): Ball => ({ middle, radius: big.zero });
export const zero = exactly(big.zero);
export const one = exactly(big.one);
export const fromInteger = (n: number): Ball => exactly(big.fromInteger(BigInt(n)));

/** The ball with a middle cut to the digits to keep. */
function cut(middle: BigFloat, radius: BigFloat, bits: number): Ball {
  const kept = big.rounded(middle, bits);
  return kept === middle
    ? { middle, radius }
    : { middle: kept, radius: plusAbove(radius, powerOfTwo(kept.exponent)) };
}

/** The middle of an elementary function with its own error, relative to its size. */
function worked(middle: BigFloat, radius: BigFloat, bits: number): Ball {
  if (big.isZero(middle)) return { middle, radius };
  return { middle, radius: plusAbove(radius, powerOfTwo(big.order(middle) - BigInt(bits - lost))) };
}

export function fromRational(r: Rational, bits: number): Ball {
  const middle = big.fromRational(r, bits);
  const isPower = (r.denominator & (r.denominator - 1n)) === 0n && big.bitLength(r.numerator) <= bits;
  return isPower ? exactly(middle) : worked(middle, big.zero, bits);
}

export const isExact = ({ radius }: Ball): boolean => big.isZero(radius);
export const isExactlyZero = (x: Ball): boolean => isExact(x) && big.isZero(x.middle);

/** A bound from below of the size of all numbers in a ball; 0 where it holds 0. */
function leastSize({ middle, radius }: Ball): BigFloat {
  const size = big.absolute(middle);
  if (big.isZero(radius)) return size;
  if (big.order(radius) > big.order(size)) return big.zero;
  const difference = big.subtract(size, radius, bitsOf(size) + radiusBits + 8);
  if (big.sign(difference) <= 0) return big.zero;
  // One unit further on the last place, to be surely below.
  const short = big.rounded(difference, radiusBits);
  return { mantissa: (short.mantissa << 8n) - 1n, exponent: short.exponent - 8n };
}
/** A bound from above of the size of all numbers in a ball. */
const mostSize = ({ middle, radius }: Ball): BigFloat => plusAbove(above(big.absolute(middle)), radius);

const bitsOf = (x: BigFloat): number => big.bitLength(x.mantissa);

/** 1, −1 or 0 where that is sure of every number in a ball; undefined where it holds 0 and other numbers. */
export function signOf(x: Ball): -1 | 0 | 1 | undefined {
  if (isExact(x)) return big.sign(x.middle) as -1 | 0 | 1;
  return big.isZero(leastSize(x)) ? undefined : (big.sign(x.middle) as -1 | 1);
}

export const negate = ({ middle, radius }: Ball): Ball => ({ middle: big.negate(middle), radius });
export const absolute = ({ middle, radius }: Ball): Ball => ({ middle: big.absolute(middle), radius });

export function add(x: Ball, y: Ball, bits: number): Ball {
  const radius = plusAbove(x.radius, y.radius);
  if (big.isZero(x.middle)) return cut(y.middle, radius, bits);
  if (big.isZero(y.middle)) return cut(x.middle, radius, bits);
  const [larger, smaller] =
    big.order(x.middle) > big.order(y.middle) ? [x.middle, y.middle] : [y.middle, x.middle];
  if (big.order(larger) - big.order(smaller) > BigInt(2 * bits + bitsOf(larger))) {
    return cut(larger, plusAbove(radius, above(big.absolute(smaller))), bits);
  }
  const [high, low] = larger.exponent > smaller.exponent ? [larger, smaller] : [smaller, larger];
  const sum = {
    mantissa: (high.mantissa << (high.exponent - low.exponent)) + low.mantissa,
    exponent: low.exponent,
  };
  return cut(sum, radius, bits);
}

export const subtract = (x: Ball, y: Ball, bits: number): Ball => add(x, negate(y), bits);

export function multiply(x: Ball, y: Ball, bits: number): Ball {
  const middle = {
    mantissa: x.middle.mantissa * y.middle.mantissa,
    exponent: x.middle.exponent + y.middle.exponent,
  };
  const spread = plusAbove(
    timesAbove(mostSize(x), y.radius),
    timesAbove(above(big.absolute(y.middle)), x.radius),
  );
  return cut(middle, isExact(x) && isExact(y) ? big.zero : spread, bits);
}

export function divide(x: Ball, y: Ball, bits: number): Enclosed {
  const sign = signOf(y);
  if (sign === 0) return null;
  if (sign === undefined) return 'unsure';
  if (isExactlyZero(x)) return zero;
  const middle = big.divide(x.middle, y.middle, bits);
  const isWhole = isExact(x) && isExact(y) && big.isZero(rest(x.middle, y.middle, middle));
  if (isWhole) return exactly(middle);
  // |a/b − a′/b′| ≤ (|a − a′| + |a/b|·|b − b′|)/|b′|
  const quotient = plusAbove(above(big.absolute(middle)), powerOfTwo(big.order(middle) - BigInt(bits - 2)));
  const spread = overAbove(plusAbove(x.radius, timesAbove(quotient, y.radius)), leastSize(y));
  return worked(middle, spread, bits);
}

/** What a division leaves over. */
function rest(a: BigFloat, b: BigFloat, quotient: BigFloat): BigFloat {
  const product = { mantissa: b.mantissa * quotient.mantissa, exponent: b.exponent + quotient.exponent };
  return big.subtract(a, product, bitsOf(a) + bitsOf(product) + 64);
}

export function integerPower(x: Ball, n: number, bits: number): Enclosed {
  if (n < 0) return divide(one, positivePower(x, -n, bits + 8), bits);
  return positivePower(x, n, bits);
}

function positivePower(x: Ball, n: number, bits: number): Ball {
  let result = one;
  let square = x;
  for (let left = n; left > 0; left = Math.floor(left / 2)) {
    if (left % 2 === 1) result = multiply(result, square, bits);
    if (left > 1) square = multiply(square, square, bits);
  }
  return result;
}

/** The real q-th root, p/q in lowest terms: undefined for x < 0 where q is even. */
export function rationalPower(x: Ball, p: number, q: number, bits: number): Enclosed {
  const sign = signOf(x);
  if (sign === 0) return p > 0 ? zero : null;
  if (sign === -1 && q % 2 === 0) return null;
  if (sign === undefined) {
    if (q % 2 === 0 || p < 0) return 'unsure';
    const most = plusAbove(above(big.root(mostSize(x), q, radiusBits)), powerOfTwo(-1_000_000n));
    return integerPower({ middle: big.zero, radius: timesAbove(most, fromDouble(1.01)) }, p, bits);
  }
  const size = absolute(x);
  const middle = big.root(size.middle, q, bits);
  const isWhole =
    isExact(x) && big.isZero(big.subtract(power(middle, q), size.middle, q * bits + bitsOf(size.middle)));
  // The slope of the root is its value over q·x.
  const least = leastSize(size);
  const slope = overAbove(
    timesAbove(above(big.root(mostSize(size), q, radiusBits + 8)), fromDouble(1.01)),
    least,
  );
  const root = isWhole ? exactly(middle) : worked(middle, timesAbove(slope, size.radius), bits);
  const raised = integerPower(root, p, bits);
  return raised instanceof Object && sign === -1 && p % 2 !== 0 ? negate(raised) : raised;
}

const power = (x: BigFloat, n: number): BigFloat => ({
  mantissa: x.mantissa ** BigInt(n),
  exponent: x.exponent * BigInt(n),
});
const fromDouble = big.fromDouble;

export function exp(x: Ball, bits: number): Enclosed {
  if (isExactlyZero(x)) return one;
  // e^(m ± r) − e^m is at most e^m·2r for r ≤ 1.
  if (big.order(x.radius) > 0n && !isExact(x)) return 'unsure';
  const middle = big.exp(x.middle, bits);
  const spread = timesAbove(timesAbove(above(middle), x.radius), fromDouble(2));
  return worked(middle, spread, bits);
}

export function ln(x: Ball, bits: number): Enclosed {
  const sign = signOf(x);
  if (sign === undefined) return 'unsure';
  if (sign <= 0) return null;
  return worked(big.ln(x.middle, bits), overAbove(x.radius, leastSize(x)), bits);
}

/** [sin x, cos x]. */
export function sinCos(x: Ball, bits: number): [Ball, Ball] {
  if (isExactlyZero(x)) return [zero, one];
  const error = plusAbove(x.radius, powerOfTwo(BigInt(lost - bits)));
  const [sine, cosine] = big.sinCos(x.middle, bits);
  // Small arguments keep their digits.
  const isSmall = big.order(x.middle) < 0n;
  return [
    isSmall ? worked(sine, x.radius, bits) : { middle: sine, radius: error },
    { middle: cosine, radius: error },
  ];
}

export const arctan = (x: Ball, bits: number): Ball => worked(big.arctan(x.middle, bits), x.radius, bits);

export const pi = (bits: number): Ball => worked(big.pi(bits), big.zero, bits);
export const e = (bits: number): Ball => worked(big.exp(big.one, bits), big.zero, bits);

/** ⌊x⌋, where all numbers of the ball have one. */
export function floor(x: Ball): Enclosed {
  const whole = big.floor(x.middle);
  if (isExact(x)) return exactly(whole);
  const above = subtract(x, exactly(big.add(whole, big.one, bitsOf(whole) + 64)), bitsOf(x.middle) + 64);
  const below = subtract(x, exactly(whole), bitsOf(x.middle) + 64);
  return signOf(above) === -1 && signOf(below) === 1 ? exactly(whole) : 'unsure';
}

/** The smaller (−1) or larger (1) of two numbers. */
export function extreme(x: Ball, y: Ball, direction: 1 | -1, bits: number): Ball {
  const sign = signOf(subtract(x, y, bits));
  if (sign !== undefined) return sign * direction >= 0 ? x : y;
  // |max(a, b) − max(a′, b′)| is at most the larger of both distances.
  const nearer = big.sign(big.subtract(x.middle, y.middle, bits)) * direction >= 0 ? x : y;
  return { middle: nearer.middle, radius: plusAbove(x.radius, y.radius) };
}

/** The smallest ball with the middle of x that holds both. */
export const hull = (x: Ball, y: Ball, bits: number): Ball => ({
  middle: x.middle,
  radius: plusAbove(mostSize(subtract(x, y, bits)), plusAbove(x.radius, y.radius)),
});

/** Whether a ball lies between two numbers. */
export const isBelow = (x: Ball, size: BigFloat): boolean =>
  big.sign(big.subtract(mostSize(x), size, 4 * radiusBits)) < 0;

/** Bounds by the digits that are asked for, each worked out once. */
export function remembered<B>(work: (bits: number) => B): (bits: number) => B {
  const known = new Map<number, B>();
  return (bits) => {
    const found = known.get(bits);
    if (found !== undefined) return found;
    const made = work(bits);
    known.set(bits, made);
    return made;
  };
}
