/**
 * Taylor-mode automatic differentiation: a jet holds the Taylor coefficients c₀, c₁, … of a function
 * at a point, so that the k-th derivative there is k!·cₖ. All jets of one computation have the same length.
 * Method: Griewank & Walther, Evaluating Derivatives (2nd ed. 2008), chapter 13.
 */
export type Jet = Float64Array;

const at = (jet: Jet, k: number): number => jet[k] as number;

export function constantJet(value: number, length: number): Jet {
  const jet = new Float64Array(length);
  jet[0] = value;
  return jet;
}

/** The identity function at `value`. */
export function variableJet(value: number, length: number): Jet {
  const jet = constantJet(value, length);
  if (length > 1) jet[1] = 1;
  return jet;
}

export const add = (u: Jet, v: Jet): Jet => u.map((c, k) => c + at(v, k));
export const subtract = (u: Jet, v: Jet): Jet => u.map((c, k) => c - at(v, k));
export const negate = (u: Jet): Jet => u.map((c) => -c);
export const scale = (u: Jet, factor: number): Jet => u.map((c) => c * factor);

export function multiply(u: Jet, v: Jet): Jet {
  return u.map((_, k) => {
    let sum = 0;
    for (let j = 0; j <= k; j++) sum += at(u, j) * at(v, k - j);
    return sum;
  });
}

export function divide(u: Jet, v: Jet): Jet {
  const w = new Float64Array(u.length);
  for (let k = 0; k < u.length; k++) {
    let sum = at(u, k);
    for (let j = 1; j <= k; j++) sum -= at(v, j) * at(w, k - j);
    w[k] = at(v, 0) === 0 ? NaN : sum / at(v, 0);
  }
  return w;
}

/** The jet of the function with value `c0` at the point whose derivative has the given coefficients. */
function integrate(derivative: Jet, c0: number): Jet {
  return derivative.map((_, k) => (k === 0 ? c0 : at(derivative, k - 1) / k));
}

function differentiate(u: Jet): Jet {
  return u.map((_, k) => (k + 1 < u.length ? (k + 1) * at(u, k + 1) : 0));
}

/** w with w′ = factor·u′ and w(0) = c0: how arctan, arcsin, … follow from their derivative. */
export const integrateProduct = (u: Jet, factor: Jet, c0: number): Jet =>
  integrate(multiply(differentiate(u), factor), c0);

export function exp(u: Jet): Jet {
  const w = constantJet(Math.exp(at(u, 0)), u.length);
  for (let k = 1; k < u.length; k++) {
    let sum = 0;
    for (let j = 1; j <= k; j++) sum += j * at(u, j) * at(w, k - j);
    w[k] = sum / k;
  }
  return w;
}

export function ln(u: Jet): Jet {
  const w = constantJet(Math.log(at(u, 0)), u.length);
  for (let k = 1; k < u.length; k++) {
    let sum = 0;
    for (let j = 1; j < k; j++) sum += j * at(w, j) * at(u, k - j);
    w[k] = (at(u, k) - sum / k) / at(u, 0);
  }
  return at(u, 0) > 0 ? w : w.fill(NaN);
}

/** [sin u, cos u], or [sinh u, cosh u] with sign +1. */
function pair(u: Jet, s0: number, c0: number, sign: 1 | -1): [Jet, Jet] {
  const s = constantJet(s0, u.length);
  const c = constantJet(c0, u.length);
  for (let k = 1; k < u.length; k++) {
    let sumS = 0;
    let sumC = 0;
    for (let j = 1; j <= k; j++) {
      sumS += j * at(u, j) * at(c, k - j);
      sumC += j * at(u, j) * at(s, k - j);
    }
    s[k] = sumS / k;
    c[k] = (sign * sumC) / k;
  }
  return [s, c];
}

export const sinCos = (u: Jet): [Jet, Jet] => pair(u, Math.sin(at(u, 0)), Math.cos(at(u, 0)), -1);
export const sinhCosh = (u: Jet): [Jet, Jet] => pair(u, Math.sinh(at(u, 0)), Math.cosh(at(u, 0)), 1);

/** uⁿ by repeated squaring, defined at u = 0 too. */
export function integerPower(u: Jet, n: number): Jet {
  if (n < 0) return divide(constantJet(1, u.length), integerPower(u, -n));
  let result = constantJet(1, u.length);
  let square = u;
  for (let rest = n; rest > 0; rest = Math.floor(rest / 2)) {
    if (rest % 2 === 1) result = multiply(result, square);
    if (rest > 1) square = multiply(square, square);
  }
  return result;
}

