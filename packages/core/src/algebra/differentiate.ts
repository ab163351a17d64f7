import {
  applyOf,
  baseAndExponent,
  callOf,
  canonical,
  euler,
  numeric,
  power,
  product,
  sum,
  whole,
  type Canonical,
} from './canonical.ts';
import { inPieces } from './kinks.ts';
import { largestTree, mostFactors, TooLarge } from '../budget/tooLarge.ts';
import { withParts } from './parts.ts';
import * as rational from '../numbers/rational.ts';
import { numberStyle, shortest } from './shortest.ts';
import { OutOfEffort } from '../budget/effort.ts';
import { builtIn } from '../functions/table.ts';
import { readExpression } from '../language/read.ts';
import { derivativeOfProduct } from './products.ts';
import * as tree from '../language/tree.ts';
import { size, type Expression, type IntegralNode } from '../language/tree.ts';
import { derivativeOfPieces } from './pieces.ts';

const remembered = new WeakMap<Expression, Map<string, Expression>>();

/**
 * The derivative of the given order with respect to `variable`, simplified. Parameters and other
 * names are constants; f(u) of a defined function becomes f′(u)·u′.
 *
 * The formula may be defined where the function is not (1/x for ln x): evaluate it through
 * `compile`, which guards it.
 * @throws TooLarge when the derivative has more than 20,000 nodes, or a product more than 60 factors
 */
export function derivativeOf(node: Expression, variable: string, order = 1): Expression {
  if (order === 0) return node;
  const found = remembered.get(node)?.get(keyOf(variable, order));
  if (found) return found;
  try {
    const lower = withoutDerivatives(derivativeOf(node, variable, order - 1));
    const written = inPieces(lower, variable) ?? lower;
    const result = shortest(derivative(canonical(written), variable), numberStyle(node));
    if (size(result) > largestTree) throw new TooLarge('the derivative is too long');
    rememberDerivative(node, variable, order, result);
    return result;
  } catch (error) {
    const isFirst = error instanceof OutOfEffort && !(error instanceof DerivativeOutOfEffort);
    throw isFirst ? new DerivativeOutOfEffort(node, variable, order) : error;
  }
}

/** Thrown where there is not effort enough for a derivative, which may be worked out elsewhere and then remembered. */
export class DerivativeOutOfEffort extends OutOfEffort {
  constructor(
    readonly node: Expression,
    readonly variable: string,
    readonly order: number,
  ) {
    super('the derivative takes more operations than are allowed');
  }
}

const keyOf = (variable: string, order: number): string => `${variable} ${order}`;

/** Remembers what the derivative of a formula is, as `derivativeOf` makes it. */
export function rememberDerivative(
  node: Expression,
  variable: string,
  order: number,
  derived: Expression,
): void {
  const known = remembered.get(node) ?? new Map<string, Expression>();
  remembered.set(node, known);
  known.set(keyOf(variable, order), derived);
}

/** The derivative of a canonical form, as it falls out of the rules. */
export function derivative(c: Canonical, variable: string): Canonical {
  switch (c.kind) {
    case 'number':
      return whole(0);
    case 'atom':
      return whole(c.node.kind === 'name' && c.node.name === variable ? 1 : 0);
    case 'sum':
      return sum(c.terms.map((term) => derivative(term, variable)));
    case 'product':
      return productRule(numeric(c.coefficient), c.factors, variable);
    case 'power':
      return powerRule(c, variable);
    case 'call':
      return chainRule(c.name, c.operands, variable);
    case 'apply':
      return sum(
        c.operands.map((operand, i) => {
          const orders = c.orders.map((order, j) => (j === i ? order + 1 : order));
          return product([applyOf(c.name, orders, c.operands), derivative(operand, variable)]);
        }),
      );
    case 'opaque':
      return derivativeOfOpaque(c.node, variable);
  }
}

/** The derivative of what canonical form does not look into. */
function derivativeOfOpaque(node: Expression, variable: string): Canonical {
  if (!tree.dependsOn(node, variable)) return whole(0);
  switch (node.kind) {
    case 'piecewise':
      return canonical(derivativeOfPieces(node, variable, (part) => derivativeOf(part, variable)));
    case 'spline':
      return product([
        canonical(tree.spline(node.spline.derivative, node.argument)),
        derivative(canonical(node.argument), variable),
      ]);
    case 'summation': {
      const hasFixedBounds = ![node.from, node.to].some((bound) => tree.dependsOn(bound, variable));
      // The sum jumps where a bound passes a whole number; between them it stands still.
      return canonical(hasFixedBounds ? { ...node, body: derivativeOf(node.body, variable) } : nowhere);
    }
    case 'product': {
      const hasFixedBound = !tree.dependsOn(node.to, variable);
      const slope = (factor: Expression): Expression => derivativeOf(factor, variable);
      return canonical(hasFixedBound ? derivativeOfProduct(node, slope) : nowhere);
    }
    case 'integral':
      return leibnizRule(node, variable);
    case 'limit':
      return canonical({ ...node, body: derivativeOf(node.body, variable) });
    default:
      throw new TypeError(`${node.kind} has a rule of its own`);
  }
}

