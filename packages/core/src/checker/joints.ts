import type { Expression } from '../language/tree.ts';
import type { Certificate, Claim, Listed } from './claims.ts';
import { evaluate, type Course } from './evaluate.ts';
import { isAtJoint } from './lists.ts';
import { withinRules } from './literals.ts';
import * as n from './numbers.ts';
import type { Range } from './numbers.ts';
import { divided } from './quotients.ts';
import { withoutCommonZero } from './removable.ts';
import { bounded, isToAllDigits, rangeOf, valueAt } from './values.ts';

/**
 * What a list says of the joints of a certificate, against what the function comes to from both sides. That two numbers
 * differ is shown; that they are the same is only not refuted, to as many digits as there are.
 */

/** How a function is beside a joint. What is not known is undefined. */
interface Side extends Approach {
  /** Signs of f, f′, f″ next to the joint; 0 where they are not known. */
  readonly signs: readonly (-1 | 0 | 1)[];
  /** Whether f, f′ and f″ are 0 throughout. */
  readonly levels: readonly boolean[];
}

/** To what a function comes at a place from one side. */
export interface Approach {
  readonly limit: Range | undefined;
  /** Whether the limit was seen very near to the place, and not shown. */
  readonly isSeen: boolean;
  /** Whether it goes beyond all bounds: shown, or seen to grow. */
  readonly pole: 'shown' | 'seen' | null;
  /** The sign of what goes beyond all bounds; 0 where that is not known, and of anything else. */
  readonly infinite: -1 | 0 | 1;
  readonly slope: Range | undefined;
  /** The sign of a slope that is seen to grow beyond all bounds; 0 otherwise. */
  readonly steep: -1 | 0 | 1;
}

interface Look {
  /** Null where the function is not defined beside the joint. */
  readonly left: Side | null;
  readonly right: Side | null;
  /** Null where there is no value, undefined where none is known. */
  readonly value: Range | null | undefined;
}

/** Narrower and narrower parts beside a joint, as shares of the room there is. */
const shares = [1, 2 ** -12, 2 ** -24, 2 ** -40];
/** How near to a joint a quotient of two zeros is looked at, and how far its limit may be from what is seen there. */
const lessNear = 2 ** -30;
export const near = 2 ** -36;
export const nearer = 2 ** -72;
/** How much a slope has to grow on the way from the one to the other, and a height. */
export const steepEnough = 8;
const slowly = 1.1;
const seenWithin = 1e-6;
/** How far a double may be from the number that it stands for, relative to it. */
const nearby = 2 ** -44;
const leastReach = 1e-290;
const coefficients = 3;

/** What a list says of joints that is shown not to be so, and whether it says anything that is not known. */
export interface AtJoints {
  readonly contradicted: Certificate['joints'];
  readonly isOpen: boolean;
}

/** Kinds of points that stand at joints alone. */
const kindsOfJoints: ReadonlySet<string> = new Set([
  'endpoint',
  'openEnd',
  'pole',
  'jump',
  'hole',
  'corner',
  'cusp',
]);

/** Whether a list of key points says of each joint what is so. */
export function followsJoints(
  certificate: Certificate,
  signs: readonly (-1 | 0 | 1)[],
  list: readonly Listed[],
): AtJoints {
  const { joints } = certificate;
  const isAstray = list.some(({ kind, x }) => kindsOfJoints.has(kind) && !isAtJoint(joints, x));
  // What a derivative is at a place where the function is put together is no matter of its formula alone.
  if (certificate.orders[0] !== 0) return { contradicted: [], isOpen: isAstray };
  const told = joints.map((joint) => {
    const listed = list.filter(({ x }) => joint.low <= x && x <= joint.high);
    return follows(lookAt(certificate, signs, joint), listed, certificate.orders.length > 2);
  });
  return {
    contradicted: joints.filter((_, i) => told[i] === false),
    isOpen: isAstray || told.includes(null),
  };
}

export type Joint = Certificate['joints'][number];

function lookAt(certificate: Certificate, signs: readonly (-1 | 0 | 1)[], joint: Joint): Look {
  const { body, variable } = certificate;
  const place = rangeOf(joint);
  const side = (way: -1 | 1): Side | null => {
    const claims = claimsBeside(certificate, joint, way);
    const [own] = claims.get(0) ?? [];
    if (!own || certificate.claims[own.index]?.zeros === 'nowhere') return null;
    const reach = own.claim.to - own.claim.from;
    const next = (order: number): { claim: Claim; index: number } | undefined => claims.get(order)?.[0];
    return {
      ...approached(body, variable, joint.at ?? null, place, way, reach, edgesOf(joint)),
      signs: [0, 1, 2].map((order) => signs[next(order)?.index ?? -1] ?? 0),
      levels: [0, 1, 2].map((order) => next(order)?.claim.zeros === 'all'),
    };
  };
  return { left: side(-1), right: side(1), value: valueAt(body, variable, place, joint.at) };
}

