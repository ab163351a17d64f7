import * as big from './bigFloat.ts';
import type { BigFloat } from './bigFloat.ts';

/** A value of any precision; null where the function is undefined there. */
export type Precise = BigFloat | null;

/** A built-in function to the given number of binary digits. */
export type PreciseFunction = (bits: number, ...args: [BigFloat, BigFloat]) => Precise;

/** Digits at the end that are lost to rounding. */
const lostBits = 24n;

/** a + b, and zero where nothing is left of them but rounding: 2 − √2² is 0. */
export function sumOrZero(a: BigFloat, b: BigFloat, bits: number): BigFloat {
  const sum = big.add(a, b, bits);
  if (big.isZero(a) || big.isZero(b) || big.isZero(sum)) return sum;
  const size = big.order(a) > big.order(b) ? big.order(a) : big.order(b);
  return big.order(sum) < size - BigInt(bits) + lostBits ? big.zero : sum;
}

/** A sine or cosine, and zero where nothing is left of it but the rounding of its argument. */
function waveOrZero(value: BigFloat, x: BigFloat, bits: number): BigFloat {
  const size = big.order(x) > 0n ? big.order(x) : 0n;
  const isLost = big.order(value) < size - BigInt(bits) + lostBits && big.order(x) > -4n;
  return isLost ? big.zero : value;
}

function waves(x: BigFloat, bits: number): [BigFloat, BigFloat] {
  const [sine, cosine] = big.sinCos(x, bits);
  return [waveOrZero(sine, x, bits), waveOrZero(cosine, x, bits)];
}

/** The whole part, of a number that misses a whole one by rounding alone that whole number. */
function wholePart(x: BigFloat, bits: number): BigFloat {
  const nearest = big.floor(big.add(x, half(big.one), bits));
  return big.isZero(sumOrZero(x, big.negate(nearest), bits)) ? nearest : big.floor(x);
}

export function rationalPower(a: BigFloat, p: number, q: number, bits: number): Precise {
  if (big.isZero(a)) return p > 0 ? big.zero : null;
  const isNegative = big.sign(a) < 0;
  if (isNegative && q % 2 === 0) return null;
  const raised = big.integerPower(big.root(big.absolute(a), q, bits), p, bits);
  return isNegative && p % 2 !== 0 ? big.negate(raised) : raised;
}

const whole = (n: number): BigFloat => big.fromInteger(BigInt(n));
const half = (x: BigFloat): BigFloat => big.scale(x, -1n);
const plus = (x: BigFloat, n: number, bits: number): BigFloat => big.add(x, whole(n), bits);

function logarithm(x: BigFloat, bits: number): Precise {
  return big.sign(x) > 0 ? big.ln(x, bits) : null;
}

/** √(1 − x²), null outside of −1 … 1. */
function leg(x: BigFloat, bits: number): Precise {
  const square = big.multiply(big.subtract(big.one, x, bits), big.add(big.one, x, bits), bits);
  return big.sign(square) < 0 ? null : big.root(square, 2, bits);
}

function arcsine(x: BigFloat, bits: number): Precise {
  const cosine = leg(x, bits);
  if (cosine && big.isZero(cosine)) {
    const quarter = half(big.pi(bits));
    return big.sign(x) > 0 ? quarter : big.negate(quarter);
  }
  return cosine && big.arctan(big.divide(x, cosine, bits), bits);
}

function ratio(a: Precise, b: Precise, bits: number): Precise {
  return a && b && !big.isZero(b) ? big.divide(a, b, bits) : null;
}

/** (eˣ ± e⁻ˣ)/2, with more digits for small x, where they cancel. */
function hyperbolic(x: BigFloat, sign: 1 | -1, bits: number): BigFloat {
  const wide = bits + 8 + (big.isZero(x) ? 0 : Math.min(8 * bits, Math.max(0, -Number(big.order(x)))));
  const up = big.exp(x, wide);
  const down = big.divide(big.one, up, wide);
  return big.rounded(half(big.add(up, sign > 0 ? down : big.negate(down), wide)), bits);
}

/** e^(2x) exceeds 2^bits for x of this many binary digits. */
const bitsOf = (bits: number): number => Math.ceil(Math.log2(bits)) + 1;

export const sin: PreciseFunction = (bits, x) => waves(x, bits)[0];
export const cos: PreciseFunction = (bits, x) => waves(x, bits)[1];
export const tan: PreciseFunction = (bits, x) => ratio(...waves(x, bits), bits);
export const cot: PreciseFunction = (bits, x) => ratio(waves(x, bits)[1], waves(x, bits)[0], bits);
export const sec: PreciseFunction = (bits, x) => ratio(big.one, waves(x, bits)[1], bits);
export const csc: PreciseFunction = (bits, x) => ratio(big.one, waves(x, bits)[0], bits);

