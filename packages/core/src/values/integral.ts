import type { Evaluated } from '../evaluate/evaluated.ts';
import { needlesWithin } from '../evaluate/needles.ts';
import { integralOf, integralThrough, joined, type Estimate } from '../evaluate/quadrature.ts';
import { splineOf, type Program } from '../evaluate/program.ts';

/** Of the integral of |f|: a larger estimated error leaves no value rather than a wrong one. */
const largestError = 1e-5;

/**
 * ∫ of a program from a to b; NaN where it is undefined on the way or the quadrature does not settle. It is integrated
 * from seam to seam, since no rule for smooth functions sees corners and jumps, and around what is too narrow to be seen
 * from afar: a table alone exactly.
 */
export function integralBy(f: Evaluated, from: number, to: number): number {
  const { program: body, parameters, at: value } = f;
  const table = splineOf(body);
  if (table) return table.integral(from, to);
  if (from > to) return -integralBy(f, to, from);
  const seams = [
    ...seamsWithin(body, parameters, from, to),
    ...needlesWithin(body, value, parameters, from, to),
  ].sort((a, b) => a - b);
  const whole = overPlaces(value, [from, ...seams, to]);
  return whole.error <= largestError * whole.magnitude ? whole.value : NaN;
}

/** ∫ from the first to the last of some places, of which these two may be infinite. */
function overPlaces(value: (x: number) => number, places: readonly number[]): Estimate {
  const finite = places.filter(Number.isFinite);
  const [first, last] = [finite[0], finite.at(-1)];
  const [from, to] = [places[0] as number, places.at(-1) as number];
  if (first === undefined || last === undefined) return integralOf(value, from, to);
  const parts = [integralThrough(value, finite)];
  if (from < first) parts.push(integralOf(value, from, first));
  if (to > last) parts.push(integralOf(value, last, to));
  return parts.reduce(joined);
}

/** Where a program is put together: at the knots of tables, and where the variable passes a bound of a condition. */
function seamsWithin(
  { steps }: Program,
  parameters: readonly number[],
  from: number,
  to: number,
): readonly number[] {
  const isVariable = (index: number): boolean => steps[index]?.op === 'variable';
  const boundAt = (index: number): number => {
    const step = steps[index];
    if (step?.op === 'constant') return step.value;
    return step?.op === 'parameter' ? (parameters[step.index] ?? NaN) : NaN;
  };
  const seams = new Set<number>();
  const add = (at: number): void => {
    if (at > from && at < to) seams.add(at);
  };
  for (const step of steps) {
    if (step.op === 'spline' && isVariable(step.a)) step.spline.knots.forEach(add);
    if (step.op !== 'compare') continue;
    if (isVariable(step.a)) add(boundAt(step.b));
    if (isVariable(step.b)) add(boundAt(step.a));
  }
  return [...seams];
}