/** By order, the claim that ends or begins at a joint. */
function claimsBeside(
  { claims }: Certificate,
  { low, high }: Joint,
  way: -1 | 1,
): Map<number, { claim: Claim; index: number }[]> {
  const found = new Map<number, { claim: Claim; index: number }[]>();
  claims.forEach((claim, index) => {
    if (way < 0 ? claim.to !== low : claim.from !== high) return;
    found.set(claim.order, [...(found.get(claim.order) ?? []), { claim, index }]);
  });
  return found;
}

/** Where nothing is known. */
export const unknownApproach: Approach = {
  limit: undefined,
  isSeen: false,
  pole: null,
  infinite: 0,
  slope: undefined,
  steep: 0,
};

/**
 * What is known of a function beside a place, from parts of at most some width.
 * @param edges doubles between which the place is: what lies between them is no part of the function beside it
 */
export function approached(
  body: Expression,
  variable: string,
  exact: Expression | null,
  place: Range,
  way: -1 | 1,
  room: number,
  edges = place,
): Approach {
  const beside = courseBeside(body, variable, exact, edges, way, room);
  if (!beside) return unknownApproach;
  const { course, values } = beside;
  const seenAt = (share: number, order: 0 | 1): Range | undefined => {
    const step = n.point(n.fromDouble(way * room * share));
    const seen = withinRules(() => course.at(n.add(place, step), order + 1));
    return seen ? bounded(divided(seen)[order]) : undefined;
  };
  const end = withinRules(() => course.at(place, coefficients));
  const seenTo = (far: Range | undefined, close: Range | undefined): Approach => {
    const seen = far && close && n.hull(far, close);
    if (seen && isNarrow(seen))
      return { ...unknownApproach, isSeen: true, limit: n.add(seen, widening(seen)) };
    const infinite = growth(far, close, slowly);
    return { ...unknownApproach, infinite, pole: infinite === 0 ? null : 'seen' };
  };
  // Beside 1/x in e^(1/x) bounds at the place tell nothing, and those very near to it may tell all digits.
  const veryNear = (): Approach => {
    const close = values();
    const limit = sharp(close);
    if (limit) return { ...unknownApproach, limit };
    const infinite = signOfHuge(close);
    if (infinite !== 0) return { ...unknownApproach, infinite, pole: 'seen' };
    return seenTo(seenAt(near, 0), seenAt(nearer, 0));
  };
  if (!end) return veryNear();
  const { above, below } = end;
  if (!below || n.isOneSided(below[0] as Range)) {
    const [found, slope] = divided(end).map(bounded);
    const isVague = isToAllDigits(place) && !(found && isToAllDigits(found));
    if (isVague || !found) return veryNear();
    const steep = slope ? 0 : growth(seenAt(near, 1), seenAt(nearer, 1), steepEnough);
    return { ...unknownApproach, limit: found, slope, steep };
  }
  if (n.isOneSided(above[0] as Range))
    return {
      ...unknownApproach,
      pole: isToAllDigits(place) ? 'shown' : 'seen',
      infinite: signBeside(course, above[0] as Range),
    };
  if (![...above, ...below].every(n.isBounded)) return unknownApproach;
  // Both are 0 there: what is seen very near to it.
  return seenTo(seenAt(lessNear, 0), seenAt(near, 0));
}

/** The sign of a quotient beside a pole, where its divisor keeps to one side of 0. */
function signBeside({ below }: Course, above: Range): -1 | 0 | 1 {
  const { low, high } = below?.[0] ?? n.everything;
  const side = n.signOf(low) >= 0 ? 1 : n.signOf(high) <= 0 ? -1 : 0;
  return ((n.signOfRange(above) ?? 0) * side) as -1 | 0 | 1;
}

/** The sign of what is so many times as large nearer to a place. */
export function growth(far: Range | undefined, close: Range | undefined, times: number): -1 | 0 | 1 {
  if (!far || !close) return 0;
  const [a, b] = [far, close].map(({ low }) => n.toDouble(low)) as [number, number];
  return Math.abs(b) > times * Math.abs(a) && n.isOneSided(close) ? (Math.sign(b) as -1 | 1) : 0;
}

const sharp = (x: Range | undefined): Range | undefined =>
  x && n.isBounded(x) && isToAllDigits(x) ? x : undefined;
