import { divide, isZero, negate, parseDecimal, type Rational } from '../numbers/rational.ts';
import type { Expression } from '../language/tree.ts';

/** A literal number or fraction such as −2, 0.5, 1/3; null for anything with a name in it. */
export function literalRational(node: Expression): Rational | null {
  if (node.kind === 'number') return parseDecimal(node.text);
  if (node.kind === 'negate') {
    const operand = literalRational(node.operand);
    return operand && negate(operand);
  }
  if (node.kind === 'divide') {
    const left = literalRational(node.left);
    const right = literalRational(node.right);
    return left && right && !isZero(right) ? divide(left, right) : null;
  }
  return null;
}

/** The literal exponent p/q in lowest terms, where both are small enough to be worked with; else null. */
export function rationalExponent(node: Expression): { p: number; q: number } | null {
  const value = literalRational(node);
  if (!value) return null;
  const p = Number(value.numerator);
  const q = Number(value.denominator);
  return Math.abs(p) <= 10_000 && q <= 1000 ? { p, q } : null;
}
