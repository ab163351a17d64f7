import {
  baseAndExponent,
  callOf,
  difference,
  isNumber,
  negative,
  numeric,
  product,
  quotient,
  splitCoefficient,
  sum,
  whole,
  type Canonical,
} from '../canonical.ts';
import { expanded, factored } from '../expand.ts';
import { inSinesAndCosines } from '../identities.ts';
import { factorsOf, mapped } from '../parts.ts';
import * as rational from '../../numbers/rational.ts';
import type { Rational } from '../../numbers/rational.ts';
import { linear, type Method, type Search } from './integrand.ts';
import { logarithmOfSize } from './table.ts';

/** a + b sin u + c cos u with fractions a, b and c. */
interface WaveSum {
  readonly a: Rational;
  readonly b: Rational;
  readonly c: Rational;
  readonly u: Canonical;
}

function waveSum(form: Canonical, search: Search): WaveSum | null {
  let [a, b, c]: [Rational, Rational, Rational] = [rational.zero, rational.zero, rational.zero];
  let u: Canonical | null = null;
  for (const term of form.kind === 'sum' ? form.terms : [form]) {
    if (term.kind === 'number') {
      a = rational.add(a, term.value);
      continue;
    }
    const coefficient = term.kind === 'product' ? term.coefficient : rational.one;
    const [wave, ...others] = factorsOf(term);
    if (others.length > 0 || wave?.kind !== 'call') return null;
    const [angle] = wave.operands as [Canonical];
    if (u && u.key !== angle.key) return null;
    u = angle;
    if (wave.name === 'sin') b = rational.add(b, coefficient);
    else if (wave.name === 'cos') c = rational.add(c, coefficient);
    else return null;
  }
  return u && linear(u, search) ? { a, b, c, u } : null;
}

const combined = (terms: readonly (readonly [Rational, Canonical])[]): Canonical =>
  sum(terms.map(([coefficient, of]) => product([numeric(coefficient), of])));

/**
 * ∫ du/(a + b sin u + c cos u) without the jumps that the half angle brings: with w = √|a² − b² − c²|,
 * v = b sin u + c cos u and its quarter turn t = c sin u − b cos u it is (u − 2 arctan(t/(a + w + v)))/w,
 * t/(a(a + v)) or ln|(b² + c² + av + wt)/(a + v)|/w. Source: Gradshteyn and Ryzhik, 2.551 and 2.555 (from memory),
 * turned by the angle whose tangent is b/c.
 */
export const byReciprocalOfWaves: Method = (form, search) => {
  const { base, exponent } = baseAndExponent(form);
  const found = isNumber(exponent, -1) ? waveSum(base, search) : null;
  if (!found) return null;
  if (rational.isNegative(found.a)) {
    const turned = search.of(quotient(whole(1), expanded(negative(base))));
    return turned && negative(turned);
  }
  const { a, b, c, u } = found;
  const line = linear(u, search);
  if (!line) return null;
  const [sine, cosine] = [callOf('sin', [u]), callOf('cos', [u])];
  const t = combined([
    [c, sine],
    [rational.negate(b), cosine],
  ]);
  const size = rational.add(rational.multiply(b, b), rational.multiply(c, c));
  const apart = rational.subtract(rational.multiply(a, a), size);
  const w = callOf('sqrt', [numeric(rational.absolute(apart))]);
  const inAngle = (): Canonical => {
    if (rational.isZero(apart)) return quotient(t, product([numeric(a), base]));
    if (!rational.isNegative(apart))
      return quotient(difference(u, product([whole(2), callOf('arctan', [quotient(t, sum([base, w]))])])), w);
    const v = difference(base, numeric(a));
    const above = sum([numeric(size), product([numeric(a), v]), product([w, t])]);
    return quotient(logarithmOfSize(quotient(splitCoefficient(factored(above)).rest, base)), w);
  };
  return quotient(inAngle(), line.a);
};

/**
 * (p sin u + q cos u)/(r sin u + s cos u): the numerator is A times the divisor and B times its derivative.
 * Source: common practice.
 */
export const byRatioOfWaves: Method = (form, search) => {
  const inWaves = mapped(inSinesAndCosines(form), factored);
  const factors = factorsOf(inWaves);
  const below = factors.find((factor) => {
    const { base, exponent } = baseAndExponent(factor);
    return isNumber(exponent, -1) && base.kind === 'sum';
  });
  if (!below) return null;
  const divisor = baseAndExponent(below).base;
  const [above, under] = [waveSum(quotient(inWaves, below), search), waveSum(divisor, search)];
  if (!above || !under || above.u.key !== under.u.key) return null;
  if (!rational.isZero(above.a) || !rational.isZero(under.a)) return null;
  const line = linear(under.u, search);
  const size = rational.add(rational.multiply(under.b, under.b), rational.multiply(under.c, under.c));
  const share = (x: Rational): Rational => rational.divide(x, size);
  const along = share(rational.add(rational.multiply(above.b, under.b), rational.multiply(above.c, under.c)));
  const across = share(
    rational.subtract(rational.multiply(above.c, under.b), rational.multiply(above.b, under.c)),
  );
  const inAngle = combined([
    [along, under.u],
    [across, logarithmOfSize(divisor)],
  ]);
  return line && quotient(inAngle, line.a);
};
