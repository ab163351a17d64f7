import {
  baseAndExponent,
  canonical,
  euler,
  nameOf,
  numeric,
  power,
  product,
  splitCoefficient,
  sum,
  whole,
  type Canonical,
} from '../algebra/canonical.ts';
import { expanded } from '../algebra/expand.ts';
import { inExponentials } from '../algebra/identities.ts';
import { factorsOf } from '../algebra/parts.ts';
import * as polynomials from '../algebra/polynomial.ts';
import * as rational from '../numbers/rational.ts';
import type { Rational } from '../numbers/rational.ts';
import { shortest } from '../algebra/shortest.ts';
import { written } from '../algebra/written.ts';
import type { Place } from '../analysis/place.ts';
import { programOf } from '../analysis/programs.ts';
import {
  enclosedParts,
  integrandOf,
  isBounded,
  togetherOf,
  type EnclosedPart,
} from '../evaluate/enclosedArea.ts';
import { enclose } from '../evaluate/enclosures.ts';
import * as intervals from '../numbers/interval.ts';
import type { Interval } from '../numbers/interval.ts';
import * as tree from '../language/tree.ts';
import type { Expression } from '../language/tree.ts';
import { besideZero, over } from './besideZero.ts';
import { isFinitePlace, type Stretch } from './stretches.ts';

/**
 * Bounds of integrals up to ends at which the integrand has no value of its own: beside an end at 0 those of besideZero.
 * Far out it is xᵃ (ln x)ʲ e^g(x) · r(x), or a function of 1/x.
 */

/** As narrow as doubles make it. */
const tolerance = 1e-11;

/** Bounds over [0, b] of a formula that may have no value at 0. */
function fromZero(formula: Expression, variable: string, b: number): Interval | null {
  const form = canonical(formula);
  const integrand = integrandOf(programOf(written(form), variable));
  return bounded(enclosedParts(integrand, 0, b, tolerance, besideZero(form, variable)));
}

/** The same up to an end that is known to lie between two doubles. */
function fromZeroTo(formula: Expression, variable: string, { low, high }: Interval): Interval | null {
  const inside = low > 0 ? fromZero(formula, variable, low) : null;
  if (!inside || low === high) return inside;
  const range = enclose(programOf(formula, variable), low, high);
  const width = { low: 0, high: high - low, sure: true };
  const sliver = intervals.multiply(range, width);
  return sliver.sure && isBounded(sliver) ? intervals.add(inside, sliver) : null;
}

function bounded(parts: readonly EnclosedPart[]): Interval | null {
  const all = togetherOf(parts);
  return all.sure && isBounded(all) ? all : null;
}

const between = (formula: Expression, variable: string, a: number, b: number): Interval | null =>
  a === b
    ? intervals.exactly(0)
    : bounded(enclosedParts(integrandOf(programOf(formula, variable)), a, b, tolerance));

/** Doublings after which a tail is taken to fall too slowly. */
const mostDoublings = 12;
/** Beside the bounds of everything else, a tail below this is nothing. */
const negligible = 1e-14;

/** Bounds from a number on to ∞, a power of 2 above 0. */
function tail(formula: Expression, variable: string, start: number): Interval | null {
  const x = tree.name(variable);
  const inverse = tree.divide(tree.number(1), x);
  const turned = tree.divide(tree.substitute(formula, variable, inverse), tree.power(x, tree.number(2)));
  const falls = fallingTail(canonical(formula), variable);
  if (!falls) return fromZero(shortest(canonical(turned), 'fraction'), variable, 1 / start);
  let end = start;
  for (let i = 0; i < mostDoublings; i++, end *= 2) {
    const rest = falls(end);
    const inside = rest && between(formula, variable, start, end);
    const isSmall =
      rest && inside && rest.high - rest.low <= negligible * (Math.abs(inside.high) + Number.MIN_VALUE);
    if (isSmall) return intervals.add(inside, rest);
  }
  return null;
}

/**
 * For xᵃ (ln x)ʲ e^g(x) r(x) bounds of the integral from T ≥ 1 to ∞: where xᵃ⁺ʲ⁺² e^g falls from T on it is at most the
 * range of r times Tᵃ⁺ʲ⁺¹ e^g(T), since ln x < x and ∫ x⁻² dx from T is 1/T.
 */
function fallingTail(form: Canonical, variable: string): ((from: number) => Interval | null) | null {
  const x = nameOf(variable);
  let [exponents, growth] = [rational.zero, whole(0)];
  const sorted = withGrowthOutside(form, variable);
  const rest: Canonical[] = [numeric(splitCoefficient(sorted).coefficient)];
  for (const factor of factorsOf(sorted)) {
    const { base, exponent } = baseAndExponent(factor);
    const isLogarithm = base.kind === 'call' && base.name === 'ln' && base.operands[0]?.key === x.key;
    if (base.key === euler.key) growth = sum([growth, exponent]);
    else if (base.key === x.key && exponent.kind === 'number')
      exponents = rational.add(exponents, exponent.value);
    else if (isLogarithm && exponent.kind === 'number' && !rational.isNegative(exponent.value))
      exponents = rational.add(exponents, exponent.value);
    else rest.push(factor);
  }
  const g = polynomials.polynomialOf(expanded(growth), variable);
  if (!g || g.length < 2) return null;
  const ranged = programOf(written(product(rest)), variable);
  const slope = polynomials.multiply([rational.zero, rational.one], polynomials.derivative(g));
  const falling = polynomials.sum(slope, [rational.add(exponents, rational.rational(2))]);
  const raised = product([power(x, numeric(rational.add(exponents, rational.one))), power(euler, growth)]);
  const height = programOf(written(raised), variable);
  return (from) => {
    if (from < 1 || !isNegativeFrom(falling, from)) return null;
    const range = enclose(ranged, from, Infinity);
    const top = enclose(height, from, from);
    const isTold = top.sure && isBounded(range) && enclose(ranged, from, Number.MAX_VALUE).sure;
    return isTold
      ? intervals.multiply({ ...range, sure: true }, { low: 0, high: top.high, sure: true })
      : null;
  };
}

