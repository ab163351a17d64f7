import { canonical } from './canonical.ts';
import { withoutDerivatives } from './differentiate.ts';
import { numberStyle, shortest } from './shortest.ts';
import type { Expression } from '../language/tree.ts';

/**
 * The expression as a teacher would write it: like terms collected, signs tidy, factors kept where
 * that is shorter. Several forms are made and the shortest text wins; on a tie, the first.
 *
 * The result may be defined where the original is not (x/x becomes 1).
 */
export function simplify(node: Expression): Expression {
  return shortest(canonical(withoutDerivatives(node)), numberStyle(node));
}
