import { canonical, type Canonical } from '../algebra/canonical.ts';
import { literal } from '../algebra/literal.ts';
import * as rational from '../numbers/rational.ts';
import { written } from '../algebra/written.ts';
import * as tree from '../language/tree.ts';
import type { Expression } from '../language/tree.ts';
import { toDouble } from '../numbers/bigFloat.ts';
import { ballOfConstant, signOfConstant } from '../limit/constantSign.ts';

/** What is known about formulas without names. */

/** arcsin or arccos of a level, as a multiple of π where that is exact. */
export function principalAngle(name: 'sin' | 'cos', level: Expression): Expression {
  const value = numberOf(level) as number;
  const angle = name === 'sin' ? Math.asin(value) : Math.acos(value);
  const twelfths = Math.round((angle / Math.PI) * 12);
  const exact = tree.multiply(literal(rational.rational(twelfths, 12)), tree.constant('pi'));
  const difference = canonical(tree.subtract(tree.call(name, exact), level));
  const isExact = difference.kind === 'number' && rational.isZero(difference.value);
  return isExact ? exact : tree.call(name === 'sin' ? 'arcsin' : 'arccos', level);
}

const constantBits = 120;

/** The value of a formula without names; null where it has none. */
export function numberOf(formula: Expression): number | null {
  const ball = ballOfConstant(formula, constantBits);
  return ball === null || ball === 'unsure' ? null : toDouble(ball.middle);
}

/** The sign of a constant form; NaN where it has no value, and where nothing shows its sign. */
export const constantSign = (form: Canonical): number =>
  form.kind === 'number' ? rational.compare(form.value, rational.zero) : signOfConstant(written(form));
