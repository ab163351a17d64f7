import { derivativeOf } from '../algebra/differentiate.ts';
import * as tree from '../language/tree.ts';
import type { Expression } from '../language/tree.ts';
import * as big from '../limit/bigFloat.ts';
import type { BigFloat } from '../limit/bigFloat.ts';
import { oneSided } from '../limit/limit.ts';
import { evaluatePrecisely, NotPrecise } from '../limit/precise.ts';
import type { Box } from './isolate.ts';
import { inSimplerTerms, piecesOf, signInside } from './pieces.ts';
import {
  comparePlaces,
  exactPlace,
  isStrictlyBetween,
  pointPlace,
  sortedPlaces,
  type Place,
} from './place.ts';
import { numberFormula } from './question.ts';
import { Zeros } from './zeros.ts';
import { programOf } from './programs.ts';

/** An open stretch on which a function is analytic, or not defined at all. */
export interface Arc {
  readonly from: Place;
  readonly to: Place;
  /** The function and its derivatives by order; null where it is not defined. */
  readonly derivatives: readonly Expression[] | null;
}

/** A stretch between neighbouring zeros of one derivative, with its sign there. */
export interface SignedStretch {
  readonly from: Place;
  readonly to: Place;
  readonly sign: -1 | 0 | 1;
}

/** What a function does as a place is approached from one side. */
export type SideLimit =
  | { readonly kind: 'finite'; readonly value: BigFloat; readonly isAnalytic: boolean }
  | { readonly kind: 'infinite'; readonly sign: 1 | -1 }
  | { readonly kind: 'undefined' }
  | { readonly kind: 'none' };

/** Binary digits to which values at places are worked out. */
export const valueBits = 400;
/** Values below 2 to this may be what rounding leaves of 0. */
const lastDigits = -300n;
/** How far beyond the interval zeros are looked for, so that those at its ends are inside. */
const overhang = 1e-3;

/**
 * A function on an interval, or one of its derivatives, taken apart into arcs between joints. Everything else is read off it: zeros and
 * signs of the function and its derivatives on the arcs, limits and values at the joints.
 */
export class Arcs {
  readonly from: Place;
  readonly to: Place;
  readonly arcs: readonly Arc[];
  /** The ends of the interval and all places between arcs, in ascending order. */
  readonly joints: readonly Place[];
  readonly zeros: Zeros;
  private readonly boxes: Box[] = [];
  /** Parts in which the function may fall into more arcs than are known. */
  private readonly openParts: Box[] = [];
  private readonly knownSigns = new WeakMap<Arc, Map<number, readonly SignedStretch[]>>();
  /** The function in simpler terms: what holds at the joints, too. */
  readonly simple: Expression;

  /**
   * @param body a formula in the variable alone
   * @param orders how many derivatives will be asked about
   * @throws TooLarge where the function falls into too many pieces or its derivatives grow too long
   */
  constructor(
    readonly body: Expression,
    readonly variable: string,
    [a, b]: readonly [number, number],
    private readonly orders: number,
    readonly base = 0,
  ) {
    this.simple = inSimplerTerms(body);
    this.from = exactPlace(numberFormula(a)) as Place;
    this.to = exactPlace(numberFormula(b)) as Place;
    const beyond = (b - a) * overhang;
    this.zeros = new Zeros(variable, a - beyond, b + beyond);
    const { pieces, undecided } = piecesOf(body, this.zeros, this.from, this.to);
    this.openParts.push(...undecided);
    this.arcs = pieces.flatMap((piece) => this.arcsOf(piece.body, piece.from, piece.to));
    this.joints = [this.from, ...this.arcs.map((arc) => arc.to)];
    this.boxes.push(...this.openParts);
  }

  /** Parts of the interval in which something stayed undecided. */
  get undecided(): readonly Box[] {
    const [a, b] = [this.from.value, this.to.value];
    const inside = this.boxes
      .filter((box) => box.high >= a && box.low <= b)
      .map((box) => ({ low: Math.max(a, box.low), high: Math.min(b, box.high) }))
      .sort((p, q) => p.low - q.low);
    const merged: Box[] = [];
    for (const box of inside) {
      const last = merged.at(-1);
      if (last && box.low <= last.high) {
        merged[merged.length - 1] = { low: last.low, high: Math.max(last.high, box.high) };
      } else merged.push(box);
    }
    return merged;
  }

