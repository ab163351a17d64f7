import {
  baseAndExponent,
  nameOf,
  numeric,
  power,
  product,
  sum as sumOf,
  whole,
  type Canonical,
} from './canonical.ts';
import * as rational from '../numbers/rational.ts';
import type { Rational } from '../numbers/rational.ts';

/** Coefficients by ascending power; the last is not 0, and the zero polynomial has none. */
export type Polynomial = readonly Rational[];

export const highestDegree = 60;

/** A canonical form as a polynomial in one variable with rational coefficients; null where it is none. */
export function polynomialOf(c: Canonical, variable: string): Polynomial | null {
  const terms = c.kind === 'sum' ? c.terms : [c];
  const coefficients: Rational[] = [];
  for (const term of terms) {
    const monomial = monomialOf(term, variable);
    if (!monomial) return null;
    const { coefficient, degree } = monomial;
    coefficients[degree] = rational.add(coefficients[degree] ?? rational.zero, coefficient);
  }
  return trimmed(Array.from(coefficients, (one) => one ?? rational.zero));
}

function monomialOf(term: Canonical, variable: string): { coefficient: Rational; degree: number } | null {
  if (term.kind === 'number') return { coefficient: term.value, degree: 0 };
  const factors = term.kind === 'product' ? term.factors : [term];
  const coefficient = term.kind === 'product' ? term.coefficient : rational.one;
  const [only] = factors;
  if (!only || factors.length !== 1) return null;
  const { base, exponent } = baseAndExponent(only);
  const isPower =
    base.key === variable &&
    exponent.kind === 'number' &&
    rational.isInteger(exponent.value) &&
    exponent.value.numerator > 0n &&
    exponent.value.numerator <= BigInt(highestDegree);
  return isPower ? { coefficient, degree: Number(exponent.value.numerator) } : null;
}

function trimmed(coefficients: readonly Rational[]): Polynomial {
  let length = coefficients.length;
  while (length > 0 && rational.isZero(coefficients[length - 1] as Rational)) length--;
  return coefficients.slice(0, length);
}

export const degree = (p: Polynomial): number => p.length - 1;
const leading = (p: Polynomial): Rational => p.at(-1) as Rational;

/** The polynomial as a canonical form in the variable. */
export function toCanonical(p: Polynomial, variable: string): Canonical {
  const x = nameOf(variable);
  return sumOf(p.map((coefficient, k) => product([numeric(coefficient), power(x, whole(k))])));
}

export function derivative(p: Polynomial): Polynomial {
  return p.slice(1).map((coefficient, k) => rational.multiply(coefficient, rational.rational(k + 1)));
}

/** The value at a rational, by Horner's scheme. */
function valueAt(p: Polynomial, x: Rational): Rational {
  return p.reduceRight(
    (sum, coefficient) => rational.add(rational.multiply(sum, x), coefficient),
    rational.zero,
  );
}

/** Quotient and remainder. */
export function divide(a: Polynomial, b: Polynomial): { quotient: Polynomial; remainder: Polynomial } {
  const rest = [...a];
  const quotient: Rational[] = Array.from(
    { length: Math.max(0, a.length - b.length + 1) },
    () => rational.zero,
  );
  for (let shift = a.length - b.length; shift >= 0; shift--) {
    const factor = rational.divide(rest[shift + b.length - 1] as Rational, leading(b));
    quotient[shift] = factor;
    b.forEach((coefficient, k) => {
      rest[shift + k] = rational.subtract(
        rest[shift + k] as Rational,
        rational.multiply(factor, coefficient),
      );
    });
  }
  return { quotient: trimmed(quotient), remainder: trimmed(rest) };
}

export function multiply(a: Polynomial, b: Polynomial): Polynomial {
  const result = Array.from({ length: Math.max(0, a.length + b.length - 1) }, () => rational.zero);
  a.forEach((p, i) => {
    b.forEach((q, j) => {
      result[i + j] = rational.add(result[i + j] as Rational, rational.multiply(p, q));
    });
  });
  return trimmed(result);
}

/** With leading coefficient 1. */
export const monic = (p: Polynomial): Polynomial =>
  p.map((coefficient) => rational.divide(coefficient, leading(p)));

function greatestCommonDivisor(a: Polynomial, b: Polynomial): Polynomial {
  let [x, y] = [a, b];
  while (y.length > 0) [x, y] = [y, divide(x, y).remainder];
  return x.length > 0 ? monic(x) : x;
}

