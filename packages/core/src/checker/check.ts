import type { Expression } from '../language/tree.ts';
import type { Certificate, Checked, Claim, Listed, ListedSolutions, Shown, SignedStretch } from './claims.ts';
import { evaluate, numberOf, type Course } from './evaluate.ts';
import { isZero } from './exact.ts';
import { reachOfSign } from './growth.ts';
import { derivativeWrittenOut, isIdenticallyZero } from './identities.ts';
import * as jets from './jets.ts';
import { followsJoints } from './joints.ts';
import { NoRule, ratioOf, withinRules } from './literals.ts';
import * as n from './numbers.ts';
import { exactJetAt, withoutZeroBeside } from './removable.ts';
import type { Range } from './numbers.ts';
import { followsKeyPoints, followsSigns, followsSolutions, isAtJoint, type LookedAt } from './lists.ts';
import { numeratorOf, rationalOf, signAt, zerosBetween, type Polynomial } from './polynomials.ts';
import type { Quotient } from './quotients.ts';
import { zerosAtJoints } from './zeros.ts';

/**
 * Looks at every claim by itself, at whether they cover the interval, and at whether the list of key points between the
 * joints is the one that follows from them and that at the joints is not refuted.
 */
export const check = (certificate: Certificate, list: readonly Listed[]): Checked =>
  checked(
    certificate,
    (claim) => followsKeyPoints(claim, certificate, list),
    (signs) => followsJoints(certificate, signs, list),
  );

/** The same of a list of zeros: of the difference of the two sides of an equation. */
export const checkSolutions = (certificate: Certificate, list: ListedSolutions): Checked =>
  checked(
    certificate,
    (claim) => followsSolutions(claim, certificate, list),
    () => zerosAtJoints(certificate, list),
  );

/** The same of the stretches on which a function keeps a sign. */
export const checkSigns = (certificate: Certificate, list: readonly SignedStretch[]): Checked =>
  checked(certificate, (claim) => followsSigns(claim, list));

function checked(
  certificate: Certificate,
  isFollowed: (claim: LookedAt) => boolean | null,
  atJoints: (signs: Checked['signs']) => { contradicted: Certificate['joints']; isOpen: boolean } = () => ({
    contradicted: [],
    isOpen: false,
  }),
): Checked {
  const { body, variable, joints, claims } = certificate;
  const { shown, signs, gaps } = lookedThrough(certificate);
  const checker = new Checker(body, variable, joints);
  const followed = claims.map((claim, i) => {
    if (claims.length > mostClaims) return null;
    const sides = claim.zeros === 1 ? checker.signsBeside(claim) : null;
    const isAt = (x: number): boolean | null => checker.isAt(claim, sides, x);
    return isFollowed({ ...claim, sign: signs[i] ?? 0, sides, isAt });
  });
  const contradicted = claims.filter((_, i) => followed[i] === false);
  const { contradicted: falseJoints, isOpen } = atJoints(signs);
  const isAccepted =
    gaps.length === 0 &&
    falseJoints.length === 0 &&
    !isOpen &&
    followed.every((is) => is === true) &&
    shown.every((how) => how !== null);
  return { isAccepted, shown, signs, gaps, contradicted, contradictedJoints: falseJoints };
}

type LookedThrough = Pick<Checked, 'shown' | 'signs' | 'gaps'>;
const known = new WeakMap<Certificate, LookedThrough>();

/** What holds of a certificate whatever the list is that it belongs to: it is worked out once. */
function lookedThrough(certificate: Certificate): LookedThrough {
  const found = known.get(certificate);
  if (found) return found;
  const { body, variable, joints, claims, orders } = certificate;
  const isTooLong = claims.length > mostClaims;
  const checker = new Checker(body, variable, joints);
  const ofSigns = new Checker(body, variable, joints);
  const shown = claims.map((claim) => (isTooLong ? null : checker.shown(claim)));
  const looked = {
    shown,
    signs: claims.map((claim, i) => (isTooLong ? 0 : signOfBounds(shown[i]) || ofSigns.signInside(claim))),
    gaps: orders.flatMap((order) => gapsOf(certificate, order)),
  };
  known.set(certificate, looked);
  return looked;
}

