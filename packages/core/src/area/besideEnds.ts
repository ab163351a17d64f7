import {
  baseAndExponent,
  callOf,
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
import { derivative } from '../algebra/differentiate.ts';
import { expanded } from '../algebra/expand.ts';
import { factorsOf } from '../algebra/parts.ts';
import * as polynomials from '../algebra/polynomial.ts';
import * as rational from '../algebra/rational.ts';
import type { Rational } from '../algebra/rational.ts';
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
import { enclosedJet } from '../evaluate/enclosedJets.ts';
import { enclose } from '../evaluate/enclosures.ts';
import * as intervals from '../evaluate/interval.ts';
import type { Interval } from '../evaluate/interval.ts';
import * as jets from '../evaluate/intervalJet.ts';
import * as tree from '../language/tree.ts';
import type { Expression } from '../language/tree.ts';
import * as big from '../limit/bigFloat.ts';
import { isExactlyZero } from '../limit/constantSign.ts';
import { isFinitePlace, type Stretch } from './stretches.ts';

/**
 * Bounds of integrals up to ends at which the integrand has no value of its own. Beside such an end at 0 it is
 * xᵃ (ln x)ʲ · r(x): its integral over [0, δ] lies in the range of r times ∫ xᵃ (ln x)ʲ dx. Far out it is xᵃ e^g(x) · r(x),
 * or as a function of 1/x of the first kind.
 */

/** For x above 0: x to a power, ln x or not, and what is left. */
interface Weighted {
  readonly power: Rational;
  readonly hasLogarithm: boolean;
  readonly rest: Canonical;
}

function weighted(form: Canonical, x: Canonical): Weighted | null {
  let exponents = rational.zero;
  let logarithms = 0;
  const rest: Canonical[] = [numeric(splitCoefficient(form).coefficient)];
  const logarithm = callOf('ln', [x]);
  for (const factor of factorsOf(form)) {
    const { base: raw, exponent } = baseAndExponent(factor);
    const base = raw.kind === 'sum' ? expanded(raw) : raw;
    const common = exponent.kind === 'number' ? commonPower(base, x) : rational.zero;
    if (factor.key === logarithm.key) logarithms++;
    else if (exponent.kind === 'number' && !rational.isZero(common)) {
      exponents = rational.add(exponents, rational.multiply(common, exponent.value));
      const lowered = over(base, power(x, numeric(common)));
      rest.push(power(lowered, exponent));
    } else rest.push(factor);
  }
  return logarithms > 1 ? null : { power: exponents, hasLogarithm: logarithms === 1, rest: product(rest) };
}

const over = (form: Canonical, by: Canonical): Canonical => {
  const inverse = power(by, whole(-1));
  return form.kind === 'sum'
    ? sum(form.terms.map((term) => product([term, inverse])))
    : product([form, inverse]);
};

/** The lowest power of x that all terms share. */
function commonPower(form: Canonical, x: Canonical): Rational {
  const inTerm = (term: Canonical): Rational =>
    factorsOf(term).reduce((all, factor) => {
      const { base, exponent } = baseAndExponent(factor);
      return base.key === x.key && exponent.kind === 'number' ? rational.add(all, exponent.value) : all;
    }, rational.zero);
  const found = (form.kind === 'sum' ? form.terms : [form]).map(inTerm);
  return found.reduce((least, one) => (rational.compare(one, least) < 0 ? one : least));
}

/** Taylor coefficients at the end that are used beside the one that holds over the whole part. */
const terms = 12;
/** Highest order to which what is left may be 0 at the end. */
const highestOrder = 6;

/** Bounds of the integral of a formula from 0 up to a number, for each number; null where that is no such integral. */
function besideZero(form: Canonical, variable: string): ((to: number) => Interval | null) | null {
  const x = nameOf(variable);
  const found = weighted(form, x);
  if (!found) return null;
  const { power: a, hasLogarithm, rest } = found;
  // r(x) = xᵐ · cₘ where the coefficients below are 0.
  let [m, slope] = [0, rest];
  const isIntegrable = (): boolean =>
    rational.compare(rational.add(a, rational.rational(m)), rational.minusOne) > 0;
  while (!isIntegrable()) {
    if (m >= highestOrder || !isExactlyZero(tree.substitute(written(slope), variable, tree.number(0))))
      return null;
    [m, slope] = [m + 1, derivative(slope, variable)];
  }
  const program = programOf(written(rest), variable);
  const weight = (to: number, k: number): Interval =>
    weightUpTo(to, rational.add(a, rational.rational(k + 1)), hasLogarithm);
  const there = enclosedJet(program, jets.variable(intervals.exactly(0), m + terms));
  return (to) => {
    if (hasLogarithm && to > 1) return null;
    const wide = enclosedJet(program, jets.variable({ low: 0, high: to, sure: true }, m + terms + 1));
    const last = Math.min(wide.known - 1, there.known);
    if (last < m) return null;
    let total = intervals.multiply(jets.coefficient(wide, last), weight(to, last));
    for (let k = m; k < last; k++)
      total = intervals.add(total, intervals.multiply(jets.coefficient(there, k), weight(to, k)));
    return total.sure && isBounded(total) ? total : null;
  };
}

/** ∫ xᵇ⁻¹ dx = δᵇ/b, and ∫ xᵇ⁻¹ ln x dx = δᵇ (b ln δ − 1)/b², from 0 to δ. */
function weightUpTo(to: number, b: Rational, hasLogarithm: boolean): Interval {
  const by = intervals.divide(
    intervals.exactly(Number(b.numerator)),
    intervals.exactly(Number(b.denominator)),
  );
  const raised = intervals.rationalPower(intervals.exactly(to), Number(b.numerator), Number(b.denominator));
  const plain = intervals.divide(raised, by);
  if (!hasLogarithm) return plain;
  const logarithm = intervals.subtract(
    intervals.multiply(by, intervals.ln(intervals.exactly(to))),
    intervals.exactly(1),
  );
  return intervals.divide(intervals.multiply(plain, logarithm), by);
}

/** As narrow as doubles make it. */
const tolerance = 1e-11;

/** Bounds over [0, b] of a formula that may have no value at 0. */
function fromZero(formula: Expression, variable: string, b: number): Interval | null {
  const form = canonical(formula);
  const beside = besideZero(form, variable);
  if (!beside) return null;
  const parts = enclosedParts(integrandOf(programOf(written(form), variable)), 0, b, tolerance, beside);
  return bounded(parts);
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
 * For xᵃ e^g(x) r(x) bounds of the integral from T to ∞: where xᵃ⁺² e^g falls from T on it is at most the range of r
 * times Tᵃ⁺¹ e^g(T), since ∫ x⁻² dx from T is 1/T.
 */
function fallingTail(form: Canonical, variable: string): ((from: number) => Interval | null) | null {
  const x = nameOf(variable);
  const wave = factorsOf(form).find((factor) => baseAndExponent(factor).base.key === euler.key);
  const g = wave && polynomials.polynomialOf(expanded(baseAndExponent(wave).exponent), variable);
  const found = wave && weighted(over(form, wave), x);
  if (!wave || !g || g.length < 2 || !found || found.hasLogarithm) return null;
  const rest = programOf(written(found.rest), variable);
  const slope = polynomials.multiply([rational.zero, rational.one], polynomials.derivative(g));
  const falling = polynomials.sum(slope, [rational.add(found.power, rational.rational(2))]);
  const raised = product([power(x, numeric(rational.add(found.power, rational.one))), wave]);
  const height = programOf(written(raised), variable);
  return (from) => {
    if (!isNegativeFrom(falling, from)) return null;
    const range = enclose(rest, from, Infinity);
    const top = enclose(height, from, from);
    const isTold = top.sure && isBounded(range) && enclose(rest, from, Number.MAX_VALUE).sure;
    return isTold ? intervals.multiply(range, { low: 0, high: top.high, sure: true }) : null;
  };
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

const isDouble = ({ low, high, exact }: Place): boolean => exact !== null && low === high;

/** Enough for a difference of doubles of like size to be exact. */
const exactBits = 1100;
const isExactSum = (a: number, b: number, total: number): boolean =>
  big.isZero(
    big.subtract(big.add(big.fromDouble(a), big.fromDouble(b), exactBits), big.fromDouble(total), exactBits),
  );

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
    const length = end - place.value;
    if (!isDouble(place) || !isExactSum(place.value, length, end)) return null;
    const at = place.exact as Expression;
    const moved = place.value === 0 ? formula : tree.substitute(formula, variable, tree.add(at, x));
    return fromZero(shortest(canonical(moved), 'fraction'), variable, length);
  };
  const leftOf = (place: Place, start: number): Interval | null => {
    const length = place.value - start;
    if (!isDouble(place) || !isExactSum(start, length, place.value)) return null;
    const moved = tree.substitute(formula, variable, tree.subtract(place.exact as Expression, x));
    return fromZero(shortest(canonical(moved), 'fraction'), variable, length);
  };
  const mirrored = tree.substitute(formula, variable, tree.negate(x));
  const [low, high] = [isFinitePlace(from) ? from : null, isFinitePlace(to) ? to : null];
  const cut = cutOf(low, high, isRegular);
  if (cut === null) return null;
  const left = !low
    ? tail(mirrored, variable, -cut)
    : isRegular(low)
      ? between(formula, variable, low.value, cut)
      : rightOf(low, cut);
  const right = !high
    ? tail(formula, variable, cut)
    : isRegular(high)
      ? between(formula, variable, cut, high.value)
      : leftOf(high, cut);
  return left && right && intervals.add(left, right);
}

/** Where a stretch is cut in two: at a regular end, in the middle, or at the power of 2 where a tail begins. */
function cutOf(low: Place | null, high: Place | null, isRegular: (place: Place) => boolean): number | null {
  if (!low && !high) return null;
  const beyond = (x: number): number => 2 ** Math.max(0, Math.ceil(Math.log2(Math.max(1, x))));
  if (!low) return -beyond(-(high as Place).value);
  if (!high) return beyond(low.value);
  if (isRegular(low)) return low.value;
  return isRegular(high) ? high.value : low.value + (high.value - low.value) / 2;
}
