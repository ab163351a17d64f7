import * as rational from './rational.ts';
import type { Rational } from './rational.ts';
import { literalRational } from '../evaluate/exponent.ts';
import type { ConstantNode, Expression, NameNode } from '../language/tree.ts';

/**
 * Canonical form: sums and products are flat, sorted and collected, so that equal expressions of
 * polynomials and powers get equal keys. Roots and exp are powers. Made only by the functions below.
 *
 * The form may be defined where the original is not (x/x becomes 1): whoever evaluates it guards it
 * with the original.
 */
export type Canonical =
  | { readonly kind: 'number'; readonly value: Rational; readonly key: string }
  | { readonly kind: 'atom'; readonly node: ConstantNode | NameNode; readonly key: string }
  | { readonly kind: 'sum'; readonly terms: readonly Canonical[]; readonly key: string }
  | Product
  | Power
  | {
      readonly kind: 'call';
      readonly name: string;
      readonly operands: readonly Canonical[];
      readonly key: string;
    }
  | {
      readonly kind: 'apply';
      readonly name: string;
      readonly order: number;
      readonly operand: Canonical;
      readonly key: string;
    };

/** coefficient · factors; each factor is neither number nor product and no two have the same base. */
export interface Product {
  readonly kind: 'product';
  readonly coefficient: Rational;
  readonly factors: readonly Canonical[];
  readonly key: string;
}
export interface Power {
  readonly kind: 'power';
  readonly base: Canonical;
  readonly exponent: Canonical;
  readonly key: string;
}

export const numeric = (value: Rational): Canonical => ({
  kind: 'number',
  value,
  key: rational.toText(value),
});
export const whole = (n: number): Canonical => numeric(rational.rational(n));
const atom = (node: ConstantNode | NameNode): Canonical => ({
  kind: 'atom',
  node,
  key: node.kind === 'constant' ? `#${node.name}` : node.name,
});
export const euler = atom({ kind: 'constant', name: 'e' });
export const isNumber = (c: Canonical, value: number): boolean =>
  c.kind === 'number' && rational.isInteger(c.value) && c.value.numerator === BigInt(value);
const isEuler = (c: Canonical): boolean => c.key === euler.key;

const half = numeric(rational.rational(1, 2));

/** The canonical form of a tree. */
export function canonical(node: Expression): Canonical {
  const literal = literalRational(node);
  if (literal) return numeric(literal);
  switch (node.kind) {
    case 'number':
      throw new RangeError(`not a number: ${node.text}`);
    case 'constant':
    case 'name':
      return atom(node);
    case 'negate':
      return product([whole(-1), canonical(node.operand)]);
    case 'add':
    case 'subtract':
      return sum(linkedTerms(node));
    case 'multiply':
      return product([canonical(node.left), canonical(node.right)]);
    case 'divide':
      return product([canonical(node.left), power(canonical(node.right), whole(-1))]);
    case 'power':
      return power(canonical(node.base), canonical(node.exponent));
    case 'call':
      return callOf(node.name, node.arguments.map(canonical));
    case 'apply':
      return applyOf(node.name, node.order, canonical(node.argument));
  }
}

/** The terms of a chain of additions, gathered in one go so that long sums are collected once. */
function linkedTerms(node: Expression): Canonical[] {
  const terms: Canonical[] = [];
  let rest = node;
  while (rest.kind === 'add' || rest.kind === 'subtract') {
    const right = canonical(rest.right);
    terms.push(rest.kind === 'add' ? right : product([whole(-1), right]));
    rest = rest.left;
  }
  terms.push(canonical(rest));
  return terms;
}

export function applyOf(name: string, order: number, operand: Canonical): Canonical {
  return { kind: 'apply', name, order, operand, key: `${name}${"'".repeat(order)}(${operand.key})` };
}

/** A built-in function, with the values that every textbook knows worked out. */
export function callOf(name: string, operands: readonly Canonical[]): Canonical {
  const [first, second] = operands as [Canonical, Canonical | undefined];
  if (name === 'exp') return power(euler, first);
  if (name === 'sqrt') return power(first, half);
  if (name === 'cbrt') return power(first, numeric(rational.rational(1, 3)));
  if (name === 'root' && first.kind === 'number' && second && rational.isInteger(first.value)) {
    if (first.value.numerator > 0n) return power(second, numeric(rational.divide(rational.one, first.value)));
  }
  const known = knownValue(name, first);
  return known ?? { kind: 'call', name, operands, key: `${name}(${operands.map((o) => o.key).join()})` };
}

const zeroAtZero = new Set([
  'sin',
  'tan',
  'arcsin',
  'arctan',
  'sinh',
  'tanh',
  'arsinh',
  'artanh',
  'abs',
  'sign',
]);

function knownValue(name: string, operand: Canonical): Canonical | undefined {
  if (isNumber(operand, 0)) {
    if (zeroAtZero.has(name)) return whole(0);
    if (name === 'cos' || name === 'cosh' || name === 'sec') return whole(1);
  }
  if (name === 'ln' && isNumber(operand, 1)) return whole(0);
  if (name === 'ln' && isEuler(operand)) return whole(1);
  if (name === 'abs' && operand.kind === 'number') return numeric(rational.absolute(operand.value));
  return undefined;
}