const nowhere = tree.divide(tree.number(0), tree.number(0));

/** d/dx ∫ₐᵇ f(t, x) dt = f(b, x) b′ − f(a, x) a′ + ∫ₐᵇ ∂f/∂x dt. */
function leibnizRule(node: IntegralNode, variable: string): Canonical {
  const atBound = (bound: Expression): Canonical =>
    product([
      canonical(tree.substitute(node.body, node.variable, bound)),
      derivative(canonical(bound), variable),
    ]);
  const inside = tree.dependsOn(node.body, variable) ? derivativeOf(node.body, variable) : tree.number(0);
  const underIntegral =
    inside.kind === 'number' && Number(inside.text) === 0 ? whole(0) : canonical({ ...node, body: inside });
  return sum([atBound(node.to), product([whole(-1), atBound(node.from)]), underIntegral]);
}

/** The tree with every d/dx worked out and put at its place. */
export function withoutDerivatives(node: Expression): Expression {
  const inner = tree.mapChildren(node, withoutDerivatives);
  if (inner.kind !== 'derivative') return inner;
  const worked = derivativeOf(inner.body, inner.variable, inner.order);
  return tree.substitute(worked, inner.variable, inner.at);
}

function productRule(coefficient: Canonical, factors: readonly Canonical[], variable: string): Canonical {
  if (factors.length > mostFactors) throw new TooLarge('the product has too many factors');
  const terms = factors.map((factor, i) => {
    const others = factors.filter((_, j) => j !== i);
    return product([coefficient, derivative(factor, variable), ...others]);
  });
  return sum(terms);
}

function powerRule(c: Canonical, variable: string): Canonical {
  const { base, exponent } = baseAndExponent(c);
  const baseSlope = derivative(base, variable);
  const exponentSlope = derivative(exponent, variable);
  const isConstantExponent = exponentSlope.kind === 'number' && rational.isZero(exponentSlope.value);
  if (isConstantExponent) {
    return product([exponent, power(base, sum([exponent, whole(-1)])), baseSlope]);
  }
  // (u^v)′ = u^v (v′ ln u + v u′/u)
  const logarithm = base.key === euler.key ? whole(1) : callOf('ln', [base]);
  const throughBase = product([exponent, baseSlope, power(base, whole(-1))]);
  return product([c, sum([product([exponentSlope, logarithm]), throughBase])]);
}

function chainRule(name: string, operands: readonly Canonical[], variable: string): Canonical {
  const terms = operands.map((operand, i) => {
    const inner = derivative(operand, variable);
    if (inner.kind === 'number' && rational.isZero(inner.value)) return whole(0);
    return product([outerDerivative(name, i, operands), inner]);
  });
  return sum(terms);
}

const rowDerivatives = new Map<string, Canonical>();
const rowScope = { names: new Set(['x', 'y']), functions: new Set<string>() };

/** The row's formula for the derivative in its i-th argument, with the arguments put in. */
function outerDerivative(name: string, i: number, operands: readonly Canonical[]): Canonical {
  const key = `${name}/${i}`;
  let formula = rowDerivatives.get(key);
  if (!formula) {
    const reading = readExpression(builtIn(name).derivatives[i] ?? '0/0', rowScope);
    if (!reading.ok) throw new TypeError(`the derivative of ${name} cannot be read`);
    formula = canonical(reading.value);
    rowDerivatives.set(key, formula);
  }
  return putIn(
    formula,
    new Map([
      ['x', operands[0]],
      ['y', operands[1]],
    ]),
  );
}

/** A row's formula with the arguments in the place of its letters; what is put in is not looked into again. */
function putIn(c: Canonical, values: ReadonlyMap<string, Canonical | undefined>): Canonical {
  if (c.kind === 'opaque') throw new TypeError('a row of the table has no pieces');
  if (c.kind === 'atom') return (c.node.kind === 'name' && values.get(c.node.name)) || c;
  return withParts(c, (part) => putIn(part, values));
}
