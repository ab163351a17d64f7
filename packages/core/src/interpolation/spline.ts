import * as rational from '../numbers/rational.ts';
import type { Rational } from '../numbers/rational.ts';
import * as intervals from '../numbers/interval.ts';
import type { Interval } from '../numbers/interval.ts';
import * as jet from '../numbers/jet.ts';
import type { Jet } from '../numbers/jet.ts';
import type { ExactPoint, Shape, Table } from '../language/table.ts';

/** Coefficients of a piece: powers 0 to 3 of the distance from its left knot. */
const perPiece = 4;
/** Pieces whose enclosures are kept together, so that a wide range need not look at every piece. */
const perBlock = 64;

/**
 * A function through many points, as a table of cubic pieces that is evaluated in the time of a binary search: a linear
 * spline (broken line), or the natural cubic spline. Or one of its derivatives, which is undefined where it jumps and at
 * both ends.
 *
 * A linear spline is exact. The coefficients of a cubic one are doubles, and so are taken as what defines it; that value,
 * slope and bend go on smoothly at its knots holds by construction, up to the rounding of these doubles.
 */
export class Spline implements Table {
  readonly knots: Float64Array;
  /** Whether it has no value at some knot between its ends. */
  readonly hasJumps: boolean;
  private hint = 0;
  private known: { readonly pieces: readonly Interval[]; readonly blocks: readonly Interval[] } | undefined;
  private slope: Spline | undefined;
  private knownTotals: Float64Array | undefined;
  private knownReach: { readonly low: Float64Array; readonly high: Float64Array } | undefined;

  private constructor(
    /** The function that it belongs to, by which it is written. */
    readonly name: string,
    readonly order: number,
    readonly points: readonly ExactPoint[],
    readonly shape: Shape,
    private readonly coefficients: Float64Array,
    /** 1 at every knot at which there is no value. */
    private readonly open: Uint8Array,
    knots: Float64Array,
  ) {
    this.knots = knots;
    this.hasJumps = open.subarray(1, -1).includes(1);
  }

  /** @param points at least two, with x in ascending order and no two alike as doubles */
  static through(points: readonly ExactPoint[], shape: Shape, name: string): Spline {
    const knots = Float64Array.from(points, ({ x }) => rational.toNumber(x));
    const coefficients = shape === 'broken' ? linear(points) : naturalCubic(points, knots);
    return new Spline(name, 0, points, shape, coefficients, new Uint8Array(knots.length), knots);
  }

  get derivative(): Spline {
    this.slope ??= this.differentiated();
    return this.slope;
  }

  private differentiated(): Spline {
    const coefficients = this.coefficients.map((_, i) => {
      const power = (i % perPiece) + 1;
      return power < perPiece ? power * (this.coefficients[i + 1] as number) : 0;
    });
    const last = this.knots.length - 1;
    const goesOn = this.order < (this.shape === 'broken' ? 0 : 2);
    const open = this.open.map((isOpen, i) => {
      if (i === 0 || i === last) return 1;
      const jumps = coefficients[(i - 1) * perPiece] !== coefficients[i * perPiece];
      return isOpen || (!goesOn && jumps) ? 1 : 0;
    });
    const { name, order, points, shape, knots } = this;
    return new Spline(name, order + 1, points, shape, coefficients, open, knots);
  }

  private get pieceCount(): number {
    return this.knots.length - 1;
  }

  /** The piece that holds at x, which lies between the first knot and the last. */
  pieceAt(x: number): number {
    const { knots, hint } = this;
    if (x >= (knots[hint] as number) && x < (knots[hint + 1] as number)) return hint;
    let [low, high] = [0, this.pieceCount];
    while (high - low > 1) {
      const middle = (low + high) >> 1;
      if ((knots[middle] as number) <= x) low = middle;
      else high = middle;
    }
    return (this.hint = low);
  }

  /** Whether x is a knot without a value. */
  private isOpenAt(x: number): boolean {
    const piece = this.pieceAt(x);
    return (
      (this.knots[piece] === x && this.open[piece] === 1) ||
      (this.knots[piece + 1] === x && this.open[piece + 1] === 1)
    );
  }

  isWithin(x: number): boolean {
    return x >= (this.knots[0] as number) && x <= (this.knots[this.pieceCount] as number);
  }

  /** The value at x, NaN where there is none. */
  value(x: number): number {
    if (!this.isWithin(x)) return NaN;
    const piece = this.pieceAt(x);
    const isOpen = this.order > 0 && this.isOpenAt(x);
    return isOpen ? NaN : this.valueOn(piece, x);
  }

