import type { Interval } from '../numbers/interval.ts';
import type { Jet } from '../numbers/jet.ts';
import type { Rational } from '../numbers/rational.ts';

/** A point with exact coordinates. */
export interface ExactPoint {
  readonly x: Rational;
  readonly y: Rational;
}

export type Shape = 'broken' | 'smooth';

/** A function given by a table of points, or one of its derivatives, as far as formulas know it: cubic pieces between knots. */
export interface Table {
  /** The function that it belongs to, by which it is written. */
  readonly name: string;
  readonly order: number;
  readonly points: readonly ExactPoint[];
  readonly shape: Shape;
  readonly knots: Float64Array;
  /** Whether it has no value at some knot between its ends. */
  readonly hasJumps: boolean;
  readonly derivative: Table;
  /** The smallest and the largest value of every piece. */
  readonly reach: { readonly low: Float64Array; readonly high: Float64Array };
  isWithin(x: number): boolean;
  value(x: number): number;
  pieceAt(x: number): number;
  valueOn(piece: number, x: number): number;
  turnsOf(piece: number): readonly number[];
  exactAt(x: Rational): Rational | null;
  exactPiece(piece: number): readonly Rational[];
  integral(a: number, b: number): number;
  enclose(x: Interval): Interval;
  /** @param beside on which side of a knot, 0 for at it */
  jet(u: Jet, beside: -1 | 0 | 1): Jet;
}