/** u^r for a real number r with value `c0` at the point; u(0) ≠ 0. */
function realPower(u: Jet, r: number, c0: number): Jet {
  const w = constantJet(c0, u.length);
  for (let k = 1; k < u.length; k++) {
    let sum = 0;
    for (let j = 1; j <= k; j++) sum += (r * j - (k - j)) * at(u, j) * at(w, k - j);
    w[k] = sum / (k * at(u, 0));
  }
  return w;
}

/** Constant between jumps, without a derivative at a jump. */
export function stepwise(f: (x: number) => number, isJump: (x: number) => boolean, u: Jet): Jet {
  const x = at(u, 0);
  const w = constantJet(f(x), u.length);
  if (isJump(x) && at(u, 1) !== 0) w.fill(NaN, 1);
  return w;
}

/**
 * On which side of 0 the values lie just beside the point: the sign of the first coefficient that is not 0,
 * for odd powers turned on the left. 0 where all coefficients are 0.
 */
export function signBeside(u: Jet, side: 1 | -1): -1 | 0 | 1 {
  const k = u.findIndex((c) => c !== 0);
  if (k < 0) return 0;
  const sign = at(u, k) > 0 ? 1 : at(u, k) < 0 ? -1 : 0;
  return (k % 2 === 1 ? sign * side : sign) as -1 | 0 | 1;
}

/** A function constant between jumps at the whole numbers, from one side. */
export function stepBeside(f: (x: number) => number, u: Jet, side: 1 | -1): Jet {
  const x = at(u, 0);
  const rest = u.map((c, k) => (k === 0 ? 0 : c));
  return constantJet(f(x + signBeside(rest, side) * 0.25), u.length);
}

/**
 * The real u^(p/q) from one side of a point where u is 0. With u = c·τᵐ(1 + …), τ > 0 the distance, it is
 * (c·…)^(p/q)·τ^(mp/q): a jet where mp/q is whole, a vertical or missing slope otherwise.
 */
export function rationalPowerBeside(u: Jet, p: number, q: number, side: 1 | -1): Jet {
  const m = u.findIndex((c) => c !== 0);
  if (m <= 0) return rationalPower(u, p, q);
  const turned = u.map((c, k) => (k % 2 === 1 ? c * side : c));
  const lifted = new Float64Array(u.length);
  lifted.set(turned.subarray(m));
  const power = rationalPower(lifted, p, q);
  const shift = (m * p) / q;
  const result = new Float64Array(u.length);
  const first = at(power, 0);
  if (Number.isNaN(first) || shift < 0) return result.fill(NaN);
  const place = Math.ceil(shift);
  if (Number.isInteger(shift)) {
    // The last m coefficients of the lifted jet are not known.
    for (let k = place; k < u.length; k++) result[k] = k - place < u.length - m ? at(power, k - place) : NaN;
  } else if (place < u.length) {
    result[place] = Infinity * Math.sign(first);
    result.fill(NaN, place + 1);
  }
  return result.map((c, k) => (k % 2 === 1 ? c * side : c));
}

export const one = (u: Jet): Jet => constantJet(1, u.length);
export const sqrt = (u: Jet): Jet => rationalPower(u, 1, 2);

/** The real u^(p/q), p/q in lowest terms. At u = 0 the slope is infinite, zero or undefined as the exponent says. */
export function rationalPower(u: Jet, p: number, q: number): Jet {
  const x = at(u, 0);
  const value = rationalPowerValue(x, p, q);
  if (x !== 0) return realPower(u, p / q, value);
  const w = constantJet(value, u.length);
  for (let k = 1; k < u.length; k++) w[k] = k < p / q ? 0 : NaN;
  // Below exponent 1 the slope is vertical, except at the cusp of an even numerator over an odd denominator.
  const isCusp = p % 2 === 0;
  if (u.length > 1 && p < q) w[1] = p > 0 && !isCusp && at(u, 1) !== 0 ? Infinity * Math.sign(at(u, 1)) : NaN;
  return w;
}

/** The real x^(p/q) as school textbooks read it. */
export function rationalPowerValue(x: number, p: number, q: number): number {
  if (x === 0 && p < 0) return NaN;
  if (q === 2) return Math.sqrt(x) ** p;
  if (q === 3) return Math.cbrt(x) ** p;
  if (x >= 0) return Math.pow(x, p / q);
  if (q % 2 === 0) return NaN;
  return (p % 2 === 0 ? 1 : -1) * Math.pow(-x, p / q);
}