/** A term as its number and the rest, the rest with coefficient 1. */
export function splitCoefficient(term: Canonical): { coefficient: Rational; rest: Canonical } {
  if (term.kind === 'number') return { coefficient: term.value, rest: whole(1) };
  if (term.kind !== 'product') return { coefficient: rational.one, rest: term };
  return { coefficient: term.coefficient, rest: productOf(rational.one, term.factors) };
}

/** The sum with like terms collected. */
export function sum(terms: readonly Canonical[]): Canonical {
  const collected = new Map<string, { coefficient: Rational; rest: Canonical }>();
  const collect = (term: Canonical, factor: Rational): void => {
    const { coefficient, rest } = splitCoefficient(term);
    const scaled = rational.multiply(coefficient, factor);
    if (rest.kind === 'sum') rest.terms.forEach((inner) => collect(inner, scaled));
    else {
      const before = collected.get(rest.key)?.coefficient ?? rational.zero;
      collected.set(rest.key, { coefficient: rational.add(before, scaled), rest });
    }
  };
  terms.forEach((term) => collect(term, rational.one));
  const kept = [...collected.values()].filter(({ coefficient }) => !rational.isZero(coefficient));
  const result = kept.map(({ coefficient, rest }) => scaled(rest, coefficient));
  if (result.length === 0) return whole(0);
  if (result.length === 1) return result[0] as Canonical;
  result.sort(byKey);
  return { kind: 'sum', terms: result, key: `(${result.map((term) => term.key).join('+')})` };
}

const byKey = (a: Canonical, b: Canonical): number => (a.key < b.key ? -1 : a.key > b.key ? 1 : 0);

/** coefficient · rest for a rest without a number in front. */
function scaled(rest: Canonical, coefficient: Rational): Canonical {
  if (rest.kind === 'number') return numeric(rational.multiply(rest.value, coefficient));
  return productOf(coefficient, rest.kind === 'product' ? rest.factors : [rest]);
}

function productOf(coefficient: Rational, factors: readonly Canonical[]): Canonical {
  if (rational.isZero(coefficient)) return whole(0);
  if (factors.length === 0) return numeric(coefficient);
  if (factors.length === 1 && rational.isOne(coefficient)) return factors[0] as Canonical;
  const key = `${rational.toText(coefficient)}*${factors.map((factor) => factor.key).join('*')}`;
  return { kind: 'product', coefficient, factors, key };
}

/** The base and exponent of a factor; anything that is not a power is its own first power. */
export function baseAndExponent(factor: Canonical): { base: Canonical; exponent: Canonical } {
  return factor.kind === 'power' ? factor : { base: factor, exponent: whole(1) };
}

/** The product with powers of equal bases merged. */
export function product(factors: readonly Canonical[]): Canonical {
  let coefficient = rational.one;
  const exponents = new Map<string, { base: Canonical; parts: Canonical[] }>();
  const gather = (factor: Canonical): void => {
    if (factor.kind === 'number') coefficient = rational.multiply(coefficient, factor.value);
    else if (factor.kind === 'product') {
      coefficient = rational.multiply(coefficient, factor.coefficient);
      factor.factors.forEach(gather);
    } else {
      const { base, exponent } = baseAndExponent(factor);
      const entry = exponents.get(base.key) ?? { base, parts: [] };
      entry.parts.push(exponent);
      exponents.set(base.key, entry);
    }
  };
  factors.forEach(gather);
  const merged: Canonical[] = [];
  for (const { base, parts } of exponents.values()) {
    const factor = power(base, parts.length === 1 ? (parts[0] as Canonical) : sum(parts));
    if (factor.kind === 'number') coefficient = rational.multiply(coefficient, factor.value);
    else if (factor.kind === 'product') {
      coefficient = rational.multiply(coefficient, factor.coefficient);
      merged.push(...factor.factors);
    } else merged.push(factor);
  }
  merged.sort(byKey);
  return productOf(coefficient, merged);
}

/** base^exponent, worked out where that is exact. */
export function power(base: Canonical, exponent: Canonical): Canonical {
  if (isNumber(exponent, 0)) return whole(1);
  if (isNumber(exponent, 1)) return base;
  if (exponent.kind === 'number') {
    const simpler = numericPower(base, exponent.value);
    if (simpler) return simpler;
  }
  if (isNumber(base, 1)) return whole(1);
  if (isEuler(base) && exponent.kind === 'call' && exponent.name === 'ln')
    return exponent.operands[0] as Canonical;
  return { kind: 'power', base, exponent, key: `(${base.key})^(${exponent.key})` };
}

function numericPower(base: Canonical, exponent: Rational): Canonical | undefined {
  const n = Number(exponent.numerator);
  const isWhole = rational.isInteger(exponent) && Math.abs(n) <= 10_000;
  switch (base.kind) {
    case 'number': {
      const root = isWhole ? base.value : rational.exactRoot(base.value, Number(exponent.denominator));
      const value = root && rational.integerPower(root, n);
      return value ? numeric(value) : undefined;
    }
    case 'power':
      // (a^b)^n = a^(bn) holds for whole n.
      return isWhole ? power(base.base, product([base.exponent, numeric(exponent)])) : undefined;
    case 'product':
      return isWhole ? distributedPower(base, n) : undefined;
    default:
      return undefined;
  }
}

function distributedPower(base: Product, n: number): Canonical | undefined {
  const coefficient = rational.integerPower(base.coefficient, n);
  if (!coefficient) return undefined;
  return product([numeric(coefficient), ...base.factors.map((factor) => power(factor, whole(n)))]);
}
