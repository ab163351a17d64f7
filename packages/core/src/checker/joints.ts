import type { Expression } from '../language/tree.ts';
import type { Certificate, Claim, Listed, ListedSolutions } from './claims.ts';
import { divided, evaluate, numberOf, type Course } from './evaluate.ts';
import { withinRules } from './literals.ts';
import * as n from './numbers.ts';
import type { Range } from './numbers.ts';
import { withoutCommonZero } from './removable.ts';

/**
 * What a list says of the joints of a certificate, against what the function comes to from both sides. That two numbers
 * differ is shown; that they are the same is only not refuted, to as many digits as there are.
 */

/** How a function is beside a joint. What is not known is undefined. */
interface Side extends Approach {
  /** Signs of f, f′, f″ next to the joint; 0 where they are not known. */
  readonly signs: readonly (-1 | 0 | 1)[];
  /** Whether f and f′ are 0 throughout. */
  readonly levels: readonly boolean[];
}

/** To what a function comes at a place from one side. */
export interface Approach {
  readonly limit: Range | undefined;
  /** Whether the limit was seen very near to the place, and not shown. */
  readonly isSeen: boolean;
  /** The sign of a limit beyond all bounds; 0 where it is none. */
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
const near = 2 ** -36;
const nearer = 2 ** -72;
/** How much a slope has to grow on the way from the one to the other. */
const steepEnough = 8;
const seenWithin = 1e-6;
/** How far a double may be from the number that it stands for, relative to it. */
const nearby = 2 ** -44;
const leastReach = 1e-290;
const coefficients = 3;

/** The joints at which a list says what is not so. */
export function contradictedJoints(
  certificate: Certificate,
  signs: readonly (-1 | 0 | 1)[],
  list: readonly Listed[],
): Certificate['joints'] {
  // What a derivative is at a place where the function is put together is no matter of its formula alone.
  if (certificate.orders[0] !== 0) return [];
  return certificate.joints.filter((joint) => {
    const listed = list.filter(({ x }) => joint.low <= x && x <= joint.high);
    return !follows(lookAt(certificate, signs, joint), listed);
  });
}

/**
 * Whether a list of zeros says of each joint what is so: contradicted are those that are shown not to be 0, or to have no
 * value, and are listed, and those that are 0 to all digits of the checker and are not; open is whether one is listed of
 * which nothing is known, or one that may be 0 is not.
 */
export function zerosAtJoints(
  { body, variable, joints, orders }: Certificate,
  { at, everywhere }: ListedSolutions,
): { readonly contradicted: Certificate['joints']; readonly isOpen: boolean } {
  if (orders[0] !== 0) return { contradicted: [], isOpen: false };
  let isOpen = false;
  const contradicted = joints.filter((joint) => {
    const { low, high } = joint;
    if (everywhere.some(({ from, to }) => from <= high && low <= to)) return false;
    const isListed = at.some((x) => low <= x && x <= high);
    const exact = joint.at ? withinRules(() => numberOf(joint.at as Expression)) : null;
    const value = valueAt(body, variable, exact ?? n.between(low, high));
    isOpen ||= value === undefined && isListed;
    if (value === undefined) return false;
    if (value === null || areApart(value, n.whole(0))) return isListed;
    const isKnown = exact !== null || low === high;
    isOpen ||= !isListed && !isKnown;
    return !isListed && isKnown;
  });
  return { contradicted, isOpen };
}

type Joint = Certificate['joints'][number];

function lookAt(certificate: Certificate, signs: readonly (-1 | 0 | 1)[], joint: Joint): Look {
  const { body, variable } = certificate;
  const exact = joint.at ? withinRules(() => numberOf(joint.at as Expression)) : null;
  const place = exact ?? n.between(joint.low, joint.high);
  const side = (way: -1 | 1): Side | null => {
    const claims = claimsBeside(certificate, joint, way);
    const [own] = claims.get(0) ?? [];
    if (!own || certificate.claims[own.index]?.zeros === 'nowhere') return null;
    const reach = own.claim.to - own.claim.from;
    const next = (order: number): { claim: Claim; index: number } | undefined => claims.get(order)?.[0];
    return {
      ...approached(body, variable, joint.at ?? null, place, way, reach),
      signs: [0, 1, 2].map((order) => signs[next(order)?.index ?? -1] ?? 0),
      levels: [0, 1].map((order) => next(order)?.claim.zeros === 'all'),
    };
  };
  return { left: side(-1), right: side(1), value: valueAt(body, variable, place) };
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

/** What is known of a function beside a place, from parts of at most some width. */
export function approached(
  body: Expression,
  variable: string,
  exact: Expression | null,
  place: Range,
  way: -1 | 1,
  room: number,
): Approach {
  const unknown = { limit: undefined, isSeen: false, infinite: 0, slope: undefined, steep: 0 } as const;
  const course = courseBeside(body, variable, exact, place, way, room);
  const end = course && withinRules(() => course.at(place, coefficients));
  if (!course || !end) return unknown;
  const { above, below } = end;
  const seenAt = (share: number, order: 0 | 1): Range | undefined => {
    const step = n.point(n.fromDouble(way * room * share));
    const seen = withinRules(() => course.at(n.add(place, step), order + 1));
    return seen ? bounded(divided(seen)[order]) : undefined;
  };
  if (!below || n.isOneSided(below[0] as Range)) {
    const [limit, slope] = divided(end).map(bounded);
    const steep = slope ? 0 : steepness(seenAt(near, 1), seenAt(nearer, 1));
    return { ...unknown, limit, slope, steep };
  }
  if (n.isOneSided(above[0] as Range)) return { ...unknown, infinite: signBeside(course, above[0] as Range) };
  if (![...above, ...below].every(n.isBounded)) return unknown;
  // Both are 0 there: what is seen very near to it.
  const value = seenAt(near, 0);
  return { ...unknown, isSeen: true, limit: value ? n.add(value, widening(value)) : undefined };
}

/** The sign of a quotient beside a pole, where its divisor keeps to one side of 0. */
function signBeside({ below }: Course, above: Range): -1 | 0 | 1 {
  const { low, high } = below?.[0] ?? n.everything;
  const side = n.signOf(low) >= 0 ? 1 : n.signOf(high) <= 0 ? -1 : 0;
  return ((n.signOfRange(above) ?? 0) * side) as -1 | 0 | 1;
}

/** The sign of a slope that is far larger nearer to a place. */
function steepness(far: Range | undefined, close: Range | undefined): -1 | 0 | 1 {
  if (!far || !close) return 0;
  const [a, b] = [far, close].map(({ low }) => n.toDouble(low)) as [number, number];
  return Math.abs(b) > steepEnough * Math.abs(a) && n.isOneSided(close) ? (Math.sign(b) as -1 | 1) : 0;
}

const bounded = (x: Range | undefined): Range | undefined => (x && n.isBounded(x) ? x : undefined);

function widening({ low, high }: Range): Range {
  const size = Math.max(1, Math.abs(n.toDouble(low)), Math.abs(n.toDouble(high))) * seenWithin;
  return n.between(-size, size);
}

/** The one way that the function takes beside a place; null where more than one is open. */
function courseBeside(
  body: Expression,
  variable: string,
  exact: Expression | null,
  { low, high }: Range,
  way: -1 | 1,
  room: number,
): Course | null {
  for (const share of shares) {
    const step = n.point(n.fromDouble(way * room * share));
    const part =
      way < 0
        ? { low: n.add(n.point(low), step).low, high: low }
        : { low: high, high: n.add(n.point(high), step).high };
    const courses = withinRules(() => evaluate(body, variable, part, coefficients));
    const [only] = courses ?? [];
    if (!only || courses?.length !== 1) continue;
    return exact ? withoutCommonZero(only, variable, exact, part, coefficients) : only;
  }
  return null;
}

function valueAt(body: Expression, variable: string, place: Range): Range | null | undefined {
  const courses = withinRules(() => evaluate(body, variable, place, 1));
  if (!courses) return undefined;
  const isPoint = n.compare(place.low, place.high) === 0;
  if (courses.length === 0) return isPoint ? null : undefined;
  const isPole = ({ below }: Course): boolean => !!below && n.signOfRange(below[0] as Range) === 0;
  if (isPoint && courses.every(isPole)) return null;
  // At a corner both ways lead to the value.
  const values = courses.map((course) =>
    course.isWhole && (!course.below || n.isOneSided(course.below[0] as Range))
      ? bounded(divided(course)[0])
      : undefined,
  );
  return values.every((value) => value !== undefined) ? values.reduce(n.hull) : undefined;
}

export const areApart = (a: Range | null | undefined, b: Range | null | undefined): boolean =>
  !!a && !!b && n.common(a, b) === null;
const areSame = (a: Range | null | undefined, b: Range | null | undefined): boolean =>
  !!a && !!b && n.common(a, b) !== null;

type Has = (...kinds: string[]) => boolean;

/** Whether what is listed at a joint is not refuted by what is known of it. */
function follows(look: Look, listed: readonly Listed[]): boolean {
  const { left, right, value } = look;
  const has: Has = (...kinds) => listed.some(({ kind }) => kinds.includes(kind));
  const sides = [left, right].filter((side) => side !== null);
  if (sides.length === 0) return true;
  const isInfinite = sides.some(({ infinite }) => infinite !== 0);
  const areFinite = sides.every((side) => side.limit !== undefined);
  if (has('pole') ? areFinite : isInfinite) return false;
  if (!hasHeights(listed, left, right, value)) return false;
  if (has('endpoint') ? value === null : sides.length === 1 && value) return false;
  if (has('openEnd') && value) return false;
  const isZero = value && n.signOfRange(value) === 0 && !sides.some(({ levels }) => levels[0]);
  if (has('zero') ? value && n.isOneSided(value) : isZero) return false;
  if (!left || !right) return true;
  if (!followsExtremum(left, right, value, has)) return false;
  if (isInfinite) return true;
  const isBroken =
    areApart(left.limit, right.limit) || areApart(value, left.limit) || areApart(value, right.limit);
  if (has('jump') && areFinite && value && !isBroken) return false;
  if (has('jump') && value === null && areSame(left.limit, right.limit)) return false;
  if (has('hole') && (areApart(left.limit, right.limit) || areSame(value, left.limit))) return false;
  if (!has('jump', 'hole') && (isBroken || (value === null && areFinite))) return false;
  return isBroken || !value || followsShape(left, right, has);
}

/** Where the function lies beside a joint, seen from its value there; undefined where that is not known. */
function beside(
  { limit, levels, signs }: Side,
  value: Range,
  way: -1 | 1,
): 'above' | 'below' | 'level' | undefined {
  if (!limit) return undefined;
  if (areApart(limit, value)) return n.compare(limit.low, value.high) > 0 ? 'above' : 'below';
  if (levels[1]) return 'level';
  const rise = (signs[1] ?? 0) * way;
  return rise === 0 ? undefined : rise > 0 ? 'above' : 'below';
}

function followsExtremum(left: Side, right: Side, value: Range | null | undefined, has: Has): boolean {
  if (!value) return !has('maximum', 'minimum') || value === undefined;
  const [before, behind] = [beside(left, value, -1), beside(right, value, 1)];
  if (!before || !behind) return true;
  const due =
    before !== behind ? null : before === 'below' ? 'maximum' : before === 'above' ? 'minimum' : null;
  return has('maximum') === (due === 'maximum') && has('minimum') === (due === 'minimum');
}

/** Corners, cusps and inflections where nothing breaks the function. */
function followsShape(left: Side, right: Side, has: Has): boolean {
  const areSteep = left.steep !== 0 && right.steep !== 0;
  const isCusp = areSteep && left.steep !== right.steep;
  if (has('cusp') ? left.slope && right.slope : isCusp) return false;
  const isCorner = areApart(left.slope, right.slope);
  if (has('corner') ? areSame(left.slope, right.slope) || areSteep : isCorner && !has('cusp')) return false;
  const [bent, bends] = [left.signs[2] ?? 0, right.signs[2] ?? 0];
  if (bent === 0 || bends === 0) return true;
  const isSmooth = areSame(left.slope, right.slope) || (areSteep && !isCusp);
  const isTurned = bent !== bends;
  return has('inflection') ? isTurned && !isCorner && !isCusp : !(isTurned && isSmooth);
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
