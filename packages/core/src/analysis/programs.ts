import { compile, type Program } from '../evaluate/program.ts';
import type { Expression } from '../language/tree.ts';

const remembered = new WeakMap<Expression, Map<string, Program>>();

/** The compiled formula, made once and kept as long as the formula. @throws TooLarge as `compile` does */
export function programOf(body: Expression, variable: string): Program {
  const known = remembered.get(body) ?? new Map<string, Program>();
  remembered.set(body, known);
  const found = known.get(variable) ?? compile(body, variable);
  known.set(variable, found);
  return found;
}
