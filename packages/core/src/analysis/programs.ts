import { compile, type Program } from '../evaluate/program.ts';
import type { Expression } from '../language/tree.ts';
import { exactly, signOf } from '../numbers/ball.ts';
import type * as big from '../numbers/bigFloat.ts';
import { enclosedOrUnsure } from '../limit/enclosed.ts';

const remembered = new WeakMap<Expression, Map<string, Program>>();

/** The compiled formula, made once and kept as long as the formula. @throws TooLarge as `compile` does */
export function programOf(body: Expression, variable: string): Program {
  const known = remembered.get(body) ?? new Map<string, Program>();
  remembered.set(body, known);
  const found = known.get(variable) ?? compile(body, variable);
  known.set(variable, found);
  return found;
}

/** The sign at a number that is known exactly; NaN where there is no value, undefined where so many digits do not tell. */
export function preciseSign(program: Program, x: big.BigFloat, bits: number): number | undefined {
  const value = enclosedOrUnsure(program, exactly(x), [], bits);
  return value === null ? NaN : value === 'unsure' ? undefined : signOf(value);
}
