import {
  baseAndExponent,
  callOf,
  difference,
  isNumber,
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
import { factorsOf, partsOf, replaced } from '../parts.ts';
import * as polynomial from '../polynomial.ts';
import type { Polynomial } from '../polynomial.ts';
import * as rational from '../../numbers/rational.ts';
import type { Rational } from '../../numbers/rational.ts';
import { inRootOf, linear, type Method, type Search } from './integrand.ts';
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
const largestCommonRoot = 12n;

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
  const inT = inRootOf(base, k, t, x, search.variable);
  const changed = product([inT(form), quotient(product([whole(k), power(t, whole(k - 1))]), line.a)]);
  const antiderivative = inside.of(expanded(changed)) ?? inside.of(changed);
  return antiderivative && replaced(antiderivative, t, power(base, numeric(rational.rational(1, k))));
};

/** The base of which there are roots, and the root through which all of them can be written. */
function rootIn(form: Canonical, search: Search): { base: Canonical; k: number } | null {
  const found: { base: Canonical; denominator: bigint }[] = [];
  const collect = (part: Canonical): void => {
    const { base, exponent } = baseAndExponent(part);
    if (part.kind === 'power' && exponent.kind === 'number' && linear(base, search)) {
      const { denominator } = exponent.value;
      if (denominator > 1n && denominator <= largestRoot) found.push({ base, denominator });
    }
    partsOf(part).forEach(collect);
  };
  collect(form);
  const [first] = found;
  const same = found.filter(({ base }) => base.key === first?.base.key);
  const k = same.reduce((all, { denominator }) => leastCommonMultiple(all, denominator), 1n);
  return first && k <= largestCommonRoot ? { base: first.base, k: Number(k) } : null;
}

const leastCommonMultiple = (a: bigint, b: bigint): bigint => {
  let [x, y] = [a, b];
  while (y > 0n) [x, y] = [y, x % y];
  return (a / x) * b;
};

/** The root of (ax + b)/(cx + d) and rational functions: t is the root, x = (dtᵏ − b)/(a − ctᵏ). */
export const byFractionRoot: Method = (form, search) => {
  const found = fractionRootIn(form, search);
  if (!found) return null;
  const { base, k, a, b, c, d } = found;
  const inside = search.in(`${search.variable}~`);
  const t = inside.x;
  const raised = power(t, whole(k));
  const below = difference(a, product([c, raised]));
  const x = quotient(difference(product([d, raised]), b), below);
  const inT = inRootOf(base, k, t, x, search.variable);
  // dx = k (ad − bc) tᵏ⁻¹/(a − ctᵏ)² dt
  const turning = difference(product([a, d]), product([b, c]));
  const dx = product([whole(k), turning, power(t, whole(k - 1)), power(below, whole(-2))]);
  const antiderivative = inside.of(product([inT(form), dx]));
  return antiderivative && replaced(antiderivative, t, power(base, numeric(rational.rational(1, k))));
};

interface FractionRoot {
  readonly base: Canonical;
  readonly k: number;
  readonly a: Canonical;
  readonly b: Canonical;
  readonly c: Canonical;
  readonly d: Canonical;
}

function fractionRootIn(form: Canonical, search: Search): FractionRoot | null {
  const { base, exponent } = baseAndExponent(form);
  if (base.kind === 'product' && exponent.kind === 'number' && exponent.value.denominator > 1n) {
    const below = base.factors.find((factor) => isNumber(baseAndExponent(factor).exponent, -1));
    const under = below && linear(baseAndExponent(below).base, search);
    const over = below && linear(quotient(base, below), search);
    const { denominator } = exponent.value;
    if (under && over && denominator <= largestRoot)
      return { base, k: Number(denominator), a: over.a, b: over.b, c: under.a, d: under.b };
  }
  for (const part of partsOf(form)) {
    const found = fractionRootIn(part, search);
    if (found) return found;
  }
  return null;
}