/** The sign of a part whose values lie between two numbers; 0 where that tells none. */
const signOfBounds = (how: Shown | null | undefined): -1 | 0 | 1 =>
  how?.by !== 'bounds' ? 0 : how.low > 0 ? 1 : how.high < 0 ? -1 : 0;

/** Claims beyond which a certificate is not looked at. */
const mostClaims = 1600;
/** A joint is so narrow that no picture shows its width. */
const widestJoint = 1e-9;
/** How often a part may be halved to show what it is claimed to be. */
const mostHalvings = 8;
const fewHalvings = 3;
/** How often towards the end of a domain, where values come to it from outside. */
const deepestOutside = 44;
const highestMultiplicity = 6;
/** How far a number that stands for a zero may be from it, relative to its size; and near 0. */
const nearby = 2 ** -44;
const leastReach = 1e-290;
const factorials = [1, 1, 2, 6, 24, 120];
/** Parts on which the function is worked out for one certificate. */
const mostParts = 8000;

function gapsOf({ from, to, joints, claims }: Certificate, order: number): Checked['gaps'] {
  const narrow = joints.filter(({ low, high }) => high - low <= widestJoint * (to - from));
  const parts = [
    ...claims.filter((claim) => claim.order === order && claim.from < claim.to),
    ...narrow.map(({ low, high }) => ({ from: low, to: high })),
  ].sort((a, b) => a.from - b.from);
  const gaps: Checked['gaps'][number][] = [];
  let reached = from;
  for (const part of parts) {
    if (part.from > reached) gaps.push({ order, from: reached, to: part.from });
    reached = Math.max(reached, part.to);
  }
  if (reached < to) gaps.push({ order, from: reached, to });
  return gaps;
}

class Checker {
  private readonly numerators = new Map<number, Polynomial | null>();
  private readonly derivatives = new Map<Expression, Map<number, Expression | null>>();
  /** How often a part may be halved just now. */
  private halvings = mostHalvings;

  constructor(
    private readonly body: Expression,
    private readonly variable: string,
    private readonly joints: Certificate['joints'],
    /** Parts that may still be looked at. */
    private readonly budget = { left: mostParts },
  ) {}

  shown(claim: Claim): Shown | null {
    if (!(claim.from < claim.to)) return null;
    // Halves of halves are many: a slope that needs none of them is tried before bounds that need them all.
    const direct = [this.byCount, this.byDomain, this.throughout, this.byBounds];
    const bent = [this.bySlope, this.byMultiplicity, this.byFactors];
    const passes = [
      { halvings: fewHalvings, ways: direct },
      { halvings: 0, ways: bent },
      { halvings: mostHalvings, ways: [this.byBounds, ...bent] },
      { halvings: mostHalvings, ways: [this.byDerivative, this.byGrowth] },
    ];
    for (const { halvings, ways } of passes) {
      this.halvings = halvings;
      for (const way of ways) {
        const how = withinRules(() => way.call(this, claim));
        if (how) return how;
      }
    }
    return null;
  }

  /** The signs at both ends of a part; null where they are not known. */
  signsBeside({ order, from, to }: Claim): LookedAt['sides'] {
    const [left, right] = [from, to].map((end) =>
      withinRules(() => {
        const [course, ...others] = this.courses(from, to, order + 2);
        return course && others.length === 0 ? (signAtEnd(course, end, order) ?? null) : null;
      }),
    );
    return left && right ? [left, right] : null;
  }

  /**
   * Whether the one zero of a part is where it is said to be: a known number, or between two doubles of other signs; null
   * where that is not known.
   */
  isAt({ order, from, to, at }: Claim, sides: LookedAt['sides'], x: number): boolean | null {
    const reach = Math.max(Math.abs(x) * nearby, leastReach);
    const [below, above] = [Math.max(from, x - reach), Math.min(to, x + reach)];
    const place = at && withinRules(() => numberOf(at));
    if (place) return n.contains(n.between(below, above), place);
    if (!sides || sides[0] === sides[1]) return null;
    const signs = this.signsBeside({ order, from: below, to: above, zeros: 1 });
    return signs && signs[0] === sides[0] && signs[1] === sides[1];
  }