  /** Notes what stayed undecided between two places. */
  addUndecided(boxes: readonly Box[], from: Place, to: Place): void {
    this.boxes.push(...boxes.filter((box) => box.high > from.value && box.low < to.value));
  }

  private arcsOf(body: Expression | null, from: Place, to: Place): Arc[] {
    if (!body) {
      this.noteSinglePoints(this.simple, from, to);
      return [{ from, to, derivatives: null }];
    }
    const breaks = this.zeros.breaksOfBody(body);
    this.openParts.push(...breaks.undecided);
    const ends = [from, ...breaks.roots.filter((place) => isStrictlyBetween(place, from, to)), to];
    return ends.slice(1).map((end, i) => {
      const start = ends[i] as Place;
      const isDefined = !Number.isNaN(signInside(body, this.variable, start, end));
      if (!isDefined) this.noteSinglePoints(body, start, end);
      return { from: start, to: end, derivatives: isDefined ? this.withDerivatives(body) : null };
    });
  }

  /** (−2)^x has values at whole x alone: single points that no arc holds. */
  private noteSinglePoints(body: Expression, from: Place, to: Place): void {
    if (hasMovingExponent(body, this.variable)) this.openParts.push({ low: from.value, high: to.value });
  }

  private withDerivatives(body: Expression): Expression[] {
    const bodies = [body];
    for (let k = 0; k < this.base + this.orders; k++) {
      bodies.push(derivativeOf(bodies.at(-1) as Expression, this.variable));
    }
    return bodies;
  }

  /** The formula on an arc of the derivative of the given order; null where there is none. */
  bodyOf(arc: Arc | null, order: number): Expression | null {
    return arc?.derivatives?.[this.base + order] ?? null;
  }

  /** The zeros inside an arc of the derivative of the given order. */
  zerosOn(arc: Arc, order: number): readonly Place[] {
    const body = this.bodyOf(arc, order);
    if (!body) return [];
    const set = this.zeros.of(body);
    this.addUndecided(set.undecided, arc.from, arc.to);
    return set.isZero ? [] : set.roots.filter((root) => isStrictlyBetween(root, arc.from, arc.to));
  }

  /** The stretches of an arc on which the derivative of the given order keeps its sign. */
  signsOn(arc: Arc, order: number): readonly SignedStretch[] {
    const known = this.knownSigns.get(arc) ?? new Map<number, readonly SignedStretch[]>();
    this.knownSigns.set(arc, known);
    const found = known.get(order) ?? this.findSigns(arc, order);
    known.set(order, found);
    return found;
  }

  private findSigns(arc: Arc, order: number): readonly SignedStretch[] {
    const body = this.bodyOf(arc, order);
    if (!body) return [];
    if (this.zeros.of(body).isZero) return [{ from: arc.from, to: arc.to, sign: 0 }];
    const ends = [arc.from, ...this.zerosOn(arc, order), arc.to];
    const open = [...this.openParts, ...this.zeros.of(body).undecided];
    return ends.slice(1).flatMap((end, i) =>
      without(open, ends[i] as Place, end).flatMap(({ from, to }) => {
        const sign = signInside(body, this.variable, from, to);
        return Number.isNaN(sign) ? [] : [{ from, to, sign: sign as -1 | 0 | 1 }];
      }),
    );
  }

  /** The arc that ends at a joint, and the one that begins there. */
  arcsAt(joint: Place): { left: Arc | null; right: Arc | null } {
    const i = this.joints.indexOf(joint);
    return { left: this.arcs[i - 1] ?? null, right: this.arcs[i] ?? null };
  }

  /** The derivative of the given order as a joint is approached along an arc. */
  limitAlong(arc: Arc | null, joint: Place, order: number): SideLimit {
    const body = this.bodyOf(arc, order);
    if (!arc || !body) return { kind: 'undefined' };
    const isSingular = this.zeros.breaksOfBody(body).roots.some((place) => comparePlaces(place, joint) === 0);
    if (!isSingular) {
      const value = this.valueOnArc(body, joint);
      if (value) return { kind: 'finite', value, isAnalytic: true };
    }
    const limit = oneSided(programOf(body, this.variable), joint.at, arc.to === joint ? -1 : 1);
    return limit.kind === 'finite'
      ? { kind: 'finite', value: big.fromDouble(limit.value), isAnalytic: false }
      : limit;
  }

  private valueOf(body: Expression, place: Place): BigFloat | null {
    try {
      return evaluatePrecisely(programOf(body, this.variable), place.at(valueBits), [], valueBits);
    } catch (error) {
      if (error instanceof NotPrecise || error instanceof big.OutOfRange) return null;
      throw error;
    }
  }

