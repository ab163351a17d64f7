import { baseAndExponent, canonical, type Canonical } from '../algebra/canonical.ts';
import { derivativeOf } from '../algebra/differentiate.ts';
import { factored } from '../algebra/expand.ts';
import { TooLarge } from '../algebra/limits.ts';
import * as rational from '../algebra/rational.ts';
import type { Rational } from '../algebra/rational.ts';
import { written } from '../algebra/written.ts';
import { enclose } from '../evaluate/enclosures.ts';
import * as tree from '../language/tree.ts';
import type { Expression } from '../language/tree.ts';
import type { Arc, Arcs } from './arcs.ts';
import { comparePlaces, type Place } from './place.ts';
import { isExactlyZero } from './recognise.ts';
import type { Zeros } from './zeros.ts';
import { programOf } from './programs.ts';

/**
 * Whether it is proved what a function (or its derivative of the given order) does as a joint is approached
 * along an arc: it is analytic there, or a product of powers of analytic functions whose zeros at the joint are
 * known with their multiplicities, so that their sum tells a pole from a finite limit.
 */
export function isLimitProved(arcs: Arcs, arc: Arc | null, joint: Place, order: number): boolean {
  const body = arcs.bodyOf(arc, order);
  if (!body) return true;
  if (isAnalyticAt(arcs.zeros, canonical(body), joint)) return true;
  return orderAt(arcs.zeros, canonical(body), joint) !== null;
}

function isAnalyticAt(zeros: Zeros, form: Canonical, place: Place): boolean {
  const { roots, undecided } = zeros.breaksOf(form);
  return undecided.length === 0 && !roots.some((root) => comparePlaces(root, place) === 0);
}

/** The order of growth at a place: the exponent of the distance, below 0 for a pole; null where it is not proved. */
function orderAt(zeros: Zeros, form: Canonical, place: Place): Rational | null {
  if (isAnalyticAt(zeros, form, place)) return multiplicityAt(zeros, written(form), place);
  if (form.kind === 'product') return sumOf(form.factors.map((factor) => orderAt(zeros, factor, place)));
  if (form.kind === 'power') {
    const { base, exponent } = baseAndExponent(form);
    const inner = exponent.kind === 'number' ? orderAt(zeros, base, place) : null;
    return inner && exponent.kind === 'number' ? rational.multiply(inner, exponent.value) : null;
  }
  if (form.kind === 'call' && form.name === 'ln')
    return logarithmicOrder(zeros, form.operands[0] as Canonical, place);
  if (form.kind !== 'sum') return null;
  const split = factored(form);
  if (split.kind === 'product' && split.factors.every((factor) => factor.key !== form.key)) {
    return orderAt(zeros, split, place);
  }
  return dominantOrder(form.terms.map((term) => orderAt(zeros, term, place)));
}

/** A logarithm of something that vanishes is infinite, though weaker than any power. */
const logarithmic = rational.rational(-1, 1_000_000);
function logarithmicOrder(zeros: Zeros, argument: Canonical, place: Place): Rational | null {
  const order = orderAt(zeros, argument, place);
  return order && !rational.isZero(order) ? logarithmic : null;
}

function sumOf(orders: readonly (Rational | null)[]): Rational | null {
  let total: Rational | null = rational.zero;
  for (const order of orders) total = total && order && rational.add(total, order);
  return total;
}

/** One term that outgrows all others decides a sum; equal ones may cancel. */
function dominantOrder(orders: readonly (Rational | null)[]): Rational | null {
  const known = orders.filter((order) => order !== null);
  if (known.length !== orders.length) return null;
  const [first, second] = known.sort(rational.compare);
  if (!first) return null;
  return !second || rational.compare(first, second) < 0 ? first : null;
}

const highestMultiplicity = 8;

/** How often an analytic function vanishes at a place; null where that is not proved. */
function multiplicityAt(zeros: Zeros, body: Expression, place: Place): Rational | null {
  let formula = body;
  try {
    for (let k = 0; k <= highestMultiplicity; k++) {
      const { low, high } = enclose(programOf(formula, zeros.variable), place.low, place.high);
      if (low > 0 || high < 0) return rational.rational(k);
      if (!isZeroAt(zeros, formula, place)) return null;
      formula = derivativeOf(formula, zeros.variable);
    }
  } catch (error) {
    if (!(error instanceof TooLarge)) throw error;
  }
  return null;
}

function isZeroAt(zeros: Zeros, formula: Expression, place: Place): boolean {
  if (place.exact && isExactlyZero(tree.substitute(formula, zeros.variable, place.exact))) return true;
  return zeros.of(formula).roots.some((root) => comparePlaces(root, place) === 0);
}
