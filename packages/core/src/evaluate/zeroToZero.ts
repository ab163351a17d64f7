import type { Rational } from '../numbers/rational.ts';
import * as tree from '../language/tree.ts';
import type { Expression } from '../language/tree.ts';
import { exactTruth, exactValue } from '../algebra/exact.ts';

/**
 * Whether the value of a formula stands on 0⁰, which counts as 1: a power, met on the way, whose base and exponent are
 * shown to be 0.
 * @param values the exact values of the names
 */
export function meetsZeroToZero(formula: Expression, values: ReadonlyMap<string, Rational>): boolean {
  if (formula.kind === 'piecewise') {
    const met = formula.pieces.find(({ condition }) => exactTruth(condition, values) !== false);
    const value = met ? met.value : formula.otherwise;
    return value !== undefined && meetsZeroToZero(value, values);
  }
  const isZero = (node: Expression): boolean => exactValue(node, values)?.numerator === 0n;
  if (formula.kind === 'power' && isZero(formula.base) && isZero(formula.exponent)) return true;
  return tree.children(formula).some((child) => meetsZeroToZero(child, values));
}
