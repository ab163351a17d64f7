import type { Program } from './program.ts';

/** A program with values for its parameters, and with what evaluates it at a single number. */
export interface Evaluated {
  readonly program: Program;
  /** In the order of `program.parameters`. */
  readonly parameters: readonly number[];
  readonly at: (x: number) => number;
}
