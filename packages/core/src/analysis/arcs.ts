import { derivativeOf } from '../algebra/differentiate.ts';
import { evaluateAt } from '../values/values.ts';
import * as tree from '../language/tree.ts';
import type { Expression } from '../language/tree.ts';
import { signOf } from '../numbers/ball.ts';
import { signOfConstant } from '../limit/constantSign.ts';
import { nameOfSpot, limitOfFormula, type ProvedLimit, type Spot } from '../limit/growth/limitOfFormula.ts';
import { holdsIntegral } from './breaks.ts';
import {
  compareHeights,
  foundHeight,
  heightAt,
  heightOf,
  isZeroHeight,
  seemSame,
  signOfHeight,
  zeroHeight,
  type Height,
} from './height.ts';
import type { Box } from './isolate.ts';
import { inSimplerTerms, isDefinedInside, piecesOf, signInside, without, type Piece } from './pieces.ts';
import { comparePlaces, exactPlace, isStrictlyBetween, sortedPlaces, type Place } from './place.ts';
import * as big from '../numbers/bigFloat.ts';
import { numberFormula } from '../limit/numberFormula.ts';
import { preciseSign, programOf } from './programs.ts';
import { Zeros } from './zeros.ts';

/** An open stretch on which a function is analytic, or not defined at all. */
export interface Arc {
  readonly from: Place;
  readonly to: Place;
  /** The function and its derivatives by order; null where it is not defined, or not decided. */
  readonly derivatives: readonly Expression[] | null;
  /** Whether it is not decided what the function is there. */
  readonly isOpen: boolean;
}

/** A stretch between neighbouring zeros of one derivative, with its sign there. */
export interface SignedStretch {
  readonly from: Place;
  readonly to: Place;
  readonly sign: -1 | 0 | 1;
}

/** What a function does as a place is approached from one side. */
export type SideLimit =
  | { readonly kind: 'finite'; readonly height: Height; readonly isAnalytic: boolean }
  | { readonly kind: 'infinite'; readonly sign: 1 | -1 }
  | { readonly kind: 'undefined' }
  | { readonly kind: 'none' }
  /** Nothing shows what it does. */
  | { readonly kind: 'undecided' };

/** An arc that ends at a joint, by the arcs that it belongs to and what they call the joint. */
interface ArcSide {
  readonly arcs: Arcs;
  readonly arc: Arc;
  readonly end: Place;
}

