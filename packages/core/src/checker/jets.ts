import * as f from './functions.ts';
import * as n from './numbers.ts';
import type { Float, Range } from './numbers.ts';

/**
 * Taylor coefficients over a whole part of the axis: c_k holds g⁽ᵏ⁾(x)/k! for every x of it at which g is defined
 * (Moore, Interval Analysis, 1966, chapter 11; from memory).
 */
export type Jet = readonly Range[];

const nought = n.point(n.zero);
const one = n.whole(1);

export const constant = (value: Range, length: number): Jet =>
  Array.from({ length }, (_, k) => (k === 0 ? value : nought));

export const variable = (part: Range, length: number): Jet =>
  Array.from({ length }, (_, k) => (k === 0 ? part : k === 1 ? one : nought));

const first = (u: Jet): Range => u[0] as Range;
const at = (u: Jet, k: number): Range => u[k] ?? nought;

export const add = (u: Jet, v: Jet): Jet => u.map((c, k) => n.add(c, at(v, k)));
export const negate = (u: Jet): Jet => u.map(n.negate);
export const subtract = (u: Jet, v: Jet): Jet => add(u, negate(v));
export const scale = (u: Jet, by: Range): Jet => u.map((c) => n.multiply(c, by));
export const withFirst = (u: Jet, value: Range): Jet => [value, ...u.slice(1)];

export const multiply = (u: Jet, v: Jet): Jet =>
  u.map((_, k) => {
    let sum = nought;
    for (let j = 0; j <= k; j++)
      sum = n.add(sum, k > 0 ? knownProduct(at(u, j), at(v, k - j)) : n.multiply(at(u, j), at(v, k - j)));
    return sum;
  });

/** Of ∛x ∛x at 0: of a slope without a value 0 times as much tells nothing. */
const knownProduct = (x: Range, y: Range): Range =>
  n.isNothing(x) || n.isNothing(y) ? n.everything : n.multiply(x, y);

/** F(u) from its values over u and the jet of F′(u): (F∘u)′ = F′(u)·u′. */
function along(u: Jet, values: Range, slope: Jet): Jet {
  const result = [values];
  for (let k = 1; k < u.length; k++) result.push(coefficientAlong(u, slope, k));
  return result;
}

/** The coefficient k of it, which those of the slope below k tell. */
function coefficientAlong(u: Jet, slope: Jet, k: number): Range {
  let sum = nought;
  for (let i = 1; i <= k; i++) {
    const outer = at(slope, k - i);
    // √u where u and u′ are 0.
    sum = n.add(sum, knownProduct(n.multiply(n.whole(i), at(u, i)), outer));
  }
  return n.divide(sum, n.whole(k));
}

const shorter = (u: Jet): Jet => u.slice(0, -1);

/** uⁿ for a whole number n, each power from the one below it; where u keeps its sign by products, which are as narrow there. */
export function integerPower(u: Jet, exponent: number): Jet {
  if (exponent === 0) return constant(one, u.length);
  const values = n.power(first(u), exponent);
  if (u.length === 1) return [values];
  if (n.isOneSided(first(u)) && n.isBounded(first(u))) return withFirst(productOfPowers(u, exponent), values);
  return along(u, values, scale(integerPower(shorter(u), exponent - 1), n.whole(exponent)));
}

function productOfPowers(u: Jet, exponent: number): Jet {
  if (exponent < 0) return productOfPowers(inverse(u), -exponent);
  if (exponent === 1) return u;
  const half = productOfPowers(u, Math.floor(exponent / 2));
  const even = multiply(half, half);
  return exponent % 2 === 0 ? even : multiply(even, u);
}

/** From u · 1/u = 1. */
function inverse(u: Jet): Jet {
  const values = n.reciprocal(first(u));
  const result = [values];
  for (let k = 1; k < u.length; k++) {
    let sum = nought;
    for (let i = 1; i <= k; i++) sum = n.add(sum, n.multiply(at(u, i), result[k - i] as Range));
    result.push(n.negate(n.multiply(values, sum)));
  }
  return result;
}

export const reciprocal = (u: Jet): Jet => integerPower(u, -1);
/** Of what is divided by nothing but 0 nothing is known. */
export const divide = (u: Jet, v: Jet): Jet =>
  n.signOfRange(first(v)) === 0 ? u.map(() => n.everything) : multiply(u, reciprocal(v));

