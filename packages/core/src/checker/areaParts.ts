import type { Expression } from '../language/tree.ts';
import { evaluate, type Course } from './evaluate.ts';
import { withinRules } from './literals.ts';
import * as n from './numbers.ts';
import type { Float, Range } from './numbers.ts';
import { divided } from './quotients.ts';

/** Taylor coefficients over a part: the last is of even order, so that its power has one sign. */
const length = 13;
/** How often a part may be halved. */
const mostHalvings = 8;
/** Parts that may be halved for one certificate. */
const mostParts = 400;

/** A part of the axis with bounds of the area over it. */
export interface Part {
  readonly from: number;
  readonly to: number;
  readonly range: Range;
}

/**
 * The area under a function over parts of the axis: each is enclosed by a Taylor polynomial at its middle with its remainder
 * (Moore, Interval Analysis, 1966; from memory), or by the range of values times the width.
 */
export class AreaParts {
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

  /** Bounds over all parts together, about as narrow as asked for; null where some part has none. */
  within(ends: readonly number[], width: number): Range | null {
    const share = n.fromDouble(width / ends.length);
    return (
      this.inParts(ends)
        ?.map((part) => this.narrowed(part, share).range)
        .reduce(n.add) ?? null
    );
  }

  /** The area from a power of 2 to a number not above its double: up to the double below it, and what little is left. */
  sliver(from: number, to: Range, allowed: number): Range | null {
    const double = n.toDouble(to.low);
    const below = n.compare(n.fromDouble(double), to.low) > 0 ? double * (1 - Number.EPSILON) : double;
    const whole = below > from ? this.within([from, below], allowed) : n.whole(0);
    const width = n.subtract(to, n.point(n.fromDouble(Math.max(from, below))));
    if (n.signOfRange(width) === 0) return whole;
    const part = { low: n.fromDouble(Math.max(from, below)), high: to.high };
    const courses = evaluate(this.body, this.variable, part, 1);
    if (courses.length === 0 || !courses.every(({ isWhole }) => isWhole)) return null;
    const values = courses.map((course) => divided(course)[0] as Range).reduce(n.hull);
    return whole && n.isBounded(values) ? n.add(whole, n.multiply(values, width)) : null;
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
