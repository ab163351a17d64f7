import {
  baseAndExponent,
  callOf,
  difference,
  negative,
  numeric,
  power,
  product,
  quotient,
  sum,
  whole,
  type Canonical,
} from '../canonical.ts';
import { expanded } from '../expand.ts';
import { factorsOf, partsOf, replaced, withParts } from '../parts.ts';
import * as polynomial from '../polynomial.ts';
import type { Polynomial } from '../polynomial.ts';
import * as rational from '../rational.ts';
import type { Rational } from '../rational.ts';
import { linear, type Method, type Search } from './integrand.ts';
import { logarithmOfSize } from './table.ts';

/** Highest degree of a polynomial before the root of a quadratic. */
const highestDegree = 8;

/**
 * P·√q and P/√q for a polynomial P and a quadratic q: ∫ P/√q = Q√q + λ ∫ 1/√q, where the coefficients of Q and λ
 * follow from P = Q′q + Qq′/2 + λ. Source: Gradshteyn and Ryzhik, Table of Integrals, 2.25 (from memory).
 */
export const byQuadraticRoot: Method = (form, search) => {
  const root = factorsOf(form).find(isSquareRoot);
  if (!root) return null;
  const { base, exponent } = baseAndExponent(root);
  const q = polynomial.polynomialOf(expanded(base), search.variable);
  const rest = polynomial.polynomialOf(expanded(quotient(form, root)), search.variable);
  if (!q || !rest || polynomial.degree(q) !== 2 || rest.length === 0) return null;
  const isBelow = exponent.kind === 'number' && rational.isNegative(exponent.value);
  const above = isBelow ? rest : polynomial.multiply(rest, q);
  if (polynomial.degree(above) > highestDegree) return null;
  const solution = undetermined(above, q);
  const [lambda, ...coefficients] = solution ?? [];
  if (!lambda) return null;
  return sum([
    product([polynomial.toCanonical(coefficients, search.variable), callOf('sqrt', [base])]),
    product([numeric(lambda), ofReciprocalRoot(q, base, search)]),
  ]);
};

/** λ and the coefficients of Q with P = Q′q + Qq′/2 + λ. */
function undetermined(above: Polynomial, q: Polynomial): Rational[] | null {
  const halfSlope = polynomial.derivative(q).map((c) => rational.divide(c, rational.rational(2)));
  const columns = Array.from({ length: polynomial.degree(above) }, (_, k): Polynomial => {
    const monomial: Polynomial = [...Array<Rational>(k).fill(rational.zero), rational.one];
    return polynomial.sum(
      polynomial.multiply(polynomial.derivative(monomial), q),
      polynomial.multiply(monomial, halfSlope),
    );
  });
  return polynomial.combination([[rational.one], ...columns], above);
}

const isSquareRoot = (factor: Canonical): boolean => {
  const { exponent } = baseAndExponent(factor);
  if (exponent.kind !== 'number' || exponent.value.denominator !== 2n) return false;
  return exponent.value.numerator === 1n || exponent.value.numerator === -1n;
};

/** ∫ dx/√(ax² + bx + c): an inverse sine for a negative a, a logarithm for a positive one. */
function ofReciprocalRoot(q: Polynomial, base: Canonical, search: Search): Canonical {
  const [, b, a] = q as readonly [Rational, Rational, Rational];
  const slope = polynomial.toCanonical(polynomial.derivative(q), search.variable);
  const root = callOf('sqrt', [numeric(rational.absolute(a))]);
  if (rational.isNegative(a)) {
    const width = callOf('sqrt', [numeric(polynomial.discriminant(q))]);
    return negative(quotient(callOf('arcsin', [expanded(quotient(slope, width))]), root));
  }
  // (x + b/2a)·√a + √q
  const shifted = sum([search.x, numeric(rational.divide(b, rational.multiply(rational.rational(2), a)))]);
  const grown = sum([callOf('sqrt', [base]), product([root, shifted])]);
  return quotient(logarithmOfSize(expanded(grown)), root);
}

/** Denominators of exponents that are substituted away. */
const largestRoot = 6n;

/** One root (or other power) of ax + b among polynomials and quotients of it: t is the root, x = (tᵏ − b)/a. */
export const byLinearRoot: Method = (form, search) => {
  const found = rootIn(form, search);
  if (!found) return null;
  const { base, k } = found;
  const line = linear(base, search);
  if (!line) return null;
  const inside = search.in(`${search.variable}~`);
  const t = inside.x;
  const x = quotient(difference(power(t, whole(k)), line.b), line.a);
  const inT = (part: Canonical): Canonical => {
    const { base: inner, exponent } = baseAndExponent(part);
    if (inner.key === base.key && exponent.kind === 'number') return power(t, product([exponent, whole(k)]));
    return part.key === search.variable ? x : withParts(part, inT);
  };
  const changed = product([inT(form), quotient(product([whole(k), power(t, whole(k - 1))]), line.a)]);
  const antiderivative = inside.of(expanded(changed)) ?? inside.of(changed);
  return antiderivative && replaced(antiderivative, t, power(base, numeric(rational.rational(1, k))));
};

function rootIn(form: Canonical, search: Search): { base: Canonical; k: number } | null {
  const { base, exponent } = baseAndExponent(form);
  if (form.kind === 'power' && exponent.kind === 'number' && linear(base, search)) {
    const { denominator } = exponent.value;
    if (denominator > 1n && denominator <= largestRoot) return { base, k: Number(denominator) };
  }
  for (const part of partsOf(form)) {
    const found = rootIn(part, search);
    if (found) return found;
  }
  return null;
}
