import type { Expression } from '../language/tree.ts';
import { canonical } from './canonical.ts';
import { expanded } from './expand.ts';
import { TooLarge } from '../budget/tooLarge.ts';
import { degree, polynomialOf } from './polynomial.ts';

/** The degree of a formula that is a polynomial with rational coefficients, 0 for a number; null for any other. */
export function polynomialDegree(body: Expression, variable: string): number | null {
  try {
    const polynomial = polynomialOf(expanded(canonical(body)), variable);
    return polynomial && Math.max(0, degree(polynomial));
  } catch (error) {
    if (error instanceof TooLarge) return null;
    throw error;
  }
}