/** u^(p/q), p/q in lowest terms with q > 1: the real root of negative numbers where q is odd. Null where there is no value. */
export function rationalPower(u: Jet, p: number, q: number): Jet | null {
  const values = rationalValues(first(u), p, q);
  if (!values) return null;
  if (u.length === 1) return [values];
  if (q <= largestRoot && n.signOf(first(u).low) > 0 && n.isBounded(first(u)))
    return bySeries(u, values, p, q);
  const lower = rationalPower(shorter(u), p - q, q);
  return lower && along(u, values, scale(lower, n.fraction(BigInt(p), BigInt(q))));
}

/** With v = u − u₀ the series Σ C(a, j) u₀ᵃ⁻ʲ vʲ, a = p/q (Newton), each power of u₀ > 0 by itself. */
function bySeries(u: Jet, values: Range, p: number, q: number): Jet {
  const root = n.root(first(u), q);
  const rise = withFirst(u, nought);
  const result = [values, ...constant(nought, u.length - 1)];
  let [binomial, power] = [one, rise];
  for (let j = 1; j < u.length; j++) {
    // C(a, j) = C(a, j − 1) (a − j + 1)/j
    binomial = n.multiply(binomial, n.fraction(BigInt(p - (j - 1) * q), BigInt(j * q)));
    const share = n.multiply(binomial, n.power(root, p - j * q));
    for (let k = j; k < u.length; k++) result[k] = n.add(result[k] as Range, n.multiply(share, at(power, k)));
    if (j < u.length - 1) power = multiply(power, rise);
  }
  return result;
}

function rationalValues(x: Range, p: number, q: number): Range | null {
  const above = n.common(x, { low: n.zero, high: n.everything.high });
  const below = q % 2 === 1 ? n.common(x, { low: n.everything.low, high: n.zero }) : null;
  const right = above && sizes(above, p, q);
  const left = below && sizes(n.negate(below), p, q);
  const signed = left && (p % 2 === 0 ? left : n.negate(left));
  if (!right || !signed) return right ?? signed;
  // Of a side that is nothing but 0 nothing is left inside the part.
  if (n.signOf(x.high) === 0 && n.signOf(x.low) < 0) return signed;
  return n.signOf(x.low) === 0 && n.signOf(x.high) > 0 ? right : n.hull(right, signed);
}

/** Roots that are taken as such; the others through logarithms. */
const largestRoot = 12;

/** x^(p/q) for x from 0 up. */
function sizes(x: Range, p: number, q: number): Range {
  if (p < 0) return n.reciprocal(sizes(x, -p, q));
  if (q <= largestRoot) return n.power(n.root(x, q), p);
  const root = (end: Float): Range =>
    end.m === 0n || end.e === Infinity
      ? n.point(end)
      : f.exp(n.multiply(f.ln(n.point(end)), n.fraction(BigInt(p), BigInt(q))));
  return { low: root(x.low).low, high: root(x.high).high };
}

/** e^u: what is above the value is a multiple of it. */
export function exp(u: Jet): Jet {
  const ratios = [one];
  for (let k = 1; k < u.length; k++) ratios.push(coefficientAlong(u, ratios, k));
  return scale(ratios, f.exp(first(u)));
}

const positive: Range = { low: n.zero, high: n.everything.high };

export function ln(u: Jet): Jet | null {
  const inside = n.common(first(u), positive);
  if (!inside || n.signOfRange(inside) === 0) return null;
  return along(u, f.ln(inside), shorterReciprocal(withFirst(u, inside)));
}

const shorterReciprocal = (u: Jet): Jet => (u.length === 1 ? [] : reciprocal(shorter(u)));

export function waves(u: Jet): { sin: Jet; cos: Jet } {
  const [sin, cos] = [[f.sin(first(u))], [f.cos(first(u))]];
  for (let k = 1; k < u.length; k++) {
    const [s, c] = [coefficientAlong(u, cos, k), n.negate(coefficientAlong(u, sin, k))];
    sin.push(s);
    cos.push(c);
  }
  return { sin, cos };
}

const square = (u: Jet): Jet => integerPower(u, 2);
const plusOne = (u: Jet): Jet => add(u, constant(one, u.length));
const lower = (u: Jet, slope: (inner: Jet) => Jet | null): Jet | null =>
  u.length === 1 ? [] : slope(shorter(u));