/** The form with what grows fastest in each sum of exponentials taken out of it: eˣ − 1 as eˣ(1 − e^(−x)). */
function withGrowthOutside(form: Canonical, variable: string): Canonical {
  const exponentials = inExponentials(form);
  const factors = factorsOf(exponentials).map((factor) => {
    const { base, exponent } = baseAndExponent(factor);
    const fastest = base.kind === 'sum' ? fastestIn(base, variable) : null;
    if (!fastest) return factor;
    return product([power(fastest, exponent), power(over(base, fastest), exponent)]);
  });
  return product([numeric(splitCoefficient(exponentials).coefficient), ...factors]);
}

/** The exponential of a polynomial that grows fastest among the terms of a sum. */
function fastestIn(form: Canonical, variable: string): Canonical | null {
  let fastest: polynomials.Polynomial = [];
  for (const term of form.kind === 'sum' ? form.terms : []) {
    const wave = factorsOf(term).find((factor) => baseAndExponent(factor).base.key === euler.key);
    const g = wave && polynomials.polynomialOf(expanded(baseAndExponent(wave).exponent), variable);
    const ahead = g && polynomials.sum(g, fastest.map(rational.negate));
    if (g && ahead?.at(-1) && !rational.isNegative(ahead.at(-1) as Rational)) fastest = g;
  }
  return fastest.length > 1 ? power(euler, polynomials.toCanonical(fastest, variable)) : null;
}

/** Whether a polynomial is below 0 from a number on: in powers of x less the number all coefficients are. */
function isNegativeFrom(p: polynomials.Polynomial, from: number): boolean {
  const step: polynomials.Polynomial = [rational.fromDouble(from), rational.one];
  const moved = p.reduceRight<polynomials.Polynomial>(
    (all, c) => polynomials.sum(polynomials.multiply(all, step), [c]),
    [],
  );
  return (
    moved.length > 0 &&
    moved.every((c) => rational.compare(c, rational.zero) <= 0) &&
    rational.isNegative(moved[0] as Rational)
  );
}

const placed = ({ low, high }: Place): Interval => ({ low, high, sure: true });

/**
 * Bounds of the integral over a stretch that runs up to ends without a value, or to infinity; null where nothing bounds it,
 * or an end is no double.
 * @param isRegular whether the integrand has a value at an end
 */
export function boundsBesideEnds(
  { body, from, to }: Stretch,
  variable: string,
  isRegular: (place: Place) => boolean,
): Interval | null {
  const formula = body as Expression;
  const x = tree.name(variable);
  /** From a number on to the right, the number itself without a value. */
  const rightOf = (place: Place, end: number): Interval | null => {
    if (!place.exact) return null;
    const isZero = place.low === 0 && place.high === 0;
    const moved = isZero ? formula : tree.substitute(formula, variable, tree.add(place.exact, x));
    const length = intervals.subtract(intervals.exactly(end), placed(place));
    return fromZeroTo(shortest(canonical(moved), 'fraction'), variable, length);
  };
  const leftOf = (place: Place, start: number): Interval | null => {
    if (!place.exact) return null;
    const moved = tree.substitute(formula, variable, tree.subtract(place.exact, x));
    const length = intervals.subtract(placed(place), intervals.exactly(start));
    return fromZeroTo(shortest(canonical(moved), 'fraction'), variable, length);
  };
  const mirrored = tree.substitute(formula, variable, tree.negate(x));
  const [low, high] = [isFinitePlace(from) ? from : null, isFinitePlace(to) ? to : null];
  const cut = cutOf(low, high);
  if (cut === null) return null;
  // Where there is a value at an end but no slope, bounds may still be found as where there is none: xˣ at 0.
  const left = !low
    ? tail(mirrored, variable, -cut)
    : ((isRegular(low) ? between(formula, variable, low.value, cut) : null) ?? rightOf(low, cut));
  const right = !high
    ? tail(formula, variable, cut)
    : ((isRegular(high) ? between(formula, variable, cut, high.value) : null) ?? leftOf(high, cut));
  return left && right && intervals.add(left, right);
}

/** Where a stretch is cut in two: in the middle, or at the power of 2 where a tail begins. */
function cutOf(low: Place | null, high: Place | null): number | null {
  if (!low && !high) return null;
  const beyond = (x: number): number => 2 ** Math.max(0, Math.ceil(Math.log2(Math.max(1, x))));
  if (!low) return -beyond(-(high as Place).value);
  if (!high) return beyond(low.value);
  return low.value + (high.value - low.value) / 2;
}
