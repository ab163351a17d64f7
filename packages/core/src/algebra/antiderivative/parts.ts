import {
  baseAndExponent,
  callOf,
  difference,
  euler,
  negative,
  power,
  product,
  quotient,
  sum,
  whole,
  type Canonical,
} from '../canonical.ts';
import { expanded } from '../expand.ts';
import { factorsOf } from '../parts.ts';
import * as rational from '../../numbers/rational.ts';
import { isPolynomial, linear, type Method, type Search } from './integrand.ts';

/** How often a factor's antiderivative is taken again. */
const mostSteps = 14;

/** A polynomial times e^(ax + b), a power, sin, cos, sinh or cosh of one: by parts until the polynomial is gone. */
export const byRepeatedParts: Method = (form, search) => {
  const split = splitOff(form, (factor) => isRepeatable(factor, search));
  if (!split || !search.moves(split.rest) || !isPolynomial(split.rest, search)) return null;
  let [left, right]: [Canonical, Canonical | null] = [expanded(split.rest), search.of(split.one)];
  const terms: Canonical[] = [];
  for (let k = 0; k < mostSteps && right; k++) {
    terms.push(product([whole(k % 2 === 0 ? 1 : -1), left, right]));
    left = expanded(search.derivative(left));
    if (left.kind === 'number' && rational.isZero(left.value)) return sum(terms);
    right = search.of(right);
  }
  return null;
};

const repeatable: ReadonlySet<string> = new Set(['sin', 'cos', 'sinh', 'cosh']);
function isRepeatable(factor: Canonical, search: Search): boolean {
  if (factor.kind === 'call' && repeatable.has(factor.name))
    return linear(factor.operands[0] as Canonical, search) !== null;
  const { base, exponent } = baseAndExponent(factor);
  return !search.moves(base) && linear(exponent, search) !== null;
}

/** A product as one factor of a kind and everything else; null where none, or more than one, is of that kind. */
function splitOff(
  form: Canonical,
  isOfKind: (factor: Canonical) => boolean,
): { one: Canonical; rest: Canonical } | null {
  const found = factorsOf(form).filter(isOfKind);
  const [one] = found;
  return one && found.length === 1 ? { one, rest: quotient(form, one) } : null;
}

/** e^(ax + b) times sin or cos of cx + d: the two integrations by parts that lead back to the start. */
export const byReturningParts: Method = (form, search) => {
  const split = splitOff(form, (factor) => factor.kind === 'power' && factor.base.key === euler.key);
  if (split?.one.kind !== 'power' || split.rest.kind !== 'call') return null;
  const { name, operands } = split.rest;
  if (name !== 'sin' && name !== 'cos') return null;
  const [u] = operands as [Canonical];
  const [rate, turn] = [linear(split.one.exponent, search), linear(u, search)];
  if (!rate || !turn) return null;
  const [sine, cosine] = [callOf('sin', [u]), callOf('cos', [u])];
  const inside =
    name === 'sin'
      ? difference(product([rate.a, sine]), product([turn.a, cosine]))
      : sum([product([rate.a, cosine]), product([turn.a, sine])]);
  const size = sum([power(rate.a, whole(2)), power(turn.a, whole(2))]);
  return quotient(product([split.one, inside]), size);
};

const differentiatedAway: ReadonlySet<string> = new Set([
  'ln',
  'log',
  'arctan',
  'arcsin',
  'arccos',
  'arsinh',
  'arcosh',
  'artanh',
]);

/** A logarithm or an inverse function, or a power of one, times what has an antiderivative without it. */
export const byPartsOnce: Method = (form, search) => {
  const split = splitOff(form, (factor) => {
    const { base, exponent } = baseAndExponent(factor);
    const isCounted = exponent.kind === 'number' && !rational.isNegative(exponent.value);
    return isCounted && base.kind === 'call' && differentiatedAway.has(base.name);
  });
  if (!split) return null;
  const outer = search.of(split.rest);
  if (!outer) return null;
  const inner = search.of(expanded(product([outer, search.derivative(split.one)])));
  return inner && sum([product([outer, split.one]), negative(inner)]);
};

/** A polynomial times whatever has an antiderivative: the polynomial is differentiated away. */
export const byPolynomialParts: Method = (form, search) => {
  const isPlain = (factor: Canonical): boolean => isPolynomial(factor, search);
  const left = product(factorsOf(form).filter(isPlain));
  const right = quotient(form, left);
  if (!search.moves(left) || !search.moves(right)) return null;
  const outer = search.of(right);
  const inner = outer && search.of(expanded(product([outer, search.derivative(left)])));
  return inner && difference(product([left, outer]), inner);
};
