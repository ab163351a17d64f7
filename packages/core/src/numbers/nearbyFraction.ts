import * as rational from './rational.ts';
import type { Rational } from './rational.ts';

const largestDenominator = 1000;
const nearness = 4e-15;

/** The simplest fraction that a double may be a rounding of; null where none has a small denominator. */
export function nearbyFraction(x: number, most = largestDenominator): Rational | null {
  if (!(Math.abs(x) < 1e9)) return null;
  // Continued fractions: Khinchin (1964), chapter 1.
  let [h0, h1, k0, k1] = [0, 1, 1, 0];
  let rest = x;
  for (let i = 0; i < 20; i++) {
    const whole = Math.floor(rest);
    [h0, h1] = [h1, whole * h1 + h0];
    [k0, k1] = [k1, whole * k1 + k0];
    if (k1 > most) return null;
    if (Math.abs(h1 / k1 - x) <= nearness * Math.max(1, Math.abs(x))) return rational.rational(h1, k1);
    rest = 1 / (rest - whole);
  }
  return null;
}
