import type { Interval } from '../numbers/interval.ts';
import type { IntervalJet } from '../numbers/intervalJet.ts';
import type { Jet } from '../numbers/jet.ts';
import type { BallFunction } from '../numbers/ballFunctions.ts';

/** Everything the product knows about one built-in function. Formulas are in x, and y for a second argument. */
export interface BuiltIn {
  readonly name: string;
  /** How it may be typed; the first is how it is written out. */
  readonly spellings: readonly string[];
  /** How it is spoken: "sine", "natural logarithm". */
  readonly spoken: string;
  readonly argumentCount: { readonly least: number; readonly most: number };
  readonly value: (...args: number[]) => number;
  /** All values over balls of arguments, to any number of binary digits. */
  readonly ball: BallFunction;
  /**
   * Derivative with respect to each argument as a formula; undefined where the function is nowhere
   * differentiable in that argument.
   */
  // At a jump the formula still gives the value beside it; jets, which tangents use, say undefined there.
  readonly derivatives: readonly (string | undefined)[];
  /** An enclosure of all values over intervals of arguments, and whether it is defined and continuous there. */
  readonly range: (...args: Interval[]) => Interval;
  /** Taylor coefficients of the function of Taylor coefficients. */
  readonly jet: (...args: Jet[]) => Jet;
  /** Enclosures of the Taylor coefficients over intervals of arguments. */
  readonly rangeJet: (...args: IntervalJet[]) => IntervalJet;
  /** The Taylor coefficients as seen from one side (1 from the right), where `jet` gives no derivatives: at corners and jumps. */
  readonly jetBeside?: (side: 1 | -1, ...args: Jet[]) => Jet;
  /** How it is printed. */
  readonly notation: Notation;
  /** Where it is defined, as a condition; absent for a function defined everywhere. */
  readonly domain?: string;
  /** Formulas outside of whose zeros the function is analytic or not defined at all. */
  readonly boundaries?: readonly string[];
  /** The same function in terms of simpler ones, by which its behaviour is proved. */
  readonly inTermsOf?: string;
  /** What it is on either side of its one boundary: |x| is x where x > 0, −x where x < 0. */
  readonly sides?: { readonly positive: string; readonly negative: string };
}

export type Notation =
  /** Before its argument, with brackets only where needed: sin x. */
  | { readonly kind: 'operator'; readonly latex: string }
  /** With the index of its first argument: log₂(x). */
  | { readonly kind: 'indexed'; readonly latex: string; readonly symbol: string }
  /** Before its arguments in brackets: min(x, y). */
  | { readonly kind: 'listed'; readonly latex: string }
  /** Around its argument: |x|. */
  | { readonly kind: 'fence'; readonly open: Fence; readonly close: Fence }
  /** A radical with a fixed degree, or with the first argument as its degree. */
  | { readonly kind: 'root'; readonly degree: number | 'argument' }
  /** e with the argument above. */
  | { readonly kind: 'exponential' }
  /** Behind its argument: n!, 30°. */
  | { readonly kind: 'suffix'; readonly latex: string; readonly symbol: string };

export interface Fence {
  readonly latex: string;
  readonly symbol: string;
}

export const operator = (latex: string): Notation => ({ kind: 'operator', latex });
export const namedOperator = (name: string): Notation => operator(`\\operatorname{${name}}`);
export const listed = (latex: string): Notation => ({ kind: 'listed', latex });
export const fence = (open: Fence, close: Fence): Notation => ({ kind: 'fence', open, close });

export const oneArgument = { least: 1, most: 1 } as const;
export const twoArguments = { least: 2, most: 2 } as const;
