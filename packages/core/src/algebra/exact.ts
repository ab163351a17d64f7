import { ownNames } from '../language/ownNames.ts';
import { literal } from './literal.ts';
import { writtenOut } from './products.ts';
import * as rational from '../numbers/rational.ts';
import type { Rational } from '../numbers/rational.ts';
import type { Condition, Expression, Relation } from '../language/tree.ts';
import { truthOf } from './truth.ts';
import { rationalExponent } from './exponent.ts';

/**
 * The exact rational value of an expression, or null where it is not rational, not defined, or not
 * within reach of exact arithmetic. Never a guess: null for sin 1 as for anything unknown.
 * @param values the exact values of the names; a name that is missing makes the result null
 */
export function exactValue(node: Expression, values: ReadonlyMap<string, Rational>): Rational | null {
  switch (node.kind) {
    case 'number':
      return rational.parseDecimal(node.text);
    case 'constant':
    case 'apply':
      return null;
    case 'name':
      return values.get(node.name) ?? null;
    case 'negate': {
      const operand = exactValue(node.operand, values);
      return operand && rational.negate(operand);
    }
    case 'add':
    case 'subtract':
    case 'multiply':
    case 'divide':
      return exactOperation(node.kind, exactValue(node.left, values), exactValue(node.right, values));
    case 'power':
      return exactPower(node.base, node.exponent, values);
    case 'call':
      return exactCall(
        node.name,
        node.arguments.map((argument) => exactValue(argument, values)),
      );
    case 'spline': {
      const argument = exactValue(node.argument, values);
      return argument && node.spline.exactAt(argument);
    }
    case 'piecewise': {
      const held = node.pieces.map(({ condition }) => exactTruth(condition, values));
      const first = held.findIndex((truth) => truth !== false);
      if (first < 0) return node.otherwise ? exactValue(node.otherwise, values) : null;
      return held[first] ? exactValue(node.pieces[first]?.value as Expression, values) : null;
    }
    case 'product': {
      const to = exactValue(node.to, values);
      const factors = to && writtenOut({ ...node, to: literal(to) });
      return factors && exactValue(factors, values);
    }
    case 'summation':
    case 'integral':
    case 'limit':
    case 'derivative':
    case 'distance':
      return null;
  }
}

function exactOperation(
  kind: 'add' | 'subtract' | 'multiply' | 'divide',
  left: Rational | null,
  right: Rational | null,
): Rational | null {
  if (!left || !right) return null;
  if (kind === 'divide') return rational.isZero(right) ? null : rational.divide(left, right);
  return rational[kind](left, right);
}

function exactPower(
  baseNode: Expression,
  exponentNode: Expression,
  values: ReadonlyMap<string, Rational>,
): Rational | null {
  const base = exactValue(baseNode, values);
  const literal = rationalExponent(exponentNode);
  const exponent = exactValue(exponentNode, values);
  // e^0 = 1 although e itself is not rational.
  if (!base)
    return baseNode.kind === 'constant' && exponent && rational.isZero(exponent) ? rational.one : null;
  if (literal) {
    const root = literal.q === 1 ? base : rational.exactRoot(base, literal.q);
    return root && rational.integerPower(root, literal.p);
  }
  if (!exponent || !rational.isInteger(exponent)) return null;
  const n = Number(exponent.numerator);
  return Math.abs(n) <= 10_000 ? rational.integerPower(base, n) : null;
}

/** Whether a condition holds, or null where exact arithmetic cannot tell. */
export const exactTruth = (condition: Condition, values: ReadonlyMap<string, Rational>): boolean | null =>
  truthOf(condition, ({ operands, relations }) => {
    const numbers = operands.map((operand) => exactValue(operand, values));
    if (numbers.some((number) => number === null)) return null;
    return relations.every((relation, i) =>
      isRelated(rational.compare(numbers[i] as Rational, numbers[i + 1] as Rational), relation),
    );
  });

/** Whether a relation holds between two numbers whose difference has the given sign. */
export function isRelated(sign: number, relation: Relation): boolean {
  switch (relation) {
    case '<':
      return sign < 0;
    case '≤':
      return sign <= 0;
    case '>':
      return sign > 0;
    case '≥':
      return sign >= 0;
    case '=':
      return sign === 0;
    case '≠':
      return sign !== 0;
  }
}

/** Where a built-in takes a rational value at a rational argument. */
const exactCalls = ownNames<(x: Rational) => Rational | null>({
  abs: rational.absolute,
  sqrt: (x) => rational.exactRoot(x, 2),
  cbrt: (x) => rational.exactRoot(x, 3),
  sign: (x) => rational.rational(rational.compare(x, rational.zero)),
  floor: (x) => rational.rational(rational.floor(x)),
  ceil: (x) => rational.negate(rational.rational(rational.floor(rational.negate(x)))),
  exp: atZero(rational.one),
  cos: atZero(rational.one),
  sec: atZero(rational.one),
  cosh: atZero(rational.one),
  sin: atZero(rational.zero),
  tan: atZero(rational.zero),
  sinh: atZero(rational.zero),
  tanh: atZero(rational.zero),
  arcsin: atZero(rational.zero),
  arctan: atZero(rational.zero),
  arsinh: atZero(rational.zero),
  artanh: atZero(rational.zero),
  ln: (x) => (rational.isOne(x) ? rational.zero : null),
  log: (x) => (rational.isOne(x) ? rational.zero : null),
});

function atZero(value: Rational): (x: Rational) => Rational | null {
  return (x) => (rational.isZero(x) ? value : null);
}

function exactCall(name: string, operands: readonly (Rational | null)[]): Rational | null {
  const [first, second] = operands;
  if (!first) return null;
  if (second && (name === 'min' || name === 'max')) {
    return rational.compare(first, second) < 0 === (name === 'min') ? first : second;
  }
  if (second && name === 'mod' && !rational.isZero(second)) {
    const steps = rational.rational(rational.floor(rational.divide(first, second)));
    return rational.subtract(first, rational.multiply(second, steps));
  }
  return second === undefined ? (exactCalls[name]?.(first) ?? null) : null;
}
