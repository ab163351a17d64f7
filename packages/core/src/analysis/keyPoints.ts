import * as rational from '../numbers/rational.ts';
import { exactValue } from '../algebra/exact.ts';
import { literalRational } from '../algebra/exponent.ts';
import { isExactlyZero } from '../limit/constantSign.ts';
import * as tree from '../language/tree.ts';
import type { Expression } from '../language/tree.ts';
import * as big from '../numbers/bigFloat.ts';
import { Arcs, type Arc, type SideLimit } from './arcs.ts';
import { compareHeights, isZeroHeight, type Height } from './height.ts';
import type { Box } from './isolate.ts';
import { comparePlaces, type Place } from './place.ts';
import { refuseSingleValues } from './singleValues.ts';

export type KeyPointKind =
  | 'endpoint'
  /** Where a stretch of the domain ends without the end itself. */
  | 'openEnd'
  | 'zero'
  | 'maximum'
  | 'minimum'
  | 'inflection'
  | 'pole'
  | 'jump'
  | 'hole'
  | 'corner'
  | 'cusp';

/** A limit from one side, with the number itself where algebra knows it. */
export interface SideHeight {
  readonly value: number;
  readonly exact: Expression | null;
}

/** What an end point is beside the values next to it; 'both' where the function is level there. */
export type EndExtreme = 'maximum' | 'minimum' | 'both';

export interface KeyPoint {
  readonly kind: KeyPointKind;
  readonly x: number;
  /** The value there; of a hole or an open end the limit, of a pole null, of a jump null where it has no value. */
  readonly y: number | null;
  readonly exact: Expression | null;
  readonly proved: boolean;
  /**
   * Of end points, maxima and minima: whether the value is the largest or smallest on the interval; null where
   * that is not proved. Undefined for other kinds.
   */
  readonly absolute?: boolean | null;
  /** Of an end point: which extreme it is, local at least; null where the values beside it do not tell. */
  readonly extreme?: EndExtreme | null;
  /** Of a jump, hole or open end: what f tends to from the left and the right; null where there is no such limit. */
  readonly sides?: { readonly left: SideHeight | null; readonly right: SideHeight | null };
}

export interface KeyPoints {
  readonly points: readonly KeyPoint[];
  /** Whether the list is proved to hold every key point of the interval. */
  readonly complete: boolean;
  readonly undecided: readonly Box[];
  readonly hasTooManyJumps: boolean;
}

/**
 * The key points on [a, b]: ends, zeros, extrema, inflections, poles, jumps, holes, corners and cusps, in ascending
 * order of x.
 * @param body a formula in the variable alone
 * @param order which derivative of it is looked at; 0 for the function itself
 * @param depth 2; 1 leaves inflections out, so that nothing about them can stay undecided
 * @throws TooLarge where the function falls into too many pieces or its derivatives grow too long
 * @throws SingleValues where the function has values at single numbers only
 */
export function keyPoints(
  body: Expression,
  variable: string,
  interval: readonly [number, number],
  order = 0,
  depth: 1 | 2 = 2,
): KeyPoints {
  refuseSingleValues(body, variable);
  return new KeyPointFinder(new Arcs(body, variable, interval, depth, order), depth).find();
}

/** What is known at one place: the value, and on either side the limit and the signs of f, f′ and f″. */
interface Look {
  readonly place: Place;
  readonly value: Height | null;
  readonly left: SideLook;
  readonly right: SideLook;
  readonly isJoint: boolean;
}

interface SideLook {
  readonly arc: Arc | null;
  readonly limit: SideLimit;
  /** Of f, f′, f″ beside the place; NaN where there is no function. */
  readonly signs: readonly number[];
}

class KeyPointFinder {
  constructor(
    private readonly arcs: Arcs,
    private readonly depth: 1 | 2,
  ) {}

  find(): KeyPoints {
    const looks = this.arcs.eventsUpTo(this.depth).map((place) => this.look(place));
    const drafts = looks.flatMap((look) => this.kindsAt(look).map((kind) => ({ kind, look })));
    const { undecided } = this.arcs;
    const swings = looks.some(({ left, right }) =>
      [left, right].some((side) => side.arc?.derivatives && isUnknown(side.limit)),
    );
    const complete = undecided.length === 0 && !swings;
    const heights = new Heights(this.arcs, looks, complete);
    const points = drafts.map(({ kind, look }) => this.point(kind, look, heights, undecided));
    return {
      points,
      complete: complete && points.every(({ proved }) => proved),
      undecided,
      hasTooManyJumps: this.arcs.hasTooManyJumps,
    };
  }

