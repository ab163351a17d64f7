import { canonical } from '../algebra/canonical.ts';
import { shortest } from '../algebra/shortest.ts';
import type { Place } from '../analysis/place.ts';
import { programOf } from '../analysis/programs.ts';
import { enclose } from '../evaluate/enclosures.ts';
import type { Program } from '../evaluate/program.ts';
import { integralOf, type Estimate } from '../evaluate/quadrature.ts';
import { evaluateAt } from '../values/values.ts';
import * as tree from '../language/tree.ts';
import type { Expression } from '../language/tree.ts';
import { convergence, type Convergence } from './convergence.ts';
import { valueAt } from './endValues.ts';
import { boundsBesideEnds } from './besideEnds.ts';
import { joined, ledIntegral, within, type Led } from './led.ts';
import { partOf, valueOf, type Found } from './parts.ts';
import { isFinitePlace, type End, type Stretch } from './stretches.ts';

/** By quadrature, with proved bounds where there are such, and the improper ends told to converge or to diverge. */
export function byQuadrature(stretch: Stretch, variable: string): Found {
  const ends = [convergenceAt(stretch, variable, 'from'), convergenceAt(stretch, variable, 'to')];
  const verdict = (['diverges', 'unknown', 'converges'] as const).find((one) => ends.includes(one));
  const led = ledOver(stretch, variable);
  const { value, error, magnitude, bounds } =
    verdict === 'converges' ? provedBeside(led, stretch, variable) : led;
  const proved = bounds ? error + slack(stretch, variable) : NaN;
  return {
    part: partOf(stretch, verdict === 'converges' ? value : NaN, null),
    bound: proved >= 0 ? proved : Math.max(error, magnitude * roundingShare),
    magnitude,
    certainty: proved >= 0 ? 'proved' : 'estimated',
    convergence: verdict ?? 'converges',
  };
}

/** Of the integral of |f|: wider bounds tell less than an estimate. */
const narrow = 1e-9;

/** What quadrature tells of a stretch with an end without a value, between bounds where there are such. */
function provedBeside(led: Led, stretch: Stretch, variable: string): Led {
  if (led.bounds || Number.isNaN(led.value)) return led;
  const isThere = (place: Place): boolean => isRegular(stretch.body as Expression, variable, place);
  const bounds = boundsBesideEnds(stretch, variable, isThere);
  return bounds && bounds.high - bounds.low <= narrow * led.magnitude
    ? within(bounds, led, led.magnitude)
    : led;
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
export const estimated = (stretch: Stretch, variable: string): Estimate =>
  over(stretch, variable, (program, a, b) => ({
    ...integralOf((x) => evaluateAt(program, x), a, b),
    bounds: null,
  }));

/** The same, led by enclosures. */
const ledOver = (stretch: Stretch, variable: string): Led => over(stretch, variable, ledIntegral);

function over(
  { body, from, to }: Stretch,
  variable: string,
  integrate: (program: Program, a: number, b: number) => Led,
): Led {
  const formula = body as Expression;
  const [low, high] = [valueOf(from), valueOf(to)];
  const isShifted = (end: End): end is Place =>
    isFinitePlace(end) && end.value !== 0 && end.exact !== null && !isRegular(formula, variable, end);
  const part = (integrand: Expression, a: number, b: number): Led =>
    integrate(programOf(integrand, variable), a, b);
  if (!isShifted(from) && !isShifted(to)) return part(formula, low, high);
  const middle = Number.isFinite(low) && Number.isFinite(high) ? (low + high) / 2 : farFrom(low, high);
  const left = isShifted(from)
    ? part(shifted(formula, variable, from, 1), 0, middle - low)
    : part(formula, low, middle);
  const right = isShifted(to)
    ? part(shifted(formula, variable, to, -1), 0, high - middle)
    : part(formula, middle, high);
  // The distances are rounded, and so the two need not meet.
  return { ...joined(left, right), bounds: null };
}

const farFrom = (low: number, high: number): number => (Number.isFinite(low) ? low + 1 : high - 1);

/** f(c ± x), simplified: what cancels at c is gone. */
function shifted(body: Expression, variable: string, place: Place, side: 1 | -1): Expression {
  const x = tree.name(variable);
  const at = place.exact as Expression;
  const moved = tree.substitute(body, variable, side > 0 ? tree.add(at, x) : tree.subtract(at, x));
  return shortest(canonical(moved), 'fraction');
}

/** What lies between the ends and the doubles that stand for them; NaN where the function is not bounded there. */
function slack({ body, from, to }: Stretch, variable: string): number {
  const program = programOf(body as Expression, variable);
  const rounded = [from, to].filter(isFinitePlace).filter(({ low, high }) => low !== high);
  return rounded.reduce((total, { low, high }) => {
    const range = enclose(program, low, high);
    const height = range.sure ? Math.max(Math.abs(range.low), Math.abs(range.high)) : NaN;
    return total + (high - low) * height;
  }, 0);
}
