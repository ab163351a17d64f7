import { integralOf } from './quadrature.ts';
import { splineOf, type Program } from './program.ts';
import { evaluateAt } from './values.ts';

/** Of the integral of |f|: a larger estimated error leaves no value rather than a wrong one. */
const largestError = 1e-5;

/**
 * ∫ of a program from a to b; NaN where it is undefined on the way or the quadrature does not settle. Tables are
 * integrated from knot to knot, since no rule for smooth functions sees their corners: a table alone exactly.
 * @param value the program's value at a point
 */
export function integralOfProgram(
  body: Program,
  value: (x: number) => number,
  from: number,
  to: number,
): number {
  const table = splineOf(body);
  if (table) return table.integral(from, to);
  if (from > to) return -integralOfProgram(body, value, to, from);
  const ends = [from, ...knotsWithin(body, from, to), to];
  let total = 0;
  for (let i = 0; i + 1 < ends.length; i++) {
    const part = integralOf(value, ends[i] as number, ends[i + 1] as number);
    if (!(part.error <= largestError * part.magnitude)) return NaN;
    total += part.value;
  }
  return total;
}

/**
 * ∫ of a curve as it stands this moment, for as long as nothing surer is known; NaN where that is not settled.
 * @param parameters values in the order of `program.parameters`
 */
export const quickIntegral = (
  program: Program,
  parameters: readonly number[],
  from: number,
  to: number,
): number => integralOfProgram(program, (x) => evaluateAt(program, x, parameters), from, to);

/** The knots of all tables that are looked up at the variable, in ascending order. */
function knotsWithin({ steps }: Program, from: number, to: number): number[] {
  const knots = new Set<number>();
  for (const step of steps) {
    if (step.op !== 'spline' || steps[step.a]?.op !== 'variable') continue;
    for (const knot of step.spline.knots) if (knot > from && knot < to) knots.add(knot);
  }
  return [...knots].sort((a, b) => a - b);
}