  private look(place: Place): Look {
    const isJoint = this.arcs.joints.includes(place);
    const { left, right } = this.arcs.arcsAt(place);
    const isBesideOpen = isJoint && [left, right].some((arc) => arc?.isOpen);
    const value = this.arcs.valueAt(place) ?? (isBesideOpen ? this.arcs.seenAt(place) : null);
    if (isJoint) {
      return {
        place,
        value,
        isJoint,
        left: this.side(left, place, 'left'),
        right: this.side(right, place, 'right'),
      };
    }
    const arc = this.arcs.arcs.find(
      ({ from, to }) => comparePlaces(from, place) < 0 && comparePlaces(place, to) < 0,
    ) as Arc;
    const limit: SideLimit = value
      ? { kind: 'finite', height: value, isAnalytic: true }
      : { kind: 'undecided' };
    return {
      place,
      value,
      isJoint,
      left: { arc, limit, signs: this.signsBeside(arc, place, 'left') },
      right: { arc, limit, signs: this.signsBeside(arc, place, 'right') },
    };
  }

  private side(arc: Arc | null, place: Place, side: 'left' | 'right'): SideLook {
    return {
      arc,
      limit: this.arcs.limitAlong(arc, place, 0),
      signs: this.signsBeside(arc, place, side),
    };
  }

  private signsBeside(arc: Arc | null, place: Place, side: 'left' | 'right'): number[] {
    return [0, 1, 2].map((order) => {
      const stretches = arc?.derivatives ? this.arcs.signsOn(arc, order) : [];
      const beside = stretches.find((stretch) =>
        side === 'left'
          ? comparePlaces(stretch.from, place) < 0 && comparePlaces(place, stretch.to) <= 0
          : comparePlaces(stretch.from, place) <= 0 && comparePlaces(place, stretch.to) < 0,
      );
      return beside?.sign ?? NaN;
    });
  }

  private kindsAt(look: Look): KeyPointKind[] {
    const { place, value, left, right } = look;
    const isEnd = place === this.arcs.from || place === this.arcs.to;
    const kinds: KeyPointKind[] = [];
    // Where a part begins of which nothing is decided, nothing is known of the place either.
    if (!isEnd && (left.arc?.isOpen || right.arc?.isOpen)) return kinds;
    if (isEnd && value) kinds.push('endpoint');
    const isDomainEnd =
      !isEnd && value !== null && (left.arc?.derivatives ? 1 : 0) + (right.arc?.derivatives ? 1 : 0) === 1;
    if (isDomainEnd) kinds.push('endpoint');
    if (value && isZeroHeight(value) && this.isIsolatedZero(look)) kinds.push('zero');
    const broken = this.breakAt(look);
    if (broken) kinds.push(broken);
    if (!isEnd && !isDomainEnd && value) {
      const extremum = extremumAt(look, value, this.arcs);
      if (extremum) kinds.push(extremum);
    }
    if (broken === null && !isEnd && !isDomainEnd) kinds.push(...this.shapeAt(look));
    return kinds;
  }

  /** A zero in the middle of a stretch of zeros is none of its own. */
  private isIsolatedZero({ left, right }: Look): boolean {
    const isLevel = (side: SideLook): boolean => side.signs[0] === 0;
    return !(isLevel(left) || isLevel(right));
  }

  /** A pole, hole, jump or open end. */
  private breakAt({ place, value, left, right, isJoint }: Look): 'pole' | 'hole' | 'jump' | 'openEnd' | null {
    if (!isJoint) return null;
    const limits = [left, right].filter((side) => side.arc?.derivatives).map((side) => side.limit);
    if (limits.length === 0) return null;
    if (limits.some((limit) => limit.kind === 'infinite')) return 'pole';
    if (limits.some((limit) => limit.kind !== 'finite')) return null;
    const values = limits.map((limit) => (limit as SideLimit & { kind: 'finite' }).height);
    const [first] = values as [Height];
    const isSame = (a: Height, b: Height): boolean => this.arcs.areSame(a, b, place);
    if (values.length === 1) {
      if (value) return isSame(value, first) ? null : 'jump';
      return this.arcs.goesOnBeyond(place) ? 'hole' : 'openEnd';
    }
    if (!isSame(first, values[1] as Height)) return 'jump';
    return value === null || !isSame(value, first) ? 'hole' : null;
  }

