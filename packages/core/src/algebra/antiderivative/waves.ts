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
import { inSinesAndCosines } from '../identities.ts';
import { expanded } from '../expand.ts';
import { factorsOf, replaced } from '../parts.ts';
import * as rational from '../../numbers/rational.ts';
import { linear, type Method, type Search } from './integrand.ts';
import { logarithmOfSize } from './table.ts';

/** sinᵐ u · cosⁿ u with whole m and n. */
interface WaveProduct {
  readonly u: Canonical;
  readonly sines: number;
  readonly cosines: number;
}

/** Largest whole power of a sine or cosine that is taken apart. */
const highestPower = 12;

/**
 * Products of powers of sines and cosines of one ax + b: by substitution where one power is odd, by reduction
 * formulas where both are even.
 */
export const byWaves: Method = (form, search) => {
  const found = waveProduct(inSinesAndCosines(form));
  const line = found && linear(found.u, search);
  if (!found || !line || found.sines * found.cosines + found.sines + found.cosines === 1) return null;
  const inner = antiderivativeOf(found, search);
  return inner && quotient(inner, line.a);
};

function waveProduct(form: Canonical): WaveProduct | null {
  let [sines, cosines] = [0, 0];
  let u: Canonical | null = null;
  for (const factor of factorsOf(form)) {
    const { base, exponent } = baseAndExponent(factor);
    const isWave = base.kind === 'call' && (base.name === 'sin' || base.name === 'cos');
    if (!isWave || exponent.kind !== 'number' || !rational.isInteger(exponent.value)) return null;
    const [argument] = base.operands as [Canonical];
    if (u && u.key !== argument.key) return null;
    u = argument;
    if (base.name === 'sin') sines += Number(exponent.value.numerator);
    else cosines += Number(exponent.value.numerator);
  }
  const isSmall = Math.abs(sines) <= highestPower && Math.abs(cosines) <= highestPower;
  return u && isSmall && (form.kind !== 'product' || rational.isOne(form.coefficient))
    ? { u, sines, cosines }
    : null;
}

const isOdd = (n: number): boolean => n % 2 !== 0;

/** In u itself. */
function antiderivativeOf({ u, sines, cosines }: WaveProduct, search: Search): Canonical | null {
  const [sine, cosine] = [callOf('sin', [u]), callOf('cos', [u])];
  // t = cos u, dt = −sin u du, and the other way round.
  if (isOdd(sines) && sines > 0) {
    const inner = ofOneWave(sines, cosines, search);
    return inner && negative(inner(cosine));
  }
  if (isOdd(cosines) && cosines > 0) return ofOneWave(cosines, sines, search)?.(sine) ?? null;
  if (sines === 0 && cosines < 0 && isOdd(cosines)) return ofSecants(u, -cosines);
  if (cosines === 0 && sines < 0 && isOdd(sines)) return ofCosecants(u, -sines);
  if (isOdd(sines) && isOdd(cosines)) return ofTangent(u, sines, cosines, search);
  if (isOdd(sines) || isOdd(cosines)) return null;
  if (sines + cosines < 0 || sines < 0 || cosines < 0) return ofTangent(u, sines, cosines, search);
  return reduced(u, sines, cosines);
}

/** ∫ (1 − t²)^((odd − 1)/2) · t^other dt, as a function of t. */
function ofOneWave(odd: number, other: number, search: Search): ((t: Canonical) => Canonical) | null {
  const inside = search.in(`${search.variable}~`);
  const t = inside.x;
  const form = product([
    power(difference(whole(1), power(t, whole(2))), whole((odd - 1) / 2)),
    power(t, whole(other)),
  ]);
  const found = inside.of(form);
  return found && ((by) => replaced(found, t, by));
}

/** t = tan u: sinᵐ u cosⁿ u du = tᵐ (1 + t²)^(−(m + n)/2 − 1) dt. */
function ofTangent(u: Canonical, sines: number, cosines: number, search: Search): Canonical | null {
  const inside = search.in(`${search.variable}~`);
  const t = inside.x;
  const form = product([
    power(t, whole(sines)),
    power(sum([whole(1), power(t, whole(2))]), whole(-(sines + cosines) / 2 - 1)),
  ]);
  const found = inside.of(form);
  if (!found) return null;
  // arctan(tan u) is u, but for steps.
  const withoutArc = replaced(found, callOf('arctan', [t]), u);
  return replaced(withoutArc, t, callOf('tan', [u]));
}

/** ∫ secⁿ = (secⁿ⁻² tan + (n − 2) ∫ secⁿ⁻²)/(n − 1). Source: Stewart, Calculus, section 7.1, exercises. */
function ofSecants(u: Canonical, n: number): Canonical {
  if (n === 1) return logarithmOfSize(sum([callOf('sec', [u]), callOf('tan', [u])]));
  const boundary = product([callOf('tan', [u]), power(callOf('sec', [u]), whole(n - 2))]);
  return quotient(sum([boundary, product([whole(n - 2), ofSecants(u, n - 2)])]), whole(n - 1));
}

/** ∫ cscⁿ = (−cscⁿ⁻² cot + (n − 2) ∫ cscⁿ⁻²)/(n − 1). Source: as for secants. */
function ofCosecants(u: Canonical, n: number): Canonical {
  if (n === 1) return negative(logarithmOfSize(sum([callOf('csc', [u]), callOf('cot', [u])])));
  const boundary = product([callOf('cot', [u]), power(callOf('csc', [u]), whole(n - 2))]);
  return quotient(difference(product([whole(n - 2), ofCosecants(u, n - 2)]), boundary), whole(n - 1));
}

/** sin or cos of one ax + b times sin or cos of another, as a sum. */
export const byWaveProduct: Method = (form, search) => {
  const [first, second, ...others] = factorsOf(form);
  if (first?.kind !== 'call' || second?.kind !== 'call' || others.length > 0) return null;
  const names = [first.name, second.name];
  if (!names.every((name) => name === 'sin' || name === 'cos')) return null;
  const [u, v] = [first.operands[0] as Canonical, second.operands[0] as Canonical];
  if (!linear(u, search) || !linear(v, search)) return null;
  const [together, apart] = [sum([u, v]), difference(u, v)];
  const wave = (name: string, angle: Canonical): Canonical => callOf(name, [expanded(angle)]);
  const terms =
    first.name === second.name
      ? [wave('cos', apart), product([whole(first.name === 'cos' ? 1 : -1), wave('cos', together)])]
      : [wave('sin', together), product([whole(first.name === 'sin' ? 1 : -1), wave('sin', apart)])];
  const inner = search.of(sum(terms));
  return inner && quotient(inner, whole(2));
};

/** Both powers even: ∫ sinᵐ cosⁿ by the reduction formulas, down to ∫ 1. Source: Stewart, Calculus, section 7.1. */
function reduced(u: Canonical, sines: number, cosines: number): Canonical {
  if (sines === 0 && cosines === 0) return u;
  const [sine, cosine] = [callOf('sin', [u]), callOf('cos', [u])];
  const share = (n: number, of: number): Canonical => numeric(rational.rational(n, of));
  const total = sines + cosines;
  const isSine = sines > 0;
  const rest = isSine ? reduced(u, sines - 2, cosines) : reduced(u, sines, cosines - 2);
  const boundary = isSine
    ? negative(product([power(sine, whole(sines - 1)), power(cosine, whole(cosines + 1))]))
    : product([power(sine, whole(sines + 1)), power(cosine, whole(cosines - 1))]);
  return sum([
    product([share(1, total), boundary]),
    product([share((isSine ? sines : cosines) - 1, total), rest]),
  ]);
}
