import { canonical } from '../algebra/canonical.ts';
import { shortest } from '../algebra/shortest.ts';
import { compile, type Program } from '../evaluate/program.ts';
import type { Expression } from '../language/tree.ts';
import * as big from '../limit/bigFloat.ts';
import type { BigFloat } from '../limit/bigFloat.ts';
import { evaluatePrecisely, NotPrecise } from '../limit/precise.ts';

/** Where a place is, as plain data. */
export interface Located {
  /** The nearest double, or one beside it. */
  readonly value: number;
  /** Bounds between which the place lies. */
  readonly low: number;
  readonly high: number;
  /** The number itself as a formula, where it is known. */
  readonly exact: Expression | null;
}

/** A number on the x-axis that has been proved to be where it is said to be. */
export interface Place extends Located {
  /** The number to as many binary digits as are asked for. */
  readonly at: (bits: number) => BigFloat;
}

export const located = ({ value, low, high, exact }: Located): Located => ({ value, low, high, exact });

/** The place at a double. */
export const pointPlace = (x: number): Place => ({
  value: x,
  low: x,
  high: x,
  exact: null,
  at: () => big.fromDouble(x),
});

const comfortable = 160;

function around(value: number): { low: number; high: number } {
  const margin = Math.abs(value) * 2 ** -51 + 1e-300;
  return { low: value - margin, high: value + margin };
}

/**
 * The place that a constant formula names; null where it has no value or none within reach.
 * @param formula free of names
 */
export function exactPlace(formula: Expression): Place | null {
  const tidy = shortest(canonical(formula), 'fraction');
  const program = compile(tidy, '');
  const at = (bits: number): BigFloat => {
    const value = evaluatePrecisely(program, big.zero, [], bits);
    if (!value) throw new RangeError('an exact place has a value');
    return value;
  };
  const value = withinReach(() => at(comfortable));
  if (!value) return null;
  const double = big.toDouble(value);
  // Beyond the doubles, and so beyond every interval.
  if (!Number.isFinite(double)) return { value: double, low: double, high: double, exact: tidy, at };
  const isDouble = big.isZero(big.subtract(big.fromDouble(double), value, comfortable));
  return { value: double, ...(isDouble ? { low: double, high: double } : around(double)), exact: tidy, at };
}

/** What a constant comes to; null where it has no value, or one beyond all reach. */
function withinReach(work: () => BigFloat): BigFloat | null {
  try {
    return work();
  } catch (error) {
    if (error instanceof NotPrecise || error instanceof RangeError || error instanceof big.OutOfRange)
      return null;
    throw error;
  }
}

/**
 * The one root of a function between two bounds.
 * @param slope the derivative's program; it does not vanish between the bounds
 */
export function rootPlace(program: Program, slope: Program, low: number, high: number): Place {
  let known = { bits: 50, x: big.fromDouble((low + high) / 2) };
  // Newton's method doubles the digits in every step.
  const at = (bits: number): BigFloat => {
    while (known.bits < bits + 40) {
      const next = Math.min(2 * known.bits, bits + 80);
      const working = next + 60;
      const height = evaluatePrecisely(program, known.x, [], working);
      const rise = evaluatePrecisely(slope, known.x, [], working);
      if (!height || !rise || big.isZero(rise)) break;
      known = { bits: next - 10, x: big.subtract(known.x, big.divide(height, rise, working), working) };
    }
    return known.x;
  };
  const value = big.toDouble(at(60));
  const isInside = value >= low && value <= high;
  return { value: isInside ? value : (low + high) / 2, low, high, exact: null, at };
}

/** Digits by which two places are told apart. */
const separation = 250;

/** −1, 0 or 1 as p lies before, at or behind q; places that agree in 70 decimal digits are the same. */
export function comparePlaces(p: Place, q: Place): number {
  if (p === q) return 0;
  if (p.high < q.low) return -1;
  if (p.low > q.high) return 1;
  const difference = big.subtract(p.at(separation), q.at(separation), separation);
  const size = big.order(p.at(separation)) > 0n ? big.order(p.at(separation)) : 0n;
  const isSame = big.isZero(difference) || big.order(difference) < size - BigInt(separation - 20);
  return isSame ? 0 : big.sign(difference);
}

/** In ascending order, equal places once: the one with a formula, if there is one. */
export function sortedPlaces(places: readonly Place[]): Place[] {
  const sorted = [...places].sort(comparePlaces);
  const distinct: Place[] = [];
  for (const place of sorted) {
    const before = distinct.at(-1);
    if (!before || comparePlaces(before, place) !== 0) distinct.push(place);
    else if (!before.exact && place.exact) distinct[distinct.length - 1] = place;
  }
  return distinct;
}

export const isStrictlyBetween = (place: Place, from: Place, to: Place): boolean =>
  comparePlaces(from, place) < 0 && comparePlaces(place, to) < 0;