/**
 * The square-free factors with their multiplicities, constants left out: (x − 1)²(x + 2) gives x + 2 once and
 * x − 1 twice. Method: Yun (1976).
 */
export function squareFreeFactors(p: Polynomial): { factor: Polynomial; multiplicity: number }[] {
  if (degree(p) < 1) return [];
  const slope = derivative(p);
  const common = greatestCommonDivisor(p, slope);
  let b = divide(p, common).quotient;
  let d = subtract(divide(slope, common).quotient, derivative(b));
  const factors: { factor: Polynomial; multiplicity: number }[] = [];
  for (let multiplicity = 1; degree(b) > 0; multiplicity++) {
    const factor = d.length > 0 ? greatestCommonDivisor(b, d) : monic(b);
    if (degree(factor) > 0) factors.push({ factor, multiplicity });
    b = divide(b, factor).quotient;
    d = subtract(d.length > 0 ? divide(d, factor).quotient : d, derivative(b));
  }
  return factors;
}

/** b² − 4ac of a quadratic. */
export function discriminant(p: Polynomial): Rational {
  const [c, b, a] = p as readonly [Rational, Rational, Rational];
  const four = rational.rational(4);
  return rational.subtract(rational.multiply(b, b), rational.multiply(four, rational.multiply(a, c)));
}

/**
 * The numbers that make a sum of multiples of polynomials equal to another one, by Gaussian elimination; null where
 * there are none, or where as many polynomials as unknowns do not settle them.
 */
export function combination(columns: readonly Polynomial[], right: Polynomial): Rational[] | null {
  const n = columns.length;
  const rows = Array.from({ length: n }, (_, k) => [
    ...columns.map((column) => column[k] ?? rational.zero),
    right[k] ?? rational.zero,
  ]);
  for (let i = 0; i < n; i++) {
    const pivot = rows.findIndex((row, k) => k >= i && !rational.isZero(row[i] as Rational));
    if (pivot < 0) return null;
    [rows[i], rows[pivot]] = [rows[pivot] as Rational[], rows[i] as Rational[]];
    const lead = rows[i] as Rational[];
    rows.forEach((row, k) => {
      if (k === i || rational.isZero(row[i] as Rational)) return;
      const factor = rational.divide(row[i] as Rational, lead[i] as Rational);
      rows[k] = row.map((value, j) =>
        rational.subtract(value, rational.multiply(factor, lead[j] as Rational)),
      );
    });
  }
  return rows.map((row, i) => rational.divide(row[n] as Rational, row[i] as Rational));
}

export const sum = (a: Polynomial, b: Polynomial): Polynomial => subtract(a, b.map(rational.negate));

function subtract(a: Polynomial, b: Polynomial): Polynomial {
  const length = Math.max(a.length, b.length);
  return trimmed(
    Array.from({ length }, (_, k) => rational.subtract(a[k] ?? rational.zero, b[k] ?? rational.zero)),
  );
}

/** Divisors of a number that are tried as parts of a rational root. */
const mostTried = 400;

/** All rational roots of a square-free polynomial, with what is left when they are divided out. */
export function rationalRoots(p: Polynomial): { roots: Rational[]; rest: Polynomial } {
  const roots: Rational[] = [];
  let rest = p;
  if (rest.length > 0 && rational.isZero(rest[0] as Rational)) {
    roots.push(rational.zero);
    rest = rest.slice(1);
  }
  const integers = withIntegers(rest);
  if (degree(rest) < 1) return { roots, rest };
  const numerators = divisors(integers[0] as bigint);
  const denominators = divisors(integers.at(-1) as bigint);
  const isTooMany = !numerators || !denominators || numerators.length * denominators.length > mostTried * 10;
  const candidates = isTooMany
    ? []
    : numerators.flatMap((n) =>
        denominators
          .filter((d) => gcd(n, d) === 1n)
          .flatMap((d) => [rational.rational(n, d), rational.rational(-n, d)]),
      );
  for (const candidate of candidates) {
    if (degree(rest) > 0 && rational.isZero(valueAt(rest, candidate))) {
      roots.push(candidate);
      rest = divide(rest, [rational.negate(candidate), rational.one]).quotient;
    }
  }
  // Of a linear polynomial the root is known, whatever its coefficients.
  if (degree(rest) === 1) {
    roots.push(rational.negate(rational.divide(rest[0] as Rational, rest[1] as Rational)));
    rest = [rest[1] as Rational];
  }
  return { roots, rest };
}

