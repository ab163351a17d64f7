import type { Rational } from './rational.ts';

/**
 * Binary floating-point numbers of any precision and of practically unbounded exponent:
 * mantissa · 2^exponent. Every operation takes the number of bits to keep and cuts off the rest; the
 * elementary functions carry guard bits and are good to a few units in the last place.
 * Method: argument reduction and power series; Brent & Zimmermann, Modern Computer Arithmetic (2010), ch. 4.
 */
export interface BigFloat {
  readonly mantissa: bigint;
  readonly exponent: bigint;
}

/** Thrown where a number would need an exponent beyond reason. */
export class OutOfRange extends Error {}

/** Bits that an exponent may have. */
const longestExponent = 5000;
const guard = 32;

export const zero: BigFloat = { mantissa: 0n, exponent: 0n };
export const one: BigFloat = { mantissa: 1n, exponent: 0n };

const magnitude = (n: bigint): bigint => (n < 0n ? -n : n);
const double = new Float64Array(1);
/** The halves of {@link double}, the one with the exponent last. */
const halves = new Uint32Array(double.buffer);

/** The number of binary digits of n. */
export function bitLength(n: bigint): number {
  if (n === 0n) return 0;
  const size = magnitude(n);
  double[0] = Number(size);
  const top = halves[1] as number;
  const digits = (top >>> 20) - 1022;
  if (digits > 1024) {
    const hex = size.toString(16);
    return (hex.length - 1) * 4 + (32 - Math.clz32(parseInt(hex[0] as string, 16)));
  }
  // The nearest double of 2ᵏ − 1 may be 2ᵏ.
  const isPowerOfTwo = halves[0] === 0 && (top & 0xfffff) === 0;
  return isPowerOfTwo && size >> BigInt(digits - 1) === 0n ? digits - 1 : digits;
}
const shift = (n: bigint, by: bigint): bigint => (by >= 0n ? n << by : n >> -by);

/** The number with at most `bits` binary digits. */
export function rounded(x: BigFloat, bits: number): BigFloat {
  const excess = bitLength(x.mantissa) - bits;
  if (excess <= 0) return x;
  const exponent = x.exponent + BigInt(excess);
  if (bitLength(exponent) > longestExponent) throw new OutOfRange('exponent');
  return { mantissa: x.mantissa >> BigInt(excess), exponent };
}

export const fromInteger = (n: bigint): BigFloat => ({ mantissa: n, exponent: 0n });

/** The exact value of a finite double. @throws OutOfRange for any other */
export function fromDouble(x: number): BigFloat {
  if (!Number.isFinite(x)) throw new OutOfRange('not finite');
  let exponent = 0;
  let value = x;
  while (!Number.isInteger(value)) {
    value *= 2;
    exponent--;
  }
  return { mantissa: BigInt(value), exponent: BigInt(exponent) };
}

export const fromRational = (r: Rational, bits: number): BigFloat =>
  divide(fromInteger(r.numerator), fromInteger(r.denominator), bits);

/** The place of the leading binary digit: x lies between 2^(order−1) and 2^order in magnitude. */
export const order = (x: BigFloat): bigint => x.exponent + BigInt(bitLength(x.mantissa));

/** The nearest double or so; infinite beyond the range of doubles. */
export function toDouble(x: BigFloat): number {
  if (x.mantissa === 0n) return 0;
  const place = order(x);
  if (place > 1024n) return x.mantissa > 0n ? Infinity : -Infinity;
  if (place < -1080n) return 0;
  const { mantissa, exponent } = nearest(x, 53);
  const e = Number(exponent);
  return e < -1000 ? Number(mantissa) * 2 ** (e + 500) * 2 ** -500 : Number(mantissa) * 2 ** e;
}

/** Rounded to the nearest number with the given binary digits, so that 0.999…9 becomes 1. */
function nearest(x: BigFloat, bits: number): BigFloat {
  const excess = bitLength(x.mantissa) - bits;
  if (excess <= 0) return x;
  const half = 1n << BigInt(excess - 1);
  return { mantissa: (x.mantissa + half) >> BigInt(excess), exponent: x.exponent + BigInt(excess) };
}

