import { literal } from '../algebra/literal.ts';
import { simplify } from '../algebra/simplify.ts';
import * as tree from '../language/tree.ts';
import type { Expression } from '../language/tree.ts';
import type { KnownNumber } from './sides.ts';

/** Digits to which a number that is not exact is written out. */
const writtenDigits = 12;

/** A number as it is written: exact as a fraction, any other as a decimal. */
export function writtenNumber({ value, exact }: KnownNumber): Expression {
  if (exact) return literal(exact);
  const rounded = Number(value.toPrecision(writtenDigits));
  const digits = tree.number(String(Math.abs(rounded)).toUpperCase().replace('E+', 'E'));
  return rounded < 0 ? tree.negate(digits) : digits;
}

/**
 * m·x + b as a person writes it: 2x − 1, −x, 4. Fractions stand where both numbers are exact.
 * @param variable the name of x
 */
export function lineFormula(slope: KnownNumber, intercept: KnownNumber, variable: string): Expression {
  const x = tree.name(variable);
  if (slope.exact && intercept.exact) {
    return simplify(tree.add(tree.multiply(literal(slope.exact), x), literal(intercept.exact)));
  }
  if (slope.value === 0) return writtenNumber(intercept);
  const rise = signed(slope, (size) => (isOne(size) ? x : tree.multiply(size, x)));
  if (intercept.value === 0) return rise;
  const height = writtenNumber(intercept);
  return height.kind === 'negate' ? tree.subtract(rise, height.operand) : tree.add(rise, height);
}

const isOne = (node: Expression): boolean => node.kind === 'number' && node.text === '1';

function signed(number: KnownNumber, make: (size: Expression) => Expression): Expression {
  const written = writtenNumber(number);
  return written.kind === 'negate' ? tree.negate(make(written.operand)) : make(written);
}