  /** The value of a piece's own formula at x. */
  valueOn(piece: number, x: number): number {
    const { coefficients: c } = this;
    const d = x - (this.knots[piece] as number);
    // Read in place: a view of each piece would cost more than the polynomial.
    const i = piece * perPiece;
    return (
      (c[i] as number) + d * ((c[i + 1] as number) + d * ((c[i + 2] as number) + d * (c[i + 3] as number)))
    );
  }

  /** Where a piece turns, in ascending order: where c₁ + 2c₂d + 3c₃d² is 0. */
  turnsOf(piece: number): readonly number[] {
    const i = piece * perPiece;
    const c2 = this.coefficients[i + 2] as number;
    const c3 = this.coefficients[i + 3] as number;
    if (c2 === 0 && c3 === 0) return straight;
    const start = this.knots[piece] as number;
    const c1 = this.coefficients[i + 1] as number;
    const root = Math.sqrt(c2 * c2 - 3 * c1 * c3);
    const q = -(c2 + (c2 < 0 ? -root : root));
    return [q / (3 * c3), c1 / q]
      .map((d) => start + d)
      .filter((x) => x > start && x < (this.knots[piece + 1] as number))
      .sort((a, b) => a - b);
  }

  /** The least and the greatest value of every piece, worked out once. */
  get reach(): { readonly low: Float64Array; readonly high: Float64Array } {
    this.knownReach ??= this.findReach();
    return this.knownReach;
  }

  private findReach() {
    const [low, high] = [new Float64Array(this.pieceCount), new Float64Array(this.pieceCount)];
    for (let piece = 0; piece < this.pieceCount; piece++) {
      const places = [this.knots[piece] as number, ...this.turnsOf(piece), this.knots[piece + 1] as number];
      const values = places.map((x) => this.valueOn(piece, x));
      low[piece] = Math.min(...values);
      high[piece] = Math.max(...values);
    }
    return { low, high };
  }

  private coefficientsOf(piece: number): Float64Array {
    return this.coefficients.subarray(piece * perPiece, (piece + 1) * perPiece);
  }

  /** The value at an exact place; null where there is none, or none that is known to the last digit. */
  exactAt(x: Rational): Rational | null {
    const near = rational.toNumber(x);
    if (!this.isWithin(near)) return null;
    const piece = this.pieceAt(near);
    const knot = [piece, piece + 1].find((i) => rational.equals((this.points[i] as ExactPoint).x, x));
    if (knot !== undefined && this.order === 0) return (this.points[knot] as ExactPoint).y;
    if (this.shape === 'smooth' || (knot !== undefined && this.open[knot] === 1)) return null;
    const [value = rational.zero, slope = rational.zero] = this.exactPiece(piece);
    const distance = rational.subtract(x, (this.points[piece] as ExactPoint).x);
    return rational.add(value, rational.multiply(slope, distance));
  }

  /** The coefficients of a piece, ascending, as what they are exactly. */
  exactPiece(piece: number): readonly Rational[] {
    const given =
      this.shape === 'broken'
        ? exactLine(this.points[piece] as ExactPoint, this.points[piece + 1] as ExactPoint)
        : null;
    if (!given) return [...this.coefficientsOf(piece)].map(rational.fromDouble);
    return this.order === 0 ? given : this.order === 1 ? given.slice(1) : [rational.zero];
  }

  /** ∫ from a to b, exact up to rounding; NaN where the table does not reach. */
  integral(a: number, b: number): number {
    if (a === b) return 0;
    return this.isWithin(a) && this.isWithin(b) ? this.totalUpTo(b) - this.totalUpTo(a) : NaN;
  }

  private totalUpTo(x: number): number {
    this.knownTotals ??= this.findTotals();
    const piece = this.pieceAt(x);
    return (this.knownTotals[piece] as number) + this.totalOn(piece, x);
  }

  /** ∫ over each piece and all before it, up to each knot. */
  private findTotals(): Float64Array {
    const totals = new Float64Array(this.knots.length);
    for (let i = 0; i < this.pieceCount; i++) {
      totals[i + 1] = (totals[i] as number) + this.totalOn(i, this.knots[i + 1] as number);
    }
    return totals;
  }

  /** ∫ of a piece from its left knot to x. */
  private totalOn(piece: number, x: number): number {
    const d = x - (this.knots[piece] as number);
    const [c0 = 0, c1 = 0, c2 = 0, c3 = 0] = this.coefficientsOf(piece);
    return d * (c0 + d * (c1 / 2 + d * (c2 / 3 + (d * c3) / 4)));
  }

