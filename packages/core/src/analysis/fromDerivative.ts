import { antiderivative } from '../algebra/antiderivative/antiderivative.ts';
import { joinsOf } from '../algebra/pieces.ts';
import * as rational from '../numbers/rational.ts';
import { simplify } from '../algebra/simplify.ts';
import { exactTruth, exactValue } from '../algebra/exact.ts';
import { literalRational } from '../algebra/exponent.ts';
import * as tree from '../language/tree.ts';
import type { Expression, Piece } from '../language/tree.ts';

/**
 * f itself from its derivative of order k and its start values f(a), f′(a), …, f⁽ᵏ⁻¹⁾(a): as a formula where
 * antiderivatives are found that hold everywhere, and otherwise as one integral.
 */
export function fromDerivative(
  body: Expression,
  variable: string,
  start: Expression,
  startValues: readonly Expression[],
): Expression {
  return (
    formulaFromDerivative(body, variable, start, startValues) ??
    asIntegral(body, variable, start, startValues)
  );
}

/** The same as a formula without an integral; null where no antiderivative is found that holds everywhere. */
export function formulaFromDerivative(
  body: Expression,
  variable: string,
  start: Expression,
  startValues: readonly Expression[],
): Expression | null {
  const domain = onOneInterval(body, variable, start);
  let formula = domain?.value ?? body;
  for (const value of [...startValues].reverse()) {
    const found = holdsEverywhere(formula, variable) ? antiderivative(formula, variable) : null;
    if (!found || !holdsEverywhere(found, variable)) return null;
    const rise = tree.subtract(found, tree.substitute(found, variable, start));
    formula = simplify(tree.add(rise, value));
  }
  return domain ? tree.piecewise([{ value: formula, condition: domain.condition }]) : formula;
}

/** A formula that is given on one interval alone, which holds the place. */
function onOneInterval(body: Expression, variable: string, start: Expression): Piece | null {
  if (body.kind !== 'piecewise' || body.otherwise || body.pieces.length > 1) return null;
  const [piece] = body.pieces;
  const at = exactValue(start, new Map());
  const isInterval =
    piece?.condition.kind === 'comparison' &&
    piece.condition.relations.every((relation) => relation !== '≠' && relation !== '=') &&
    joinsOf(body, variable) !== null;
  return isInterval && at && exactTruth(piece.condition, new Map([[variable, at]])) ? piece : null;
}

const everywhere: ReadonlySet<string> = new Set([
  'sin',
  'cos',
  'exp',
  'sinh',
  'cosh',
  'tanh',
  'arctan',
  'arsinh',
]);

/** Whether a formula is made of parts that are continuous for all numbers. */
function holdsEverywhere(node: Expression, variable: string): boolean {
  if (!tree.dependsOn(node, variable)) return true;
  const parts = tree.children(node).every((part) => holdsEverywhere(part, variable));
  switch (node.kind) {
    case 'name':
      return true;
    case 'negate':
    case 'add':
    case 'subtract':
    case 'multiply':
      return parts;
    case 'divide':
      return parts && !tree.dependsOn(node.right, variable);
    case 'power': {
      const exponent = literalRational(node.exponent);
      const isWhole = exponent && rational.isInteger(exponent) && !rational.isNegative(exponent);
      const isExponential = node.base.kind === 'constant' && node.base.name === 'e';
      return parts && (isWhole || isExponential || false);
    }
    case 'call':
      return parts && everywhere.has(node.name);
    default:
      return false;
  }
}

/** f(x) = Σ f⁽ʲ⁾(a)(x − a)ʲ/j! + ∫ₐˣ (x − t)ᵏ⁻¹/(k − 1)! f⁽ᵏ⁾(t) dt (Cauchy's formula for repeated integration). */
function asIntegral(
  body: Expression,
  variable: string,
  start: Expression,
  startValues: readonly Expression[],
): Expression {
  const order = startValues.length;
  const x = tree.name(variable);
  const bound = variable === 't' ? 's' : 't';
  const weight = weighted(tree.subtract(x, tree.name(bound)), order - 1);
  const moved = tree.substitute(body, variable, tree.name(bound));
  const integral: Expression = {
    kind: 'integral',
    variable: bound,
    from: start,
    to: x,
    body: order === 1 ? moved : tree.multiply(weight, moved),
  };
  return startValues.reduceRight<Expression>((sum, value, j) => {
    const term = j === 0 ? value : tree.multiply(value, weighted(tree.subtract(x, start), j));
    return tree.add(term, sum);
  }, integral);
}

/** uʲ/j!. */
function weighted(u: Expression, j: number): Expression {
  const factorial = Array.from({ length: j }, (_, i) => i + 1).reduce((a, b) => a * b, 1);
  const power = j === 1 ? u : tree.power(u, tree.number(j));
  return factorial === 1 ? power : tree.divide(power, tree.number(factorial));
}
