import type { Table } from './table.ts';

/**
 * The expression tree: what a text means, free of how it was typed.
 * Nodes are immutable and carry no positions; errors are reported by the reader before a tree exists.
 */
export type Expression =
  | NumberNode
  | ConstantNode
  | NameNode
  | NegateNode
  | BinaryNode
  | PowerNode
  | CallNode
  | ApplyNode
  | PiecewiseNode
  | BinderNode
  | DerivativeNode
  | DistanceNode
  | SplineNode;

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
/**
 * A defined function at its arguments, or its derivative: f(x), f″(3), g(x, y).
 * `orders` holds one order of differentiation an argument.
 */
export interface ApplyNode {
  readonly kind: 'apply';
  readonly name: string;
  readonly orders: readonly number[];
  readonly arguments: readonly Expression[];
}
/** The first piece whose condition holds; undefined where none does. One piece alone is a domain. */
export interface PiecewiseNode {
  readonly kind: 'piecewise';
  readonly pieces: readonly Piece[];
  readonly otherwise: Expression | undefined;
}
export interface Piece {
  readonly value: Expression;
  readonly condition: Condition;
}
export type BinderNode = SummationNode | ProductNode | IntegralNode | LimitNode;
/** The sum of `body` for the whole numbers from `from` to `to`; `variable` is bound in `body`. */
export interface SummationNode {
  readonly kind: 'summation';
  readonly variable: string;
  readonly from: Expression;
  readonly to: Expression;
  readonly body: Expression;
}
/** The product of `body` for the whole numbers from `from`, a number, to `to`. */
export interface ProductNode {
  readonly kind: 'product';
  readonly variable: string;
  readonly from: Expression;
  readonly to: Expression;
  readonly body: Expression;
}
export interface IntegralNode {
  readonly kind: 'integral';
  readonly variable: string;
  readonly from: Expression;
  readonly to: Expression;
  readonly body: Expression;
}
export interface LimitNode {
  readonly kind: 'limit';
  readonly variable: string;
  readonly target: Expression;
  readonly side: Side;
  readonly body: Expression;
}
export type Side = 'left' | 'right' | 'both';
/** dⁿ/dxⁿ body at x = `at`; the variable is bound in `body`. `isPartial` is a matter of notation. */
export interface DerivativeNode {
  readonly kind: 'derivative';
  readonly variable: string;
  readonly order: number;
  readonly isPartial: boolean;
  readonly body: Expression;
  readonly at: Expression;
}
/** The distance |PQ| of two named points. */
export interface DistanceNode {
  readonly kind: 'distance';
  readonly from: string;
  readonly to: string;
}
/** A function through many points at an argument. No text means it: it stands where a name for it is put in. */
export interface SplineNode {
  readonly kind: 'spline';
  readonly spline: Table;
  readonly argument: Expression;
}

/** What may hold or not; undefined where one of its sides is and the rest does not decide. */
export type Condition = ComparisonNode | JunctionNode | NotNode;
/** A chain such as 0 ≤ x < 3: one relation more is one operand more. */
export interface ComparisonNode {
  readonly kind: 'comparison';
  readonly operands: readonly Expression[];
  readonly relations: readonly Relation[];
}
export interface JunctionNode {
  readonly kind: 'and' | 'or';
  readonly left: Condition;
  readonly right: Condition;
}
export interface NotNode {
  readonly kind: 'not';
  readonly operand: Condition;
}
export type Relation = '<' | '≤' | '>' | '≥' | '=' | '≠';

export type ConstantName = 'pi' | 'e' | 'infinity';

export const constantValues: Readonly<Record<ConstantName, number>> = {
  pi: Math.PI,
  e: Math.E,
  infinity: Infinity,
};

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
/** A function of one variable, or its derivative of the given order. */
export const apply = (functionName: string, order: number, argument: Expression): ApplyNode =>
  applyAll(functionName, [order], [argument]);
export const applyAll = (
  functionName: string,
  orders: readonly number[],
  args: readonly Expression[],
): ApplyNode => ({ kind: 'apply', name: functionName, orders, arguments: args });
export const spline = (table: Table, argument: Expression): SplineNode => ({
  kind: 'spline',
  spline: table,
  argument,
});
/** How a table's function is written: by its name. */
export const writtenSpline = ({ spline: { name: called, order }, argument }: SplineNode): ApplyNode =>
  apply(called, order, argument);