/** The same roots with whole coefficients that have no common divisor. */
function withIntegers(p: Polynomial): bigint[] {
  const denominator = p.reduce((product, { denominator: d }) => (product * d) / gcd(product, d), 1n);
  const whole = p.map(({ numerator, denominator: d }) => (numerator * denominator) / d);
  const common = whole.reduce((a, b) => gcd(a, b), 0n) || 1n;
  return whole.map((n) => n / common);
}

const size = (n: bigint): bigint => (n < 0n ? -n : n);
function gcd(a: bigint, b: bigint): bigint {
  let [x, y] = [size(a), size(b)];
  while (y > 0n) [x, y] = [y, x % y];
  return x;
}

/** The positive divisors; null for a number too large to look for them. */
function divisors(n: bigint): bigint[] | null {
  const value = size(n);
  if (value > 1_000_000_000_000n) return null;
  const found: bigint[] = [];
  for (let d = 1n; d * d <= value; d++) {
    if (value % d === 0n) found.push(d, ...(d * d === value ? [] : [value / d]));
  }
  return found.length <= mostTried ? found : null;
}

/** The Sturm chain of a square-free polynomial. */
function sturmChain(p: Polynomial): Polynomial[] {
  const chain: Polynomial[] = [p, derivative(p)];
  for (;;) {
    const [a, b] = [chain.at(-2) as Polynomial, chain.at(-1) as Polynomial];
    const { remainder } = divide(a, b);
    if (remainder.length === 0) return chain;
    // Only signs matter: positive factors keep the numbers short.
    const scale = rational.absolute(leading(remainder));
    chain.push(remainder.map((coefficient) => rational.negate(rational.divide(coefficient, scale))));
  }
}

function signChanges(chain: readonly Polynomial[], x: Rational): number {
  const signs = chain.map((p) => rational.compare(valueAt(p, x), rational.zero)).filter((sign) => sign !== 0);
  return signs.filter((sign, i) => i > 0 && sign !== signs[i - 1]).length;
}

/**
 * Disjoint intervals (low, high] with exactly one root each of a square-free polynomial, together all of its
 * roots in (from, to]. Method: Sturm's theorem and halving.
 */
export function isolatedRoots(
  p: Polynomial,
  from: Rational,
  to: Rational,
): { low: Rational; high: Rational }[] {
  if (degree(p) < 1) return [];
  const chain = sturmChain(p);
  const found: { low: Rational; high: Rational }[] = [];
  const open = [{ low: from, high: to, before: signChanges(chain, from), after: signChanges(chain, to) }];
  const half = rational.rational(1, 2);
  for (let box = open.pop(); box; box = open.pop()) {
    const { low, high, before, after } = box;
    if (before === after) continue;
    if (before - after === 1) {
      found.push({ low, high });
      continue;
    }
    const middle = rational.multiply(rational.add(low, high), half);
    const at = signChanges(chain, middle);
    open.push({ low, high: middle, before, after: at }, { low: middle, high, before: at, after });
  }
  return found.sort((a, b) => rational.compare(a.low, b.low));
}

/**
 * The interval of one root narrowed to neighbouring doubles or nearly so, the signs at both ends proved by exact
 * arithmetic.
 */
export function narrowed(
  p: Polynomial,
  box: { low: Rational; high: Rational },
): { low: number; high: number } {
  const signAt = (x: number): number => rational.compare(valueAt(p, rational.fromDouble(x)), rational.zero);
  const values = p.map(rational.toNumber);
  const rough = (x: number): number => values.reduceRight((sum, coefficient) => sum * x + coefficient, 0);
  const ends = [rational.toNumber(box.low), rational.toNumber(box.high)] as const;
  const falling =
    rational.compare(valueAt(p, box.high), rational.zero) < 0 ||
    rational.compare(valueAt(p, box.low), rational.zero) > 0;
  const above = falling ? -1 : 1;
  let [low, high] = ends;
  for (let i = 0; i < 100; i++) {
    const middle = low + (high - low) / 2;
    if (middle <= low || middle >= high) break;
    if (Math.sign(rough(middle)) === above) high = middle;
    else low = middle;
  }
  const margin = Math.max(Math.abs(low), Math.abs(high), 1e-300) * 2 ** -52;
  for (let reach = margin; reach < ends[1] - ends[0]; reach *= 4) {
    const tight = { low: Math.max(ends[0], low - reach), high: Math.min(ends[1], high + reach) };
    if (signAt(tight.low) === -above && signAt(tight.high) === above) return tight;
  }
  return { low: ends[0], high: ends[1] };
}