  /** An enclosure of every value for arguments in an interval. */
  enclose(x: Interval): Interval {
    const [first, last] = [this.knots[0] as number, this.knots[this.pieceCount] as number];
    if (intervals.isNothing(x) || x.high < first || x.low > last) return intervals.nothing;
    const [from, to] = [Math.max(x.low, first), Math.min(x.high, last)];
    const [i, j] = [this.pieceAt(from), this.pieceAt(to)];
    const right = Math.min(to, this.knots[i + 1] as number);
    let range = this.encloseOn(i, from, right);
    if (j > i) range = hull(range, this.encloseOn(j, this.knots[j] as number, to));
    range = hull(range, this.encloseWhole(i + 1, j));
    const isInside = x.low >= first && x.high <= last && !this.hasOpenKnot(i, j, from, to);
    return { low: range.low, high: range.high, sure: x.sure && isInside };
  }

  private hasOpenKnot(i: number, j: number, from: number, to: number): boolean {
    if (this.order === 0) return false;
    for (let k = i; k <= j + 1; k++) {
      const knot = this.knots[k] as number;
      if (this.open[k] === 1 && knot >= from && knot <= to) return true;
    }
    return false;
  }

  /** Pieces from i up to but not including j, whole. */
  private encloseWhole(i: number, j: number): Interval | null {
    if (j <= i) return null;
    const { pieces, blocks } = this.enclosures();
    let range: Interval | null = null;
    for (let k = i; k < j;) {
      const isBlock = k % perBlock === 0 && k + perBlock <= j;
      range = hull((isBlock ? blocks[k / perBlock] : pieces[k]) as Interval, range);
      k += isBlock ? perBlock : 1;
    }
    return range;
  }

  private enclosures() {
    if (!this.known) {
      const pieces = Array.from({ length: this.pieceCount }, (_, i) =>
        this.encloseOn(i, this.knots[i] as number, this.knots[i + 1] as number),
      );
      const blocks: Interval[] = [];
      for (let k = 0; k < pieces.length; k += perBlock) {
        blocks.push(pieces.slice(k, k + perBlock).reduce((range, piece) => hull(range, piece)));
      }
      this.known = { pieces, blocks };
    }
    return this.known;
  }

  /**
   * A part of a piece lies between the least and the greatest of its control values.
   * Source: Farin, Curves and Surfaces for CAGD (5th ed.), section 5.1 (Bernstein form), convex hull property.
   */
  private encloseOn(piece: number, from: number, to: number): Interval {
    const { add, multiply, subtract, exactly, outward } = intervals;
    const u = subtract(exactly(from), exactly(this.knots[piece] as number));
    const width = subtract(exactly(to), exactly(from));
    // The nearest doubles of a line's coefficients are off by half a unit in the last place.
    const coefficient = (power: number): Interval => {
      const c = this.coefficients[piece * perPiece + power] as number;
      return c === 0 ? exactly(0) : outward(c, c);
    };
    const [c0, c1, c2, c3] = [coefficient(0), coefficient(1), coefficient(2), coefficient(3)];
    const steeper = multiply(multiply(three, c3), u);
    const a2 = add(c2, steeper);
    const a1 = add(c1, multiply(u, add(multiply(two, c2), steeper)));
    const a0 = add(c0, multiply(u, add(c1, multiply(u, add(c2, multiply(u, c3))))));
    const rise = multiply(a1, width);
    const square = multiply(width, width);
    const bend = multiply(a2, square);
    const end = add(add(add(a0, rise), bend), multiply(c3, multiply(width, square)));
    let range = hull(a0, end);
    const isStraight = c2.low === 0 && c2.high === 0 && c3.low === 0 && c3.high === 0;
    if (!isStraight) {
      const third = multiply(rise, oneThird);
      range = hull(range, add(a0, third));
      range = hull(range, add(add(a0, multiply(two, third)), multiply(bend, oneThird)));
    }
    return range;
  }

  /** The Taylor coefficients where the argument moves along a given jet; from one side of a knot where asked. */
  jet(u: Jet, beside: -1 | 0 | 1): Jet {
    const x = u[0] as number;
    if (u.every((c, k) => k === 0 || c === 0)) return jet.constantJet(this.value(x), u.length);
    const taylor = this.taylor(x, beside === 0 ? 0 : movesTo(u, beside));
    // A power whose coefficient is unknown leaves every higher one unknown.
    const unknown = taylor.findIndex(Number.isNaN);
    const known = unknown < 0 ? taylor : taylor.slice(0, unknown);
    const moved = u.map((c, k) => (k === 0 ? 0 : c));
    const value = known.reduceRight(
      (rest, c) => jet.add(jet.constantJet(c, u.length), jet.multiply(rest, moved)),
      jet.constantJet(0, u.length),
    );
    return unknown < 0 ? value : value.fill(NaN, unknown);
  }

