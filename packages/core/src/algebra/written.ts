import { baseAndExponent, power, whole, type Canonical } from './canonical.ts';
import * as rational from '../numbers/rational.ts';
import type { Rational } from '../numbers/rational.ts';
import * as tree from '../language/tree.ts';
import type { Expression } from '../language/tree.ts';

/** How numbers that are not whole are written. */
export type NumberStyle = 'fraction' | 'decimal';

/** Decimal places up to which a decimal is written out; longer ones become fractions. */
const mostPlaces = 6;

/** A canonical form as a person writes it: descending powers, tidy signs, one fraction line, roots as roots. */
export function written(c: Canonical, style: NumberStyle = 'fraction'): Expression {
  switch (c.kind) {
    case 'number':
      return writtenNumber(c.value, style);
    case 'atom':
      return c.node;
    case 'sum':
      return writtenSum(c.terms, style);
    case 'product':
      return writtenProduct(c.coefficient, c.factors, style);
    case 'power':
      return isBelowTheLine(c)
        ? writtenProduct(rational.one, [c], style)
        : writtenPower(c.base, c.exponent, style);
    case 'call':
      return tree.call(c.name, ...c.operands.map((operand) => written(operand, style)));
    case 'apply':
      return tree.applyAll(
        c.name,
        c.orders,
        c.operands.map((operand) => written(operand, style)),
      );
    case 'opaque':
      return c.node;
  }
}

function writtenNumber(r: Rational, style: NumberStyle): Expression {
  if (rational.isNegative(r)) return tree.negate(writtenNumber(rational.negate(r), style));
  const decimal = asDecimal(r, style);
  if (decimal !== null) return tree.number(decimal);
  const numerator = tree.number(String(r.numerator));
  return rational.isInteger(r) ? numerator : tree.divide(numerator, tree.number(String(r.denominator)));
}

function asDecimal(r: Rational, style: NumberStyle): string | null {
  return style === 'decimal' && !rational.isInteger(r) ? rational.toDecimal(r, mostPlaces) : null;
}

function writtenSum(terms: readonly Canonical[], style: NumberStyle): Expression {
  const parts = [...terms].sort(inReadingOrder).map((term) => written(term, style));
  // 6 − x rather than −x + 6.
  if (parts.length === 2 && parts[0]?.kind === 'negate' && parts[1]?.kind !== 'negate') parts.reverse();
  return parts.reduce((left, next) =>
    next.kind === 'negate' ? tree.subtract(left, next.operand) : tree.add(left, next),
  );
}

/** Pure powers from high to low, then everything else, the constant last. */
function inReadingOrder(a: Canonical, b: Canonical): number {
  const rankA = rank(a);
  const rankB = rank(b);
  return rankA.group - rankB.group || rankB.degree - rankA.degree || (a.key < b.key ? -1 : 1);
}

function rank(term: Canonical): { group: number; degree: number } {
  if (term.kind === 'number') return { group: 2, degree: 0 };
  const factors = term.kind === 'product' ? term.factors : [term];
  let degree = 0;
  let isPure = true;
  for (const factor of factors) {
    const { base, exponent } = baseAndExponent(factor);
    const isName = base.kind === 'atom' && base.node.kind === 'name' && exponent.kind === 'number';
    if (isName) degree += rational.toNumber(exponent.value);
    else if (base.kind !== 'atom') isPure = false;
  }
  return { group: isPure ? 0 : 1, degree };
}

function isBelowTheLine(factor: Canonical): boolean {
  const { exponent } = baseAndExponent(factor);
  return exponent.kind === 'number' && rational.isNegative(exponent.value);
}

function writtenProduct(
  coefficient: Rational,
  factors: readonly Canonical[],
  style: NumberStyle,
): Expression {
  if (rational.isNegative(coefficient)) {
    return tree.negate(writtenProduct(rational.negate(coefficient), factors, style));
  }
  const above = withJoinedRadicals(factors.filter((factor) => !isBelowTheLine(factor)));
  const below = factors.filter(isBelowTheLine).map((factor) => power(factor, whole(-1)));
  const decimal = asDecimal(coefficient, style);
  const top = chain(decimal ?? String(coefficient.numerator), above, style);
  const underneath = decimal === null ? String(coefficient.denominator) : '1';
  const hasLine = below.length > 0 || underneath !== '1';
  return hasLine ? tree.divide(top, chain(underneath, below, style)) : top;
}

/** √2·√3 as √6: numbers under the same root are written under one. */
function withJoinedRadicals(factors: readonly Canonical[]): Canonical[] {
  const joined = new Map<string, { value: Rational; exponent: Canonical }>();
  const others: Canonical[] = [];
  for (const factor of factors) {
    const { base, exponent } = baseAndExponent(factor);
    if (factor.kind !== 'power' || base.kind !== 'number' || exponent.kind !== 'number') others.push(factor);
    else {
      const value = joined.get(exponent.key)?.value ?? rational.one;
      joined.set(exponent.key, { value: rational.multiply(value, base.value), exponent });
    }
  }
  const radicals = [...joined.values()].map(({ value, exponent }): Canonical => {
    const base: Canonical = { kind: 'number', value, key: rational.toText(value) };
    return { kind: 'power', base, exponent, key: `(${base.key})^(${exponent.key})` };
  });
  return [...radicals, ...others];
}

function chain(leading: string, factors: readonly Canonical[], style: NumberStyle): Expression {
  const parts = [...factors].sort(inFactorOrder).map((factor) => written(factor, style));
  if (leading !== '1' || parts.length === 0) parts.unshift(tree.number(leading));
  return parts.reduce((left, right) => tree.multiply(left, right));
}

function inFactorOrder(a: Canonical, b: Canonical): number {
  // Names in alphabetical order whatever their powers: a x², not x² a.
  const [keyA, keyB] = [a, b].map((factor) => baseAndExponent(factor).base.key) as [string, string];
  return factorRank(a) - factorRank(b) || (keyA < keyB ? -1 : 1);
}

/** Numbers, constants, names, powers of e, brackets, functions: 2πx e^(−x)(x + 1) sin x. */
function factorRank(factor: Canonical): number {
  const { base, exponent } = baseAndExponent(factor);
  if (base.kind === 'number') return 0;
  if (base.kind === 'atom') {
    if (exponent.kind !== 'number') return 3;
    return base.node.kind === 'constant' ? 1 : 2;
  }
  return base.kind === 'sum' ? 4 : 5;
}

function writtenPower(base: Canonical, exponent: Canonical, style: NumberStyle): Expression {
  if (exponent.kind === 'number') {
    const { numerator, denominator } = exponent.value;
    if (numerator === 1n && denominator === 2n) return tree.call('sqrt', written(base, style));
    if (numerator === 1n && denominator === 3n) return tree.call('cbrt', written(base, style));
  }
  return tree.power(written(base, style), written(exponent, style));
}