  /** The value at any place; null where there is none. */
  valueAt(place: Place): BigFloat | null {
    if (this.joints.includes(place)) return this.derivativeAt(place, 0);
    const arc = this.arcs.find(({ from, to }) => isStrictlyBetween(place, from, to));
    const body = arc && this.bodyOf(arc, 0);
    return body ? this.valueOnArc(body, place) : null;
  }

  /** The value of an arc's formula; exactly 0 at a proved zero, where evaluation leaves a last digit. */
  private valueOnArc(body: Expression, place: Place): BigFloat | null {
    const value = this.valueOf(body, place);
    if (!value || big.isZero(value) || big.order(value) > lastDigits) return value;
    const { roots, isZero } = this.zeros.of(body);
    return isZero || roots.some((root) => comparePlaces(root, place) === 0) ? big.zero : value;
  }

  /** The value of the whole formula at a joint; exactly 0 where an arc beside it shows that. */
  private valueAtJoint(joint: Place): BigFloat | null {
    const value = this.valueOf(this.simple, joint);
    if (!value || big.isZero(value) || big.order(value) > lastDigits) return value;
    const isZero = this.arcs.some(({ from, to, derivatives }) => {
      const body = from === joint || to === joint ? derivatives?.[0] : undefined;
      const beside = body && this.valueOnArc(body, joint);
      return beside ? big.isZero(beside) : false;
    });
    return isZero ? big.zero : value;
  }

  /**
   * The derivative of the given order at a joint, where it exists: where all lower ones are continuous and it
   * tends to one value from both sides. At the ends of the interval the side inside tells.
   */
  derivativeAt(joint: Place, order: number): BigFloat | null {
    let value = this.valueAtJoint(joint);
    const { left, right } = this.arcsAt(joint);
    const sides = [left, right].filter((arc) => arc !== null);
    for (let k = 0; k < this.base + order && value; k++) {
      const heights = sides.map((arc) => this.limitAlong(arc, joint, k - this.base));
      if (!commonValue(heights, value)) return null;
      value = commonValue(
        sides.map((arc) => this.limitAlong(arc, joint, k + 1 - this.base)),
        null,
      );
    }
    return value;
  }

  /** Every place at which the function or a derivative up to the given order is 0 on an arc, or at a joint. */
  eventsUpTo(order: number): readonly Place[] {
    const inside = this.arcs.flatMap((arc) =>
      Array.from({ length: order + 1 }, (_, k) => this.zerosOn(arc, k)).flat(),
    );
    return sortedPlaces([...this.joints, ...inside]);
  }
}

function hasMovingExponent(node: Expression, variable: string): boolean {
  const isMoving = node.kind === 'power' && tree.dependsOn(node.exponent, variable);
  return isMoving || tree.children(node).some((part) => hasMovingExponent(part, variable));
}

/** What is left of a stretch when boxes are taken out of it. */
function without(boxes: readonly Box[], start: Place, end: Place): { from: Place; to: Place }[] {
  let parts = [{ from: start, to: end }];
  for (const { low, high } of boxes) {
    parts = parts.flatMap((part) => {
      if (high < part.from.low || low > part.to.high) return [part];
      const before = low > part.from.high ? [{ from: part.from, to: pointPlace(low) }] : [];
      const behind = high < part.to.low ? [{ from: pointPlace(high), to: part.to }] : [];
      return [...before, ...behind];
    });
  }
  return parts;
}

/** The value that both sides tend to, and that is the given one if there is one; null where they do not agree. */
function commonValue(sides: readonly SideLimit[], given: BigFloat | null): BigFloat | null {
  const values = sides.flatMap((side) => (side.kind === 'finite' ? [side.value] : []));
  const [first] = values;
  if (!first || values.length < sides.length || !values.every((value) => isSame(value, first))) return null;
  return !given || isSame(given, first) ? first : null;
}

/** Binary digits in which two values must agree to be taken for one. */
const agreement = 45n;

/** Whether two values agree in almost all digits of a double; limits are known no better. */
export function isSame(a: BigFloat, b: BigFloat): boolean {
  const difference = big.subtract(a, b, valueBits);
  if (big.isZero(difference)) return true;
  const size = big.order(a) > big.order(b) ? big.order(a) : big.order(b);
  return big.order(difference) < size - agreement;
}