  /** A corner, a cusp or an inflection of a continuous function. */
  private shapeAt(look: Look): KeyPointKind[] {
    const { place, value, left, right, isJoint } = look;
    if (!value || !left.arc?.derivatives || !right.arc?.derivatives) return [];
    if (left.limit.kind !== 'finite' || right.limit.kind !== 'finite') return [];
    const bends = left.signs[2] === -(right.signs[2] as number) && left.signs[2] !== 0;
    if (!isJoint) return bends ? ['inflection'] : [];
    const slopes = [left, right].map((side) => this.arcs.limitAlong(side.arc, place, 1));
    const [a, b] = slopes as [SideLimit, SideLimit];
    if (a.kind === 'infinite' && b.kind === 'infinite') {
      if (a.sign !== b.sign) return ['cusp'];
      return bends ? ['inflection'] : [];
    }
    if (a.kind === 'finite' && b.kind === 'finite' && this.arcs.areSame(a.height, b.height, place)) {
      return bends ? ['inflection'] : [];
    }
    return ['corner'];
  }

  private point(kind: KeyPointKind, look: Look, heights: Heights, undecided: readonly Box[]): KeyPoint {
    const { place, value } = look;
    const hidden = undecided.some((box) => box.low <= place.high && box.high >= place.low);
    const isExtreme = kind === 'maximum' || kind === 'minimum' || kind === 'endpoint';
    const absolute = isExtreme && value ? heights.isAbsolute(kind, place, value) : undefined;
    return {
      kind,
      x: place.value,
      y: this.height(kind, look),
      exact: place.exact,
      proved: !hidden && this.isProved(kind, look),
      ...(absolute === undefined ? {} : { absolute }),
      ...(kind === 'endpoint' && value ? { extreme: this.extremeAtEnd(look, value, heights) } : {}),
      ...(brokenKinds.has(kind)
        ? { sides: { left: heightFrom(look.left), right: heightFrom(look.right) } }
        : {}),
    };
  }

  /** Which extreme an end point is among the values beside it; of one that is both, the one that it is of all. */
  private extremeAtEnd({ left, right, place }: Look, value: Height, heights: Heights): EndExtreme | null {
    const isSame = (limit: Height): boolean => this.arcs.areSame(limit, value, place);
    const beside = neighbour(left, value, -1, isSame) ?? neighbour(right, value, 1, isSame);
    if (beside !== 'level') return beside && (beside === 'below' ? 'maximum' : 'minimum');
    const [isHighest, isLowest] = ([1, -1] as const).map((way) => heights.isHighest(place, value, way));
    return isHighest === isLowest ? 'both' : isHighest ? 'maximum' : 'minimum';
  }

  private height(kind: KeyPointKind, { value, left, right }: Look): number | null {
    if (kind === 'pole') return null;
    if (kind !== 'hole' && kind !== 'openEnd') return value && big.toDouble(value.value);
    return (heightFrom(left) ?? heightFrom(right))?.value ?? null;
  }

  /** What rests on limits that nothing shows is not proved. */
  private isProved(kind: KeyPointKind, { place, left, right, isJoint }: Look): boolean {
    if (!isJoint || kind === 'endpoint' || kind === 'zero') return true;
    const orders = kind === 'corner' || kind === 'cusp' || kind === 'inflection' ? [0, 1] : [0];
    return [left, right].every(({ arc }) =>
      orders.every((order) => this.arcs.limitAlong(arc, place, order).kind !== 'undecided'),
    );
  }
}

const brokenKinds: ReadonlySet<KeyPointKind> = new Set(['jump', 'hole', 'openEnd']);

const heightFrom = ({ limit }: SideLook): SideHeight | null =>
  limit.kind === 'finite' ? { value: big.toDouble(limit.height.value), exact: limit.height.exact } : null;

const isUnknown = ({ kind }: SideLimit): boolean => kind === 'none' || kind === 'undecided';

type Neighbour = 'below' | 'above' | 'level';

function extremumAt({ left, right, place }: Look, value: Height, arcs: Arcs): 'maximum' | 'minimum' | null {
  const isSame = (limit: Height): boolean => arcs.areSame(limit, value, place);
  const sides = [neighbour(left, value, -1, isSame), neighbour(right, value, 1, isSame)];
  if (sides.every((side) => side === 'below')) return 'maximum';
  return sides.every((side) => side === 'above') ? 'minimum' : null;
}

/** Where the curve lies just beside a place, seen from the value there. */
function neighbour(
  { arc, limit, signs }: SideLook,
  value: Height,
  side: 1 | -1,
  isSame: (limit: Height) => boolean,
): Neighbour | null {
  if (!arc?.derivatives) return null;
  if (limit.kind === 'infinite') return limit.sign > 0 ? 'above' : 'below';
  if (limit.kind !== 'finite') return null;
  if (!isSame(limit.height)) return compareHeights(limit.height, value) > 0 ? 'above' : 'below';
  const rise = (signs[1] as number) * side;
  return rise > 0 ? 'above' : rise < 0 ? 'below' : 'level';
}

