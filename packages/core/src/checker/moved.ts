import * as tree from '../language/tree.ts';
import type { Expression } from '../language/tree.ts';
import { derivativeWrittenOut } from './identities.ts';
import { wholeNumber } from './literals.ts';

/** f(1/x)/x². */
export function turned(body: Expression, variable: string): Expression {
  const x = tree.name(variable);
  return tree.divide(moved(body, variable, tree.divide(tree.number(1), x)), tree.power(x, tree.number(2)));
}

/**
 * A formula with another in place of its variable, quotients of polynomials in it in lowest terms: 1/((1 − t) − 1) as −1/t.
 * That has a value at single numbers more, which is no matter of an area or a sign.
 */
export function moved(body: Expression, variable: string, to: Expression): Expression {
  const tidied = (node: Expression): Expression => {
    if (!tree.dependsOn(node, variable)) return node;
    const tidy = isRational(node) ? derivativeWrittenOut(node, variable, 0) : null;
    return tidy ?? tree.mapChildren(node, tidied);
  };
  return tidied(tree.substitute(body, variable, to));
}

const rationalKinds = new Set([
  'number',
  'constant',
  'name',
  'negate',
  'add',
  'subtract',
  'multiply',
  'divide',
]);
const isRational = (node: Expression): boolean =>
  node.kind === 'power'
    ? wholeNumber(node.exponent) !== null && isRational(node.base)
    : rationalKinds.has(node.kind) && tree.children(node).every(isRational);
