import * as rational from '../numbers/rational.ts';
import type { Rational } from '../numbers/rational.ts';
import { exactValue } from '../algebra/exact.ts';
import type { Expression } from '../language/tree.ts';

/** Rules whose sample points are rational where the ends are. */
export type ExactRule =
  'left' | 'right' | 'midpoint' | 'trapezoid' | 'simpson' | { readonly fraction: Rational };

/**
 * A sum over n equal parts in exact arithmetic; null where a height is not rational, or not within its reach.
 * @param body a formula in the variable alone
 */
export function exactSum(
  body: Expression,
  variable: string,
  [a, b]: readonly [Rational, Rational],
  n: number,
  rule: ExactRule,
): Rational | null {
  const width = rational.divide(rational.subtract(b, a), rational.rational(n));
  const at = (parts: Rational): Rational => rational.add(a, rational.multiply(parts, width));
  let total = rational.zero;
  for (const [parts, weight] of termsOf(n, rule)) {
    const height = exactValue(body, new Map([[variable, at(parts)]]));
    if (!height) return null;
    total = rational.add(total, rational.multiply(weight, height));
  }
  return rational.multiply(total, width);
}

/** Where the heights are taken, in widths from the left end, and how often each counts. */
function termsOf(n: number, rule: ExactRule): readonly (readonly [Rational, Rational])[] {
  const whole = rational.rational;
  if (rule === 'trapezoid')
    return Array.from({ length: n + 1 }, (_, i) => [
      whole(i),
      i === 0 || i === n ? whole(1, 2) : rational.one,
    ]);
  if (rule === 'simpson') {
    const weight = (i: number): Rational =>
      i === 0 || i === n ? whole(1, 3) : whole(i % 2 === 1 ? 4 : 2, 3);
    return Array.from({ length: n + 1 }, (_, i) => [whole(i), weight(i)]);
  }
  const share =
    rule === 'left'
      ? rational.zero
      : rule === 'right'
        ? rational.one
        : rule === 'midpoint'
          ? whole(1, 2)
          : rule.fraction;
  return Array.from({ length: n }, (_, i) => [rational.add(whole(i), share), rational.one]);
}