/** Whether a is shown to be larger (smaller for −1) than b. */
const exceeds = (a: Height, b: Height, direction: 1 | -1): boolean => compareHeights(a, b) === direction;

/** The largest (1) or smallest (−1) value among heights and limits; infinite where f runs away that far. */
interface Extreme {
  readonly value: Height | null;
  readonly isInfinite: boolean;
}

/** The largest and smallest values, by comparing the heights of all places where they can be. */
class Heights {
  private readonly tops: { place: Place; value: Height }[];
  private readonly isSettled: boolean;
  private readonly extremes: ReadonlyMap<1 | -1, Extreme>;

  constructor(
    private readonly arcs: Arcs,
    private readonly looks: readonly Look[],
    isComplete: boolean,
  ) {
    this.tops = looks.flatMap(({ place, value }) => (value ? [{ place, value }] : []));
    const limits = looks.flatMap(({ left, right }) => [left.limit, right.limit]);
    this.isSettled = isComplete && !limits.some(isUnknown);
    this.extremes = new Map(
      ([1, -1] as const).map((direction) => [direction, this.extreme(limits, direction)]),
    );
  }

  private extreme(limits: readonly SideLimit[], direction: 1 | -1): Extreme {
    const approached = limits.flatMap((limit) => (limit.kind === 'finite' ? [limit.height] : []));
    let value: Height | null = null;
    for (const other of [...this.tops.map((top) => top.value), ...approached]) {
      if (!value || exceeds(other, value, direction)) value = other;
    }
    const isInfinite = limits.some((limit) => limit.kind === 'infinite' && limit.sign === direction);
    return { value, isInfinite };
  }

  isAbsolute(kind: KeyPointKind, place: Place, value: Height): boolean | null {
    if (kind === 'maximum') return this.isHighest(place, value, 1);
    if (kind === 'minimum') return this.isHighest(place, value, -1);
    const [highest, lowest] = [this.isHighest(place, value, 1), this.isHighest(place, value, -1)];
    if (highest || lowest) return true;
    return highest === null || lowest === null ? null : false;
  }

  /** Whether no value is higher (lower for −1); null where that is not proved. */
  isHighest(place: Place, value: Height, direction: 1 | -1): boolean | null {
    const extreme = this.extremes.get(direction) as Extreme;
    if (extreme.isInfinite || (extreme.value && exceeds(extreme.value, value, direction))) return false;
    if (!this.isSettled) return null;
    // What nothing tells apart may be higher.
    const ties = this.tops.filter(
      (top) => top.place !== place && Number.isNaN(compareHeights(top.value, value)),
    );
    const areProved = ties.every((top) => this.isProvedEqual(place, top.place));
    return areProved && !this.mayBeApproached(value) ? true : null;
  }

  /** Whether f tends, without reaching it, to a height that nothing tells from this one. */
  private mayBeApproached(value: Height): boolean {
    return this.looks.some((look) =>
      [look.left.limit, look.right.limit].some(
        (limit) =>
          limit.kind === 'finite' &&
          Number.isNaN(compareHeights(limit.height, value)) &&
          !(look.value && this.arcs.areSame(limit.height, look.value, look.place)),
      ),
    );
  }

  /** Whether f takes the same value at two places, by algebra or because it is constant between them. */
  private isProvedEqual(p: Place, q: Place): boolean {
    if (!p.exact || !q.exact) return false;
    const [a, b] = [p.exact, q.exact].map((exact) => this.exactValueAt(exact as Expression));
    return (a && b ? rational.equals(a, b) : false) || this.isEqualOnArcs(p, q);
  }

  private exactValueAt(exact: Expression): rational.Rational | null {
    const x = literalRational(exact);
    const isFunction = this.arcs.base === 0;
    return x && isFunction ? exactValue(this.arcs.simple, new Map([[this.arcs.variable, x]])) : null;
  }

  /** With the formulas that hold on the arcs beside the places. */
  private isEqualOnArcs(p: Place, q: Place): boolean {
    const formulas = (place: Place): Expression[] =>
      this.arcs.arcs.flatMap((arc) => {
        const body = this.arcs.bodyOf(arc, 0);
        const isBeside = comparePlaces(arc.from, place) <= 0 && comparePlaces(place, arc.to) <= 0;
        return body && isBeside ? [tree.substitute(body, this.arcs.variable, place.exact as Expression)] : [];
      });
    return formulas(p).some((left) => formulas(q).some((right) => isExactlyZero(tree.subtract(left, right))));
  }
}
