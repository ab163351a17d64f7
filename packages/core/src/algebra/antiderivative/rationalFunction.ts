import {
  baseAndExponent,
  callOf,
  numeric,
  power,
  product,
  quotient,
  sum,
  whole,
  type Canonical,
} from '../canonical.ts';
import { expanded, factored } from '../expand.ts';
import { factorsOf, mapped, replaced } from '../parts.ts';
import * as polynomial from '../polynomial.ts';
import type { Polynomial } from '../polynomial.ts';
import * as rational from '../../numbers/rational.ts';
import type { Rational } from '../../numbers/rational.ts';
import { type Method, type Search } from './integrand.ts';
import { logarithmOfSize } from './table.ts';

/** Highest degree of a divisor that is split into partial fractions. */
const highestDegree = 12;

/** Rational functions whose divisors split over the rational numbers into factors of degree 1 and 2. */
export const byPartialFractions: Method = (form, search) => {
  const parts = fractionOf(form, search.variable);
  if (!parts || polynomial.degree(parts.below) < 1 || polynomial.degree(parts.below) > highestDegree)
    return null;
  const { quotient: entire, remainder } = polynomial.divide(parts.above, parts.below);
  const fractions = partialFractions(remainder, parts.below);
  const split = fractions?.map((one) => ofFraction(one, search));
  if (!split || split.includes(null)) return null;
  return sum([ofPolynomial(entire, search), ...(split as Canonical[])]);
};

function ofPolynomial(p: Polynomial, search: Search): Canonical {
  const raised = p.map((c, k) => rational.divide(c, rational.rational(k + 1)));
  return polynomial.toCanonical([rational.zero, ...raised], search.variable);
}

/** A rational function as one fraction, its brackets as they stand or taken out; null for any other form. */
export const fractionOf = (form: Canonical, variable: string): Fraction | null =>
  fraction(form, variable) ?? fraction(mapped(form, factored), variable);

interface Fraction {
  readonly above: Polynomial;
  readonly below: Polynomial;
}

/** A product of polynomials and of reciprocals of polynomials as one fraction. */
function fraction(form: Canonical, variable: string): Fraction | null {
  let above: Polynomial = [form.kind === 'product' ? form.coefficient : rational.one];
  let below: Polynomial = [rational.one];
  for (const factor of factorsOf(form)) {
    const { base, exponent } = baseAndExponent(factor);
    if (exponent.kind !== 'number' || !rational.isInteger(exponent.value)) return null;
    const n = Number(exponent.value.numerator);
    const p = polynomial.polynomialOf(expanded(base), variable);
    if (!p || Math.abs(n) * Math.max(1, polynomial.degree(p)) > polynomial.highestDegree) return null;
    for (let k = 0; k < Math.abs(n); k++) {
      if (n > 0) above = polynomial.multiply(above, p);
      else below = polynomial.multiply(below, p);
    }
  }
  return { above, below };
}

/** above/factorᵏ with leading coefficient 1 and a factor of degree 1 or 2, or of x⁴, x² and a number. */
interface PartialFraction {
  readonly above: Polynomial;
  readonly factor: Polynomial;
  readonly exponent: number;
}

/** A proper fraction as a sum of partial fractions; null where a factor is of another kind. */
function partialFractions(above: Polynomial, below: Polynomial): PartialFraction[] | null {
  if (above.length === 0) return [];
  const factors = splitFactors(below);
  if (!factors) return null;
  const slots = factors.flatMap(({ factor, multiplicity }) =>
    Array.from({ length: multiplicity }, (_, i) => ({ factor, exponent: i + 1 })),
  );
  // Σ (unknown · x^k) · below/factor^e = above: one column an unknown.
  const columns = slots.flatMap(({ factor, exponent }) => {
    let rest = below;
    for (let k = 0; k < exponent; k++) rest = polynomial.divide(rest, factor).quotient;
    return factor.slice(1).map((_, k): Polynomial => [...Array<Rational>(k).fill(rational.zero), ...rest]);
  });
  const solution = polynomial.combination(columns, above);
  if (!solution) return null;
  let next = 0;
  return slots.map(({ factor, exponent }) => {
    const numerator = solution.slice(next, next + polynomial.degree(factor));
    next += polynomial.degree(factor);
    return { above: numerator, factor, exponent };
  });
}

