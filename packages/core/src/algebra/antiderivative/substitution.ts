import { baseAndExponent, callOf, power, product, quotient, whole, type Canonical } from '../canonical.ts';
import { expanded, factored } from '../expand.ts';
import { partsOf, replaced, withParts } from '../parts.ts';
import * as rational from '../../numbers/rational.ts';
import { linear, type Method, type Search } from './integrand.ts';

/** Inner functions that are tried. */
const mostTried = 12;

/** ∫ g(u(x)) u′(x) dx = ∫ g(u) du, for an inner function u that stands in the formula. */
export const bySubstitution: Method = (form, search) => {
  const inside = search.in(`${search.variable}~`);
  const tried = [...inner(form, search).values()].sort((a, b) => b.key.length - a.key.length);
  for (const u of tried.slice(0, mostTried)) {
    const rest = quotient(form, search.derivative(u));
    for (const candidate of [rest, factored(rest), expanded(rest)]) {
      const inU = rewritten(candidate, u, inside.x);
      if (search.moves(inU) || inU.key.length > form.key.length * 2) continue;
      const found = inside.of(inU);
      if (found) return replaced(found, inside.x, u);
    }
  }
  return null;
};

/** What stands inside powers and functions, and those themselves; no x alone, no ax + b, not the form itself. */
function inner(
  form: Canonical,
  search: Search,
  found = new Map<string, Canonical>(),
): Map<string, Canonical> {
  for (const part of form.kind === 'power' ? [form.base, form.exponent] : partsOf(form)) {
    if (!search.moves(part) || part.key === search.variable) continue;
    if (!linear(part, search) && part.kind !== 'product') found.set(part.key, part);
    for (const lower of lowerPowers(part, search)) found.set(lower.key, lower);
    inner(part, search, found);
  }
  return found;
}

/** x² and x³ where a higher power stands: x⁴ is (x²)². */
function lowerPowers(form: Canonical, { x }: Search): Canonical[] {
  if (form.kind !== 'power' || form.base.key !== x.key || form.exponent.kind !== 'number') return [];
  const { numerator, denominator } = form.exponent.value;
  return denominator === 1n
    ? [2, 3].filter((k) => numerator % BigInt(k) === 0n).map((k) => power(x, whole(k)))
    : [];
}

/** A form with t for u, and powers of t for powers of what u is a power of. */
function rewritten(form: Canonical, u: Canonical, t: Canonical): Canonical {
  if (form.key === u.key) return t;
  const [mine, its] = [baseAndExponent(form), baseAndExponent(u)];
  if (form.kind === 'power' && mine.base.key === its.base.key) {
    const times = ratio(mine.exponent, its.exponent);
    if (times) return power(t, times);
  }
  return withParts(form, (part) => rewritten(part, u, t));
}

/** How many times one exponent goes into another, where that is a whole number. */
function ratio(exponent: Canonical, by: Canonical): Canonical | null {
  const times = quotient(exponent, by);
  return times.kind === 'number' && rational.isInteger(times.value) ? times : null;
}

/** t = ln x in a formula without any other x than powers of it: ∫ g(ln x) xᵏ dx = ∫ g(t) e^((k + 1)t) dt. */
export const byLogarithm: Method = (form, search) => {
  const logarithm = callOf('ln', [search.x]);
  const inside = search.in(`${search.variable}~`);
  const t = inside.x;
  const e = (times: Canonical): Canonical => callOf('exp', [times]);
  const inT = (part: Canonical): Canonical => {
    if (part.key === logarithm.key) return t;
    const { base, exponent } = baseAndExponent(part);
    if (base.key === search.x.key) return e(product([exponent, t]));
    return withParts(part, inT);
  };
  const isThere = (part: Canonical): boolean => part.key === logarithm.key || partsOf(part).some(isThere);
  if (!isThere(form)) return null;
  const found = inside.of(product([inT(form), e(t)]));
  return found && replaced(replacedPowers(found, t, search.x), t, logarithm);
};

/** xᵏ for e^(kt). */
function replacedPowers(form: Canonical, t: Canonical, x: Canonical): Canonical {
  if (form.kind === 'power' && form.base.key === callOf('exp', [whole(1)]).key) {
    const times = quotient(form.exponent, t);
    if (times.kind === 'number') return power(x, times);
  }
  return withParts(form, (part) => replacedPowers(part, t, x));
}
