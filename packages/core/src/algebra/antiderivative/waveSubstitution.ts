import {
  baseAndExponent,
  callOf,
  difference,
  numeric,
  power,
  product,
  quotient,
  sum,
  whole,
  type Canonical,
} from '../canonical.ts';
import { factored } from '../expand.ts';
import { inSinesAndCosines } from '../identities.ts';
import { dependsOn, mapped, partsOf, replaced } from '../parts.ts';
import * as rational from '../../numbers/rational.ts';
import { inSimpleAngles } from '../vanishes.ts';
import { inRootOf, linear, type Method, type Search } from './integrand.ts';

/** The ax + b of which there are circular functions, where there is one only. */
function angleIn(form: Canonical, names: ReadonlySet<string>, search: Search): Canonical | null {
  const angles = new Map<string, Canonical>();
  const collect = (part: Canonical): void => {
    const [angle] = part.kind === 'call' && names.has(part.name) ? part.operands : [];
    if (angle) angles.set(angle.key, angle);
    partsOf(part).forEach(collect);
  };
  collect(form);
  const [only] = angles.values();
  return only && angles.size === 1 && linear(only, search) ? only : null;
}

const sinesAndCosines: ReadonlySet<string> = new Set(['sin', 'cos']);

/** t = cos u where sin u and even powers of it are left, and the other way round. */
export const byOddWave: Method = (form, search) => {
  const waves = mapped(inSimpleAngles(inSinesAndCosines(form)), factored);
  const u = angleIn(waves, sinesAndCosines, search);
  const line = u && linear(u, search);
  if (!line) return null;
  for (const [name, other, sign] of [
    ['cos', 'sin', -1],
    ['sin', 'cos', 1],
  ] as const) {
    const [kept, gone] = [callOf(name, [u]), callOf(other, [u])];
    const inside = search.in(`${search.variable}~`);
    const rest = replaced(mapped(quotient(waves, gone), withoutEven(gone, kept)), kept, inside.x);
    const found = dependsOn(rest, search.variable) ? null : inside.of(rest);
    if (found) return quotient(product([whole(sign), replaced(found, inside.x, kept)]), line.a);
  }
  return null;
};

/** sin²ᵏ as (1 − cos²)ᵏ, or the other way round. */
const withoutEven =
  (gone: Canonical, kept: Canonical) =>
  (part: Canonical): Canonical => {
    const { base, exponent } = baseAndExponent(part);
    if (base.key !== gone.key || exponent.kind !== 'number') return part;
    const half = rational.divide(exponent.value, rational.rational(2));
    return rational.isInteger(half)
      ? power(difference(whole(1), power(kept, whole(2))), numeric(half))
      : part;
  };

/** Roots that are substituted away. */
const largestRoot = 6n;

/** A root of tan u among powers of it, or of cot u: t is the root, du = ±k tᵏ⁻¹/(1 + t²ᵏ) dt. */
export const byTangentRoot: Method = (form, search) =>
  byRootOf('tan', 1, form, search) ?? byRootOf('cot', -1, form, search);

function byRootOf(name: 'tan' | 'cot', sign: 1 | -1, form: Canonical, search: Search): Canonical | null {
  const u = angleIn(form, new Set([name]), search);
  const line = u && linear(u, search);
  if (!line) return null;
  const tangent = callOf(name, [u]);
  let k = 1n;
  const collect = (part: Canonical): void => {
    const { base, exponent } = baseAndExponent(part);
    if (base.key === tangent.key && exponent.kind === 'number' && exponent.value.denominator > k)
      k = exponent.value.denominator;
    partsOf(part).forEach(collect);
  };
  collect(form);
  if (k === 1n || k > largestRoot) return null;
  const times = whole(Number(k));
  const inside = search.in(`${search.variable}~`);
  const t = inside.x;
  const inT = inRootOf(tangent, Number(k), t, search.x, search.variable);
  const du = product([
    whole(sign),
    times,
    power(t, whole(Number(k) - 1)),
    power(sum([whole(1), power(t, product([whole(2), times]))]), whole(-1)),
  ]);
  const changed = product([inT(form), du]);
  if (dependsOn(changed, search.variable)) return null;
  const found = inside.of(changed);
  return found && quotient(replaced(found, t, power(tangent, quotient(whole(1), times))), line.a);
}
