import type { Evaluated } from '../evaluate/evaluated.ts';
import type { Program } from '../evaluate/program.ts';
import type { Side } from '../language/tree.ts';
import type { Limit } from '../limit/found.ts';
import { limitBy } from '../limit/limit.ts';
import { integralBy } from './integral.ts';
import { evaluateAt } from './values.ts';

/** Limits and integrals of programs that are evaluated as they stand. */

const evaluated = (program: Program, parameters: readonly number[]): Evaluated => ({
  program,
  parameters,
  at: (x) => evaluateAt(program, x, parameters),
});

/**
 * The limit of f as x tends to `target` (±Infinity for the limit at infinity).
 * @param parameters values in the order of `program.parameters`
 */
export const limitOfProgram = (
  program: Program,
  target: number,
  side: Side,
  parameters: readonly number[] = [],
): Limit => limitBy(evaluated(program, parameters), target, side);

/**
 * ∫ of a program from a to b; NaN where it is undefined on the way or the quadrature does not settle.
 * @param parameters values in the order of `body.parameters`
 */
export const integralOfProgram = (
  body: Program,
  parameters: readonly number[],
  from: number,
  to: number,
): number => integralBy(evaluated(body, parameters), from, to);
