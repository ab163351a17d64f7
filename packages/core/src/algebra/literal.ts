import * as tree from '../language/tree.ts';
import type { Expression } from '../language/tree.ts';
import * as rational from '../numbers/rational.ts';
import type { Rational } from '../numbers/rational.ts';

/** A rational as it is typed: 3, −1/2. */
export function literal(r: Rational): Expression {
  if (rational.isNegative(r)) return tree.negate(literal(rational.negate(r)));
  const numerator = tree.number(String(r.numerator));
  return rational.isInteger(r) ? numerator : tree.divide(numerator, tree.number(String(r.denominator)));
}