  private isJoint(x: number): boolean {
    return isAtJoint(this.joints, x);
  }

  private courses(from: number, to: number, length: number): Course[] {
    if (--this.budget.left < 0) throw new NoRule('out of time');
    const part = n.between(from, to);
    const courses = evaluate(this.body, this.variable, part, length);
    const isQuotient = courses.some(({ below }) => below && !n.isOneSided(below[0] as Range));
    if (!isQuotient) return courses;
    return courses.map((course) => withoutZeroBeside(course, this.variable, this.joints, [from, to], length));
  }

  private numerator(order: number): Polynomial | null {
    const known = this.numerators.get(order);
    if (known !== undefined) return known;
    const rational = rationalOf(this.body, this.variable);
    const found = rational && numeratorOf(rational, order);
    this.numerators.set(order, found);
    return found;
  }

  private byCount({ order, from, to, zeros }: Claim): Shown | null {
    const p = this.numerator(order);
    if (!p) return null;
    if (p.length === 0) return zeros === 'all' ? { by: 'count' } : null;
    // An end that two claims share is none of either: no zero may hide there.
    const [low, high] = [n.fromDouble(from), n.fromDouble(to)];
    if ((!this.isJoint(from) && signAt(p, low) === 0) || (!this.isJoint(to) && signAt(p, high) === 0))
      return null;
    return zerosBetween(p, low, high) === zeros ? { by: 'count' } : null;
  }

  private byDomain({ from, to, zeros }: Claim): Shown | null {
    if (zeros !== 'nowhere') return null;
    const step = Math.max(Number.MIN_VALUE, (to - from) * 1e-12);
    const isNowhere = (a: number, b: number, depth: number): boolean => {
      if (this.courses(a, b, 1).length === 0) return true;
      const middle = a + (b - a) / 2;
      if (depth === 0 || middle <= a || middle >= b) return false;
      return isNowhere(a, middle, depth - 1) && isNowhere(middle, b, depth - 1);
    };
    return isNowhere(from + step, to - step, deepestOutside) ? { by: 'domain' } : null;
  }

  private throughout({ order, from, to, zeros }: Claim): Shown | null {
    if (zeros !== 'all') return null;
    const courses = this.courses(from, to, order + 2);
    const middle = from + (to - from) / 2;
    // 0 by bounds, or at one place with a slope that is 0.
    const isLevel = courses.every((course) => {
      if (!course.isWhole) return false;
      if (n.signOfRange(numerator(course, order)) === 0) return true;
      return isFlat(course, order + 1) && signAtEnd(course, middle, order) === 0;
    });
    if (courses.length > 0 && isLevel) return { by: 'bounds', low: 0, high: 0 };
    const isIdentity =
      order === 0 &&
      courses.every((one) => one.isWhole && (isIdenticallyZero(one.body) || isIdenticallyZero(one.pieces)));
    return courses.length > 0 && isIdentity ? { by: 'identity' } : null;
  }

  private byBounds({ order, from, to, zeros }: Claim): Shown | null {
    if (zeros !== 0) return null;
    const found = this.awayFromZero(order, from, to);
    if (!found) return null;
    const { values, areDirect } = found;
    if (!areDirect) return { by: 'numerator' };
    // From the Taylor coefficient to the derivative.
    const { low, high } = n.multiply(values, n.whole(factorials[order] ?? 0));
    return order < factorials.length
      ? { by: 'bounds', low: n.toDouble(low), high: n.toDouble(high) }
      : { by: 'numerator' };
  }

  /** Beside a joint by how the function grows there, and further away by bounds. */
  private byGrowth({ order, from, to, zeros }: Claim): Shown | null {
    const middle = from + (to - from) / 2;
    const areBoth =
      zeros === 0 && this.isAwayBeside(order, from, middle, 1) && this.isAwayBeside(order, to, middle, -1);
    return areBoth ? { by: 'numerator' } : null;
  }

