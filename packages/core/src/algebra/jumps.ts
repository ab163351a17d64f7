import { ownNames } from '../language/ownNames.ts';
import * as tree from '../language/tree.ts';
import type { CallNode, Condition, Expression } from '../language/tree.ts';

const half = tree.divide(tree.number(1), tree.number(2));

const argumentOf = (node: CallNode): Expression => node.arguments[0] as Expression;

/** That a step function does not jump at this argument. */
const restsAt = ownNames<(node: CallNode) => Condition>({
  floor: (node) => tree.comparison(argumentOf(node), ['≠', node]),
  ceil: (node) => tree.comparison(argumentOf(node), ['≠', node]),
  round: (node) => {
    const shifted = tree.add(argumentOf(node), half);
    return tree.comparison(shifted, ['≠', tree.call('floor', shifted)]);
  },
  sign: (node) => tree.comparison(argumentOf(node), ['≠', tree.number(0)]),
  mod: ({ arguments: [dividend, divisor] }) => {
    const ratio = tree.divide(dividend as Expression, divisor as Expression);
    return tree.comparison(ratio, ['≠', tree.call('floor', ratio)]);
  },
});

/**
 * A derivative by the rules, which takes steps for constants, only where no step function in the formula jumps: the
 * slope of ⌊x⌋ is 0 for x ≠ ⌊x⌋. What stands in pieces or under a sum keeps to its own conditions.
 * @param derived what the rules give for `body`
 * @param variables the variables of `body`
 */
export function awayFromJumps(
  derived: Expression,
  body: Expression,
  variables: readonly string[],
): Expression {
  const condition = conditionsIn(body, variables).reduce<Condition | null>(
    (left, right) => (left ? { kind: 'and', left, right } : right),
    null,
  );
  return condition ? tree.piecewise([{ value: derived, condition }]) : derived;
}

function conditionsIn(node: Expression, variables: readonly string[]): Condition[] {
  if (!variables.some((variable) => tree.dependsOn(node, variable))) return [];
  if (!isPlain(node)) return [];
  const inner = tree.children(node).flatMap((child) => conditionsIn(child, variables));
  const own = node.kind === 'call' ? restsAt[node.name]?.(node) : undefined;
  return own ? [own, ...inner] : inner;
}

const plainKinds: readonly Expression['kind'][] = [
  'negate',
  'add',
  'subtract',
  'multiply',
  'divide',
  'power',
  'call',
];
const isPlain = ({ kind }: Expression): boolean => plainKinds.includes(kind);
