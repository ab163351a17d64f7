import { derivativeOf } from './differentiate.ts';
import { simplify } from './simplify.ts';
import { builtIn } from '../functions/table.ts';
import * as tree from '../language/tree.ts';
import type { Expression } from '../language/tree.ts';

export type Rule =
  | 'constant'
  | 'identity'
  | 'sum'
  | 'constantFactor'
  | 'product'
  | 'quotient'
  | 'power'
  | 'exponential'
  | 'generalPower'
  | 'function'
  | 'chain'
  | 'definedFunction'
  | 'pieces'
  | 'fundamentalTheorem'
  | 'underTheSign';

/** One use of a rule: what is differentiated, and its derivative with those of its parts still to be worked out. */
export interface RuleStep {
  readonly rule: Rule;
  readonly before: Expression;
  /** With d/dx before every part that a later step works out. */
  readonly after: Expression;
}

/** Steps that one derivative is explained in at most. */
const mostSteps = 200;

/**
 * The rules by which a derivative is found, from the whole formula down to its parts, and the tidy result at the
 * end. Constants and the variable itself are not worth a step of their own inside a formula.
 */
export function derivativeSteps(
  body: Expression,
  variable: string,
): { readonly steps: readonly RuleStep[]; readonly result: Expression } {
  const steps: RuleStep[] = [];
  const open = [body];
  for (let node = open.shift(); node && steps.length < mostSteps; node = open.shift()) {
    const step = ruleFor(node, variable);
    const pending = pendingIn(step.after);
    // Where nothing is left to be worked out, 2x¹ is 2x.
    steps.push(pending.length > 0 ? step : { ...step, after: simplify(step.after) });
    open.push(...pending);
  }
  return { steps, result: simplify(derivativeOf(body, variable)) };
}

/** The parts that still stand behind a d/dx. */
function pendingIn(node: Expression): Expression[] {
  if (node.kind === 'derivative') return [node.body];
  return tree.children(node).flatMap(pendingIn);
}

function ruleFor(node: Expression, x: string): RuleStep {
  const step = (rule: Rule, after: Expression): RuleStep => ({ rule, before: node, after });
  if (!tree.dependsOn(node, x)) return step('constant', tree.number(0));
  const d = (part: Expression): Expression => pending(part, x);
  switch (node.kind) {
    case 'name':
      return step('identity', tree.number(1));
    case 'negate':
      return step('constantFactor', tree.negate(d(node.operand)));
    case 'add':
    case 'subtract':
      return step('sum', tree.binary(node.kind, d(node.left), d(node.right)));
    case 'multiply':
      return productRule(node, x, step);
    case 'divide':
      return quotientRule(node, x, step);
    case 'power':
      return powerRule(node, x, step);
    case 'call':
      return functionRule(node, x, step);
    case 'apply':
    case 'spline':
      return step('definedFunction', derivativeOf(node, x));
    case 'piecewise':
      return step('pieces', derivativeOf(node, x));
    case 'integral':
      return step('fundamentalTheorem', derivativeOf(node, x));
    default:
      return step('underTheSign', derivativeOf(node, x));
  }
}

type MakeStep = (rule: Rule, after: Expression) => RuleStep;

/** d/dx of a part, worked out at once where that is 0 or 1. */
function pending(part: Expression, x: string): Expression {
  if (!tree.dependsOn(part, x)) return tree.number(0);
  if (part.kind === 'name') return tree.number(1);
  return tree.derivative(x, 1, part);
}

function productRule({ left, right }: tree.BinaryNode, x: string, step: MakeStep): RuleStep {
  if (!tree.dependsOn(left, x)) return step('constantFactor', tree.multiply(left, pending(right, x)));
  if (!tree.dependsOn(right, x)) return step('constantFactor', tree.multiply(pending(left, x), right));
  return step(
    'product',
    tree.add(tree.multiply(pending(left, x), right), tree.multiply(left, pending(right, x))),
  );
}

function quotientRule({ left, right }: tree.BinaryNode, x: string, step: MakeStep): RuleStep {
  if (!tree.dependsOn(right, x)) return step('constantFactor', tree.divide(pending(left, x), right));
  const above = tree.subtract(tree.multiply(pending(left, x), right), tree.multiply(left, pending(right, x)));
  return step('quotient', tree.divide(above, tree.power(right, tree.number(2))));
}

function powerRule({ base, exponent }: tree.PowerNode, x: string, step: MakeStep): RuleStep {
  if (!tree.dependsOn(exponent, x)) {
    const lower = simplify(tree.subtract(exponent, tree.number(1)));
    const outer = tree.multiply(exponent, tree.power(base, lower));
    return base.kind === 'name'
      ? step('power', outer)
      : step('chain', tree.multiply(outer, pending(base, x)));
  }
  const whole = tree.power(base, exponent);
  if (!tree.dependsOn(base, x)) {
    const isNatural = base.kind === 'constant' && base.name === 'e';
    const outer = isNatural ? whole : tree.multiply(whole, tree.call('ln', base));
    return exponent.kind === 'name'
      ? step('exponential', outer)
      : step('chain', tree.multiply(outer, pending(exponent, x)));
  }
  return step(
    'generalPower',
    tree.multiply(whole, tree.derivative(x, 1, tree.multiply(exponent, tree.call('ln', base)))),
  );
}

function functionRule(node: tree.CallNode, x: string, step: MakeStep): RuleStep {
  const [argument] = node.arguments;
  if (!argument || node.arguments.length !== 1 || builtIn(node.name).derivatives[0] === undefined) {
    return step('function', derivativeOf(node, x));
  }
  const inner = '#u';
  const outer = tree.substitute(derivativeOf(tree.call(node.name, tree.name(inner)), inner), inner, argument);
  return argument.kind === 'name'
    ? step('function', outer)
    : step('chain', tree.multiply(outer, pending(argument, x)));
}

/** A rule as a teacher names it. */
export const ruleNames: Readonly<Record<Rule, string>> = {
  constant: 'a constant does not change',
  identity: 'x rises by one for every one',
  sum: 'sum rule',
  constantFactor: 'constant factor rule',
  product: 'product rule',
  quotient: 'quotient rule',
  power: 'power rule',
  exponential: 'derivative of an exponential function',
  generalPower: 'logarithmic differentiation',
  function: 'derivative of a standard function',
  chain: 'chain rule',
  definedFunction: 'chain rule for a named function',
  pieces: 'each piece by itself, and where they meet by the definition',
  fundamentalTheorem: 'fundamental theorem of calculus',
  underTheSign: 'differentiation term by term',
};
