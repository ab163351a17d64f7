import {
  baseAndExponent,
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
import * as rational from '../numbers/rational.ts';
import type { Rational } from '../numbers/rational.ts';
import { written } from '../algebra/written.ts';
import { programOf } from '../analysis/programs.ts';
import { isBounded } from '../evaluate/enclosedArea.ts';
import { enclosedJet } from '../evaluate/enclosedJets.ts';
import { enclose } from '../evaluate/enclosures.ts';
import * as intervals from '../numbers/interval.ts';
import type { Interval } from '../numbers/interval.ts';
import * as jets from '../numbers/intervalJet.ts';
import type { IntervalJet } from '../numbers/intervalJet.ts';
import * as tree from '../language/tree.ts';
import { isExactlyZero } from '../limit/constantSign.ts';

/**
 * Bounds of integrals from 0 up, of functions without a value at 0. Beside 0 such a function is a sum of xᵃ (ln x)ʲ · r(x),
 * and the integral of one of them over [0, δ] lies in the range of r times ∫ xᵃ (ln x)ʲ dx.
 */

/** Taylor coefficients over an interval that begins at 0, as many as are asked for. */
type Coefficients = (over: Interval, length: number) => IntervalJet;

/** xᵃ (ln x)ʲ, for x above 0, times what is left: factors that have values at 0 and derivatives. */
interface Weighted {
  readonly power: Rational;
  readonly logarithms: number;
  readonly rest: readonly Coefficients[];
}

/** Taylor coefficients at the end that are used beside the one that holds over the whole part. */
const terms = 12;
/** Highest order to which a factor may be 0 at the end. */
const highestOrder = 6;
/** Logarithms of x that may be multiplied with one another. */
const mostLogarithms = 4;

/** Bounds of the integral of a formula from 0 up to a number, for each number; null where it has none there. */
export function besideZero(form: Canonical, variable: string): (to: number) => Interval | null {
  const parts = weighted(form, variable)?.map(bySeries);
  const program = programOf(written(form), variable);
  return (to) => {
    const known = parts?.map((part) => part(to));
    if (known?.every((part) => part !== null)) return known.reduce(intervals.add, intervals.exactly(0));
    const { low, high } = enclose(program, 0, to);
    return Number.isFinite(high - low)
      ? intervals.multiply({ low, high, sure: true }, intervals.exactly(to))
      : null;
  };
}

/** A form as a sum of weighted ones; null where one of them has no integral from 0 on. */
function weighted(form: Canonical, variable: string): Weighted[] | null {
  const x = nameOf(variable);
  let [exponents, logarithms] = [rational.zero, 0];
  const plain: Canonical[] = [numeric(splitCoefficient(form).coefficient)];
  const rest: Coefficients[] = [];
  let split: { order: number; regular: Coefficients } | null = null;
  for (const factor of factorsOf(form)) {
    const { base, exponent } = baseAndExponent(factor);
    if (exponent.kind !== 'number') {
      plain.push(factor);
      continue;
    }
    const ofLogarithm = logarithmOf(base);
    const insideAtZero = ofLogarithm && behaviourAtZero(ofLogarithm, variable);
    // ln(1 + x) is a factor like any other.
    const inside = insideAtZero?.isLowered ? ofLogarithm : null;
    const atZero = inside && insideAtZero ? insideAtZero : behaviourAtZero(base, variable);
    if (inside && inside.key === x.key && isSmallWhole(exponent.value)) {
      logarithms += Number(exponent.value.numerator);
    } else if (inside && !split && rational.compare(exponent.value, rational.one) === 0) {
      // ln(xᵏ g) = k ln x + ln g
      split = {
        order: rational.toNumber(atZero.order),
        regular: (over, length) => jets.ln(atZero.regular(over, length)),
      };
    } else if (!inside && atZero.isLowered) {
      exponents = rational.add(exponents, rational.multiply(atZero.order, exponent.value));
      const [p, q] = [Number(exponent.value.numerator), Number(exponent.value.denominator)];
      rest.push((over, length) => raised(atZero.regular(over, length), p, q));
    } else plain.push(factor);
  }
  if (rational.compare(exponents, rational.minusOne) <= 0 || logarithms > mostLogarithms) return null;
  const program = programOf(written(product(plain)), variable);
  rest.push((over, length) => enclosedJet(program, jets.variable(over, length)));
  const common = { power: exponents, logarithms, rest };
  if (!split) return [common];
  const { order, regular } = split;
  const times: Coefficients = (_, length) => jets.constant(intervals.exactly(order), length);
  return [
    { ...common, logarithms: logarithms + 1, rest: [...rest, times] },
    { ...common, rest: [...rest, regular] },
  ];
}

const logarithmOf = (base: Canonical): Canonical | null =>
  base.kind === 'call' && base.name === 'ln' ? (base.operands[0] as Canonical) : null;

const isSmallWhole = ({ numerator, denominator }: Rational): boolean =>
  denominator === 1n && numerator > 0n && numerator <= BigInt(mostLogarithms);

const raised = (u: IntervalJet, p: number, q: number): IntervalJet =>
  q === 1 ? jets.integerPower(u, p) : jets.rationalPower(u, p, q);

interface AtZero {
  readonly order: Rational;
  /** Whether g is not the form itself. */
  readonly isLowered: boolean;
  readonly regular: Coefficients;
}

/**
 * A form as xᵏ g(x), where g is not 0 at 0. Where xᵏ g has the derivatives of orders k, k + 1, … on [0, δ], those of g are
 * means of them: gʲ(x)/j! lies in the range of the coefficient k + j.
 */
function behaviourAtZero(form: Canonical, variable: string): AtZero {
  const x = nameOf(variable);
  const multipliedOut = form.kind === 'sum' ? expanded(form) : form;
  const common = commonPower(multipliedOut, x);
  const lowered = rational.isZero(common) ? form : over(multipliedOut, power(x, numeric(common)));
  const order = orderOfZero(lowered, variable);
  const program = programOf(written(lowered), variable);
  return {
    order: rational.add(common, rational.rational(order)),
    isLowered: order > 0 || !rational.isZero(common),
    regular: (overPart, length) =>
      jets.withoutFirst(enclosedJet(program, jets.variable(overPart, length + order)), order),
  };
}

/** How many derivatives of a form, itself the first, are 0 at 0. */
function orderOfZero(form: Canonical, variable: string): number {
  if (form.kind === 'number') return 0;
  let slope: Canonical = form;
  for (let order = 0; order <= highestOrder; order++) {
    if (!isExactlyZero(tree.substitute(written(slope), variable, tree.number(0)))) return order;
    slope = derivative(slope, variable);
  }
  return 0;
}

export const over = (form: Canonical, by: Canonical): Canonical => {
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

/** Bounds of ∫ xᵃ (ln x)ʲ r(x) dx from 0 up to a number by the Taylor polynomial of r. */
function bySeries({ power: a, logarithms, rest }: Weighted): (to: number) => Interval | null {
  const together: Coefficients = (part, length) =>
    rest.map((factor) => factor(part, length)).reduce(jets.multiply);
  const there = together(intervals.exactly(0), terms);
  return (to) => {
    if (logarithms > 0 && to > 1) return null;
    const wide = together({ low: 0, high: to, sure: true }, terms + 1);
    const last = Math.min(wide.known - 1, there.known);
    if (last < 0) return null;
    const weight = (k: number): Interval =>
      weightUpTo(to, rational.add(a, rational.rational(k + 1)), logarithms);
    let total = intervals.multiply(jets.coefficient(wide, last), weight(last));
    for (let k = 0; k < last; k++)
      total = intervals.add(total, intervals.multiply(jets.coefficient(there, k), weight(k)));
    return total.sure && isBounded(total) ? total : null;
  };
}

/** Wⱼ = ∫ xᵇ⁻¹ (ln x)ʲ dx from 0 to δ: δᵇ/b for j = 0, and by parts Wⱼ = (δᵇ (ln δ)ʲ − j Wⱼ₋₁)/b. */
function weightUpTo(to: number, b: Rational, logarithms: number): Interval {
  const [p, q] = [Number(b.numerator), Number(b.denominator)];
  const by = intervals.divide(intervals.exactly(p), intervals.exactly(q));
  const raisedTo = intervals.rationalPower(intervals.exactly(to), p, q);
  const logarithm = intervals.ln(intervals.exactly(to));
  let weight = intervals.divide(raisedTo, by);
  for (let j = 1; j <= logarithms; j++) {
    const edge = intervals.multiply(raisedTo, intervals.integerPower(logarithm, j));
    weight = intervals.divide(intervals.subtract(edge, intervals.multiply(intervals.exactly(j), weight)), by);
  }
  return weight;
}
