import { nearbyFraction } from '../numbers/nearbyFraction.ts';
import { literal } from '../algebra/literal.ts';
import * as rational from '../numbers/rational.ts';
import * as tree from '../language/tree.ts';
import type { Expression } from '../language/tree.ts';

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

/** (p + √d)/q with small p and q, or a cube root: in its simplest form, since others are the same number. */
function* surds(x: number): Generator<Expression> {
  for (const q of [1, 2, 3, 4, 5, 6]) {
    for (let p = -8; p <= 8; p++) {
      const rest = x * q - p;
      const square = Math.abs(rest) < 1e4 ? nearbyFraction(rest * rest, 30) : null;
      // A root that is rational belongs to a fraction, which has been looked at.
      if (!square || rational.exactRoot(square, 2)) continue;
      const root = tree.call('sqrt', literal(square));
      const signed = rest < 0 ? tree.negate(root) : root;
      return yield tree.divide(tree.add(literal(rational.rational(p)), signed), tree.number(q));
    }
  }
  const cube = Math.abs(x) < 1e3 ? nearbyFraction(x ** 3, 100) : null;
  if (cube && !rational.exactRoot(cube, 3)) yield tree.call('cbrt', literal(cube));
}
