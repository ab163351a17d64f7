import * as tree from '../language/tree.ts';
import type { Expression } from '../language/tree.ts';

const ofAngles = new Set(['sin', 'cos', 'tan', 'cot', 'sec', 'csc']);
const toAngles = new Set(['arcsin', 'arccos', 'arctan', 'arccot']);

/**
 * A formula as it is meant where angles are measured in degrees: sin x becomes sin(x°), and arcsin x, a number of
 * degrees, becomes arcsin(x)·180/π. An angle that carries its sign already stays as it is.
 */
export function inDegrees(node: Expression): Expression {
  const inner = tree.mapChildren(node, inDegrees);
  if (inner.kind !== 'call') return inner;
  const [argument] = inner.arguments as [Expression];
  if (ofAngles.has(inner.name)) {
    const isMarked = argument.kind === 'call' && argument.name === 'degrees';
    return isMarked ? inner : tree.call(inner.name, tree.call('degrees', argument));
  }
  if (!toAngles.has(inner.name)) return inner;
  return tree.divide(tree.multiply(inner, tree.number(180)), tree.constant('pi'));
}
