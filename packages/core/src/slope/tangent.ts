import { derivativeOf } from '../algebra/differentiate.ts';
import { TooLarge } from '../algebra/limits.ts';
import * as rational from '../algebra/rational.ts';
import type { Rational } from '../algebra/rational.ts';
import { exactValue } from '../evaluate/exact.ts';
import { derivativesAt } from '../evaluate/jets.ts';
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
  /** The function has a value but no single slope: a corner, a cusp, a jump. */
  | { readonly kind: 'noSlope'; readonly x: KnownNumber; readonly y: KnownNumber };

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