export const isZero = (x: BigFloat): boolean => x.mantissa === 0n;
export const sign = (x: BigFloat): number => (x.mantissa > 0n ? 1 : x.mantissa < 0n ? -1 : 0);
export const negate = (x: BigFloat): BigFloat => ({ mantissa: -x.mantissa, exponent: x.exponent });
export const absolute = (x: BigFloat): BigFloat => (x.mantissa < 0n ? negate(x) : x);

export function add(x: BigFloat, y: BigFloat, bits: number): BigFloat {
  if (isZero(x)) return rounded(y, bits);
  if (isZero(y)) return rounded(x, bits);
  const [high, low] = x.exponent >= y.exponent ? [x, y] : [y, x];
  const distance = high.exponent - low.exponent;
  // What lies wholly behind the last digit that is kept cannot be seen.
  if (order(high) - order(low) > BigInt(bits + guard)) return rounded(high, bits);
  if (distance > 10_000_000n) return rounded(order(high) > order(low) ? high : low, bits);
  return rounded({ mantissa: (high.mantissa << distance) + low.mantissa, exponent: low.exponent }, bits);
}

export const subtract = (x: BigFloat, y: BigFloat, bits: number): BigFloat => add(x, negate(y), bits);

export const multiply = (x: BigFloat, y: BigFloat, bits: number): BigFloat =>
  rounded({ mantissa: x.mantissa * y.mantissa, exponent: x.exponent + y.exponent }, bits);

/** x/y for y other than zero. */
export function divide(x: BigFloat, y: BigFloat, bits: number): BigFloat {
  const by = BigInt(Math.max(0, bits + guard + bitLength(y.mantissa) - bitLength(x.mantissa)));
  const quotient = (x.mantissa << by) / y.mantissa;
  return rounded({ mantissa: quotient, exponent: x.exponent - y.exponent - by }, bits);
}

export const scale = (x: BigFloat, powerOfTwo: bigint): BigFloat => ({
  mantissa: x.mantissa,
  exponent: x.exponent + powerOfTwo,
});

/** The whole part towards minus infinity. */
export function floor(x: BigFloat): BigFloat {
  if (x.exponent >= 0n) return x;
  if (-x.exponent > BigInt(bitLength(x.mantissa)) + 1n) return x.mantissa < 0n ? fromInteger(-1n) : zero;
  return fromInteger(x.mantissa >> -x.exponent);
}

export function integerPower(x: BigFloat, n: number, bits: number): BigFloat {
  if (n < 0) return divide(one, integerPower(x, -n, bits + guard), bits);
  let result = one;
  let square = x;
  for (let rest = n; rest > 0; rest = Math.floor(rest / 2)) {
    if (rest % 2 === 1) result = multiply(result, square, bits + guard);
    if (rest > 1) square = multiply(square, square, bits + guard);
  }
  return rounded(result, bits);
}

/** The largest whole number whose n-th power is at most `value` (Newton). */
function integerRoot(value: bigint, n: bigint): bigint {
  if (value < 2n) return value;
  let guess = 1n << (BigInt(bitLength(value)) / n + 1n);
  for (;;) {
    const next = ((n - 1n) * guess + value / guess ** (n - 1n)) / n;
    if (next >= guess) return guess;
    guess = next;
  }
}

/** Binary digits of a whole number whose root is still taken by Newton's method. */
const longestRadicand = 30_000;

/** The real n-th root of a positive number. */
export function root(x: BigFloat, n: number, bits: number): BigFloat {
  if (isZero(x)) return zero;
  if (n * (bits + guard) > longestRadicand) return rootByLogarithm(x, n, bits);
  const degree = BigInt(n);
  let by = BigInt(Math.max(0, n * (bits + guard) - bitLength(x.mantissa)));
  const remainder = (((x.exponent - by) % degree) + degree) % degree;
  by += remainder;
  const value = integerRoot(x.mantissa << by, degree);
  return rounded({ mantissa: value, exponent: (x.exponent - by) / degree }, bits);
}

