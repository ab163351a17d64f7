import { writtenOut } from './products.ts';
import * as rational from '../numbers/rational.ts';
import type { Rational } from '../numbers/rational.ts';
import { spend } from '../budget/effort.ts';
import { literalRational } from './exponent.ts';
import { printText } from '../language/printText.ts';
import * as tree from '../language/tree.ts';
import type { ConstantNode, DistanceNode, Expression, NameNode } from '../language/tree.ts';

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
      readonly orders: readonly number[];
      readonly operands: readonly Canonical[];
      readonly key: string;
    }
  /** Anything else, kept as it is: pieces, sums, integrals, limits. Its parts are simplified already. */
  | { readonly kind: 'opaque'; readonly node: Expression; readonly key: string };

/** coefficient · factors; each factor is neither number nor product and no two have the same base. */
interface Product {
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
/** The numbers that are asked for all the time: every factor has the exponent 1. */
const smallNumbers = Array.from({ length: 10 }, (_, n) => numeric(rational.rational(n)));
export const whole = (n: number): Canonical => smallNumbers[n] ?? numeric(rational.rational(n));
const atom = (node: ConstantNode | NameNode): Canonical => ({
  kind: 'atom',
  node,
  key: node.kind === 'constant' ? `#${node.name}` : node.name,
});
export const euler = atom({ kind: 'constant', name: 'e' });
export const nameOf = (variable: string): Canonical => atom({ kind: 'name', name: variable });
const circleConstant = atom({ kind: 'constant', name: 'pi' });
export const isNumber = (c: Canonical, value: number): boolean =>
  c.kind === 'number' && rational.isInteger(c.value) && c.value.numerator === BigInt(value);
const isEuler = (c: Canonical): boolean => c.key === euler.key;

/** Numbers beyond the first are not taken apart; prime factors beyond the second are not looked for. */
const largestFactored = 10n ** 18n;
const largestPrime = 10_000n;
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
      return applyOf(node.name, node.orders, node.arguments.map(canonical));
    case 'distance':
      return canonical(distanceFormula(node));
    case 'product': {
      const factors = writtenOut(node);
      return factors ? canonical(factors) : { kind: 'opaque', node, key: printText(node) };
    }
    case 'spline':
    case 'piecewise':
    case 'summation':
    case 'integral':
    case 'limit':
    case 'derivative':
      return { kind: 'opaque', node, key: printText(node) };
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

/** √((x_P − x_Q)² + (y_P − y_Q)²). */
export function distanceFormula({ from, to }: DistanceNode): Expression {
  const squared = (axis: 'x' | 'y') => {
    const difference = tree.subtract(
      tree.name(tree.coordinate(axis, from)),
      tree.name(tree.coordinate(axis, to)),
    );
    return tree.power(difference, tree.number(2));
  };
  return tree.call('sqrt', tree.add(squared('x'), squared('y')));
}

export function applyOf(name: string, orders: readonly number[], operands: readonly Canonical[]): Canonical {
  const key = `${name}'${orders.join("'")}(${operands.map((operand) => operand.key).join()})`;
  return { kind: 'apply', name, orders, operands, key };
}

/** A built-in function, with the values that every textbook knows worked out. */
export function callOf(name: string, operands: readonly Canonical[]): Canonical {
  const [first, second] = operands as [Canonical, Canonical | undefined];
  if (name === 'exp') return power(euler, first);
  if (name === 'sqrt') return power(first, half);
  if (name === 'degrees') return product([numeric(rational.rational(1, 180)), circleConstant, first]);
  if (name === 'cbrt') return power(first, numeric(rational.rational(1, 3)));
  if (name === 'root' && first.kind === 'number' && second && rational.isInteger(first.value)) {
    if (first.value.numerator > 0n) return power(second, numeric(rational.divide(rational.one, first.value)));
  }
  const known = knownValue(name, first) ?? reflected(name, first) ?? inverted(name, first);
  return known ?? { kind: 'call', name, operands, key: `${name}(${operands.map((o) => o.key).join()})` };
}

const oddFunctions = new Set(['sin', 'tan', 'arcsin', 'arctan', 'sinh', 'tanh', 'arsinh', 'artanh']);
const evenFunctions = new Set(['cos', 'cosh', 'abs']);

/** sin(−u) as −sin u and cos(−u) as cos u; sin and cos of u + kπ/2 through those of u. */
function reflected(name: string, operand: Canonical): Canonical | undefined {
  const isNegative = operand.kind !== 'sum' && rational.isNegative(splitCoefficient(operand).coefficient);
  if (isNegative && oddFunctions.has(name)) {
    return product([whole(-1), callOf(name, [product([whole(-1), operand])])]);
  }
  if (isNegative && evenFunctions.has(name)) return callOf(name, [product([whole(-1), operand])]);
  if (operand.kind !== 'sum' || (name !== 'sin' && name !== 'cos')) return undefined;
  const quarters = operand.terms.map((term) => {
    const turns = multipleOfPi(term);
    const count = turns && rational.multiply(turns, rational.rational(2));
    return count && rational.isInteger(count) ? count.numerator : undefined;
  });
  const i = quarters.findIndex((quarter) => quarter !== undefined);
  if (i < 0) return undefined;
  const rest = sum(operand.terms.filter((_, j) => j !== i));
  const turned = (Number(quarters[i]) + (name === 'cos' ? 1 : 0)) & 3;
  const wave = callOf(turned % 2 === 0 ? 'sin' : 'cos', [rest]);
  return turned < 2 ? wave : product([whole(-1), wave]);
}

/** A function of its own inverse: sin arcsin u = u, cos arcsin u = √(1 − u²). */
function inverted(name: string, operand: Canonical): Canonical | undefined {
  if (operand.kind !== 'call') return undefined;
  const [inner] = operand.operands as [Canonical];
  if (operand.name === `arc${name}`) return inner;
  const isLeg =
    (name === 'sin' && operand.name === 'arccos') || (name === 'cos' && operand.name === 'arcsin');
  return isLeg ? power(sum([whole(1), product([whole(-1), inner, inner])]), half) : undefined;
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
  if (name === 'ln' && operand.kind === 'power' && isEuler(operand.base)) return operand.exponent;
  const turns = multipleOfPi(operand);
  if (turns) return waveAt(name, turns);
  if (name === 'ln' && operand.kind === 'number') return shortLogarithm(operand.value);
  const angle = angleOf(name, operand);
  if (angle) return product([numeric(angle), circleConstant]);
  if (operand.kind === 'number') {
    if (name === 'abs') return numeric(rational.absolute(operand.value));
    if (name === 'sign') return whole(rational.compare(operand.value, rational.zero));
    if (name === 'floor') return numeric(rational.rational(rational.floor(operand.value)));
  }
  return undefined;
}

/** ln 1/8 as −3 ln 2: the logarithm of a power of a whole number, or of its reciprocal. */
function shortLogarithm(value: Rational): Canonical | undefined {
  const isReciprocal = value.numerator === 1n && value.denominator > 1n;
  const n = isReciprocal ? value.denominator : value.numerator;
  if ((!isReciprocal && value.denominator !== 1n) || n < 2n) return undefined;
  const counts = primeFactors(n, 1);
  const exponent = counts.reduce((common, [, count]) => divisor(common, count), 0);
  if (exponent < 2 && !isReciprocal) return undefined;
  const base = counts.reduce((size, [prime, count]) => size * prime ** BigInt(count / exponent), 1n);
  const root = numeric(rational.rational(base));
  const logarithm: Canonical = { kind: 'call', name: 'ln', operands: [root], key: `ln(${root.key})` };
  return product([whole(isReciprocal ? -exponent : exponent), logarithm]);
}

const divisor = (a: number, b: number): number => (b === 0 ? a : divisor(b, a % b));

/** Parts of π at which sin, cos and tan have values with square roots only, for positive values. */
const knownAngles = [1, 2, 3, 4, 6].map((parts) => rational.rational(1, parts)).concat(rational.rational(0));

/** r for an inverse function whose value is r·π: arcsin ½ is π/6. */
function angleOf(name: string, operand: Canonical): Rational | undefined {
  const wave = name === 'arcsin' || name === 'arccos' || name === 'arctan' ? name.slice(3) : undefined;
  if (wave === undefined || partsOfNumber.has(operand.kind) === false) return undefined;
  const isQuarter = (r: Rational): boolean => rational.compare(r, rational.rational(1, 2)) <= 0;
  const angles = name === 'arccos' ? knownAngles.concat(obtuseAngles) : knownAngles.filter(isQuarter);
  return angles.find((r) => waveOf(wave, r)?.key === operand.key);
}

const obtuseAngles = [rational.rational(2, 3), rational.rational(3, 4), rational.rational(5, 6)];
const partsOfNumber: ReadonlySet<Canonical['kind']> = new Set(['number', 'power', 'product']);
const waveOf = (wave: string, turns: Rational): Canonical | undefined =>
  rational.isZero(turns) ? whole(wave === 'cos' ? 1 : 0) : waveAt(wave, turns);

/** r for an operand r·π with a rational r other than 0. */
function multipleOfPi(operand: Canonical): Rational | undefined {
  if (operand.key === circleConstant.key) return rational.one;
  if (operand.kind !== 'product' || operand.factors.length !== 1) return undefined;
  return operand.factors[0]?.key === circleConstant.key ? operand.coefficient : undefined;
}

/** sin, cos or tan of r·π where 12·r is whole and the value has square roots only. */
function waveAt(name: string, turns: Rational): Canonical | undefined {
  const sine = (r: Rational): Canonical | undefined => {
    const twelfths = rational.multiply(r, rational.rational(12));
    if (!rational.isInteger(twelfths)) return undefined;
    const step = Number(((twelfths.numerator % 24n) + 24n) % 24n);
    const isNegative = step >= 12;
    const folded = Math.min(step % 12, 12 - (step % 12));
    const square = doubledSinesSquared[folded];
    if (square === undefined) return undefined;
    return product([numeric(rational.rational(isNegative ? -1 : 1, 2)), power(whole(square), half)]);
  };
  const quarter = rational.rational(1, 2);
  if (name === 'sin') return sine(turns);
  if (name === 'cos') return sine(rational.add(turns, quarter));
  if (name !== 'tan') return undefined;
  const [s, c] = [sine(turns), sine(rational.add(turns, quarter))];
  return s && c && !isNumber(c, 0) ? product([s, power(c, whole(-1))]) : undefined;
}

/** 2·sin(k·π/12) squared, for k from 0 to 6; those of 1 and 5 need roots of sums. */
const doubledSinesSquared: readonly (number | undefined)[] = [0, undefined, 1, 2, 3, undefined, 4];

/** A term as its number and the rest, the rest with coefficient 1. */
export function splitCoefficient(term: Canonical): { coefficient: Rational; rest: Canonical } {
  if (term.kind === 'number') return { coefficient: term.value, rest: whole(1) };
  if (term.kind !== 'product') return { coefficient: rational.one, rest: term };
  return { coefficient: term.coefficient, rest: productOf(rational.one, term.factors) };
}

export const negative = (form: Canonical): Canonical => product([whole(-1), form]);
export const quotient = (above: Canonical, below: Canonical): Canonical =>
  product([above, power(below, whole(-1))]);
export const difference = (a: Canonical, b: Canonical): Canonical => sum([a, negative(b)]);

/** What a part of a sum or product costs, in operations. */
const partCost = 300;

/** The sum with like terms collected. */
export function sum(terms: readonly Canonical[]): Canonical {
  spend(partCost * (1 + terms.length));
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
  spend(partCost * (1 + factors.length));
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
  let isTakenApart = false;
  for (const { base, parts } of exponents.values()) {
    const factor = power(base, parts.length === 1 ? (parts[0] as Canonical) : sum(parts));
    if (factor.kind === 'number') coefficient = rational.multiply(coefficient, factor.value);
    else if (factor.kind === 'product') {
      coefficient = rational.multiply(coefficient, factor.coefficient);
      merged.push(...factor.factors);
      isTakenApart = true;
    } else {
      merged.push(factor);
      isTakenApart ||= baseAndExponent(factor).base.key !== base.key;
    }
  }
  // (3x)·x·(3x)^… may leave powers of x of its own beside the others.
  const hasTwins =
    isTakenApart && new Set(merged.map((f) => baseAndExponent(f).base.key)).size < merged.length;
  if (hasTwins) return product([numeric(coefficient), ...merged]);
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
  if (isEuler(base) && exponent.kind === 'product') {
    // e^(k ln a) = a^k
    const [only] = exponent.factors;
    if (exponent.factors.length === 1 && only?.kind === 'call' && only.name === 'ln') {
      return power(only.operands[0] as Canonical, numeric(exponent.coefficient));
    }
  }
  return { kind: 'power', base, exponent, key: `(${base.key})^(${exponent.key})` };
}

function numericPower(base: Canonical, exponent: Rational): Canonical | undefined {
  const n = Number(exponent.numerator);
  const isWhole = rational.isInteger(exponent) && Math.abs(n) <= 10_000;
  switch (base.kind) {
    case 'number': {
      const root = isWhole ? base.value : rational.exactRoot(base.value, Number(exponent.denominator));
      const value = root && rational.integerPower(root, n);
      return value ? numeric(value) : radical(base.value, exponent);
    }
    case 'power':
      // (a^b)^n = a^(bn) holds for whole n, and where a is positive, as below an even root.
      return isWhole || isEuler(base.base) || isPositive(base.base) || isEvenRoot(base)
        ? power(base.base, product([base.exponent, numeric(exponent)]))
        : undefined;
    case 'product':
      return isWhole ? distributedPower(base, n) : undefined;
    default:
      return undefined;
  }
}

const isPositive = (c: Canonical): boolean =>
  c.kind === 'number' ? rational.compare(c.value, rational.zero) > 0 : c.key === circleConstant.key;

const isEvenRoot = ({ exponent }: Power): boolean =>
  exponent.kind === 'number' && exponent.value.denominator % 2n === 0n;

/**
 * The real r^(p/q) of a rational in one normal form: a rational times powers of primes with exponents
 * between 0 and 1, so that 1/√2 and √2/2, or √8 and 2√2, are the same.
 */
function radical(r: Rational, exponent: Rational): Canonical | undefined {
  if (rational.isNegative(r)) {
    const isOdd = exponent.denominator % 2n === 1n;
    const size = isOdd ? radical(rational.negate(r), exponent) : undefined;
    return size && (exponent.numerator % 2n === 0n ? size : product([whole(-1), size]));
  }
  const { numerator, denominator } = r;
  const isSmall = numerator > 0n && numerator < largestFactored && denominator < largestFactored;
  if (!isSmall || rational.isInteger(exponent)) return undefined;
  const primes = [...primeFactors(numerator, 1), ...primeFactors(denominator, -1)];
  let coefficient = rational.one;
  const factors: Canonical[] = [];
  for (const [prime, count] of primes) {
    const total = rational.multiply(exponent, rational.rational(count));
    const whole = rational.floor(total);
    const rest = rational.subtract(total, rational.rational(whole));
    const value = rational.integerPower(rational.rational(prime), Number(whole));
    if (!value) return undefined;
    coefficient = rational.multiply(coefficient, value);
    if (rational.isZero(rest)) continue;
    const base = numeric(rational.rational(prime));
    factors.push({
      kind: 'power',
      base,
      exponent: numeric(rest),
      key: `(${base.key})^(${rational.toText(rest)})`,
    });
  }
  return productOf(coefficient, factors.sort(byKey));
}

export function primeFactors(n: bigint, sign: 1 | -1): [bigint, number][] {
  const found: [bigint, number][] = [];
  let rest = n;
  for (let p = 2n; p * p <= rest && p < largestPrime; p++) {
    let count = 0;
    for (; rest % p === 0n; rest /= p) count++;
    if (count > 0) found.push([p, sign * count]);
  }
  return rest > 1n ? [...found, [rest, sign]] : found;
}

function distributedPower(base: Product, n: number): Canonical | undefined {
  const coefficient = rational.integerPower(base.coefficient, n);
  if (!coefficient) return undefined;
  return product([numeric(coefficient), ...base.factors.map((factor) => power(factor, whole(n)))]);
}