const endPlace = (end: number | Place): Place =>
  typeof end === 'number' ? (exactPlace(numberFormula(end)) as Place) : end;

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
  /** Places at which it is not shown whether values or limits agree. */
  private readonly openPlaces: Box[] = [];
  private readonly knownLimits = new WeakMap<Expression, Map<string, ProvedLimit | 'undecided' | null>>();
  private readonly knownSigns = new WeakMap<Arc, Map<number, readonly SignedStretch[]>>();
  private readonly isRounded: boolean;
  /** The function just beyond the ends, once it is asked for. */
  private readonly outer: { before?: Arcs; behind?: Arcs } = {};
  /** Whether the function jumps more often than is looked at. */
  readonly hasTooManyJumps: boolean;
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
    [from, to]: readonly [number | Place, number | Place],
    private readonly orders: number,
    readonly base = 0,
  ) {
    this.simple = inSimplerTerms(body);
    this.isRounded = holdsSmoothTable(body);
    this.from = endPlace(from);
    this.to = endPlace(to);
    const [a, b] = [this.from.value, this.to.value];
    const beyond = (b - a) * overhang;
    this.zeros = new Zeros(variable, a - beyond, b + beyond);
    const { pieces, undecided, hasTooManyJumps } = piecesOf(body, this.zeros, this.from, this.to);
    this.hasTooManyJumps = hasTooManyJumps;
    this.openParts.push(...undecided);
    this.arcs = pieces.flatMap((piece) => this.arcsOf(piece));
    this.joints = [this.from, ...this.arcs.map((arc) => arc.to)];
    this.boxes.push(...this.openParts);
  }

  /** Parts of the interval in which something stayed undecided. */
  get undecided(): readonly Box[] {
    const [a, b] = [this.from.value, this.to.value];
    const inside = [...this.boxes, ...this.openPlaces]
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

  private arcsOf({ body, from, to, isOpen }: Piece): Arc[] {
    if (!body) {
      this.noteSinglePoints(this.simple, from, to);
      return [{ from, to, derivatives: null, isOpen }];
    }
    const breaks = this.zeros.breaksOfBody(body);
    this.openParts.push(...breaks.undecided);
    const ends = [from, ...breaks.roots.filter((place) => isStrictlyBetween(place, from, to)), to];
    return ends.slice(1).map((end, i) => {
      const start = ends[i] as Place;
      const isDefined = isDefinedInside(body, this.variable, start, end);
      if (!isDefined) this.noteSinglePoints(body, start, end);
      return {
        from: start,
        to: end,
        derivatives: isDefined ? this.withDerivatives(body, start, end) : null,
        isOpen: false,
      };
    });
  }

  /** (−2)^x has values at whole x alone: single points that no arc holds. */
  private noteSinglePoints(body: Expression, from: Place, to: Place): void {
    if (hasMovingExponent(body, this.variable)) this.openParts.push({ low: from.value, high: to.value });
  }

  private withDerivatives(body: Expression, from: Place, to: Place): Expression[] {
    const bodies = [body];
    const isOfIntegral = holdsIntegral(body);
    for (let k = 0; k < this.base + this.orders; k++) {
      const next = derivativeOf(bodies.at(-1) as Expression, this.variable);
      bodies.push(isOfIntegral ? this.onePieceOf(next, from, to) : next);
    }
    return bodies;
  }

  /** What turns inside an integral turns in its derivative, too, but not between two places: it is one formula there. */
  private onePieceOf(body: Expression, from: Place, to: Place): Expression {
    const [only, ...others] = piecesOf(body, this.zeros, from, to).pieces;
    return (others.length === 0 && only?.body) || body;
  }

  /** The formula on an arc of the derivative of the given order; null where there is none. */
  bodyOf(arc: Arc | null, order: number): Expression | null {
    return arc?.derivatives?.[this.base + order] ?? null;
  }

  /** The zeros inside an arc of the derivative of the given order. */
  zerosOn(arc: Arc, order: number): readonly Place[] {
    const body = this.bodyOf(arc, order);
    if (!body) return [];
    return this.rootsBetween(body, arc.from, arc.to);
  }

  /** The zeros of a formula between two places; those that may or may not lie there are undecided. */
  rootsBetween(body: Expression, from: Place, to: Place): readonly Place[] {
    const set = this.zeros.of(body);
    this.addUndecided(set.undecided, from, to);
    if (set.isZero) return [];
    for (const root of set.roots)
      if (this.mayBeInside(root, from, body, 1) || this.mayBeInside(root, to, body, -1))
        this.addUndecided([{ low: root.low, high: root.high }], from, to);
    return set.roots.filter((root) => isStrictlyBetween(root, from, to));
  }

  /**
   * Whether a root that no digits tell from an end of an arc is another number, since f is not 0 at the end, and may lie
   * inside the arc: outside it does where f has the same sign at the end and at the root's inner bound.
   * @param inwards 1 where the arc lies to the right of this end
   */
  private mayBeInside(root: Place, end: Place, body: Expression, inwards: 1 | -1): boolean {
    if (root === end || (root.exact && end.exact) || comparePlaces(root, end) !== 0) return false;
    const height = heightAt(body, this.variable, end);
    const sign = height ? signOfHeight(height) : NaN;
    // At a known number of which nothing shows whether f is 0, nothing shows that it is the root.
    if (Number.isNaN(sign)) return end.exact !== null;
    if (sign === 0) return false;
    const inner = big.fromDouble(inwards > 0 ? root.high : root.low);
    return preciseSign(programOf(body, this.variable), inner, quickBits) !== sign;
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
    if (this.zeros.of(body).isZero)
      return without(this.openParts, arc.from, arc.to).map((part) => ({ ...part, sign: 0 }));
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
      const height = this.valueOnArc(body, joint);
      if (height) return { kind: 'finite', height, isAnalytic: true };
    }
    const side = arc.to === joint ? -1 : 1;
    const limit = this.limitOf(body, joint, side);
    // Integrals have no series, but are continuous where they have breaks.
    const height = limit === null && holdsIntegral(body) ? this.valueOnArc(body, joint) : null;
    return height ? { kind: 'finite', height, isAnalytic: false } : this.sideLimit(limit, joint);
  }

  private sideLimit(limit: ProvedLimit | 'undecided' | null, joint: Place): SideLimit {
    if (limit === null || limit === 'undecided') return { kind: 'undecided' };
    if (limit.kind !== 'finite') return limit;
    const height = tree.dependsOn(limit.exact, nameOfSpot)
      ? heightAt(limit.exact, nameOfSpot, joint)
      : heightOf(limit.exact);
    return { kind: 'finite', height: height ?? foundHeight(limit.value), isAnalytic: false };
  }

  private limitOf(body: Expression, joint: Place, side: 1 | -1): ProvedLimit | 'undecided' | null {
    const key = `${side} ${this.joints.indexOf(joint)}`;
    const known = this.knownLimits.get(body) ?? new Map<string, ProvedLimit | 'undecided' | null>();
    this.knownLimits.set(body, known);
    const found = known.get(key);
    if (found !== undefined) return found;
    const limit = limitOfFormula(body, { variable: this.variable, target: this.spotAt(joint), side });
    known.set(key, limit);
    return limit;
  }

  /** A joint as what a limit is taken at: by its formula, or as a place of which it is known which formulas are 0. */
  private spotAt(joint: Place): Spot {
    if (joint.exact) return { exact: joint.exact };
    return { ball: joint.ball, isZero: (formula) => this.isProvedZero(formula, joint) };
  }

  /** Whether a formula is 0 throughout, or a place one of its proved zeros. */
  private isProvedZero(formula: Expression, place: Place): boolean {
    const { roots, isZero } = this.zeros.of(formula);
    return isZero || roots.some((root) => comparePlaces(root, place) === 0);
  }

  /** What evaluation tells of the value at a place beside which nothing is decided; null where that is none. */
  seenAt(place: Place): Height | null {
    const value = evaluateAt(programOf(this.body, this.variable), place.value);
    return this.base === 0 && Number.isFinite(value) ? foundHeight(value) : null;
  }

  /** The value at any place; null where there is none. */
  valueAt(place: Place): Height | null {
    if (this.joints.includes(place)) return this.derivativeAt(place, 0);
    const arc = this.arcs.find(({ from, to }) => isStrictlyBetween(place, from, to));
    const body = arc && this.bodyOf(arc, 0);
    return body ? this.valueOnArc(body, place) : null;
  }

  /** The value of an arc's formula; exactly 0 at a proved zero. */
  private valueOnArc(body: Expression, place: Place): Height | null {
    const height = heightAt(body, this.variable, place);
    if (!height || !couldBeZero(height)) return height;
    const sign = signOfHeight(height);
    // What bounds show counts for more than a root that nothing tells from this place.
    return sign === 0 || (Number.isNaN(sign) && this.isProvedZero(body, place)) ? zeroHeight : height;
  }

  /** The value of the whole formula at a joint; exactly 0 where an arc beside it shows that. */
  private valueAtJoint(joint: Place): Height | null {
    const height = heightAt(
      this.simple,
      this.variable,
      joint,
      (formula) => this.isProvedZero(formula, joint),
      () => this.openPlaces.push({ low: joint.low, high: joint.high }),
    );
    if (!height || !couldBeZero(height)) return height;
    const sign = signOfHeight(height);
    if (!Number.isNaN(sign)) return sign === 0 ? zeroHeight : height;
    const isZero = this.arcs.some(({ from, to, derivatives }) => {
      const body = from === joint || to === joint ? derivatives?.[0] : undefined;
      const beside = body && this.valueOnArc(body, joint);
      return beside ? isZeroHeight(beside) : false;
    });
    return isZero ? zeroHeight : height;
  }

  /**
   * The derivative of the given order at a joint, where it exists: where all lower ones are continuous and it tends to
   * one value from both sides, or its difference quotients do. At an end of the interval the function is looked at
   * beyond it, too: a one-sided slope is none of the function's.
   */
  derivativeAt(joint: Place, order: number): Height | null {
    const last = this.base + order;
    let value = this.valueAtJoint(joint);
    if (last === 0 || !value) return value;
    const sides = this.sidesAt(joint);
    for (let k = -this.base; k < order && value; k++) {
      const heights = sides.map(({ arcs, arc, end }) => arcs.limitAlong(arc, end, k));
      const rises = sides.map(({ arcs, arc, end }) => arcs.limitAlong(arc, end, k + 1));
      const height: Height | null = this.commonValue(heights, value, joint);
      value =
        height && (this.commonValue(rises, null, joint) ?? this.slopeByDefinition(sides, value, joint, k));
      const isOpen =
        !value &&
        ([...heights, ...rises].some(({ kind }) => kind === 'undecided') ||
          sides.some(({ arcs }) => arcs !== this && arcs.undecided.length > 0));
      if (isOpen) this.openPlaces.push({ low: joint.low, high: joint.high });
    }
    return value;
  }

  /** What comes to a joint from the left and from the right, also from beyond the interval. */
  private sidesAt(joint: Place): ArcSide[] {
    const { left, right } = this.arcsAt(joint);
    return [
      left ? { arcs: this, arc: left, end: joint } : this.before,
      right ? { arcs: this, arc: right, end: joint } : this.behind,
    ];
  }

  private get before(): ArcSide {
    const [a, b] = [this.from.value, this.to.value];
    this.outer.before ??= new Arcs(
      this.body,
      this.variable,
      [a - (b - a) * overhang, a],
      this.orders,
      this.base,
    );
    const arcs = this.outer.before;
    return { arcs, arc: arcs.arcs.at(-1) as Arc, end: arcs.to };
  }

  private get behind(): ArcSide {
    const [a, b] = [this.from.value, this.to.value];
    this.outer.behind ??= new Arcs(
      this.body,
      this.variable,
      [b, b + (b - a) * overhang],
      this.orders,
      this.base,
    );
    const arcs = this.outer.behind;
    return { arcs, arc: arcs.arcs[0] as Arc, end: arcs.from };
  }

  /** Whether a joint is an end of the interval alone, and the function goes on behind it. */
  goesOnBeyond(joint: Place): boolean {
    const side = joint === this.from ? this.before : joint === this.to ? this.behind : null;
    return side !== null && side.arc.derivatives !== null;
  }

  /**
   * The slope of a derivative at a joint as the limit of its difference quotient, which may exist where its slopes
   * beside the joint have none: x² sin(1/x) with the value 0 at 0.
   */
  private slopeByDefinition(
    sides: readonly ArcSide[],
    value: Height,
    joint: Place,
    order: number,
  ): Height | null {
    const [at, height] = [joint.exact, value.exact];
    if (!at || !height) return null;
    const slopes = sides.map(({ arcs, arc, end }): SideLimit => {
      const body = arcs.bodyOf(arc, order);
      if (!body) return { kind: 'undefined' };
      const run = tree.subtract(tree.name(this.variable), at);
      const quotient = tree.divide(tree.subtract(body, height), run);
      return this.sideLimit(arcs.limitOf(quotient, end, arc.to === end ? -1 : 1), joint);
    });
    return this.commonValue(slopes, null, joint);
  }

  /** The value that both sides tend to, and that is the given one if there is one; null where they do not agree. */
  private commonValue(sides: readonly SideLimit[], given: Height | null, at: Place): Height | null {
    const values = sides.flatMap((side) => (side.kind === 'finite' ? [side.height] : []));
    const [first] = values;
    if (!first || values.length < sides.length) return null;
    if (!values.every((value) => this.areSame(value, first, at))) return null;
    return !given || this.areSame(given, first, at) ? first : null;
  }

  /**
   * Whether two heights at a place are the same, by algebra or an enclosure. Where nothing shows it they are taken for
   * what they seem to be, and the place stays undecided.
   */
  areSame(a: Height, b: Height, at: Place): boolean {
    // That a smooth table goes on at its knots holds by construction, up to the rounding of what defines it.
    if (this.isRounded && seemSame(a, b)) return true;
    const compared = compareHeights(a, b);
    if (!Number.isNaN(compared)) return compared === 0;
    this.openPlaces.push({ low: at.low, high: at.high });
    return seemSame(a, b);
  }

  /** Every place at which the function or a derivative up to the given order is 0 on an arc, or at a joint. */
  eventsUpTo(order: number): readonly Place[] {
    const inside = this.arcs.flatMap((arc) =>
      Array.from({ length: order + 1 }, (_, k) => this.zerosOn(arc, k)).flat(),
    );
    return sortedPlaces([...this.joints, ...inside]);
  }
}

/** A power with the variable in its exponent, of anything but a number above 0. */
function hasMovingExponent(node: Expression, variable: string): boolean {
  const isMoving =
    node.kind === 'power' && tree.dependsOn(node.exponent, variable) && !isPositive(node.base, variable);
  return isMoving || tree.children(node).some((part) => hasMovingExponent(part, variable));
}

const isPositive = (node: Expression, variable: string): boolean =>
  !tree.dependsOn(node, variable) && signOfConstant(node) === 1;

const holdsSmoothTable = (node: Expression): boolean =>
  (node.kind === 'spline' && node.spline.shape === 'smooth') || tree.children(node).some(holdsSmoothTable);

/** Whether nothing but algebra may tell a height from 0. */
function couldBeZero({ ball }: Height): boolean {
  const known = ball(quickBits);
  return known !== null && known !== 'unsure' && signOf(known) === undefined;
}

/** Binary digits to which it is looked at whether a height may be 0. */
const quickBits = 120;
