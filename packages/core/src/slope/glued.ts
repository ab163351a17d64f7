import { derivativeOf, rememberDerivative } from '../algebra/differentiate.ts';
import { joinsOf } from '../algebra/pieces.ts';
import { literal } from '../algebra/literal.ts';
import type { Rational } from '../numbers/rational.ts';
import * as rational from '../numbers/rational.ts';
import { compile, noFunctions } from '../evaluate/program.ts';
import { evaluateAt } from '../values/values.ts';
import * as tree from '../language/tree.ts';
import type { Expression } from '../language/tree.ts';
import { areSameSlope, slopesBeside } from './sides.ts';

/** A place at which the rules of differentiation give no slope, and the slope that the definition gives. */
interface Exception {
  readonly at: Rational;
  readonly slope: Expression;
}

/** Derivatives of how high an order are completed. */
const highestOrder = 2;

/**
 * Completes the derivatives of a function in pieces at single points where it is glued together, as x² sin(1/x) with
 * the value 0 at 0: there the definition's limit is the slope. What `derivativeOf` gives for this formula from now on
 * names the exception.
 * @param body a formula; nothing is done where it holds parameters
 */
export function completeDerivatives(body: Expression, variable: string): void {
  let current = body;
  for (let order = 1; order <= highestOrder; order++) {
    const joins = joinsIn(current, variable);
    if (joins.length === 0) return;
    const derived = derivativeOf(current, variable);
    const exceptions = exceptionsOf(current, variable, joins);
    if (exceptions.length === 0) return;
    const completed = withExceptions(derived, variable, exceptions);
    rememberDerivative(body, variable, order, completed);
    current = completed;
  }
}

/** The numbers at which a formula in the variable alone goes over from one piece to another. */
function joinsIn(node: Expression, variable: string): Rational[] {
  if ([...tree.mentioned(node).names].some((name) => name !== variable)) return [];
  const inner = tree.children(node).flatMap((child) => joinsIn(child, variable));
  return node.kind === 'piecewise' ? [...inner, ...(joinsOf(node, variable) ?? [])] : inner;
}

function exceptionsOf(body: Expression, variable: string, joins: readonly Rational[]): Exception[] {
  const program = compile(body, variable);
  const derived = compile(body, variable, noFunctions, 1);
  return joins.flatMap((at) => {
    const x = rational.toNumber(at);
    const isOpen = Number.isNaN(evaluateAt(derived, x)) && Number.isFinite(evaluateAt(program, x));
    if (!isOpen) return [];
    const { left, right } = slopesBeside(program, { value: x, exact: at });
    return left?.form && right && areSameSlope(left, right) ? [{ at, slope: left.form }] : [];
  });
}

function withExceptions(derived: Expression, variable: string, exceptions: readonly Exception[]): Expression {
  const x = tree.name(variable);
  const single = exceptions.map(({ at, slope }) => ({
    value: slope,
    condition: tree.comparison(x, ['=', literal(at)]),
  }));
  const [exception, ...others] = exceptions;
  if (derived.kind === 'piecewise') return tree.piecewise([...single, ...derived.pieces], derived.otherwise);
  if (!exception || others.length > 0) return tree.piecewise(single, derived);
  const elsewhere = tree.comparison(x, ['≠', literal(exception.at)]);
  return tree.piecewise([{ value: derived, condition: elsewhere }, ...single]);
}