  /** Whether what stands above the fraction line of a derivative, written out, is nowhere 0: by its slope. */
  private hasNumerator(order: number, from: number, to: number): boolean {
    const derivative = this.derivative(this.body, order);
    if (!derivative) return false;
    const above = derivative.kind === 'divide' ? derivative.left : derivative;
    const checker = new Checker(above, this.variable, this.joints, this.budget);
    return checker.bySlope({ order: 0, from, to, zeros: 0 }) !== null;
  }

  /** From an end of a part on, which may be a joint, to its middle. */
  private isAwayBeside(order: number, end: number, middle: number, way: -1 | 1): boolean {
    const within = (a: number, b: number): boolean => {
      const [from, to] = [Math.min(a, b), Math.max(a, b)];
      return this.awayFromZero(order, from, to) !== null || this.hasNumerator(order, from, to);
    };
    const joint = this.joints.find(({ low, high }) => (way > 0 ? high === end : low === end));
    if (!joint?.at) return within(end, middle);
    const width = Math.abs(middle - end);
    const [only, ...others] = this.courses(Math.min(end, middle), Math.max(end, middle), 1);
    if (!only || others.length > 0) return false;
    const reach = reachOfSign(only.body, this.variable, order, joint.at, way, width);
    // What is shown is shown from the number itself on, which lies somewhere in the joint.
    if (reach === null || joint.high - joint.low > reach / 4) return false;
    let distance = reach / 2;
    for (; distance < width; distance *= 2) {
      const further = Math.min(2 * distance, width);
      if (!within(end + way * distance, end + way * further)) return false;
    }
    return true;
  }

  /** All values of a part, or what stands above the fraction line, none of them 0; the part is halved where that helps. */
  private awayFromZero(
    order: number,
    from: number,
    to: number,
  ): { values: Range; areDirect: boolean } | null {
    let areDirect = true;
    // A value of its own where the halves meet is no matter of either.
    const isFine = (middle: number): boolean =>
      order > 0 || this.courses(middle, middle, 1).every((course) => n.isOneSided(valuesOf(course, 0)));
    const within = (a: number, b: number, halvings: number): Range | null => {
      const courses = this.courses(a, b, order + 2);
      const ranges = courses.map((course) => valuesOf(course, order));
      if (ranges.length === 0 || !ranges.every(n.isOneSided))
        return this.halved(a, b, halvings, isFine, (c, d) => within(c, d, halvings - 1));
      areDirect &&= courses.every((course) => n.isOneSided(directValues(course, order)));
      return ranges.reduce(n.hull);
    };
    const values = within(from, to, this.halvings);
    return values && { values, areDirect };
  }

  /** The sign of a part without a zero and without a pole inside, as in its middle; 0 for any other, and where none is shown. */
  signInside({ order, from, to, zeros }: Claim): -1 | 0 | 1 {
    if (zeros !== 0) return 0;
    const sign = withinRules(() => {
      const [course, ...others] = this.courses(from, to, order + 2);
      const isOne = course?.isWhole === true && others.length === 0 && keepsSide(course);
      return isOne ? (signAtEnd(course, from + (to - from) / 2, order) ?? null) : null;
    });
    return sign ?? 0;
  }

  private halved(
    from: number,
    to: number,
    halvings: number,
    isFine: (middle: number) => boolean,
    part: (from: number, to: number) => Range | null,
  ): Range | null {
    const middle = from + (to - from) / 2;
    if (halvings === 0 || middle <= from || middle >= to || !isFine(middle)) return null;
    const left = part(from, middle);
    const right = left && part(middle, to);
    return left && right && n.hull(left, right);
  }

  /** The sign that a derivative has on the whole of a part, on which the function has values everywhere; 0 where none is shown. */
  private signThroughout(order: number, from: number, to: number): -1 | 0 | 1 {
    // Neither a pole nor the end of a domain may stand where halves meet.
    const isSmooth = (middle: number): boolean => {
      const [value] = this.courses(middle, middle, 1);
      const [slope] = this.courses(middle, middle, order + 1);
      const isThere = value !== undefined && isSteady(value) && n.isBounded(valuesOf(value, 0));
      return isThere && slope !== undefined && n.isBounded(valuesOf(slope, order));
    };
    const steady = (a: number, b: number, halvings: number): Range | null => {
      const courses = this.courses(a, b, order + 2);
      const [only] = courses;
      const values = only && courses.length === 1 && isSteady(only) ? valuesOf(only, order) : null;
      return values && n.isOneSided(values)
        ? values
        : this.halved(a, b, halvings, isSmooth, (c, d) => steady(c, d, halvings - 1));
    };
    const values = steady(from, to, this.halvings);
    return (values && n.signOfRange(values)) ?? 0;
  }

