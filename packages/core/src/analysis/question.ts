import { literal } from '../algebra/pieces.ts';
import { TooLarge } from '../algebra/limits.ts';
import { partialDerivative, type Functions } from '../evaluate/program.ts';
import * as tree from '../language/tree.ts';
import type { Expression } from '../language/tree.ts';
import { multipleOfPi } from '../limit/recognise.ts';

/**
 * A double as the number that it stands for: 0.1 is one tenth, −3 is minus 3, and the double nearest to a simple
 * multiple of π is that multiple.
 */
export function numberFormula(value: number): Expression {
  if (value === 0) return tree.number(0);
  if (value < 0) return tree.negate(numberFormula(-value));
  const turns = multipleOfPi(value);
  if (turns) return tree.multiply(literal(turns), tree.constant('pi'));
  return tree.number(String(value).toUpperCase().replace('E+', 'E'));
}

const largestInlined = 5000;
const deepestInlining = 50;

/**
 * A formula in the variable alone: parameters replaced by their values, defined functions by their formulas.
 * @throws TooLarge where functions mention one another too often or in a circle
 */
export function closedFormula(
  body: Expression,
  parameters: ReadonlyMap<string, number>,
  functions: Functions = new Map(),
): Expression {
  let result = inlined(body, functions, 0);
  for (const [name, value] of parameters) result = tree.substitute(result, name, numberFormula(value));
  return result;
}

function inlined(node: Expression, functions: Functions, depth: number): Expression {
  if (depth > deepestInlining) throw new TooLarge('definitions go in a circle');
  const inner = tree.mapChildren(node, (part) => inlined(part, functions, depth));
  if (inner.kind !== 'apply') return inner;
  const target = functions.get(inner.name);
  if (!target) throw new TooLarge(`cannot work out ${inner.name}`);
  const places = target.variables.map((_, i) => `#${i}`);
  let result = partialDerivative(target, inner.orders);
  target.variables.forEach((variable, i) => {
    result = tree.substitute(result, variable, tree.name(places[i] as string));
  });
  places.forEach((place, i) => {
    result = tree.substitute(result, place, inner.arguments[i] as Expression);
  });
  if (tree.size(result) > largestInlined) throw new TooLarge('the formula grows too long');
  return inlined(result, functions, depth + 1);
}
