import { canonical } from '../algebra/canonical.ts';
import { shortest } from '../algebra/shortest.ts';
import type { Place } from '../analysis/place.ts';
import { programOf } from '../analysis/programs.ts';
import { enclose } from '../evaluate/enclosures.ts';
import { integralOf, type Estimate } from '../evaluate/quadrature.ts';
import { evaluateAt } from '../evaluate/values.ts';
import * as tree from '../language/tree.ts';
import type { Expression } from '../language/tree.ts';
import { convergence, type Convergence } from './convergence.ts';
import { enclosedIntegral } from './enclosure.ts';
import { valueAt } from './endValues.ts';
import { partOf, valueOf, type Found } from './parts.ts';
import { isFinitePlace, type End, type Stretch } from './stretches.ts';

/** By quadrature, with the improper ends told to converge or to diverge. */
export function byQuadrature(stretch: Stretch, variable: string): Found {
  const ends = [convergenceAt(stretch, variable, 'from'), convergenceAt(stretch, variable, 'to')];
  const verdict = (['diverges', 'unknown', 'converges'] as const).find((one) => ends.includes(one));
  const { value, error, magnitude } = estimated(stretch, variable);
  const isSettled = verdict === 'converges' && error <= largestError * magnitude;
  return {
    part: partOf(stretch, isSettled ? value : NaN, null),
    bound: Math.max(error, magnitude * roundingShare),
    certainty: 'estimated',
    convergence: verdict ?? 'converges',
  };
}

/** Of the integral of |f|: a larger estimated error leaves no value rather than a wrong one. */
export const largestError = 1e-5;
/** What rounding leaves of the integral of |f|. */
export const roundingShare = 1e-15;

export function convergenceAt(stretch: Stretch, variable: string, which: 'from' | 'to'): Convergence {
  const end = stretch[which];
  const body = stretch.body as Expression;
  if (isFinitePlace(end) && isRegular(body, variable, end)) return 'converges';
  return convergence(body, variable, end, which === 'from' ? 1 : -1);
}

/** Whether a formula has a value at a place, and so is continuous there, being made of continuous functions. */
const isRegular = (body: Expression, variable: string, place: Place): boolean =>
  valueAt(body, variable, place) !== null;

/**
 * Quadrature over a stretch. Near a singular end other than 0 the distance from it is the variable, so that no digits
 * are lost: 1/√(1 − x) at 1 is 1/√s.
 */
export function estimated({ body, from, to }: Stretch, variable: string): Estimate {
  const formula = body as Expression;
  const [low, high] = [valueOf(from), valueOf(to)];
  const isShifted = (end: End): end is Place =>
    isFinitePlace(end) && end.value !== 0 && end.exact !== null && !isRegular(formula, variable, end);
  const over = (integrand: Expression, a: number, b: number): Estimate => {
    const program = programOf(integrand, variable);
    return integralOf((x) => evaluateAt(program, x), a, b);
  };
  if (!isShifted(from) && !isShifted(to)) return over(formula, low, high);
  const middle = Number.isFinite(low) && Number.isFinite(high) ? (low + high) / 2 : farFrom(low, high);
  const left = isShifted(from)
    ? over(shifted(formula, variable, from, 1), 0, middle - low)
    : over(formula, low, middle);
  const right = isShifted(to)
    ? over(shifted(formula, variable, to, -1), 0, high - middle)
    : over(formula, middle, high);
  return {
    value: left.value + right.value,
    error: left.error + right.error,
    magnitude: left.magnitude + right.magnitude,
  };
}

const farFrom = (low: number, high: number): number => (Number.isFinite(low) ? low + 1 : high - 1);

/** f(c ± x), simplified: what cancels at c is gone. */
function shifted(body: Expression, variable: string, place: Place, side: 1 | -1): Expression {
  const x = tree.name(variable);
  const at = place.exact as Expression;
  const moved = tree.substitute(body, variable, side > 0 ? tree.add(at, x) : tree.subtract(at, x));
  return shortest(canonical(moved), 'fraction');
}

/** Proved bounds; null for an improper integral, or where interval arithmetic finds none. */
export function byEnclosure(stretch: Stretch, variable: string): Found | null {
  const { from, to, body } = stretch;
  if (!body || !isFinitePlace(from) || !isFinitePlace(to)) return null;
  const enclosed = enclosedIntegral(body, variable, [from.value, to.value]);
  if (!enclosed) return null;
  const seen = estimated(stretch, variable).value;
  const isInside = seen >= enclosed.low && seen <= enclosed.high;
  const value = isInside ? seen : enclosed.low + (enclosed.high - enclosed.low) / 2;
  return {
    part: partOf(stretch, value, null),
    bound: Math.max(enclosed.high - value, value - enclosed.low) + slack(stretch, variable, [from, to]),
    certainty: 'proved',
    convergence: 'converges',
  };
}

/** What lies between a place and the double that stands for it. */
function slack({ body }: Stretch, variable: string, ends: readonly Place[]): number {
  const program = programOf(body as Expression, variable);
  return ends.reduce((total, { low, high }) => {
    const range = enclose(program, low, high);
    return total + (high - low) * Math.max(Math.abs(range.low), Math.abs(range.high));
  }, 0);
}
