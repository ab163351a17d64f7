import type { Interval } from '../evaluate/interval.ts';
import type { Jet } from '../evaluate/jet.ts';

/** Everything the product knows about one built-in function. */
export interface BuiltIn {
  readonly name: string;
  /** How it may be typed; the first is how it is written out. */
  readonly spellings: readonly string[];
  readonly argumentCount: { readonly least: number; readonly most: number };
  readonly value: (...args: number[]) => number;
  /**
   * Derivative with respect to each argument as a formula in x (and y for the second), in the
   * notation of the product; undefined where the function is nowhere differentiable in that argument.
   */
  // At a jump the formula still gives the value beside it; jets, which tangents use, say undefined there.
  readonly derivatives: readonly (string | undefined)[];
  /** An enclosure of all values over intervals of arguments, and whether it is defined and continuous there. */
  readonly range: (...args: Interval[]) => Interval;
  /** Taylor coefficients of the function of Taylor coefficients. */
  readonly jet: (...args: Jet[]) => Jet;
  /** LaTeX of the application; each argument comes as ready LaTeX without brackets. */
  readonly latex: LatexForm;
}

export type LatexForm =
  /** Written as an operator before its argument: \sin x, with brackets only where needed. */
  | { readonly kind: 'operator'; readonly command: string }
  /** Written with its own delimiters. */
  | { readonly kind: 'template'; readonly write: (...args: string[]) => string };

export const operator = (command: string): LatexForm => ({ kind: 'operator', command });
export const namedOperator = (name: string): LatexForm => operator(`\\operatorname{${name}}`);
export const template = (write: (...args: string[]) => string): LatexForm => ({ kind: 'template', write });

export const oneArgument = { least: 1, most: 1 } as const;
