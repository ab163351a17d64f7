import { canonical } from '../algebra/canonical.ts';
import { expanded } from '../algebra/expand.ts';
import { literal } from '../algebra/pieces.ts';
import * as rational from '../algebra/rational.ts';
import type { Rational } from '../algebra/rational.ts';
import * as tree from '../language/tree.ts';
import type { Expression } from '../language/tree.ts';

/** Whether a formula without names is exactly 0, by algebra; false where algebra cannot tell. */
export function isExactlyZero(formula: Expression): boolean {
  let form = canonical(formula);
  for (let i = 0; i < 3 && form.kind !== 'number'; i++) {
    const next = expanded(form);
    if (next.key === form.key) break;
    form = next;
  }
  return form.kind === 'number' && rational.isZero(form.value);
}

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

/** Forms of numbers that turn up in school: fractions, multiples of π, surds, logarithms, powers of e. */
export function* candidates(x: number): Generator<Expression> {
  const fraction = nearbyFraction(x);
  if (fraction) yield literal(fraction);
  const turns = nearbyFraction(x / Math.PI, 60);
  if (turns) yield tree.multiply(literal(turns), tree.constant('pi'));
  yield* surds(x);
  const power = nearbyFraction(Math.exp(x), 200);
  if (power && !rational.isNegative(power) && !rational.isZero(power)) yield tree.call('ln', literal(power));
  const logarithm = x > 0 ? nearbyFraction(Math.log(x), 60) : null;
  if (logarithm) yield tree.power(tree.constant('e'), literal(logarithm));
}

/** (p + √d)/q with small p and q, and cube roots. */
function* surds(x: number): Generator<Expression> {
  for (const q of [1, 2, 3, 4, 5, 6]) {
    for (let p = -8; p <= 8; p++) {
      const rest = x * q - p;
      const square = Math.abs(rest) < 1e4 ? nearbyFraction(rest * rest, 30) : null;
      if (!square || rational.isZero(square)) continue;
      const root = tree.call('sqrt', literal(square));
      const signed = rest < 0 ? tree.negate(root) : root;
      yield tree.divide(tree.add(literal(rational.rational(p)), signed), tree.number(q));
    }
  }
  const cube = Math.abs(x) < 1e3 ? nearbyFraction(x ** 3, 100) : null;
  if (cube) yield tree.call('cbrt', literal(cube));
}