  /** The derivative above is of one sign: there is one zero where the signs at the ends differ, and none otherwise. */
  private bySlope({ order, from, to, zeros }: Claim): Shown | null {
    if (zeros !== 0 && zeros !== 1) return null;
    const [course, ...others] = this.courses(from, to, order + 2);
    if (!course || others.length > 0) return null;
    const [left, right] = [signAtEnd(course, from, order), signAtEnd(course, to, order)];
    if (left === undefined || right === undefined) return null;
    if ((left === 0 && !this.isJoint(from)) || (right === 0 && !this.isJoint(to))) return null;
    if ((left * right === -1) !== (zeros === 1)) return null;
    const sign = this.signThroughout(order + 1, from, to);
    return sign === 0 ? null : { by: 'slope', rises: sign > 0 };
  }

  /**
   * A zero at an exact number of the part, its ends included: the first derivative that is not 0 there is 0 nowhere on the
   * part, so that there is no zero beside it (Rolle).
   */
  private byMultiplicity({ order, from, to, zeros, at }: Claim): Shown | null {
    if (!at || (zeros !== 0 && zeros !== 1)) return null;
    const length = order + highestMultiplicity + 1;
    const place = numberOf(at);
    if (!place || !this.isClaimedAt(place, from, to, zeros)) return null;
    const [course, ...others] = this.courses(from, to, order + 2);
    if (!course || others.length > 0) return null;
    const jet = exactJetAt(course.body, this.variable, at, length);
    const multiplicity = jet.slice(order).findIndex((coefficient) => !isZero(coefficient));
    if (multiplicity < 1) return null;
    const sign = this.signThroughout(order + multiplicity, from, to);
    return sign === 0 ? null : { by: 'multiplicity', multiplicity };
  }

  /** One zero lies inside; that of a part without any, at a joint that ends it. */
  private isClaimedAt(place: Range, from: number, to: number, zeros: 0 | 1): boolean {
    if (zeros === 1)
      return n.compare(place.low, n.fromDouble(from)) > 0 && n.compare(place.high, n.fromDouble(to)) < 0;
    return [from, to].some((end) => n.common(place, n.point(n.fromDouble(end))) && this.isJoint(end));
  }

  /** By the derivative as a formula in lowest terms, of which the claim says the same. */
  private byDerivative(claim: Claim): Shown | null {
    const { order, from, to, zeros } = claim;
    if (order === 0 || (zeros !== 0 && zeros !== 1)) return null;
    const [course, ...others] = this.courses(from, to, 2);
    const isThere = course?.isWhole === true && others.length === 0;
    if (!isThere || (zeros === 1 && !isSteady(course))) return null;
    const derivative = this.derivative(course.body, order);
    return (
      derivative &&
      new Checker(derivative, this.variable, this.joints, this.budget).shown({ ...claim, order: 0 })
    );
  }

  private derivative(body: Expression, order: number): Expression | null {
    const known = this.derivatives.get(body) ?? new Map<number, Expression | null>();
    this.derivatives.set(body, known);
    const found = known.get(order);
    if (found !== undefined) return found;
    const derivative = derivativeWrittenOut(body, this.variable, order);
    known.set(order, derivative);
    return derivative;
  }

  /** A product is 0 where one of its factors is. */
  private byFactors(claim: Claim): Shown | null {
    const { order, from, to, zeros } = claim;
    if (order > 0 || (zeros !== 0 && zeros !== 1)) return null;
    if (isNeverZero(this.body)) return zeros === 0 ? { by: 'factors' } : null;
    const factors = factorsOf(this.body);
    if (!factors || (zeros === 1 && isGeneralPower(this.body))) return null;
    const holds = (factor: Expression, count: 0 | 1): boolean =>
      new Checker(factor, this.variable, this.joints, this.budget).shown({ ...claim, zeros: count }) !== null;
    const open = factors.filter((factor) => !holds(factor, 0));
    const [only] = open;
    if (!only) return zeros === 0 ? { by: 'factors' } : null;
    const isSteadyPart = this.courses(from, to, 2).every(isSteady);
    return zeros === 1 && open.length === 1 && isSteadyPart && holds(only, 1) ? { by: 'factors' } : null;
  }
}

