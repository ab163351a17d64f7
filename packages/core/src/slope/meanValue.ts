import { Arcs } from '../analysis/arcs.ts';
import { numberFormula } from '../limit/numberFormula.ts';
import { solve, type Solutions } from '../analysis/solve.ts';
import * as tree from '../language/tree.ts';
import type { Expression } from '../language/tree.ts';

/**
 * The points of the mean value theorem: all c between a and b at which f′(c) is the slope of the secant through
 * a and b. Null where f has no value at an end; `isGranted` says whether the theorem's conditions hold, f
 * continuous on [a, b] and differentiable inside.
 * @param body a formula in the variable alone
 */
export function meanValuePoints(
  body: Expression,
  variable: string,
  [a, b]: readonly [number, number],
): { readonly slope: Expression; readonly points: Solutions; readonly isGranted: boolean } | null {
  const [from, to] = [numberFormula(a), numberFormula(b)];
  const at = (x: Expression): Expression => tree.substitute(body, variable, x);
  const slope = tree.divide(tree.subtract(at(to), at(from)), tree.subtract(to, from));
  const arcs = new Arcs(body, variable, [a, b], 1);
  if (!arcs.valueAt(arcs.from) || !arcs.valueAt(arcs.to)) return null;
  const isGranted = arcs.joints.slice(1, -1).every((joint) => arcs.derivativeAt(joint, 1) !== null);
  const all = solve(body, slope, variable, [a, b], 1);
  const isInside = (x: number): boolean => x > a && x < b;
  const points = { ...all, solutions: all.solutions.filter(({ value }) => isInside(value)) };
  return { slope, points, isGranted };
}
