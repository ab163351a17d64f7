import { canonical } from '../algebra/canonical.ts';
import { isTooLarge } from '../budget/tooLarge.ts';
import { shortest } from '../algebra/shortest.ts';
import { compile, type Program } from '../evaluate/program.ts';
import type { Expression } from '../language/tree.ts';
import * as tree from '../language/tree.ts';
import * as balls from '../numbers/ball.ts';
import type { Ball } from '../numbers/ball.ts';
import * as big from '../numbers/bigFloat.ts';
import type { BigFloat } from '../numbers/bigFloat.ts';
import { ballOfConstant, signOfConstant } from '../limit/constantSign.ts';
import { enclosedOrUnsure, NotPrecise } from '../limit/enclosed.ts';

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
  /** Bounds of it, about as near as so many binary digits allow. */
  readonly ball: (bits: number) => Ball;
}

export const located = ({ value, low, high, exact }: Located): Located => ({ value, low, high, exact });

/** The place at a double. */
export const pointPlace = (x: number): Place => ({
  value: x,
  low: x,
  high: x,
  exact: null,
  at: () => big.fromDouble(x),
  ball: () => balls.exactly(big.fromDouble(x)),
});

/** The ball between two doubles. */
const ballBetween = (low: number, high: number): Ball =>
  balls.hull(balls.exactly(big.fromDouble(low)), balls.exactly(big.fromDouble(high)), comfortable);

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
  const ball = balls.remembered((bits: number): Ball => {
    const found = ballOfConstant(tidy, bits);
    if (found === null || found === 'unsure') throw new NoValue('an exact place has a value');
    return found;
  });
  const value = withinReach(() => ball(comfortable));
  if (!value) return null;
  const at = (bits: number): BigFloat => ball(bits).middle;
  const double = big.toDouble(value.middle);
  // Beyond the doubles, and so beyond every interval.
  if (!Number.isFinite(double)) return { value: double, low: double, high: double, exact: tidy, at, ball };
  const isDouble =
    balls.isExact(value) && big.isZero(big.subtract(big.fromDouble(double), value.middle, comfortable));
  return {
    value: double,
    ...(isDouble ? { low: double, high: double } : around(double)),
    exact: tidy,
    at,
    ball,
  };
}

/**
 * The place that a formula in one name has when that name stands for another place.
 * @returns null where the formula has no value there
 */
export function placeBy(formula: Expression, name: string, of: Place): Place | null {
  if (of.exact) return exactPlace(tree.substitute(formula, name, of.exact));
  const program = compile(formula, name);
  const ball = balls.remembered((bits: number): Ball => {
    const found = enclosedOrUnsure(program, of.ball(bits + spareBits), [], bits + spareBits);
    if (!balls.isBall(found)) throw new NoValue('a place has a value');
    return found;
  });
  const value = withinReach(() => ball(comfortable));
  if (!value) return null;
  const double = big.toDouble(value.middle);
  return { value: double, ...around(double), exact: null, at: (bits) => ball(bits).middle, ball };
}

/** Thrown where a formula that should name a place has no value. */
class NoValue extends Error {}

/** Binary digits by which a place is known better than one that is worked out from it. */
const spareBits = 40;

/** What a constant comes to; null where it has no value, or one beyond all reach. */
function withinReach(work: () => Ball): Ball | null {
  try {
    return work();
  } catch (error) {
    const isOutOfReach =
      error instanceof NoValue || error instanceof NotPrecise || error instanceof big.OutOfRange;
    if (isOutOfReach || isTooLarge(error)) return null;
    throw error;
  }
}

/**
 * The one root of a function between two bounds.
 * @param slope the derivative's program; it does not vanish between the bounds
 */
