import { canonical, type Canonical } from '../algebra/canonical.ts';
import { exactPlace, type Place } from '../analysis/place.ts';
import { programOf } from '../analysis/programs.ts';
import * as tree from '../language/tree.ts';
import type { Expression } from '../language/tree.ts';
import { isBall } from '../numbers/ball.ts';
import type * as big from '../numbers/bigFloat.ts';
import { enclosedOrUnsure } from '../limit/enclosed.ts';
import { limitOfFormula, nameOfSpot, type Goal } from '../limit/growth/limitOfFormula.ts';
import { isFinitePlace, type End } from './stretches.ts';

/** The value of an antiderivative at an end. */
export interface EndNumber {
  readonly form: Canonical | null;
  readonly value: big.BigFloat;
  readonly isProved: boolean;
}

/** Binary digits to which values at ends are worked out. */
export const valueBits = 200;

/** 'diverges' for an infinite limit, 'swings' for none, null where nothing is known. */
export function endValue(
  formula: Expression,
  variable: string,
  end: End,
  side: 1 | -1,
): EndNumber | 'diverges' | 'swings' | null {
  const there = isFinitePlace(end) ? valueAt(formula, variable, end) : null;
  if (there) return there;
  const limit = limitOfFormula(formula, goalAt(variable, end, side));
  if (limit === null || limit === 'undecided' || limit.kind === 'undefined') return null;
  if (limit.kind === 'infinite') return 'diverges';
  if (limit.kind === 'none') return 'swings';
  if (tree.dependsOn(limit.exact, nameOfSpot))
    return isFinitePlace(end) ? valueAt(limit.exact, nameOfSpot, end) : null;
  const place = exactPlace(limit.exact);
  return place && { form: canonical(limit.exact), value: place.at(valueBits), isProved: true };
}

/** An end as where a variable tends to. */
export function goalAt(variable: string, end: End, side: 1 | -1): Goal {
  if (!isFinitePlace(end)) return { variable, target: end, side };
  const target = end.exact ? { exact: end.exact } : { ball: end.ball, isZero: () => false };
  return { variable, target, side };
}

/** The value of a formula at a place, exactly where the place is known so; null where it has none. */
export function valueAt(formula: Expression, variable: string, place: Place): EndNumber | null {
  const bits = 2 * valueBits;
  const ball = enclosedOrUnsure(programOf(formula, variable), place.ball(bits), [], bits);
  if (!isBall(ball)) return null;
  const form = place.exact ? canonical(tree.substitute(formula, variable, place.exact)) : null;
  return { form, value: ball.middle, isProved: true };
}