/** x^(1/n) = e^(ln x / n), with the digits that the whole part of the exponent takes up. */
function rootByLogarithm(x: BigFloat, n: number, bits: number): BigFloat {
  const wide = bits + guard + Math.max(0, bitLength(order(x)));
  return exp(divide(ln(x, wide), fromInteger(BigInt(n)), wide), bits);
}

/** A fixed-point number with `bits` binary places. */
const toFixed = (x: BigFloat, bits: number): bigint => shift(x.mantissa, x.exponent + BigInt(bits));
const fromFixed = (value: bigint, bits: number): BigFloat => ({ mantissa: value, exponent: BigInt(-bits) });

const remembered = new Map<string, { bits: number; value: bigint }>();

/** A constant in fixed point, worked out once for the highest precision asked so far. */
function constant(name: string, bits: number, make: (bits: number) => bigint): bigint {
  const known = remembered.get(name);
  if (known && known.bits >= bits) return known.value >> BigInt(known.bits - bits);
  const value = make(bits);
  remembered.set(name, { bits, value });
  return value;
}

/** arctan (or artanh) of 1/n in fixed point. */
function inverseSeries(n: bigint, bits: number, alternating: boolean): bigint {
  let term = (1n << BigInt(bits + guard)) / n;
  let sum = term;
  const square = n * n;
  for (let k = 3n, positive = !alternating; term !== 0n; k += 2n) {
    term /= square;
    sum += (positive ? term : -term) / k;
    if (alternating) positive = !positive;
  }
  return sum >> BigInt(guard);
}

/** ln 2 = 18 artanh(1/26) − 2 artanh(1/4801) + 8 artanh(1/8749). */
const fixedLn2 = (bits: number): bigint =>
  constant('ln2', bits, (b) => {
    const part = (n: bigint) => inverseSeries(n, b + guard, false);
    return (18n * part(26n) - 2n * part(4801n) + 8n * part(8749n)) >> BigInt(guard);
  });
/** Machin: π = 16 arctan(1/5) − 4 arctan(1/239). */
const fixedPi = (bits: number): bigint =>
  constant('pi', bits, (b) => {
    const part = (n: bigint) => inverseSeries(n, b + guard, true);
    return (16n * part(5n) - 4n * part(239n)) >> BigInt(guard);
  });

export const pi = (bits: number): BigFloat => fromFixed(fixedPi(bits + guard), bits + guard);

/** Bits of the whole part, as a number that can be worked with. */
function wholeBits(x: BigFloat): number {
  const place = order(x);
  if (place > BigInt(longestExponent)) throw new OutOfRange('argument');
  return Math.max(0, Number(place));
}

const isTiny = (x: BigFloat, bits: number): boolean => order(x) < BigInt(-4 * bits);

export function exp(x: BigFloat, bits: number): BigFloat {
  if (isZero(x)) return one;
  if (isTiny(x, bits)) return add(one, x, bits);
  const halvings = Math.ceil(Math.sqrt(bits));
  const places = bits + guard + halvings;
  const wide = places + wholeBits(x);
  const ln2 = fixedLn2(wide);
  const fixed = toFixed(x, wide);
  const turns = fixed / ln2 - (fixed < 0n ? 1n : 0n);
  const reduced = (fixed - turns * ln2) >> BigInt(wide - places + halvings);
  let term = 1n << BigInt(places);
  let sum = term;
  for (let k = 1n; term !== 0n; k++) {
    term = (term * reduced) >> BigInt(places);
    term /= k;
    sum += term;
  }
  for (let i = 0; i < halvings; i++) sum = (sum * sum) >> BigInt(places);
  return rounded({ mantissa: sum, exponent: BigInt(-places) + turns }, bits);
}

/** The natural logarithm of a positive number: Halley's iteration on exp, from a double. */
export function ln(x: BigFloat, bits: number): BigFloat {
  const place = order(x);
  const fraction: BigFloat = { mantissa: x.mantissa, exponent: x.exponent - place };
  const distance = subtract(x, one, bits + guard);
  if (isZero(distance)) return zero;
  if (isTiny(distance, bits)) return distance;
  // Near 1 the result is small, and its leading digits need more places.
  const places = bits + guard + Math.max(0, -Number(order(distance)));
  const isNearOne = place === 0n || place === 1n;
  const argument = isNearOne ? x : fraction;
  let y = fromDouble(Math.log(toDouble(argument)));
  for (let digits = 50; digits < 2 * places; digits *= 3) {
    const raised = exp(y, places);
    const step = divide(subtract(argument, raised, places), add(argument, raised, places), places);
    y = add(y, scale(step, 1n), places);
  }
  const turns = isNearOne ? zero : multiply(fromInteger(place), fromFixed(fixedLn2(places), places), places);
  return add(y, turns, bits);
}

