import {
  baseAndExponent,
  callOf,
  difference,
  negative,
  power,
  product,
  quotient,
  sum,
  whole,
  type Canonical,
} from '../canonical.ts';
import { factorsOf, mapped, replaced } from '../parts.ts';
import * as rational from '../../numbers/rational.ts';
import { linear, type Method, type Search } from './integrand.ts';
import { logarithmOfSize } from './table.ts';

/** Largest whole power of a hyperbolic function that is taken apart. */
const highestPower = 12;

/**
 * Products of whole powers of sinh and cosh of one ax + b, tanh and their reciprocals among them: by substitution where
 * one power is odd, through tanh or by reduction where both are even.
 */
export const byHyperbolics: Method = (form, search) => {
  const found = powersIn(inSinhAndCosh(form));
  const line = found && linear(found.u, search);
  if (!found || !line || found.sinh * found.cosh + found.sinh + found.cosh === 1) return null;
  const inner = antiderivativeOf(found.u, found.sinh, found.cosh, search);
  return inner && quotient(inner, line.a);
};

function inSinhAndCosh(form: Canonical): Canonical {
  return mapped(form, (part) => {
    if (part.kind !== 'call') return part;
    const [sinh, cosh] = [callOf('sinh', part.operands), callOf('cosh', part.operands)];
    switch (part.name) {
      case 'tanh':
        return quotient(sinh, cosh);
      case 'coth':
        return quotient(cosh, sinh);
      case 'sech':
        return quotient(whole(1), cosh);
      case 'csch':
        return quotient(whole(1), sinh);
      default:
        return part;
    }
  });
}

function powersIn(form: Canonical): { u: Canonical; sinh: number; cosh: number } | null {
  if (form.kind === 'product' && !rational.isOne(form.coefficient)) return null;
  const counts = { sinh: 0, cosh: 0 };
  let u: Canonical | null = null;
  for (const factor of factorsOf(form)) {
    const { base, exponent } = baseAndExponent(factor);
    if (base.kind !== 'call' || (base.name !== 'sinh' && base.name !== 'cosh')) return null;
    if (exponent.kind !== 'number' || !rational.isInteger(exponent.value)) return null;
    const [argument] = base.operands as [Canonical];
    if (u && u.key !== argument.key) return null;
    u = argument;
    counts[base.name] += Number(exponent.value.numerator);
  }
  const isSmall = Math.max(Math.abs(counts.sinh), Math.abs(counts.cosh)) <= highestPower;
  return u && isSmall ? { u, ...counts } : null;
}

const isOdd = (n: number): boolean => n % 2 !== 0;

function antiderivativeOf(u: Canonical, m: number, n: number, search: Search): Canonical | null {
  const [sinh, cosh] = [callOf('sinh', [u]), callOf('cosh', [u])];
  if (m === 0 && n === 0) return u;
  // sinh²ᵏ⁺¹ = (cosh² − 1)ᵏ sinh, and the other way round.
  if (isOdd(m) && m > 0) return through(cosh, -1, (m - 1) / 2, n, search);
  if (isOdd(n) && n > 0) return through(sinh, 1, (n - 1) / 2, m, search);
  if (m === 0 && n === -1) return callOf('arctan', [sinh]);
  if (m === -1 && n === 0) return logarithmOfSize(quotient(difference(cosh, whole(1)), sinh));
  if (m + n === 0) return ofQuotient(u, m, search);
  if (m === 0 && isOdd(n)) return ofReciprocal(u, 'cosh', -n, search);
  if (n === 0 && isOdd(m)) return ofReciprocal(u, 'sinh', -m, search);
  // t = tanh u: sinhᵐ coshⁿ du = tᵐ (1 − t²)^(−(m + n)/2 − 1) dt.
  if (!isOdd(m + n) && m + n < 0) return through(quotient(sinh, cosh), 0, -(m + n) / 2 - 1, m, search);
  if (isOdd(m) || isOdd(n) || m < 0 || n < 0) return null;
  return reduced(u, m, n, search);
}

/** ∫ tanhᵐ = ∫ tanhᵐ⁻² − tanhᵐ⁻¹/(m − 1), and the same for coth, whose powers are those of tanh below 0. */
function ofQuotient(u: Canonical, m: number, search: Search): Canonical | null {
  const step = Math.sign(m);
  const rest = antiderivativeOf(u, m - 2 * step, 2 * step - m, search);
  const tanh = quotient(callOf('sinh', [u]), callOf('cosh', [u]));
  return rest && difference(rest, quotient(power(tanh, whole(m - step)), whole(Math.abs(m) - 1)));
}

/** ∫ sechⁿ = (sechⁿ⁻² tanh + (n − 2) ∫ sechⁿ⁻²)/(n − 1); ∫ cschⁿ = −(cschⁿ⁻² coth + (n − 2) ∫ cschⁿ⁻²)/(n − 1). */
function ofReciprocal(u: Canonical, below: 'sinh' | 'cosh', n: number, search: Search): Canonical | null {
  const [sinh, cosh] = [callOf('sinh', [u]), callOf('cosh', [u])];
  const isCosh = below === 'cosh';
  const rest = isCosh ? antiderivativeOf(u, 0, 2 - n, search) : antiderivativeOf(u, 2 - n, 0, search);
  if (!rest) return null;
  const boundary = product([isCosh ? sinh : cosh, power(isCosh ? cosh : sinh, whole(1 - n))]);
  const both = sum([boundary, product([whole(n - 2), rest])]);
  return quotient(isCosh ? both : negative(both), whole(n - 1));
}

/** ∫ (t² ± 1)ᵏ tʲ dt, or ∫ (1 − t²)ᵏ tʲ dt for a sign of 0, with what t stands for put in. */
function through(of: Canonical, sign: 1 | -1 | 0, k: number, j: number, search: Search): Canonical | null {
  const inside = search.in(`${search.variable}~`);
  const t = inside.x;
  const square = power(t, whole(2));
  const bracket = sign === 0 ? difference(whole(1), square) : sum([square, whole(sign)]);
  const found = inside.of(product([power(bracket, whole(k)), power(t, whole(j))]));
  return found && replaced(found, t, of);
}

/** Both powers even. Source: Gradshteyn and Ryzhik, 2.411 (from memory). */
function reduced(u: Canonical, m: number, n: number, search: Search): Canonical | null {
  const [sinh, cosh] = [callOf('sinh', [u]), callOf('cosh', [u])];
  const rest = m > 0 ? antiderivativeOf(u, m - 2, n, search) : antiderivativeOf(u, m, n - 2, search);
  if (!rest) return null;
  const total = whole(m + n);
  if (m > 0) {
    const boundary = product([power(sinh, whole(m - 1)), power(cosh, whole(n + 1))]);
    return quotient(sum([boundary, negative(product([whole(m - 1), rest]))]), total);
  }
  return quotient(sum([product([sinh, power(cosh, whole(n - 1))]), product([whole(n - 1), rest])]), total);
}
