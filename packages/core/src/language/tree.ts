/**
 * The expression tree: what a text means, free of how it was typed.
 * Nodes are immutable and carry no positions; errors are reported by the reader before a tree exists.
 */
export type Expression =
  NumberNode | ConstantNode | NameNode | NegateNode | BinaryNode | PowerNode | CallNode | ApplyNode;

/** A literal, kept as the digits that were typed so that exact algebra sees 0.1 as 1/10. */
export interface NumberNode {
  readonly kind: 'number';
  readonly text: string;
}
export interface ConstantNode {
  readonly kind: 'constant';
  readonly name: ConstantName;
}
/** A variable or a parameter. */
export interface NameNode {
  readonly kind: 'name';
  readonly name: string;
}
export interface NegateNode {
  readonly kind: 'negate';
  readonly operand: Expression;
}
export interface BinaryNode {
  readonly kind: 'add' | 'subtract' | 'multiply' | 'divide';
  readonly left: Expression;
  readonly right: Expression;
}
export interface PowerNode {
  readonly kind: 'power';
  readonly base: Expression;
  readonly exponent: Expression;
}
/** A built-in function with its arguments; `logBase` is [base, argument], `root` is [degree, argument]. */
export interface CallNode {
  readonly kind: 'call';
  readonly name: string;
  readonly arguments: readonly Expression[];
}
/** A defined function, or its derivative of the given order, at an argument: f(x), f″(3). */
export interface ApplyNode {
  readonly kind: 'apply';
  readonly name: string;
  readonly order: number;
  readonly argument: Expression;
}

export type ConstantName = 'pi' | 'e';

export const constantValues: Readonly<Record<ConstantName, number>> = { pi: Math.PI, e: Math.E };

export const number = (value: number | string): NumberNode => ({ kind: 'number', text: String(value) });
export const constant = (name: ConstantName): ConstantNode => ({ kind: 'constant', name });
export const name = (text: string): NameNode => ({ kind: 'name', name: text });
export const negate = (operand: Expression): NegateNode => ({ kind: 'negate', operand });
export const binary = (kind: BinaryNode['kind'], left: Expression, right: Expression): BinaryNode => ({
  kind,
  left,
  right,
});
export const add = (left: Expression, right: Expression) => binary('add', left, right);
export const subtract = (left: Expression, right: Expression) => binary('subtract', left, right);
export const multiply = (left: Expression, right: Expression) => binary('multiply', left, right);
export const divide = (left: Expression, right: Expression) => binary('divide', left, right);
export const power = (base: Expression, exponent: Expression): PowerNode => ({
  kind: 'power',
  base,
  exponent,
});
export const call = (functionName: string, ...args: Expression[]): CallNode => ({
  kind: 'call',
  name: functionName,
  arguments: args,
});
export const apply = (functionName: string, order: number, argument: Expression): ApplyNode => ({
  kind: 'apply',
  name: functionName,
  order,
  argument,
});

/** The direct parts of a node, from left to right. */
export function children(node: Expression): readonly Expression[] {
  switch (node.kind) {
    case 'number':
    case 'constant':
    case 'name':
      return [];
    case 'negate':
      return [node.operand];
    case 'add':
    case 'subtract':
    case 'multiply':
    case 'divide':
      return [node.left, node.right];
    case 'power':
      return [node.base, node.exponent];
    case 'call':
      return node.arguments;
    case 'apply':
      return [node.argument];
  }
}

/** Rebuilds a node with each direct part replaced; the same object comes back when no part changed. */
export function mapChildren(node: Expression, change: (part: Expression) => Expression): Expression {
  const before = children(node);
  const after = before.map(change);
  if (after.every((part, i) => part === before[i])) return node;
  const [first, second] = after as [Expression, Expression];
  switch (node.kind) {
    case 'number':
    case 'constant':
    case 'name':
      return node;
    case 'negate':
      return negate(first);
    case 'add':
    case 'subtract':
    case 'multiply':
    case 'divide':
      return binary(node.kind, first, second);
    case 'power':
      return power(first, second);
    case 'call':
      return call(node.name, ...after);
    case 'apply':
      return apply(node.name, node.order, first);
  }
}

/** The tree with every free name `from` replaced by `to`. */
export function substitute(node: Expression, from: string, to: Expression): Expression {
  if (node.kind === 'name') return node.name === from ? to : node;
  return mapChildren(node, (part) => substitute(part, from, to));
}

export interface Mentioned {
  readonly names: ReadonlySet<string>;
  readonly functions: ReadonlySet<string>;
}

/** Every variable, parameter and defined function that the tree mentions. */
export function mentioned(node: Expression): Mentioned {
  const names = new Set<string>();
  const functions = new Set<string>();
  const visit = (part: Expression): void => {
    if (part.kind === 'name') names.add(part.name);
    if (part.kind === 'apply') functions.add(part.name);
    children(part).forEach(visit);
  };
  visit(node);
  return { names, functions };
}

/** The number of nodes: the measure by which one form of an expression is shorter than another. */
export function size(node: Expression): number {
  return children(node).reduce((sum, part) => sum + size(part), 1);
}