/** [sin x, cos x]. */
export function sinCos(x: BigFloat, bits: number): [BigFloat, BigFloat] {
  if (isZero(x)) return [zero, one];
  if (isTiny(x, bits)) return [x, one];
  const places = bits + guard + Math.max(0, -Number(order(x)));
  const wide = places + wholeBits(x);
  const quarter = fixedPi(wide) >> 1n;
  const fixed = toFixed(x, wide);
  const doubled = 2n * fixed + quarter;
  const turns = doubled / (2n * quarter) - (doubled < 0n ? 1n : 0n);
  const reduced = (fixed - turns * quarter) >> BigInt(wide - places);
  const [s, c] = sinCosSeries(reduced, places);
  const quadrant = Number(((turns % 4n) + 4n) % 4n);
  const [sine, cosine] = [
    [s, c],
    [c, -s],
    [-s, -c],
    [-c, s],
  ][quadrant] as [bigint, bigint];
  return [rounded(fromFixed(sine, places), bits), rounded(fromFixed(cosine, places), bits)];
}

/**
 * Sine and cosine of a fixed-point number below 1: the power series at a small part of it, which is then doubled again
 * and again by sin 2x = 2 sin x cos x and 1 − cos 2x = 2 sin² x.
 */
function sinCosSeries(x: bigint, places: number): [bigint, bigint] {
  const halvings = Math.floor(Math.sqrt(places) / 2);
  const wide = places + 2 * halvings + guard;
  const by = BigInt(wide);
  const one = 1n << by;
  const small = (x << BigInt(wide - places)) >> BigInt(halvings);
  const square = (small * small) >> by;
  let term = small;
  let sine = small;
  for (let k = 2n; term !== 0n && term !== -1n; k += 2n) {
    term = -((term * square) >> by) / (k * (k + 1n));
    sine += term;
  }
  term = square >> 1n;
  // 1 − cos, which keeps its digits where the cosine is near 1.
  let versine = term;
  for (let k = 3n; term !== 0n && term !== -1n; k += 2n) {
    term = -((term * square) >> by) / (k * (k + 1n));
    versine += term;
  }
  for (let i = 0; i < halvings; i++) {
    const doubled = (sine * sine) >> (by - 1n);
    sine = (sine * (one - versine)) >> (by - 1n);
    versine = doubled;
  }
  const excess = BigInt(wide - places);
  return [sine >> excess, (one - versine) >> excess];
}

const arctanHalvings = 8;

export function arctan(x: BigFloat, bits: number): BigFloat {
  if (isZero(x)) return zero;
  if (isTiny(x, bits)) return x;
  if (sign(x) < 0) return negate(arctan(negate(x), bits));
  const places = bits + guard + Math.max(0, -Number(order(x)));
  if (order(x) > 1n) {
    const rest = arctan(divide(one, x, places), places);
    return subtract(scale(pi(places), -1n), rest, bits);
  }
  let reduced = x;
  for (let i = 0; i < arctanHalvings; i++) {
    const hypotenuse = root(add(one, multiply(reduced, reduced, places), places), 2, places);
    reduced = divide(reduced, add(one, hypotenuse, places), places);
  }
  const fixed = toFixed(reduced, places + arctanHalvings);
  const by = BigInt(places + arctanHalvings);
  const square = (fixed * fixed) >> by;
  let power = fixed;
  let sum = fixed;
  for (let k = 3n; power !== 0n; k += 2n) {
    power = (power * square) >> by;
    sum += (k % 4n === 3n ? -power : power) / k;
  }
  return rounded(scale(fromFixed(sum, places + arctanHalvings), BigInt(arctanHalvings)), bits);
}
