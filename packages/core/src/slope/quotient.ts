import type { Program } from '../evaluate/program.ts';
import { derivativesAt } from '../values/jets.ts';
import { evaluateAt } from '../values/values.ts';

/** Which two points a difference quotient takes: a and a + h, a − h and a, or a − h and a + h. */
export type QuotientKind = 'forward' | 'backward' | 'symmetric';

/** A secant through two points of a curve. */
export interface Secant {
  readonly from: { readonly x: number; readonly y: number };
  readonly to: { readonly x: number; readonly y: number };
  /** NaN where f has no value at one of the points, or they are the same. */
  readonly slope: number;
}

/** The secant at a with step h. */
export function secant(
  program: Program,
  a: number,
  h: number,
  kind: QuotientKind,
  parameters: readonly number[] = [],
): Secant {
  const point = (x: number) => ({ x, y: evaluateAt(program, x, parameters) });
  const from = point(kind === 'forward' ? a : a - h);
  const to = point(kind === 'backward' ? a : a + h);
  const run = kind === 'symmetric' ? 2 * h : h;
  return { from, to, slope: run === 0 ? NaN : (to.y - from.y) / run };
}

export interface QuotientRow {
  readonly h: number;
  readonly slope: number;
  /** The quotient minus f′(a). */
  readonly error: number;
  /**
   * Whether rounding has taken over: the step is so small that the digits lost by subtracting nearly equal values
   * outweigh what a smaller step gains.
   */
  readonly isRounding: boolean;
}

/**
 * Difference quotients for h = 1, 0.1, 0.01, … with their error against f′(a).
 * @param rows how many powers of ten
 */
export function quotientTable(
  program: Program,
  a: number,
  kind: QuotientKind,
  rows: number,
  parameters: readonly number[] = [],
): QuotientRow[] {
  const [value = NaN, slope = NaN, second = NaN, third = NaN] = derivativesAt(program, a, 3, parameters);
  return Array.from({ length: rows }, (_, i) => {
    const h = Number(`1e-${i}`);
    const quotient = secant(program, a, h, kind, parameters).slope;
    // What the formula leaves out, against the rounding of two values divided by the step.
    const truncation = kind === 'symmetric' ? (Math.abs(third) * h * h) / 6 : (Math.abs(second) * h) / 2;
    const rounding = (Number.EPSILON * Math.max(Math.abs(value), Math.abs(a * slope))) / h;
    return {
      h,
      slope: quotient,
      error: quotient - slope,
      isRounding: rounding > truncation && truncation > 0,
    };
  });
}
