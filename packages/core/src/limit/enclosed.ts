import { toNumber } from '../numbers/rational.ts';
import { spend } from '../budget/effort.ts';
import { isRelated } from '../algebra/exact.ts';
import { areaBetween } from '../evaluate/enclosedArea.ts';
import * as intervals from '../numbers/interval.ts';
import type { Interval } from '../numbers/interval.ts';
import type { ConstantStep, NestedStep, Program, Step } from '../evaluate/program.ts';
import { indices } from '../evaluate/summation.ts';
import { builtIn } from '../functions/table.ts';
import type { Table } from '../language/table.ts';
import type { ExactPoint } from '../language/table.ts';
import * as balls from '../numbers/ball.ts';
import { isBall, type Ball, type Enclosed } from '../numbers/ball.ts';
import * as big from '../numbers/bigFloat.ts';

/** Thrown where a step has no evaluation of any precision: limits and long sums. */
export class NotPrecise extends Error {}

/**
 * The ball in which f(x) lies, for all numbers x of a ball.
 * @param bits binary digits that are kept on the way
 * @throws big.OutOfRange for numbers beyond reason, NotPrecise for limits and long sums
 */
export function enclosePrecisely(
  program: Program,
  x: Ball,
  parameters: readonly Ball[],
  bits: number,
): Enclosed {
  spend(program.steps.length * (bits / 4));
  const values: Enclosed[] = [];
  const of = (index: number): Enclosed => values[index] ?? null;
  for (const step of program.steps) values.push(stepValue(step, of, x, parameters, bits));
  return values.at(-1) ?? null;
}

/** The same, and 'unsure' for what is beyond reason or has no evaluation of any precision. */
export function enclosedOrUnsure(
  program: Program,
  x: Ball,
  parameters: readonly Ball[],
  bits: number,
): Enclosed {
  try {
    return enclosePrecisely(program, x, parameters, bits);
  } catch (error) {
    if (error instanceof NotPrecise || error instanceof big.OutOfRange) return 'unsure';
    throw error;
  }
}

/** What an operation comes to: nothing where an operand is nothing, and unsure where one is. */
function lifted(operands: readonly Enclosed[], work: (...known: Ball[]) => Enclosed): Enclosed {
  if (operands.includes(null)) return null;
  return operands.every(isBall) ? work(...operands) : 'unsure';
}

function stepValue(
  step: Step,
  of: (index: number) => Enclosed,
  x: Ball,
  parameters: readonly Ball[],
  bits: number,
): Enclosed {
  switch (step.op) {
    case 'constant':
      return constantValue(step, bits);
    case 'variable':
      return x;
    case 'parameter':
      return parameters[step.index] ?? null;
    case 'negate':
      return lifted([of(step.a)], balls.negate);
    case 'add':
    case 'subtract':
    case 'multiply':
    case 'divide': {
      const { op } = step;
      return lifted([of(step.a), of(step.b)], (a, b) => balls[op](a as Ball, b as Ball, bits));
    }
    case 'integerPower':
      return lifted([of(step.a)], (a) => balls.integerPower(a as Ball, step.n, bits));
    case 'rationalPower':
      return lifted([of(step.a)], (a) => balls.rationalPower(a as Ball, step.p, step.q, bits));
    case 'power':
      return lifted([of(step.a), of(step.b)], (a, b) => generalPower(a as Ball, b as Ball, bits));
    case 'call':
      return lifted(step.operands.map(of), (...known) => builtIn(step.name).ball(bits, ...known));
    case 'spline':
      return lifted([of(step.a)], (a) => splineValue(step.spline, a as Ball, bits));
    case 'guard':
      return lifted([of(step.a), of(step.b)], (a) => a as Ball);
    case 'compare':
      return lifted([of(step.a), of(step.b)], (a, b) => {
        const sign = balls.signOf(balls.subtract(a as Ball, b as Ball, bits));
        return sign === undefined ? 'unsure' : truthOf(isRelated(sign, step.relation));
      });
    case 'and':
    case 'or':
      return junction(step.op, of(step.a), of(step.b));
    case 'not':
      return lifted([of(step.a)], (a) => truthOf(balls.isExactlyZero(a as Ball)));
    case 'choose': {
      const truth = of(step.truth);
      if (!isBall(truth)) return truth;
      return of(balls.isExactlyZero(truth) ? step.b : step.a);
    }
    case 'sum':
      return sumOf(step, of, bits);
    case 'integral':
      return areaOf(step, of, bits);
    case 'limit':
      throw new NotPrecise(step.op);
  }
}

function constantValue(step: ConstantStep, bits: number): Enclosed {
  if (step.exact === 'pi') return balls.pi(bits);
  if (step.exact === 'e') return balls.e(bits);
  if (step.exact) return balls.fromRational(step.exact, bits);
  return Number.isFinite(step.value) ? balls.exactly(big.fromDouble(step.value)) : null;
}

const truthOf = (holds: boolean): Ball => (holds ? balls.one : balls.zero);

function junction(op: 'and' | 'or', a: Enclosed, b: Enclosed): Enclosed {
  const decides = (truth: Enclosed): boolean =>
    isBall(truth) && balls.isExactlyZero(truth) === (op === 'and');
  if (decides(a) || decides(b)) return truthOf(op === 'or');
  return lifted([a, b], () => truthOf(op === 'and'));
}

const largestExponent = 10_000;