export const piecewise = (pieces: readonly Piece[], otherwise?: Expression): PiecewiseNode => ({
  kind: 'piecewise',
  pieces,
  otherwise,
});
export const comparison = (
  left: Expression,
  ...rest: readonly (readonly [Relation, Expression])[]
): ComparisonNode => ({
  kind: 'comparison',
  operands: [left, ...rest.map(([, operand]) => operand)],
  relations: rest.map(([relation]) => relation),
});
/** d/dx body, at x itself. */
export const derivative = (variable: string, order: number, body: Expression): DerivativeNode => ({
  kind: 'derivative',
  variable,
  order,
  isPartial: false,
  body,
  at: name(variable),
});

/** The name of a coordinate of a named point: x_P. */
export const coordinate = (axis: 'x' | 'y', point: string): string => `${axis}_${point}`;

/** Every expression that a condition compares, from left to right. */
export function comparedIn(condition: Condition): readonly Expression[] {
  switch (condition.kind) {
    case 'comparison':
      return condition.operands;
    case 'and':
    case 'or':
      return [...comparedIn(condition.left), ...comparedIn(condition.right)];
    case 'not':
      return comparedIn(condition.operand);
  }
}

/** Each pair of neighbours that a condition compares, from left to right. */
export function comparedPairs(condition: Condition): readonly (readonly [Expression, Expression])[] {
  switch (condition.kind) {
    case 'comparison':
      return condition.operands.slice(1).map((right, i) => [condition.operands[i] as Expression, right]);
    case 'and':
    case 'or':
      return [...comparedPairs(condition.left), ...comparedPairs(condition.right)];
    case 'not':
      return comparedPairs(condition.operand);
  }
}

/** The condition with every compared expression replaced; the same object when none changed. */
export function mapCondition(condition: Condition, change: (part: Expression) => Expression): Condition {
  switch (condition.kind) {
    case 'comparison': {
      const operands = condition.operands.map(change);
      return isSame(operands, condition.operands) ? condition : { ...condition, operands };
    }
    case 'and':
    case 'or': {
      const left = mapCondition(condition.left, change);
      const right = mapCondition(condition.right, change);
      return left === condition.left && right === condition.right
        ? condition
        : { kind: condition.kind, left, right };
    }
    case 'not': {
      const operand = mapCondition(condition.operand, change);
      return operand === condition.operand ? condition : { kind: 'not', operand };
    }
  }
}

const isSame = <T>(after: readonly T[], before: readonly T[]): boolean =>
  after.every((part, i) => part === before[i]);

/** 1 for ∞, −1 for −∞, 0 for anything finite. */
export function sizeAtInfinity(node: Expression): number {
  if (node.kind === 'negate') return -sizeAtInfinity(node.operand);
  return node.kind === 'constant' && node.name === 'infinity' ? 1 : 0;
}

/** The direct parts of a node, from left to right; those of conditions included. */
export function children(node: Expression): readonly Expression[] {
  switch (node.kind) {
    case 'number':
    case 'constant':
    case 'name':
    case 'distance':
      return [];
    case 'negate':
      return [node.operand];
    case 'spline':
      return [node.argument];
    case 'add':
    case 'subtract':
    case 'multiply':
    case 'divide':
      return [node.left, node.right];
    case 'power':
      return [node.base, node.exponent];
    case 'call':
    case 'apply':
      return node.arguments;
    case 'piecewise': {
      const parts = node.pieces.flatMap(({ value, condition }) => [value, ...comparedIn(condition)]);
      return node.otherwise ? [...parts, node.otherwise] : parts;
    }
    case 'summation':
    case 'product':
    case 'integral':
      return [node.from, node.to, node.body];
    case 'limit':
      return [node.target, node.body];
    case 'derivative':
      return [node.body, node.at];
  }
}

/** Rebuilds a node with each direct part replaced; the same object comes back when no part changed. */
export function mapChildren(node: Expression, change: (part: Expression) => Expression): Expression {
  if (node.kind === 'piecewise') return mapPieces(node, change);
  const before = children(node);
  const after = before.map(change);
  if (isSame(after, before)) return node;
  const [first, second, third] = after as [Expression, Expression, Expression];
  switch (node.kind) {
    case 'number':
    case 'constant':
    case 'name':
    case 'distance':
      return node;
    case 'negate':
      return negate(first);
    case 'spline':
      return spline(node.spline, first);
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
      return { ...node, arguments: after };
    case 'summation':
    case 'product':
    case 'integral':
      return { ...node, from: first, to: second, body: third };
    case 'limit':
      return { ...node, target: first, body: second };
    case 'derivative':
      return { ...node, body: first, at: second };
  }
}