export function rootPlace(program: Program, slope: Program, low: number, high: number): Place {
  let known = { bits: 0, x: big.fromDouble(low + (high - low) / 2) };
  // Newton's method doubles the digits in every step, as soon as it is near.
  const at = (bits: number): BigFloat => {
    for (let i = 0; known.bits < bits + 20 && i < mostSteps; i++) {
      const working = Math.max(fewestBits, Math.min(2 * known.bits, bits) + 160);
      const [height, rise] = [middleAt(program, known.x, working), middleAt(slope, known.x, working)];
      if (!height || !rise || big.isZero(rise)) break;
      const step = big.divide(height, rise, working);
      const x = within(big.subtract(known.x, step, working), low, high, known.x);
      const agreed = big.isZero(step) ? working : Number(big.order(x) - big.order(step));
      known = { bits: Math.min(2 * agreed - 10, working - 60), x };
    }
    return known.x;
  };
  /** Where the function changes its sign between two numbers, its only root between the bounds lies between them, too. */
  const ball = balls.remembered((bits: number): Ball => {
    const middle = big.rounded(at(bits), bits + 40);
    const radius: BigFloat = {
      mantissa: 1n,
      exponent: (big.isZero(middle) ? 0n : big.order(middle)) - BigInt(bits),
    };
    const near: Ball = { middle, radius };
    const signs = [big.subtract(middle, radius, 2 * bits), big.add(middle, radius, 2 * bits)].map((x) =>
      signAt(program, x, bits + 80),
    );
    const isProved = signs[0] !== undefined && signs[0] !== 0 && signs[0] === -(signs[1] ?? 0);
    return isProved && isWithin(near, low, high) ? near : ballBetween(low, high);
  });
  const value = big.toDouble(at(60));
  const isInside = value >= low && value <= high;
  return { value: isInside ? value : (low + high) / 2, low, high, exact: null, at, ball };
}

/** Steps of Newton's method, and the binary digits that one keeps at least. */
const mostSteps = 60;
const fewestBits = 120;

/** A number between two bounds; one that lies beyond, half-way from where it came from. */
function within(x: BigFloat, low: number, high: number, before: BigFloat): BigFloat {
  for (const [bound, side] of [
    [low, -1],
    [high, 1],
  ] as const) {
    const limit = big.fromDouble(bound);
    const isBeyond = big.sign(big.subtract(x, limit, fewestBits)) === side;
    if (isBeyond) return big.scale(big.add(before, limit, fewestBits), -1n);
  }
  return x;
}

function middleAt(program: Program, x: BigFloat, bits: number): BigFloat | null {
  const value = enclosedOrUnsure(program, balls.exactly(x), [], bits);
  return balls.isBall(value) ? value.middle : null;
}

function signAt(program: Program, x: BigFloat, bits: number): number | undefined {
  const value = enclosedOrUnsure(program, balls.exactly(x), [], bits);
  return balls.isBall(value) ? balls.signOf(value) : undefined;
}

/** Whether a ball lies between two doubles, ends included. */
function isWithin({ middle, radius }: Ball, low: number, high: number): boolean {
  const [least, most] = [big.fromDouble(low), big.fromDouble(high)];
  const bits = 4 * comfortable + big.bitLength(middle.mantissa);
  return (
    big.sign(big.subtract(big.subtract(middle, radius, bits), least, bits)) >= 0 &&
    big.sign(big.subtract(most, big.add(middle, radius, bits), bits)) >= 0
  );
}

/** Digits by which two places are told apart. */
const separation = 250;

/**
 * −1, 0 or 1 as p lies before, at or behind q. Where they agree in 70 decimal digits, numbers with formulas are told
 * apart by algebra; others are the same.
 */
export function comparePlaces(p: Place, q: Place): number {
  if (p === q) return 0;
  if (p.high < q.low) return -1;
  if (p.low > q.high) return 1;
  const difference = big.subtract(p.at(separation), q.at(separation), separation);
  const size = big.order(p.at(separation)) > 0n ? big.order(p.at(separation)) : 0n;
  const isNear = big.isZero(difference) || big.order(difference) < size - BigInt(separation - 20);
  if (!isNear) {
    // What Newton's method has not come near to is told apart by bounds alone.
    const apart = balls.signOf(balls.subtract(p.ball(separation), q.ball(separation), separation));
    if (apart !== undefined) return apart;
  }
  return p.exact && q.exact ? comparedByAlgebra(p.exact, q.exact) : 0;
}

function comparedByAlgebra(p: Expression, q: Expression): number {
  const sign = signOfConstant(tree.subtract(p, q));
  return Number.isNaN(sign) ? 0 : sign;
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