function generalPower(a: Ball, b: Ball, bits: number): Enclosed {
  const exponent = big.toDouble(b.middle);
  const isWhole = balls.isExactlyZero(balls.subtract(b, balls.exactly(big.floor(b.middle)), bits));
  if (isWhole && Math.abs(exponent) < largestExponent) return balls.integerPower(a, exponent, bits);
  const [base, side] = [balls.signOf(a), balls.signOf(b)];
  if (base === 0) return side === undefined ? 'unsure' : side > 0 ? balls.zero : null;
  // Only whole powers of negative numbers have a value.
  if (base === -1) return balls.floor(b) === 'unsure' || isWhole ? 'unsure' : null;
  if (base === undefined) return 'unsure';
  const wide = bits + Math.max(0, Number(big.order(b.middle))) + 64;
  return lifted([balls.ln(a, wide)], (logarithm) =>
    balls.exp(balls.multiply(b, logarithm as Ball, wide), bits),
  );
}

/** A piece's polynomial in the distance from its left knot; on both sides of a knot, what holds both. */
function splineValue(spline: Table, x: Ball, bits: number): Enclosed {
  const points = spline.points as readonly ExactPoint[];
  const last = points.length - 1;
  const sideOf = (i: number): -1 | 0 | 1 | undefined =>
    balls.signOf(balls.subtract(x, balls.fromRational((points[i] as ExactPoint).x, bits), bits));
  if (sideOf(0) === -1 || sideOf(last) === 1) return null;
  if (sideOf(0) === undefined || sideOf(last) === undefined) return 'unsure';
  const piece = spline.pieceAt(big.toDouble(x.middle));
  const near = [piece - 1, piece, piece + 1].filter((i) => i >= 0 && i < last);
  const possible = near.filter((i) => sideOf(i) !== -1 && sideOf(i + 1) !== 1);
  const isAtKnot = possible.length > 1;
  if (
    isAtKnot &&
    spline.order > 0 &&
    Number.isNaN(spline.value(toNumber((points[possible[1] as number] as ExactPoint).x)))
  )
    return 'unsure';
  const values = possible.map((i) => polynomialOn(spline, i, x, bits));
  const [first, second] = values;
  if (!first) return 'unsure';
  return second ? balls.hull(first, second, bits) : first;
}

function polynomialOn(spline: Table, piece: number, x: Ball, bits: number): Ball {
  const knot = balls.fromRational((spline.points[piece] as ExactPoint).x, bits);
  const distance = balls.subtract(x, knot, bits);
  return spline
    .exactPiece(piece)
    .reduceRight<Ball>(
      (rest, c) => balls.add(balls.multiply(rest, distance, bits), balls.fromRational(c, bits), bits),
      balls.zero,
    );
}

const mostTerms = 2000;

function sumOf(
  step: Step & { op: 'sum' | 'integral' },
  of: (index: number) => Enclosed,
  bits: number,
): Enclosed {
  return lifted([of(step.from), of(step.to), ...step.inputs.map(of)], (from, to, ...inputs) => {
    const [first, last] = [from as Ball, to as Ball];
    if (!balls.isExact(first) || !balls.isExact(last)) return 'unsure';
    const range = indices(big.toDouble(first.middle), big.toDouble(last.middle));
    if (!range || range.count > mostTerms) throw new NotPrecise('sum');
    let sum: Enclosed = balls.zero;
    for (let i = 0; i < range.count; i++) {
      const term = enclosePrecisely(step.body, balls.fromInteger(range.first + i), inputs, bits);
      sum = lifted([sum, term], (a, b) => balls.add(a as Ball, b as Ball, bits));
      if (sum === null) return null;
    }
    return sum;
  });
}

/** Bounds of integrals by doubles, which more digits do not make narrower. */
const knownAreas = new WeakMap<Program, Map<string, Interval | null>>();
const mostKnownAreas = 200;

/** An integral between its bounds in doubles, however many digits are asked for; unsure where it has none. */
function areaOf(
  step: NestedStep & { op: 'sum' | 'integral' },
  of: (index: number) => Enclosed,
  bits: number,
): Enclosed {
  // An infinite bound has no ball.
  if (of(step.from) === null || of(step.to) === null) return 'unsure';
  return lifted([of(step.from), of(step.to), ...step.inputs.map(of)], (from, to, ...inputs) => {
    const [first, last] = [from as Ball, to as Ball];
    if (balls.isExactlyZero(balls.subtract(first, last, bits))) return balls.zero;
    const [low, high, ...others] = [first, last, ...(inputs as Ball[])].map(betweenDoubles);
    const known = knownAreas.get(step.body) ?? new Map<string, Interval | null>();
    if (known.size >= mostKnownAreas) known.clear();
    knownAreas.set(step.body, known);
    const key = JSON.stringify([low, high, others]);
    const found = known.get(key) ?? areaBetween(step.body, low as Interval, high as Interval, others);
    known.set(key, found);
    if (!found) return 'unsure';
    const [least, most] = [found.low, found.high].map((end) => balls.exactly(big.fromDouble(end)));
    return balls.hull(least as Ball, most as Ball, bits);
  });
}

/** Doubles between which all numbers of a ball lie. */
function betweenDoubles({ middle, radius }: Ball): Interval {
  const value = big.toDouble(middle);
  if (big.isZero(radius) && big.isZero(big.subtract(middle, big.fromDouble(value), exactBits)))
    return intervals.exactly(value);
  const reach =
    big.toDouble(radius) * (1 + 2 * Number.EPSILON) + Math.abs(value) * Number.EPSILON + Number.MIN_VALUE;
  return intervals.outward(value - reach, value + reach);
}

/** Enough for a difference of doubles of like size to be exact. */
const exactBits = 1100;