function splitFactors(p: Polynomial): { factor: Polynomial; multiplicity: number }[] | null {
  const split: { factor: Polynomial; multiplicity: number }[] = [];
  for (const { factor, multiplicity } of polynomial.squareFreeFactors(p)) {
    const { roots, rest } = polynomial.rationalRoots(factor);
    for (const root of roots) split.push({ factor: [rational.negate(root), rational.one], multiplicity });
    if (polynomial.degree(rest) < 1) continue;
    const factors = polynomial.degree(rest) === 2 ? [rest] : evenFactors(polynomial.monic(rest));
    if (!factors || (multiplicity > 1 && factors.some((one) => polynomial.degree(one) > 2))) return null;
    split.push(...factors.map((one) => ({ factor: polynomial.monic(one), multiplicity })));
  }
  return split;
}

/** A polynomial in x² as quadratics with rational coefficients, and one of degree 4 where that is left. */
function evenFactors(p: Polynomial): Polynomial[] | null {
  if (p.some((coefficient, k) => k % 2 === 1 && !rational.isZero(coefficient))) return null;
  const { roots, rest } = polynomial.rationalRoots(p.filter((_, k) => k % 2 === 0));
  const quadratics = roots.map((root): Polynomial => [rational.negate(root), rational.zero, rational.one]);
  if (polynomial.degree(rest) < 1) return quadratics;
  const [q, middle] = polynomial.monic(rest);
  if (polynomial.degree(rest) !== 2 || !q || !middle) return null;
  // (x² + s)² − (2s − p)x² with s² = q.
  const s = rational.isNegative(q) ? null : rational.exactRoot(q, 2);
  if (!s) return null;
  const square = rational.subtract(twice(s), middle);
  const t = rational.isNegative(square) ? null : rational.exactRoot(square, 2);
  if (!t) return [...quadratics, [q, rational.zero, middle, rational.zero, rational.one]];
  return [...quadratics, [s, t, rational.one], [s, rational.negate(t), rational.one]];
}

const twice = (r: Rational): Rational => rational.multiply(rational.rational(2), r);

function ofFraction(one: PartialFraction, search: Search): Canonical | null {
  if (one.above.every(rational.isZero)) return whole(0);
  if (one.factor.length === 5) return ofQuarticFactor(one, search);
  return one.factor.length === 2 ? ofLinearFactor(one, search) : ofQuadraticFactor(one, search);
}

/**
 * (a + bx + cx² + dx³)/(x⁴ + px² + s²), whose divisor is (x² + tx + s)(x² − tx + s) with t² = 2s − p that is no square of
 * a fraction. Source: Gradshteyn and Ryzhik, 2.161 (from memory).
 */
