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
import { factorsOf, mapped, partsOf, replaced } from '../parts.ts';
import * as polynomial from '../polynomial.ts';
import * as rational from '../../numbers/rational.ts';
import type { Method, Search } from './integrand.ts';

/** Largest power of x, and of the root, that is taken apart. */
const highestPower = 12;

/**
 * xᵐ (ax² + c)^(k/2) with an even m and an odd k: t = x/√(ax² + c), which is continuous wherever the root has a value,
 * makes it c^(h + 1) tᵐ (1 − at²)^(−h − 2) with h = (m + k − 1)/2. Source: Chebyshev's third case of a binomial
 * differential (from memory).
 */
export const byRootOverPower: Method = (form, search) => {
  const found = rootOverPower(form, search);
  if (!found) return null;
  const { base, a, c, m, k } = found;
  const inside = search.in(`${search.variable}~`);
  const t = inside.x;
  const h = (m + k - 1) / 2;
  const below = difference(whole(1), product([a, power(t, whole(2))]));
  const inner = inside.of(product([power(t, whole(m)), power(below, whole(-2 - h))]));
  if (!inner) return null;
  // arctan(√−a t) is the arcsin of what makes the root 0 at ±1.
  const root = (form: Canonical): Canonical => power(form, numeric(rational.rational(1, 2)));
  const width = root(quotient(c, negative(a)));
  const arc = callOf('arctan', [product([root(negative(a)), t])]);
  const inX = replaced(inner, arc, callOf('arcsin', [quotient(search.x, width)]));
  return product([power(c, whole(h + 1)), replaced(inX, t, quotient(search.x, root(base)))]);
};

interface RootOverPower {
  readonly base: Canonical;
  readonly a: Canonical;
  readonly c: Canonical;
  readonly m: number;
  readonly k: number;
}

function rootOverPower(form: Canonical, search: Search): RootOverPower | null {
  let [m, k] = [0, 0];
  let base: Canonical | null = null;
  for (const factor of factorsOf(form)) {
    const { base: inner, exponent } = baseAndExponent(factor);
    if (exponent.kind !== 'number') return null;
    const { numerator, denominator } = exponent.value;
    if (inner.key === search.x.key && denominator === 1n) m = Number(numerator);
    else if (!base && denominator === 2n) [base, k] = [inner, Number(numerator)];
    else return null;
  }
  const q = base && polynomial.polynomialOf(expanded(base), search.variable);
  if (!base || q?.length !== 3 || m % 2 !== 0 || Math.abs(m) > highestPower || Math.abs(k) > highestPower)
    return null;
  const [c, b, a] = q as readonly [rational.Rational, rational.Rational, rational.Rational];
  if (rational.isZero(c) || !rational.isZero(b)) return null;
  return { base, a: numeric(a), c: numeric(c), m, k };
}

/** Powers of the root of ax² + bx + c by x = s − b/2a, which leaves no bs. */
export const byShiftedRoot: Method = (form, search) => {
  const root = factorsOf(form)
    .map(baseAndExponent)
    .find(({ exponent }) => exponent.kind === 'number' && exponent.value.denominator === 2n);
  const q = root && polynomial.polynomialOf(expanded(root.base), search.variable);
  if (!root || q?.length !== 3) return null;
  const [, b, a] = q as readonly [rational.Rational, rational.Rational, rational.Rational];
  if (rational.isZero(b)) return null;
  const shift = numeric(rational.divide(b, rational.multiply(rational.rational(2), a)));
  const inside = search.in(`${search.variable}~`);
  const inS = mapped(replaced(form, search.x, difference(inside.x, shift)), (part) =>
    part.kind === 'sum' ? expanded(part) : part,
  );
  const found = inside.of(inS);
  if (!found) return null;
  return mapped(replaced(found, inside.x, sum([search.x, shift])), (part) =>
    part.kind === 'power' ? power(expanded(part.base), part.exponent) : part,
  );
};

/** Below the line a sum of two terms, one or both with a root, that its conjugate turns into a number. */
export const byConjugate: Method = (form, search) => {
  const below = factorsOf(form).find((factor) => isNumber(baseAndExponent(factor).exponent, -1));
  const base = below && baseAndExponent(below).base;
  if (base?.kind !== 'sum' || base.terms.length !== 2 || !base.terms.some(hasRoot)) return null;
  const [first, second] = base.terms as unknown as readonly [Canonical, Canonical];
  const square = (term: Canonical): Canonical => expanded(power(term, whole(2)));
  const size = expanded(difference(square(first), square(second)));
  if (search.moves(size) || isNumber(size, 0)) return null;
  return search.of(
    expanded(quotient(product([quotient(form, below as Canonical), difference(first, second)]), size)),
  );
};

const hasRoot = (form: Canonical): boolean => {
  const { exponent } = baseAndExponent(form);
  return (exponent.kind === 'number' && !rational.isInteger(exponent.value)) || partsOf(form).some(hasRoot);
};
