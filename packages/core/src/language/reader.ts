import type { CallReader } from './calls.ts';
import type { Token } from './tokens.ts';
import type { Expression } from './tree.ts';

export interface PartOptions {
  /** A name that is bound in the part. */
  readonly variable?: string;
  /** Whether ±∞ may stand for the whole. */
  readonly infinity?: boolean;
  /** How many letters of the token at the end belong to the part. */
  readonly lastLetters?: number;
}

/** What the readers of pieces, conditions, sums and the like ask of the one that reads the whole. */
export interface Reader extends CallReader {
  sum(): Expression;
  product(): Expression;
  factor(): Expression;
  close(open: Token): void;
  /** The tokens from `from` up to `to`, exclusive, as an expression of their own. */
  part(from: number, to: number, options: PartOptions): Expression;
  /** Runs a reading step in which a further name is known. */
  binding<T>(variable: string, read: () => T): T;
  /** Runs a reading step in which ±∞ may stand. */
  withInfinity<T>(read: () => T): T;
  knows(variable: string): boolean;
}