function mapPieces(node: PiecewiseNode, change: (part: Expression) => Expression): PiecewiseNode {
  const pieces = node.pieces.map((piece) => {
    const value = change(piece.value);
    const condition = mapCondition(piece.condition, change);
    return value === piece.value && condition === piece.condition ? piece : { value, condition };
  });
  const otherwise = node.otherwise && change(node.otherwise);
  return isSame(pieces, node.pieces) && otherwise === node.otherwise ? node : piecewise(pieces, otherwise);
}

/** Whether a node binds a variable in its body. */
function isBinder(node: Expression): node is BinderNode | DerivativeNode {
  return (
    node.kind === 'summation' ||
    node.kind === 'product' ||
    node.kind === 'integral' ||
    node.kind === 'limit' ||
    node.kind === 'derivative'
  );
}

/** The tree with every free name `from` replaced by `to`; bound variables give way to names in `to`. */
export function substitute(node: Expression, from: string, to: Expression): Expression {
  if (node.kind === 'name') return node.name === from ? to : node;
  if (!isBinder(node)) return mapChildren(node, (part) => substitute(part, from, to));
  const bound = node.variable;
  const isCaptured = bound !== from && mentioned(to).names.has(bound) && mentioned(node.body).names.has(from);
  const safe = isCaptured ? renamed(node, freshName(bound, node.body, to)) : node;
  const body = bound === from ? safe.body : substitute(safe.body, from, to);
  return mapOutside({ ...safe, body }, (part) => substitute(part, from, to));
}

/** The parts of a binding node that its variable does not reach, replaced. */
function mapOutside(node: BinderNode | DerivativeNode, change: (part: Expression) => Expression): Expression {
  switch (node.kind) {
    case 'summation':
    case 'product':
    case 'integral':
      return { ...node, from: change(node.from), to: change(node.to) };
    case 'limit':
      return { ...node, target: change(node.target) };
    case 'derivative':
      return { ...node, at: change(node.at) };
  }
}

/** The same parts, listed. */
function outsideOf(node: BinderNode | DerivativeNode): readonly Expression[] {
  switch (node.kind) {
    case 'summation':
    case 'product':
    case 'integral':
      return [node.from, node.to];
    case 'limit':
      return [node.target];
    case 'derivative':
      return [node.at];
  }
}

function renamed<T extends BinderNode | DerivativeNode>(node: T, variable: string): T {
  return { ...node, variable, body: substitute(node.body, node.variable, name(variable)) };
}

function freshName(taken: string, ...trees: readonly Expression[]): string {
  const used = new Set(trees.flatMap((node) => [...mentioned(node).names]));
  let candidate = taken;
  for (let i = 1; used.has(candidate) || candidate === taken; i++) candidate = `${taken}_${i}`;
  return candidate;
}

export interface Mentioned {
  readonly names: ReadonlySet<string>;
  readonly functions: ReadonlySet<string>;
}

/** Every free variable, parameter and defined function that the tree mentions; of points, their coordinates. */
export function mentioned(node: Expression): Mentioned {
  const names = new Set<string>();
  const functions = new Set<string>();
  const visit = (part: Expression, bound: readonly string[]): void => {
    if (part.kind === 'name' && !bound.includes(part.name)) names.add(part.name);
    if (part.kind === 'apply') functions.add(part.name);
    if (part.kind === 'distance') {
      for (const point of [part.from, part.to]) names.add(coordinate('x', point)).add(coordinate('y', point));
    }
    if (!isBinder(part)) children(part).forEach((child) => visit(child, bound));
    else {
      outsideOf(part).forEach((child) => visit(child, bound));
      visit(part.body, [...bound, part.variable]);
    }
  };
  visit(node, []);
  return { names, functions };
}

/** Whether no free name is mentioned. */
export const isConstant = (node: Expression): boolean => mentioned(node).names.size === 0;

/** Whether the free name is mentioned. */
export const dependsOn = (node: Expression, variable: string): boolean => mentioned(node).names.has(variable);

/** The number of nodes: the measure by which one form of an expression is shorter than another. */
export function size(node: Expression): number {
  return children(node).reduce((sum, part) => sum + size(part), 1);
}
