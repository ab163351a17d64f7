import { canonical } from './canonical.ts';
import { inConstantForms } from './constantForms.ts';
import { withoutDerivatives } from './differentiate.ts';
import { isTooLarge } from '../budget/tooLarge.ts';
import { literal } from './literal.ts';
import type { Rational } from '../numbers/rational.ts';
import { shortest } from './shortest.ts';
import { writtenOut } from './products.ts';
import * as tree from '../language/tree.ts';
import type { Expression } from '../language/tree.ts';

/**
 * A formula with rational numbers put in for all its names, simplified: √(x + 1) at 1 is √2. The form is equal to the
 * value wherever there is one; nothing is recognised or rounded. Null where a name is left or algebra does not reach.
 */
export function exactForm(body: Expression, values: ReadonlyMap<string, Rational>): Expression | null {
  let formula: Expression = body;
  for (const [name, value] of values) formula = tree.substitute(formula, name, literal(value));
  if (!isConstant(formula)) return null;
  try {
    return shortest(inConstantForms(canonical(withoutDerivatives(formula))), 'fraction');
  } catch (error) {
    if (isTooLarge(error)) return null;
    throw error;
  }
}

/** Free of names and of what algebra keeps as it is: pieces, sums, integrals, limits. */
function isConstant(node: Expression): boolean {
  switch (node.kind) {
    case 'name':
    case 'apply':
    case 'distance':
    case 'spline':
    case 'piecewise':
    case 'summation':
    case 'integral':
    case 'limit':
      return false;
    case 'product': {
      const factors = writtenOut(node);
      return factors !== null && isConstant(factors);
    }
    default:
      return tree.children(node).every(isConstant);
  }
}