/** Whether what is divided by lies on one side of 0, which it may touch. */
const keepsSide = ({ below }: Quotient): boolean =>
  !below || n.signOf((below[0] as Range).low) >= 0 || n.signOf((below[0] as Range).high) <= 0;

/** Whether the function has values on the whole part and no pole. */
const isSteady = ({ below, isWhole }: Course): boolean =>
  isWhole && (!below || n.isOneSided(below[0] as Range));

/**
 * What has the zeros of the derivative of a quotient: it times a power of the divisor. For q = a/b,
 * q_k b^(k+1) = a_k b^k − Σ b_j b^(j−1) q_(k−j) b^(k−j+1).
 */
function numerator({ above, below }: Quotient, order: number): Range {
  if (!below) return above[order] as Range;
  const b = (j: number): Range => below[j] as Range;
  const results: Range[] = [];
  for (let k = 0; k <= order; k++) {
    let sum = n.multiply(above[k] as Range, n.power(b(0), k));
    for (let j = 1; j <= k; j++)
      sum = n.subtract(sum, n.multiply(n.multiply(b(j), n.power(b(0), j - 1)), results[k - j] as Range));
    results.push(sum);
  }
  return results[order] as Range;
}

/** The values of the derivative themselves, over its factorial. */
function directValues({ above, below }: Quotient, order: number): Range {
  if (!below) return above[order] as Range;
  return n.isOneSided(below[0] as Range) ? (jets.divide(above, below)[order] as Range) : n.everything;
}

/** What has the zeros of the derivative, and where the divisor keeps its sign, its sign as well. */
function valuesOf(quotient: Quotient, order: number): Range {
  const { below } = quotient;
  if (!below || !n.isOneSided(below[0] as Range)) return numerator(quotient, order);
  const direct = directValues(quotient, order);
  if (n.isOneSided(direct)) return direct;
  const isTurned = n.signOfRange(below[0] as Range) === -1 && order % 2 === 0;
  const times = numerator(quotient, order);
  return isTurned ? n.negate(times) : times;
}

/** Whether the derivative of an order is 0 throughout, of a function that is not divided by what may be 0. */
const isFlat = (course: Course, order: number): boolean =>
  isSteady(course) && n.signOfRange(directValues(course, order)) === 0;

/** The sign to which the function comes at an end of a part. */
function signAtEnd(course: Course, x: number, order: number): -1 | 0 | 1 | undefined {
  const end = course.at(n.point(n.fromDouble(x)), order + 1);
  if (!end || (end.below && !n.isOneSided(end.below[0] as Range))) return undefined;
  return n.signOfRange(valuesOf(end, order));
}

/** e to any power. */
const isNeverZero = (body: Expression): boolean =>
  (body.kind === 'call' && body.name === 'exp') ||
  (body.kind === 'power' && body.base.kind === 'constant' && body.base.name === 'e');

/** A power of which nothing is said where its base is 0. */
const isGeneralPower = (body: Expression): boolean =>
  body.kind === 'power' && ratioOf(body.exponent) === null;

function factorsOf(body: Expression): readonly Expression[] | null {
  switch (body.kind) {
    case 'negate':
      return [body.operand];
    case 'multiply':
      return [body.left, body.right];
    case 'divide':
      return [body.left];
    case 'power':
      return isGeneralPower(body) || (ratioOf(body.exponent)?.p ?? 0) > 0 ? [body.base] : null;
    case 'call':
      return zeroWithArgument.has(body.name) ? body.arguments : null;
    default:
      return null;
  }
}

/** Functions that are 0 where their argument is. */
const zeroWithArgument: ReadonlySet<string> = new Set(['sqrt', 'cbrt', 'abs']);