/** The sign of what is beyond all doubles. */
const signOfHuge = (x: Range | undefined): -1 | 0 | 1 => {
  if (!x) return 0;
  return n.toDouble(x.low) === Infinity ? 1 : n.toDouble(x.high) === -Infinity ? -1 : 0;
};
const isNarrow = ({ low, high }: Range): boolean =>
  n.toDouble(high) - n.toDouble(low) <= seenWithin * Math.max(1, Math.abs(n.toDouble(low)));

function widening({ low, high }: Range): Range {
  const size = Math.max(1, Math.abs(n.toDouble(low)), Math.abs(n.toDouble(high))) * seenWithin;
  return n.between(-size, size);
}

export const edgesOf = ({ low, high }: Joint): Range => n.between(low, high);

/** The one way that the function takes beside a place, and its values very near to it; null where more than one is open. */
export function courseBeside(
  body: Expression,
  variable: string,
  exact: Expression | null,
  { low, high }: Range,
  way: -1 | 1,
  room: number,
): { course: Course; values: () => Range | undefined } | null {
  const partOf = (share: number): Range => {
    const step = n.point(n.fromDouble(way * room * share));
    return way < 0
      ? { low: n.add(n.point(low), step).low, high: low }
      : { low: high, high: n.add(n.point(high), step).high };
  };
  const onlyCourse = (part: Range, length: number): Course | null => {
    const courses = withinRules(() => evaluate(body, variable, part, length));
    const [only, ...others] = courses ?? [];
    return only && others.length === 0 ? only : null;
  };
  for (const share of shares) {
    const part = partOf(share);
    const only = onlyCourse(part, coefficients);
    if (!only) continue;
    const course = exact ? withoutCommonZero(only, variable, exact, part, coefficients) : only;
    const values = (): Range | undefined => {
      const close = onlyCourse(partOf(nearer), 1);
      return close ? divided(close)[0] : undefined;
    };
    return { course, values };
  }
  return null;
}

export const areApart = (a: Range | null | undefined, b: Range | null | undefined): boolean =>
  !!a && !!b && n.common(a, b) === null;

/** Whether something is so; null where that is not known. */
type Told = boolean | null;

const both = (...all: readonly Told[]): Told =>
  all.includes(false) ? false : all.includes(null) ? null : true;

const not = (told: Told): Told => (told === null ? null : !told);

/** Whether what is listed at a joint is what is known of it, and nothing else; null where too little is known. */
function follows(look: Look, listed: readonly Listed[], hasBend: boolean): Told {
  const { left, right, value } = look;
  if (!hasHeights(listed, left, right, value)) return false;
  const has = (...kinds: string[]): boolean => listed.some(({ kind }) => kinds.includes(kind));
  const due = dueAt(look, has);
  return both(
    ...[...due].map(([kind, is]) => (is === null ? null : is === has(kind))),
    hasBend || !has('inflection'),
  );
}

/** What is due at a joint, by its kind. */
function dueAt(
  { left, right, value }: Look,
  has: (...kinds: string[]) => boolean,
): ReadonlyMap<string, Told> {
  const sides = [left, right].filter((side) => side !== null);
  const pole = isPole(sides, has('pole'));
  // Beside a pole no value is near to what the function is at it.
  const height = pole && value === undefined ? null : value;
  const due = new Map<string, Told>([
    ['pole', pole],
    ['zero', isZeroAt(sides, height, has('zero'))],
  ]);
  const [only] = sides;
  if (only && sides.length === 1) {
    const isThere = height === undefined ? null : height !== null;
    due.set('endpoint', isThere);
    const isOpen = both(not(isThere), not(pole));
    // At an end of the interval, where the function may go on beyond it, it is as well a hole.
    const isHole = isOpen && has('hole');
    due.set('hole', isHole).set('openEnd', isOpen && !isHole);
    due.set('jump', areDifferent(value, only.limit, pole));
    for (const kind of ['maximum', 'minimum', 'corner', 'cusp', 'inflection']) due.set(kind, false);
    return due;
  }
  // A single number at which there is a value is an end of its own.
  const isAlone = sides.length === 0 && value !== null;
  due.set('endpoint', isAlone && has('endpoint')).set('openEnd', false);
  const [jump, hole] = brokenAt(left, right, value, pole);
  due.set('jump', jump).set('hole', hole);
  const extremum = left && right ? extremumAt(left, right, height) : 'none';
  for (const kind of ['maximum', 'minimum']) due.set(kind, extremum === null ? null : extremum === kind);
  const isSmooth = both(not(jump), not(hole), not(pole));
  const shape = left && right && isSmooth !== false ? shapeAt(left, right) : noShape;
  for (const kind of ['corner', 'cusp', 'inflection'] as const)
    due.set(kind, isSmooth === null ? null : shape[kind]);
  return due;
}

