import type { Expression } from '../language/tree.ts';
import { evaluate, numberOf, type Course } from './evaluate.ts';
import { withinRules } from './literals.ts';
import * as n from './numbers.ts';
import type { Float, Range } from './numbers.ts';
import { divided } from './quotients.ts';

/** A function and the doubles between which its area is enclosed part by part, in ascending order. */
export interface AreaCertificate {
  readonly body: Expression;
  readonly variable: string;
  readonly ends: readonly number[];
}

/** What is claimed of an integral. */
export interface AreaClaim {
  readonly value: number;
  /** How far the value may be from the integral. */
  readonly bound: number;
  /** The integral as a formula, where it is called exact. */
  readonly exact: Expression | null;
}

export interface CheckedArea {
  /** Whether the bounds lie within what is claimed; of an exact value, whether they agree with it. */
  readonly isAccepted: boolean;
  /** Bounds of the integral; null where the function is not shown to be bounded and to have values everywhere. */
  readonly bounds: readonly [number, number] | null;
  /** Bounds of the area over each part. */
  readonly parts: readonly {
    readonly from: number;
    readonly to: number;
    readonly bounds: readonly [number, number];
  }[];
}

/** Taylor coefficients over a part: the last is of even order, so that its power has one sign. */
const length = 13;
/** How often a part may be halved. */
const mostHalvings = 8;
/** Parts that may be halved for one certificate. */
const mostParts = 400;
/** The width of bounds beside an exact value that tells anything, relative to the area of |f|. */
const narrow = 1e-9;

/**
 * Encloses the integral over each part by a Taylor polynomial at its middle with its remainder (Moore, Interval Analysis,
 * 1966; from memory), or by the range of values times the width, and holds what is claimed against the sum.
 */
export function checkArea({ body, variable, ends }: AreaCertificate, claim: AreaClaim): CheckedArea {
  const refused = { isAccepted: false, bounds: null, parts: [] };
  const [first, last] = [ends[0], ends.at(-1)];
  if (
    ends.length < 2 ||
    first === undefined ||
    last === undefined ||
    !ends.every((end, i) => i === 0 || end > (ends[i - 1] as number))
  )
    return refused;
  const area = new Area(body, variable);
  const rough = area.inParts(ends);
  if (!rough) return refused;
  // An exact value is held against bounds of their own width, any other against half of what is claimed.
  const size = rough.reduce((all, { range }) => all + Math.max(...outward(range).map(Math.abs)), 0);
  const allowed = claim.exact ? size * narrow : claim.bound;
  const share = ({ from, to }: Part): Float => n.fromDouble((allowed / 4) * ((to - from) / (last - first)));
  const parts = rough.map((part) => area.narrowed(part, share(part)));
  const total = parts.map(({ range }) => range).reduce(n.add);
  return {
    isAccepted: holds(claim, total, allowed),
    bounds: outward(total),
    parts: parts.map(({ from, to, range }) => ({ from, to, bounds: outward(range) })),
  };
}

function holds({ value, bound, exact }: AreaClaim, total: Range, allowed: number): boolean {
  const [middle, reach] = [n.point(n.fromDouble(value)), n.point(n.fromDouble(bound))];
  if (!exact) {
    const [lowest, highest] = [n.subtract(middle, reach), n.add(middle, reach)];
    return n.compare(lowest.low, total.low) <= 0 && n.compare(total.high, highest.high) <= 0;
  }
  const number = numberOf(exact);
  const width = n.toDouble(n.subtract(n.point(total.high), n.point(total.low)).high);
  return number !== null && n.common(number, total) !== null && width <= allowed;
}

interface Part {
  readonly from: number;
  readonly to: number;
  readonly range: Range;
}

class Area {
  private left = mostParts;

  constructor(
    private readonly body: Expression,
    private readonly variable: string,
  ) {}

  /** Bounds over each part as it is; null where some part has none. */
  inParts(ends: readonly number[]): Part[] | null {
    const parts: Part[] = [];
    for (const [i, from] of ends.slice(0, -1).entries()) {
      const to = ends[i + 1] as number;
      const range = withinRules(() => this.once(from, to));
      if (!range || !n.isBounded(range)) return null;
      parts.push({ from, to, range });
    }
    return parts;
  }

  /** A part with bounds about as narrow as asked for, by halving it. */
  narrowed(part: Part, width: Float, halvings = mostHalvings): Part {
    const { from, to, range } = part;
    const middle = from + (to - from) / 2;
    const isNarrow = n.compare(n.subtract(n.point(range.high), n.point(range.low)).high, width) <= 0;
    if (isNarrow || halvings === 0 || middle <= from || middle >= to || --this.left < 0) return part;
    const halves = withinRules(() => this.inParts([from, middle, to]));
    if (!halves) return part;
    const half = n.multiply(n.point(width), n.point(n.fromDouble(0.5))).low;
    const [left, right] = halves.map((one) => this.narrowed(one, half, halvings - 1).range);
    return left && right ? { from, to, range: n.add(left, right) } : part;
  }

  private once(from: number, to: number): Range | null {
    const courses = evaluate(this.body, this.variable, n.between(from, to), length);
    if (courses.length === 0 || !courses.every(({ isWhole }) => isWhole)) return null;
    const [low, high] = [n.point(n.fromDouble(from)), n.point(n.fromDouble(to))];
    const width = n.subtract(high, low);
    const values = courses.map((course) => divided(course)[0] as Range).reduce(n.hull);
    const rough = n.multiply(values, width);
    const [only, ...others] = courses;
    const half = n.divide(width, n.whole(2));
    const fine = only && others.length === 0 ? byTaylor(only, n.add(low, half), half) : null;
    return (fine && n.common(fine, rough)) ?? rough;
  }
}

/** Σ 2 cₖ hᵏ⁺¹/(k + 1) over even k, all at the middle but the last, which holds over the whole part. */
function byTaylor(course: Course, middle: Range, half: Range): Range | null {
  const centre = course.at(middle, length - 1);
  if (!centre) return null;
  const [there, over] = [divided(centre), divided(course)];
  let [total, power] = [n.whole(0), n.scaled(half, 1)];
  for (let k = 0; k < length; k += 2) {
    const coefficient = (k === length - 1 ? over[k] : there[k]) as Range;
    total = n.add(total, n.divide(n.multiply(coefficient, power), n.whole(k + 1)));
    power = n.multiply(power, n.multiply(half, half));
  }
  return total;
}

/** Doubles that lie outside of bounds, or at them. */
function outward({ low, high }: Range): readonly [number, number] {
  const beside = (x: number): number => Math.abs(x) * Number.EPSILON + Number.MIN_VALUE;
  const [below, above] = [n.toDouble(low), n.toDouble(high)];
  return [below - beside(below), above + beside(above)];
}
