import { derivativeOf } from '../algebra/differentiate.ts';
import { TooLarge } from '../algebra/limits.ts';
import * as rational from '../algebra/rational.ts';
import type { Rational } from '../algebra/rational.ts';
import { exactValue } from '../evaluate/exact.ts';
import { derivativesAt } from '../evaluate/jets.ts';
import { evaluateAt } from '../evaluate/values.ts';
import type { Program } from '../evaluate/program.ts';
import type { Expression } from '../language/tree.ts';

/** A number together with its exact rational value, where that is proved. */
export interface KnownNumber {
  readonly value: number;
  readonly exact: Rational | null;
}

export type Tangent =
  | {
      readonly kind: 'line';
      readonly x: KnownNumber;
      readonly y: KnownNumber;
      readonly slope: KnownNumber;
      /** Where the line meets the y-axis. */
      readonly intercept: KnownNumber;
    }
  | { readonly kind: 'vertical'; readonly x: KnownNumber; readonly y: KnownNumber }
  /** The function has no value at x. */
  | { readonly kind: 'undefined'; readonly x: KnownNumber }
  /** The function has a value but no single slope: a corner, a cusp, a jump, the end of the domain. */
  | { readonly kind: 'noSlope'; readonly x: KnownNumber; readonly y: KnownNumber };

/** The slopes from either side: ±Infinity where the curve leaves vertically, NaN where it has none. */
export interface SideSlopes {
  readonly left: number;
  readonly right: number;
}

/** A function with everything a tangent needs of it. */
export interface Tangible {
  readonly body: Expression;
  readonly variable: string;
  readonly program: Program;
}

export const knownNumber = (value: number, exact: Rational | null = null): KnownNumber =>
  exact ? { value: rational.toNumber(exact), exact } : { value, exact: null };

/**
 * The tangent to f at x: value and slope by automatic differentiation, exact where rational
 * arithmetic reaches (polynomials and quotients at rational x).
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
  if (Number.isNaN(slope)) return { kind: 'noSlope', x, y };
  if (!Number.isFinite(slope)) return { kind: 'vertical', x, y };
  const exactSlope = values && exactDerivative(f, values);
  const knownSlope = knownNumber(slope, exactSlope);
  return { kind: 'line', x, y, slope: knownSlope, intercept: interceptOf(x, y, knownSlope) };
}

/** The one-sided slopes of f at x; of a side on which f does not go on from its value there, NaN. */
export function sideSlopes(program: Program, x: number, parameters: readonly number[] = []): SideSlopes {
  const value = evaluateAt(program, x, parameters);
  const along = (side: 'left' | 'right'): number => {
    const [limit = NaN, slope = NaN] = derivativesAt(program, x, 1, parameters, side);
    const goesOn = Math.abs(limit - value) <= 1e-11 * Math.max(1, Math.abs(value));
    return goesOn && isDefinedBeside(program, x, side, parameters) ? slope : NaN;
  };
  return { left: along('left'), right: along('right') };
}

/** Jets look at the formula alone; at the end of a domain there is nothing on the other side. */
function isDefinedBeside(
  program: Program,
  x: number,
  side: 'left' | 'right',
  parameters: readonly number[],
): boolean {
  const step = Math.max(1, Math.abs(x)) * 1e-9;
  return !Number.isNaN(evaluateAt(program, side === 'left' ? x - step : x + step, parameters));
}

/** The line through the same point at a right angle; undefined without a tangent. */
export function normalTo(tangent: Tangent): Tangent | undefined {
  if (tangent.kind === 'vertical') {
    const zero = knownNumber(0, rational.zero);
    return { kind: 'line', x: tangent.x, y: tangent.y, slope: zero, intercept: tangent.y };
  }
  if (tangent.kind !== 'line') return undefined;
  const { x, y, slope } = tangent;
  if (slope.value === 0) return { kind: 'vertical', x, y };
  const exact = slope.exact && rational.divide(rational.minusOne, slope.exact);
  const steep = knownNumber(-1 / slope.value, exact);
  return { kind: 'line', x, y, slope: steep, intercept: interceptOf(x, y, steep) };
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