/** One that is seen, and not shown, is neither refuted. */
function isPole(sides: readonly Side[], isListed: boolean): Told {
  if (sides.some(({ pole }) => pole === 'shown')) return true;
  if (sides.some(({ pole }) => pole === 'seen')) return isListed || null;
  return sides.every(({ limit }) => limit !== undefined) ? false : null;
}

/** Of a number that is not known to all digits a zero is neither shown nor refuted: one that is listed stays. */
function isZeroAt(sides: readonly Side[], value: Look['value'], isListed: boolean): Told {
  if (value === null || (value && n.isOneSided(value))) return false;
  // The end of a stretch on which it is 0 throughout.
  if (sides.some(({ levels }) => levels[0])) return isListed;
  if (value === undefined) return null;
  return isListed || isToAllDigits(value) ? true : null;
}

function areDifferent(a: Look['value'], b: Range | undefined, pole: Told): Told {
  if (pole || a === null) return false;
  if (!a || !b) return null;
  return areApart(a, b);
}

/** Whether there is a jump, and whether there is a hole. */
function brokenAt(left: Side | null, right: Side | null, value: Look['value'], pole: Told): [Told, Told] {
  if (!left || !right || pole) return [false, false];
  if (!left.limit || !right.limit) return [null, null];
  if (areApart(left.limit, right.limit)) return [true, false];
  if (value === undefined) return [false, null];
  return [false, value === null || areApart(value, left.limit) || areApart(value, right.limit)];
}

/** Where the function lies beside a joint, seen from its value there; null where that is not known. */
function beside(
  { limit, infinite, levels, signs }: Side,
  value: Range,
  way: -1 | 1,
): 'above' | 'below' | 'level' | null {
  if (infinite !== 0) return infinite > 0 ? 'above' : 'below';
  if (!limit) return null;
  if (areApart(limit, value)) return n.compare(limit.low, value.high) > 0 ? 'above' : 'below';
  if (levels[1]) return 'level';
  const rise = (signs[1] ?? 0) * way;
  return rise === 0 ? null : rise > 0 ? 'above' : 'below';
}

function extremumAt(left: Side, right: Side, value: Look['value']): 'maximum' | 'minimum' | 'none' | null {
  if (value === null) return 'none';
  if (value === undefined) return null;
  const [before, behind] = [beside(left, value, -1), beside(right, value, 1)];
  if (before === null || behind === null) {
    const known = before ?? behind;
    return known === 'level' ? 'none' : null;
  }
  if (before !== behind || before === 'level') return 'none';
  return before === 'below' ? 'maximum' : 'minimum';
}

interface Shape {
  readonly corner: Told;
  readonly cusp: Told;
  readonly inflection: Told;
}
const noShape: Shape = { corner: false, cusp: false, inflection: false };

/** Corners, cusps and inflections where nothing breaks the function. */
function shapeAt(left: Side, right: Side): Shape {
  const isKnown = [left, right].every(({ slope, steep }) => slope !== undefined || steep !== 0);
  if (!isKnown) return { corner: null, cusp: null, inflection: null };
  const areSteep = left.steep !== 0 && right.steep !== 0;
  const cusp = areSteep && left.steep !== right.steep;
  const corner = !areSteep && (left.steep !== right.steep || areApart(left.slope, right.slope));
  if (cusp || corner) return { corner, cusp, inflection: false };
  if (left.levels[2] || right.levels[2]) return noShape;
  const [bent, bends] = [left.signs[2] ?? 0, right.signs[2] ?? 0];
  return { corner, cusp, inflection: bent === 0 || bends === 0 ? null : bent !== bends };
}

/** Whether the heights in a list are those that are known. */
function hasHeights(
  listed: readonly Listed[],
  left: Side | null,
  right: Side | null,
  value: Range | null | undefined,
): boolean {
  return listed.every(({ kind, y, sides }) => {
    const isLimit = kind === 'hole' || kind === 'openEnd';
    const limit = left?.limit ?? right?.limit;
    if (typeof y === 'number' && areApart(around(y), isLimit ? limit : value)) return false;
    const [before, behind] = [sides?.left, sides?.right];
    if (before && left && areApart(around(before.value), left.limit)) return false;
    return !(behind && right && areApart(around(behind.value), right.limit));
  });
}

/** What a double stands for: an infinite one, heights beyond all doubles. */
export const around = (x: number): Range => {
  if (x === -Infinity) return n.negate(around(Infinity));
  if (x === Infinity) return n.between(Number.MAX_VALUE, Infinity);
  const reach = Math.max(Math.abs(x) * nearby, leastReach);
  return n.between(x - reach, x + reach);
};
