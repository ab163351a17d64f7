import { baseAndExponent, euler, product, quotient } from '../canonical.ts';
import { factored } from '../expand.ts';
import { factorsOf } from '../parts.ts';
import * as polynomial from '../polynomial.ts';
import type { Polynomial } from '../polynomial.ts';
import * as rational from '../../numbers/rational.ts';
import { linear, type Method } from './integrand.ts';
import { fractionOf } from './rationalFunction.ts';

/**
 * P/D · e^(ax + b) with fractions of polynomials is A/E · e^(ax + b) or has no elementary antiderivative: E is D without
 * one of each of its factors, and A follows from P = R A′ − (R E′/E) A + a R A with R = D/E.
 * Source: Risch's method for one exponential; Liouville's theorem (from memory).
 */
export const byFractionOfExponential: Method = (form, search) => {
  const wave = factorsOf(form).find((factor) => baseAndExponent(factor).base.key === euler.key);
  const line = wave && linear(baseAndExponent(wave).exponent, search);
  const parts = wave && fractionOf(quotient(form, wave), search.variable);
  if (!wave || line?.a.kind !== 'number' || !parts || polynomial.degree(parts.below) < 1) return null;
  const { above, below } = parts;
  const simple = polynomial
    .squareFreeFactors(below)
    .reduce<Polynomial>((all, { factor }) => polynomial.multiply(all, factor), [rational.one]);
  const { quotient: under } = polynomial.divide(below, simple);
  const times = (p: Polynomial, by: rational.Rational): Polynomial => polynomial.multiply(p, [by]);
  const turned = polynomial.divide(polynomial.multiply(simple, polynomial.derivative(under)), under).quotient;
  const kept = polynomial.sum(times(simple, line.a.value), times(turned, rational.rational(-1)));
  const columns = Array.from({ length: above.length - simple.length + 1 }, (_, k): Polynomial => {
    const monomial: Polynomial = [...Array<rational.Rational>(k).fill(rational.zero), rational.one];
    return polynomial.sum(
      polynomial.multiply(simple, polynomial.derivative(monomial)),
      polynomial.multiply(kept, monomial),
    );
  });
  // The highest coefficients settle A; the others have to agree.
  const highest = (p: Polynomial): Polynomial => p.slice(polynomial.degree(simple));
  const found = polynomial.combination(columns.map(highest), highest(above));
  if (!found || found.length === 0) return null;
  const made = found.reduce<Polynomial>(
    (all, c, k) => polynomial.sum(all, times(columns[k] as Polynomial, c)),
    [],
  );
  const isSame =
    made.length === above.length && made.every((c, k) => rational.equals(c, above[k] as rational.Rational));
  if (!isSame) return null;
  const a = polynomial.toCanonical(found, search.variable);
  return product([quotient(a, factored(polynomial.toCanonical(under, search.variable))), wave]);
};
