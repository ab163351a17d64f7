import { literalRational } from './exponent.ts';
import * as tree from '../language/tree.ts';
import type { Expression, ProductNode } from '../language/tree.ts';
import { isInteger, rational } from '../numbers/rational.ts';
import { literal } from './literal.ts';

/** Factors that a product may have; one with more has no value here. */
export const mostFactors = 200;

/** A product between two numbers as factors that stand beside each other; null where a bound is no number. */
export function writtenOut({ variable, from, to, body }: ProductNode): Expression | null {
  const [first, last] = [literalRational(from), literalRational(to)];
  if (!first || !last || !isInteger(first) || !isInteger(last)) return null;
  const count = Math.max(0, Number(last.numerator - first.numerator) + 1);
  if (count > mostFactors) return null;
  const factors = Array.from({ length: count }, (_, i) =>
    tree.substitute(body, variable, literal(rational(first.numerator + BigInt(i)))),
  );
  return factors.length > 0 ? factors.reduce(tree.multiply) : tree.number(1);
}

/**
 * The derivative of a product whose bounds do not move: Σ f_i′ ∏ f_k over k ≠ i.
 * @param slope the derivative of one factor
 */
export function derivativeOfProduct(
  node: ProductNode,
  slope: (factor: Expression) => Expression,
): Expression {
  const place = `${node.variable}_i`;
  const [index, here] = [tree.name(node.variable), tree.name(place)];
  const others = tree.piecewise(
    [{ value: tree.number(1), condition: tree.comparison(index, ['=', here]) }],
    node.body,
  );
  return {
    kind: 'summation',
    variable: place,
    from: node.from,
    to: node.to,
    body: tree.multiply(slope(tree.substitute(node.body, node.variable, here)), { ...node, body: others }),
  };
}