function ofQuarticFactor({ above, factor }: PartialFraction, search: Search): Canonical | null {
  const [a, b, c, d] = [0, 1, 2, 3].map((k) => above[k] ?? rational.zero) as [
    Rational,
    Rational,
    Rational,
    Rational,
  ];
  const [q, p] = [factor[0] as Rational, factor[2] as Rational];
  const s = rational.exactRoot(q, 2);
  if (!s) return null;
  const [tSquare, wSquare] = [rational.subtract(twice(s), p), rational.add(twice(s), p)];
  if ([tSquare, wSquare].some((square) => rational.compare(square, rational.zero) <= 0)) return null;
  const [t, w] = [tSquare, wSquare].map((square) => callOf('sqrt', [numeric(square)])) as [
    Canonical,
    Canonical,
  ];
  const ratio = rational.divide(a, s);
  const quarter = (r: Rational): Canonical => numeric(rational.divide(r, rational.rational(4)));
  const { x } = search;
  const quadratic = (sign: 1 | -1): Canonical =>
    sum([power(x, whole(2)), product([whole(sign), t, x]), numeric(s)]);
  const arc = (sign: 1 | -1): Canonical =>
    callOf('arctan', [quotient(sum([product([whole(2), x]), product([whole(sign), t])]), w)]);
  const inside = search.in(`${search.variable}~`);
  const odd = ofFraction({ above: [b, d], factor: [q, p, rational.one], exponent: 1 }, inside);
  return (
    odd &&
    sum([
      product([
        quarter(rational.subtract(ratio, c)),
        power(t, whole(-1)),
        callOf('ln', [quotient(quadratic(1), quadratic(-1))]),
      ]),
      product([whole(2), quarter(rational.add(ratio, c)), power(w, whole(-1)), sum([arc(1), arc(-1)])]),
      product([numeric(rational.rational(1, 2)), replaced(odd, inside.x, power(x, whole(2)))]),
    ])
  );
}

function ofLinearFactor({ above, factor, exponent }: PartialFraction, search: Search): Canonical {
  const u = polynomial.toCanonical(factor, search.variable);
  const coefficient = numeric(above[0] as Rational);
  if (exponent === 1) return product([coefficient, logarithmOfSize(u)]);
  return product([coefficient, numeric(rational.rational(1, 1 - exponent)), power(u, whole(1 - exponent))]);
}

/** (mx + n)/(x² + bx + c)ᵏ: half of m times the logarithm's part, and what is left. */
function ofQuadraticFactor({ above, factor, exponent }: PartialFraction, search: Search): Canonical {
  const [n, m] = [above[0] ?? rational.zero, above[1] ?? rational.zero];
  const b = factor[1] as Rational;
  const q = polynomial.toCanonical(factor, search.variable);
  const halfM = rational.divide(m, rational.rational(2));
  const rest = rational.subtract(n, rational.multiply(halfM, b));
  const isPositive = rational.isNegative(polynomial.discriminant(factor));
  const logarithm = isPositive ? callOf('ln', [q]) : logarithmOfSize(q);
  const outer =
    exponent === 1
      ? logarithm
      : product([numeric(rational.rational(1, 1 - exponent)), power(q, whole(1 - exponent))]);
  const inner = product([numeric(rest), ofReciprocalPower(factor, exponent, search)]);
  return sum([product([numeric(halfM), outer]), inner]);
}

/** ∫ dx/(x² + bx + c)ᵏ. Source: Gradshteyn and Ryzhik, Table of Integrals, 2.172 and 2.171 (from memory). */
function ofReciprocalPower(factor: Polynomial, exponent: number, search: Search): Canonical {
  const b = factor[1] as Rational;
  const q = polynomial.toCanonical(factor, search.variable);
  const slope = sum([product([whole(2), search.x]), numeric(b)]);
  const delta = rational.negate(polynomial.discriminant(factor));
  if (exponent > 1) {
    const k = exponent - 1;
    const share = (top: number): Canonical => numeric(rational.divide(rational.rational(top, k), delta));
    return sum([
      product([share(1), slope, power(q, whole(-k))]),
      product([share(2 * (2 * k - 1)), ofReciprocalPower(factor, k, search)]),
    ]);
  }
  const root = callOf('sqrt', [numeric(rational.absolute(delta))]);
  if (!rational.isNegative(delta)) {
    return product([whole(2), power(root, whole(-1)), callOf('arctan', [expanded(quotient(slope, root))])]);
  }
  const ratio = quotient(sum([slope, product([whole(-1), root])]), sum([slope, root]));
  return quotient(logarithmOfSize(ratio), root);
}