export const arcsin: PreciseFunction = (bits, x) => arcsine(x, bits);
export const arccos: PreciseFunction = (bits, x) => {
  const angle = arcsine(x, bits);
  return angle && big.subtract(half(big.pi(bits)), angle, bits);
};
export const arctan: PreciseFunction = (bits, x) => big.arctan(x, bits);
export const arccot: PreciseFunction = (bits, x) =>
  big.subtract(half(big.pi(bits)), big.arctan(x, bits), bits);

export const sinh: PreciseFunction = (bits, x) => hyperbolic(x, -1, bits);
export const cosh: PreciseFunction = (bits, x) => hyperbolic(x, 1, bits);
export const tanh: PreciseFunction = (bits, x) => {
  // Beyond this the quotient is 1 to the last digit, and e^x is not needed.
  if (big.order(x) > BigInt(bitsOf(bits))) return whole(big.sign(x));
  return ratio(hyperbolic(x, -1, bits), hyperbolic(x, 1, bits), bits);
};

export const arsinh: PreciseFunction = (bits, x) => {
  const wide = 2 * bits + (big.isZero(x) ? 0 : Math.min(8 * bits, Math.max(0, -Number(big.order(x)))));
  const size = big.absolute(x);
  const hypotenuse = big.root(plus(big.multiply(x, x, wide), 1, wide), 2, wide);
  const value = big.ln(big.add(size, hypotenuse, wide), bits);
  return big.sign(x) < 0 ? big.negate(value) : value;
};
export const arcosh: PreciseFunction = (bits, x) => {
  const square = big.subtract(big.multiply(x, x, 2 * bits), big.one, 2 * bits);
  if (big.sign(square) < 0 || big.sign(x) < 0) return null;
  return logarithm(big.add(x, big.root(square, 2, 2 * bits), 2 * bits), bits);
};
export const artanh: PreciseFunction = (bits, x) => {
  const quotient = ratio(plus(x, 1, 2 * bits), big.subtract(big.one, x, 2 * bits), 2 * bits);
  const value = quotient && logarithm(quotient, bits);
  return value && half(value);
};

export const exp: PreciseFunction = (bits, x) => big.exp(x, bits);
export const ln: PreciseFunction = (bits, x) => logarithm(x, bits);
export const log: PreciseFunction = (bits, x) => ratio(logarithm(x, bits), big.ln(whole(10), bits), bits);
export const logBase: PreciseFunction = (bits, base, x) =>
  ratio(logarithm(x, bits), logarithm(base, bits), bits);

export const sqrt: PreciseFunction = (bits, x) => (big.sign(x) < 0 ? null : big.root(x, 2, bits));
export const cbrt: PreciseFunction = (bits, x) => rationalPower(x, 1, 3, bits);
export const root: PreciseFunction = (bits, degree, x) => {
  const n = big.toDouble(degree);
  return Number.isInteger(n) && n >= 1 && n < 1000 ? rationalPower(x, 1, n, bits) : null;
};

export const abs: PreciseFunction = (_bits, x) => big.absolute(x);
export const sign: PreciseFunction = (_bits, x) => whole(big.sign(x));
export const floor: PreciseFunction = (bits, x) => wholePart(x, bits);
export const ceil: PreciseFunction = (bits, x) => big.negate(wholePart(big.negate(x), bits));
export const round: PreciseFunction = (bits, x) => wholePart(big.add(x, half(big.one), bits), bits);
export const min: PreciseFunction = (bits, x, y) => (big.sign(big.subtract(x, y, bits)) < 0 ? x : y);
export const max: PreciseFunction = (bits, x, y) => (big.sign(big.subtract(x, y, bits)) > 0 ? x : y);
export const mod: PreciseFunction = (bits, x, y) => {
  const quotient = ratio(x, y, bits);
  return quotient && big.subtract(x, big.multiply(y, wholePart(quotient, bits), bits), bits);
};
export const degrees: PreciseFunction = (bits, x) =>
  big.divide(big.multiply(x, big.pi(bits), bits), whole(180), bits);

export const factorial: PreciseFunction = (_bits, x) => {
  const n = big.toDouble(x);
  if (!Number.isInteger(n) || n < 0 || n > 1000) return null;
  let product = 1n;
  for (let k = 2n; k <= BigInt(n); k++) product *= k;
  return big.fromInteger(product);
};
