import { TooLarge } from '../budget/tooLarge.ts';
import { compile, partialDerivative, type Functions } from '../evaluate/program.ts';
import { evaluateAt } from '../values/values.ts';
import * as tree from '../language/tree.ts';
import type { Expression } from '../language/tree.ts';
import { numberFormula } from '../limit/numberFormula.ts';

const largestInlined = 5000;
const deepestInlining = 50;
/** Nodes that are looked at while functions are put in: each that mentions another twice doubles them. */
const mostVisits = 60_000;

/**
 * A formula in the variable alone: parameters replaced by their values, defined functions by their formulas.
 * @throws TooLarge where functions mention one another too often or in a circle
 */
export function closedFormula(
  body: Expression,
  parameters: ReadonlyMap<string, number>,
  functions: Functions = new Map(),
): Expression {
  let result = withRealPowers(inlined(body, functions, 0, { left: mostVisits }), parameters);
  for (const [name, value] of parameters) result = tree.substitute(result, name, numberFormula(value));
  return result;
}

/**
 * The real root of a negative number is read from a literal exponent only: x^(1/3). A power whose exponent holds a
 * parameter keeps to bases from 0 up when that parameter becomes a number that is not whole.
 */
function withRealPowers(node: Expression, parameters: ReadonlyMap<string, number>): Expression {
  const inner = tree.mapChildren(node, (part) => withRealPowers(part, parameters));
  if (inner.kind !== 'power') return inner;
  const names = [...tree.mentioned(inner.exponent).names];
  if (names.length === 0 || !names.every((name) => parameters.has(name))) return inner;
  const exponent = compile(inner.exponent, '');
  const value = evaluateAt(
    exponent,
    0,
    exponent.parameters.map((name) => parameters.get(name) ?? NaN),
  );
  if (Number.isInteger(value)) return inner;
  return tree.piecewise([{ value: inner, condition: tree.comparison(inner.base, ['≥', tree.number(0)]) }]);
}

function inlined(
  node: Expression,
  functions: Functions,
  depth: number,
  visits: { left: number },
): Expression {
  if (--visits.left < 0) throw new TooLarge('functions mention one another too often');
  if (depth > deepestInlining) throw new TooLarge('definitions go in a circle');
  const inner = tree.mapChildren(node, (part) => inlined(part, functions, depth, visits));
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
  return inlined(result, functions, depth + 1, visits);
}