/** A rising function by its values at two ends and its slope; null where nothing of the argument is in its domain. */
function rising(
  u: Jet,
  domain: Range,
  value: (x: Float) => Range,
  slope: (inner: Jet) => Jet | null,
): Jet | null {
  const inside = n.common(first(u), domain);
  if (!inside) return null;
  const values = { low: value(inside.low).low, high: value(inside.high).high };
  const slopes = lower(withFirst(u, inside), slope);
  return slopes && along(u, values, slopes);
}

const half = n.fraction(1n, 2n);
const inverseRoot = (u: Jet): Jet | null => rationalPower(u, -1, 2);
const twice = (x: Range): Range => n.scaled(x, 1);
const arcsine = (x: Float): Range => {
  const isEnd = n.compare(x, { m: 1n, e: 0 }) >= 0 || n.compare(x, { m: -1n, e: 0 }) <= 0;
  if (isEnd) return n.multiply(half, x.m > 0n ? f.pi : n.negate(f.pi));
  const leg = n.squareRoot(n.subtract(one, n.power(n.point(x), 2)));
  return f.arctan(n.divide(n.point(x), leg));
};
const sine = (x: Float): Range =>
  n.multiply(half, n.subtract(f.exp(n.point(x)), f.exp(n.point(n.opposite(x)))));
const areaSine = (x: Float): Range => {
  if (x.e === Infinity) return n.point(x);
  if (x.m < 0n) return n.negate(areaSine(n.opposite(x)));
  return f.ln(n.add(n.point(x), n.squareRoot(n.add(one, n.power(n.point(x), 2)))));
};

export const arctan = (u: Jet): Jet =>
  along(u, f.arctan(first(u)), lower(u, (v) => reciprocal(plusOne(square(v)))) as Jet);
export const arcsin = (u: Jet): Jet | null =>
  rising(u, n.between(-1, 1), arcsine, (v) => inverseRoot(plusOne(negate(square(v)))));
export const arsinh = (u: Jet): Jet | null =>
  rising(u, n.everything, areaSine, (v) => inverseRoot(plusOne(square(v))));
export const arcosh = (u: Jet): Jet | null =>
  rising(
    u,
    { low: { m: 1n, e: 0 }, high: n.everything.high },
    (x) => {
      if (x.e === Infinity) return n.point(x);
      const below = n.common(n.subtract(n.power(n.point(x), 2), one), positive) as Range;
      return f.ln(n.add(n.point(x), n.squareRoot(below)));
    },
    (v) => inverseRoot(subtract(square(v), constant(one, v.length))),
  );
export const artanh = (u: Jet): Jet | null =>
  rising(
    u,
    n.between(-1, 1),
    (x) => {
      const p = n.point(x);
      return n.scaled(n.subtract(f.ln(n.add(one, p)), f.ln(n.subtract(one, p))), -1);
    },
    (v) => reciprocal(plusOne(negate(square(v)))),
  );

const sineOver = ({ low, high }: Range): Range => ({ low: sine(low).low, high: sine(high).high });
function cosineOver({ low, high }: Range): Range {
  const value = (x: Float): Range => n.scaled(n.add(f.exp(n.point(x)), f.exp(n.point(n.opposite(x)))), -1);
  const ends = n.hull(value(low), value(high));
  return n.signOf(low) < 0 && n.signOf(high) > 0 ? n.hull(one, ends) : ends;
}

/** sinh and cosh, each the slope of the other. */
function hyperbolic(u: Jet): { sinh: Jet; cosh: Jet } {
  const [sinh, cosh] = [[sineOver(first(u))], [cosineOver(first(u))]];
  for (let k = 1; k < u.length; k++) {
    const [s, c] = [coefficientAlong(u, cosh, k), coefficientAlong(u, sinh, k)];
    sinh.push(s);
    cosh.push(c);
  }
  return { sinh, cosh };
}
export const sinh = (u: Jet): Jet => hyperbolic(u).sinh;
export const cosh = (u: Jet): Jet => hyperbolic(u).cosh;
export const tanh = (u: Jet): Jet => {
  // 1 − 2/(e^(2x) + 1) rises.
  const value = (x: Float): Range =>
    n.subtract(one, n.divide(n.whole(2), n.add(one, f.exp(twice(n.point(x))))));
  const values = { low: value(first(u).low).low, high: value(first(u).high).high };
  return along(u, values, lower(u, (v) => reciprocal(square(cosh(v)))) as Jet);
};
