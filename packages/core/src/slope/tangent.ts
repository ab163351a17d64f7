import { derivativeOf } from '../algebra/differentiate.ts';
import { TooLarge } from '../budget/tooLarge.ts';
import * as rational from '../numbers/rational.ts';
import type { Rational } from '../numbers/rational.ts';
import { exactValue } from '../algebra/exact.ts';
import { derivativesAt, hasPlainSlope } from '../values/jets.ts';
import { evaluateAt } from '../values/values.ts';
import type { Program } from '../evaluate/program.ts';
import type { Expression, Side } from '../language/tree.ts';
import { areSameSlope, slopesBeside, type KnownNumber } from './sides.ts';

export type Tangent =
  | {
      readonly kind: 'line';
      readonly x: KnownNumber;
      readonly y: KnownNumber;
      readonly slope: KnownNumber;
      /** Where the line meets the y-axis. */
      readonly intercept: KnownNumber;
      /** The side on which the curve is: one at an end of the domain. */
      readonly side: Side;
    }
  | { readonly kind: 'vertical'; readonly x: KnownNumber; readonly y: KnownNumber; readonly side: Side }
  /** The function has no value at x. */
  | { readonly kind: 'undefined'; readonly x: KnownNumber }
  /** The function has a value but no single slope: a corner, a jump, or nothing shows its slope. */
  | {
      readonly kind: 'noSlope';
      readonly x: KnownNumber;
      readonly y: KnownNumber;
      /** The slopes from either side, ±Infinity where it is vertical; null where there is none. */
      readonly left: KnownNumber | null;
      readonly right: KnownNumber | null;
    };

/** A function with everything a tangent needs of it. */
export interface Tangible {
  readonly body: Expression;
  readonly variable: string;
  readonly program: Program;
}

export const knownNumber = (value: number, exact: Rational | null = null): KnownNumber =>
  exact ? { value: rational.toNumber(exact), exact } : { value, exact: null };

/**
 * The tangent to f at x: value and slope by automatic differentiation, exact where rational arithmetic reaches
 * (polynomials and quotients at rational x); where the rules of differentiation give no slope, by the definition's limit.
 * @param parameters values in the order of `f.program.parameters`
 * @param exactParameters exact values of the parameters, as far as they are known
 */
export function tangentAt(
  f: Tangible,
  x: KnownNumber,
  parameters: readonly number[] = [],
  exactParameters: ReadonlyMap<string, Rational> = new Map(),
): Tangent {
  const [value = NaN, slope = NaN] = derivativesAt(f.program, x.value, 1, parameters);
  if (!Number.isFinite(value)) return { kind: 'undefined', x };
  const values = x.exact ? new Map([...exactParameters, [f.variable, x.exact]]) : null;
  const y = knownNumber(value, values && exactValue(f.body, values));
  const goesOn = (['left', 'right'] as const).every((side) =>
    isDefinedBeside(f.program, x.value, side, parameters),
  );
  if (!Number.isFinite(slope) || !goesOn || !hasPlainSlope(f.program, x.value, parameters)) {
    const tangent = byDefinition(f.program, x, y, parameters);
    const isShown = tangent.kind !== 'noSlope' || tangent.left || tangent.right;
    if (isShown || Number.isNaN(slope)) return tangent;
    if (!Number.isFinite(slope)) return { kind: 'vertical', x, y, side: 'both' };
  }
  return lineThrough(x, y, knownNumber(slope, values && exactDerivative(f, values)), 'both');
}

const lineThrough = (x: KnownNumber, y: KnownNumber, slope: KnownNumber, side: Side): Tangent => ({
  kind: 'line',
  x,
  y,
  slope,
  intercept: interceptOf(x, y, slope),
  side,
});

function byDefinition(
  program: Program,
  x: KnownNumber,
  y: KnownNumber,
  parameters: readonly number[],
): Tangent {
  const { left, right, endsLeft, endsRight } = slopesBeside(program, x, parameters);
  const along = (slope: KnownNumber, side: Side): Tangent =>
    Number.isFinite(slope.value) ? lineThrough(x, y, slope, side) : { kind: 'vertical', x, y, side };
  if (endsLeft && right) return along(right, 'right');
  if (endsRight && left) return along(left, 'left');
  return left && right && areSameSlope(left, right)
    ? along(right, 'both')
    : { kind: 'noSlope', x, y, left, right };
}

/** Share of a place, or of 1, beside it at which a curve is looked for. */
const beside = 1e-9;

/** Whether a curve is there just beside a place. */
export function isDefinedBeside(
  program: Program,
  x: number,
  side: 'left' | 'right',
  parameters: readonly number[] = [],
): boolean {
  const step = Math.max(1, Math.abs(x)) * beside;
  return !Number.isNaN(evaluateAt(program, side === 'left' ? x - step : x + step, parameters));
}

/** The line through the same point at a right angle; undefined without a tangent. */
export function normalTo(tangent: Tangent): Tangent | undefined {
  if (tangent.kind === 'vertical') {
    const zero = knownNumber(0, rational.zero);
    return lineThrough(tangent.x, tangent.y, zero, tangent.side);
  }
  if (tangent.kind !== 'line') return undefined;
  const { x, y, slope, side } = tangent;
  if (slope.value === 0) return { kind: 'vertical', x, y, side };
  const exact = slope.exact && rational.divide(rational.minusOne, slope.exact);
  return lineThrough(x, y, knownNumber(-1 / slope.value, exact), side);
}

function exactDerivative(
  { body, variable }: Tangible,
  values: ReadonlyMap<string, Rational>,
): Rational | null {
  try {
    return exactValue(derivativeOf(body, variable), values);
  } catch (error) {
    // The slope itself comes from jets and is there all the same.
    if (error instanceof TooLarge) return null;
    throw error;
  }
}

function interceptOf(x: KnownNumber, y: KnownNumber, slope: KnownNumber): KnownNumber {
  const exact =
    x.exact && y.exact && slope.exact
      ? rational.subtract(y.exact, rational.multiply(slope.exact, x.exact))
      : null;
  return knownNumber(y.value - slope.value * x.value, exact);
}