  private taylor(x: number, side: -1 | 0 | 1): number[] {
    const nowhere = Array.from({ length: perPiece }, () => NaN);
    if (!this.isWithin(x)) return nowhere;
    const piece = this.pieceAt(x);
    const last = this.pieceCount - 1;
    const isRightEnd = piece === last && x === this.knots[last + 1];
    const isKnot = x === this.knots[piece] || isRightEnd;
    if (!isKnot) return this.expandedAt(piece, x);
    const [left, right] = isRightEnd ? [last, -1] : [piece - 1, piece];
    if (side < 0) return left < 0 ? nowhere : this.expandedAt(left, x);
    if (side > 0) return right < 0 ? nowhere : this.expandedAt(right, x);
    const value = this.value(x);
    if (left < 0 || right < 0) return nowhere.map((_, k) => (k === 0 ? value : NaN));
    return this.joined(this.expandedAt(left, x), this.expandedAt(right, x), value);
  }

  /** Coefficients at a knot, as far as they are the same on both sides. */
  private joined(left: readonly number[], right: readonly number[], value: number): number[] {
    const smooth = (this.shape === 'broken' ? 0 : 2) - this.order;
    let goesOn = !Number.isNaN(value);
    return right.map((c, k) => {
      if (k === 0) return value;
      goesOn &&= k <= smooth || c === left[k];
      return goesOn ? c : NaN;
    });
  }

  private expandedAt(piece: number, x: number): number[] {
    const d = x - (this.knots[piece] as number);
    const [c0, c1, c2, c3] = this.coefficientsOf(piece) as unknown as [number, number, number, number];
    return [c0 + d * (c1 + d * (c2 + d * c3)), c1 + d * (2 * c2 + d * 3 * c3), c2 + 3 * c3 * d, c3];
  }
}

/** A straight piece turns nowhere. */
const straight: readonly number[] = [];

const two = intervals.exactly(2);
const three = intervals.exactly(3);
const oneThird = intervals.outward(1 / 3, 1 / 3);

function hull(a: Interval, b: Interval | null): Interval {
  return b ? { low: Math.min(a.low, b.low), high: Math.max(a.high, b.high), sure: a.sure && b.sure } : a;
}

/** The side of its value to which a jet moves as its own place is approached from `side`. */
function movesTo(u: Jet, side: -1 | 1): -1 | 0 | 1 {
  return jet.signBeside(
    u.map((c, k) => (k === 0 ? 0 : c)),
    side,
  );
}

function exactLine(left: ExactPoint, right: ExactPoint): readonly Rational[] {
  const slope = rational.divide(rational.subtract(right.y, left.y), rational.subtract(right.x, left.x));
  return [left.y, slope];
}

function linear(points: readonly ExactPoint[]): Float64Array {
  const coefficients = new Float64Array((points.length - 1) * perPiece);
  for (let i = 0; i + 1 < points.length; i++) {
    const line = exactLine(points[i] as ExactPoint, points[i + 1] as ExactPoint);
    coefficients.set(line.map(rational.toNumber), i * perPiece);
  }
  return coefficients;
}

/**
 * The natural cubic spline: second derivatives from a tridiagonal system, 0 at both ends.
 * Source: Burden & Faires, Numerical Analysis (9th ed.), section 3.5, algorithm 3.4.
 */
function naturalCubic(points: readonly ExactPoint[], knots: Float64Array): Float64Array {
  const n = knots.length - 1;
  const heights = Float64Array.from(points, ({ y }) => rational.toNumber(y));
  const at = (list: Float64Array, i: number): number => list[i] as number;
  const width = (i: number): number => at(knots, i + 1) - at(knots, i);
  const chord = (i: number): number => (at(heights, i + 1) - at(heights, i)) / width(i);
  const [upper, right, bends] = [new Float64Array(n + 1), new Float64Array(n + 1), new Float64Array(n + 1)];
  for (let i = 1; i < n; i++) {
    const pivot = 2 * (width(i - 1) + width(i)) - width(i - 1) * at(upper, i - 1);
    upper[i] = width(i) / pivot;
    right[i] = (6 * (chord(i) - chord(i - 1)) - width(i - 1) * at(right, i - 1)) / pivot;
  }
  for (let i = n - 1; i >= 1; i--) bends[i] = at(right, i) - at(upper, i) * at(bends, i + 1);
  const coefficients = new Float64Array(n * perPiece);
  for (let i = 0; i < n; i++) {
    const [left, rightBend] = [at(bends, i), at(bends, i + 1)];
    const slope = chord(i) - (width(i) * (2 * left + rightBend)) / 6;
    coefficients.set([at(heights, i), slope, left / 2, (rightBend - left) / (6 * width(i))], i * perPiece);
  }
  return coefficients;
}
