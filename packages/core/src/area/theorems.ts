import {
  baseAndExponent,
  callOf,
  canonical,
  euler,
  isNumber,
  nameOf,
  numeric,
  power,
  product,
  quotient,
  whole,
  type Canonical,
} from '../algebra/canonical.ts';
import { expanded } from '../algebra/expand.ts';
import { dependsOn, factorsOf } from '../algebra/parts.ts';
import { polynomialOf } from '../algebra/polynomial.ts';
import * as rational from '../numbers/rational.ts';
import type { Rational } from '../numbers/rational.ts';
import type { Expression } from '../language/tree.ts';
import { writtenNumber } from './parts.ts';

/**
 * ∫ f over all numbers, or over those on one side of 0, where a theorem gives it though f has no elementary
 * antiderivative; null for any other. Sources: the integrals of Gauss, Dirichlet, Fresnel and Laplace: Gradshteyn and
 * Ryzhik, 3.323.2, 3.721.1, 3.821.9, 3.691.1 and 3.723.2 (from memory).
 */
export function byTheorem(
  body: Expression,
  variable: string,
  [a, b]: readonly [number, number],
): Expression | null {
  const isWhole = a === -Infinity && b === Infinity;
  if (!isWhole && !(a === 0 && b === Infinity) && !(a === -Infinity && b === 0)) return null;
  const form = canonical(body);
  const x = nameOf(variable);
  const moving = product(factorsOf(form).filter((factor) => dependsOn(factor, variable)));
  for (const theorem of [gauss, dirichlet, squaredSine, fresnel, laplace]) {
    const found = theorem(moving, x, variable);
    if (!found || (!isWhole && !found.isEven)) continue;
    const share = numeric(rational.rational(1, isWhole ? 1 : 2));
    return writtenNumber(product([share, quotient(form, moving), found.overAll]));
  }
  return null;
}

interface OverAll {
  readonly overAll: Canonical;
  readonly isEven: boolean;
}
type Theorem = (form: Canonical, x: Canonical, variable: string) => OverAll | null;

const pi: Canonical = callOf('degrees', [whole(180)]);
const root = (form: Canonical): Canonical => power(form, numeric(rational.rational(1, 2)));
const isPositive = (r: Rational | undefined): r is Rational =>
  r !== undefined && rational.compare(r, rational.zero) > 0;

/** ∫ e^(−ax² + bx + c) dx = √(π/a) e^(b²/(4a) + c). */
const gauss: Theorem = (form, _x, variable) => {
  const { base, exponent } = baseAndExponent(form);
  const q = base.key === euler.key ? polynomialOf(expanded(exponent), variable) : null;
  if (q?.length !== 3) return null;
  const [c, b, negative] = q as readonly [Rational, Rational, Rational];
  const a = rational.negate(negative);
  if (!isPositive(a)) return null;
  const four = rational.multiply(rational.rational(4), a);
  const highest = rational.add(rational.divide(rational.multiply(b, b), four), c);
  const overAll = product([root(quotient(pi, numeric(a))), power(euler, numeric(highest))]);
  return { overAll, isEven: rational.isZero(b) };
};

/** a of a function of ax, for a fraction a above 0. */
function rateIn(form: Canonical, name: string, variable: string, degree = 1): Rational | null {
  if (form.kind !== 'call' || form.name !== name) return null;
  const inner = polynomialOf(expanded(form.operands[0] as Canonical), variable);
  const rate =
    inner?.length === degree + 1 && inner.slice(0, -1).every(rational.isZero) ? inner[degree] : undefined;
  return isPositive(rate) ? rate : null;
}

/** A product of two things, one of which is the given one. */
function besides(form: Canonical, part: Canonical): Canonical | null {
  const factors = factorsOf(form);
  const [other] = factors.filter(({ key }) => key !== part.key);
  return factors.length === 2 && other && factors.some(({ key }) => key === part.key) ? other : null;
}

/** ∫ sin(ax)/x dx = π. */
const dirichlet: Theorem = (form, x, variable) => {
  const wave = besides(form, power(x, whole(-1)));
  return wave && rateIn(wave, 'sin', variable) ? { overAll: pi, isEven: true } : null;
};

/** ∫ (sin(ax)/x)² dx = aπ. */
const squaredSine: Theorem = (form, x, variable) => {
  const wave = besides(form, power(x, whole(-2)));
  const { base, exponent } = baseAndExponent(wave ?? form);
  const a = wave && isNumber(exponent, 2) ? rateIn(base, 'sin', variable) : null;
  return a && { overAll: product([numeric(a), pi]), isEven: true };
};

/** ∫ sin(ax²) dx = ∫ cos(ax²) dx = √(π/(2a)). */
const fresnel: Theorem = (form, _x, variable) => {
  const a = rateIn(form, 'sin', variable, 2) ?? rateIn(form, 'cos', variable, 2);
  return (
    a && { overAll: root(quotient(pi, numeric(rational.multiply(rational.rational(2), a)))), isEven: true }
  );
};

/** ∫ cos(ax)/(px² + q) dx = π e^(−a√(q/p))/√(pq). */
const laplace: Theorem = (form, _x, variable) => {
  const [wave, below, ...others] = [...factorsOf(form)].sort((one) => (one.kind === 'call' ? -1 : 1));
  if (!wave || !below || others.length > 0) return null;
  const a = rateIn(wave, 'cos', variable);
  const { base, exponent } = baseAndExponent(below);
  const square = a && isNumber(exponent, -1) ? polynomialOf(expanded(base), variable) : null;
  const [q, none, p] = square ?? [];
  if (!a || square?.length !== 3 || !none || !rational.isZero(none) || !isPositive(q) || !isPositive(p))
    return null;
  const fall = product([numeric(rational.negate(a)), root(numeric(rational.divide(q, p)))]);
  const overAll = quotient(product([pi, power(euler, fall)]), root(numeric(rational.multiply(p, q))));
  return { overAll, isEven: true };
};
