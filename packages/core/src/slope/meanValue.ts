import { Arcs, type SideLimit } from '../analysis/arcs.ts';
import type { Place } from '../analysis/place.ts';
import { solve, type Solutions } from '../analysis/solve.ts';
import * as tree from '../language/tree.ts';
import type { Expression } from '../language/tree.ts';
import { numberFormula } from '../limit/numberFormula.ts';

/** Why the mean value theorem promises nothing: what is wrong with f, and where. */
export interface Obstacle {
  readonly kind: 'noValue' | 'pole' | 'jump' | 'corner' | 'verticalTangent';
  readonly at: Place;
}

/** Whether the theorem's conditions hold: f continuous on [a, b] and differentiable between. */
export type Conditions = 'hold' | 'undecided' | Obstacle;

export interface MeanValue {
  readonly slope: Expression;
  readonly points: Solutions;
  readonly conditions: Conditions;
}

/**
 * The points of the mean value theorem: all c between a and b at which f′(c) is the slope of the secant through
 * a and b. Null where f has no value at an end.
 * @param body a formula in the variable alone
 */
export function meanValuePoints(
  body: Expression,
  variable: string,
  [a, b]: readonly [number, number],
): MeanValue | null {
  const [from, to] = [numberFormula(a), numberFormula(b)];
  const at = (x: Expression): Expression => tree.substitute(body, variable, x);
  const slope = tree.divide(tree.subtract(at(to), at(from)), tree.subtract(to, from));
  const arcs = new Arcs(body, variable, [a, b], 1);
  if (!arcs.valueAt(arcs.from) || !arcs.valueAt(arcs.to)) return null;
  const all = solve(body, slope, variable, [a, b], 1);
  const isInside = (x: number): boolean => x > a && x < b;
  const points = { ...all, solutions: all.solutions.filter(({ value }) => isInside(value)) };
  return { slope, points, conditions: conditionsOf(arcs) };
}

function conditionsOf(arcs: Arcs): Conditions {
  const gap = arcs.arcs.find(({ derivatives }) => derivatives === null);
  const found = arcs.joints.map((joint) => obstacleAt(arcs, joint));
  const isShown = ({ at }: Obstacle): boolean =>
    !arcs.undecided.some(({ low, high }) => low <= at.high && high >= at.low);
  const obstacle = found.find((one) => one !== null && one !== 'undecided' && isShown(one));
  if (obstacle) return obstacle;
  if (found.includes('undecided') || arcs.undecided.length > 0) return 'undecided';
  return gap ? { kind: 'noValue', at: gap.from } : 'hold';
}

/** What is wrong at a joint; at the ends of the interval only the side inside is looked at. */
function obstacleAt(arcs: Arcs, joint: Place): Obstacle | 'undecided' | null {
  const value = arcs.valueAt(joint);
  const { left, right } = arcs.arcsAt(joint);
  const sides = [left, right].filter((arc) => arc !== null);
  const limits = sides.map((arc) => arcs.limitAlong(arc, joint, 0));
  if (limits.some(({ kind }) => kind === 'undecided')) return 'undecided';
  if (limits.some(({ kind }) => kind === 'infinite')) return { kind: 'pole', at: joint };
  if (!value || limits.some(({ kind }) => kind === 'undefined')) return { kind: 'noValue', at: joint };
  const goesOn = limits.every((limit) => limit.kind === 'finite' && arcs.areSame(limit.height, value, joint));
  if (!goesOn) return { kind: 'jump', at: joint };
  if (sides.length < 2 || arcs.derivativeAt(joint, 1)) return null;
  const slopes = sides.map((arc) => arcs.limitAlong(arc, joint, 1));
  if (slopes.some(({ kind }) => kind === 'undecided')) return 'undecided';
  return { kind: isVertical(slopes) ? 'verticalTangent' : 'corner', at: joint };
}

const isVertical = (slopes: readonly SideLimit[]): boolean => slopes.every(({ kind }) => kind === 'infinite');
