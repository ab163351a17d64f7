import { areApart, edgesOf, type Approach, type Joint } from './approach.ts';
import type { Certificate, Claim, Listed } from './claims.ts';
import { approachedBy, derivativeAt } from './derivatives.ts';
import { isAtJoint, kindsOfJoints } from './lists.ts';
import * as n from './numbers.ts';
import type { Range } from './numbers.ts';
import { around, isToAllDigits, rangeOf } from './values.ts';

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

interface Look {
  /** Null where the function is not defined beside the joint. */
  readonly left: Side | null;
  readonly right: Side | null;
  /** Null where there is no value, undefined where none is known. */
  readonly value: Range | null | undefined;
}

/** What a list says of joints that is shown not to be so, and whether it says anything that is not known. */
export interface AtJoints {
  readonly contradicted: Certificate['joints'];
  readonly isOpen: boolean;
}

/** Whether a list of key points says of each joint what is so. */
export function followsJoints(
  certificate: Certificate,
  signs: readonly (-1 | 0 | 1)[],
  list: readonly Listed[],
): AtJoints {
  const { joints } = certificate;
  const isAstray = list.some(({ kind, x }) => kindsOfJoints.has(kind) && !isAtJoint(joints, x));
  const told = joints.map((joint) => {
    const listed = list.filter(({ x }) => joint.low <= x && x <= joint.high);
    return follows(lookAt(certificate, signs, joint), listed, certificate.orders.length > 2);
  });
  return {
    contradicted: joints.filter((_, i) => told[i] === false),
    isOpen: isAstray || told.includes(null),
  };
}

function lookAt(certificate: Certificate, signs: readonly (-1 | 0 | 1)[], joint: Joint): Look {
  const { body, variable, orders } = certificate;
  const order = orders[0] ?? 0;
  const place = rangeOf(joint);
  const side = (way: -1 | 1): Side | null => {
    const claims = claimsBeside(certificate, joint, way);
    const [own] = claims.get(order) ?? [];
    if (!own || certificate.claims[own.index]?.zeros === 'nowhere') return null;
    const reach = own.claim.to - own.claim.from;
    const next = (above: number): { claim: Claim; index: number } | undefined =>
      claims.get(order + above)?.[0];
    return {
      ...approachedBy(body, variable, order, {
        exact: joint.at ?? null,
        place,
        way,
        room: reach,
        edges: edgesOf(joint),
      }),
      signs: [0, 1, 2].map((above) => signs[next(above)?.index ?? -1] ?? 0),
      levels: [0, 1, 2].map((above) => next(above)?.claim.zeros === 'all'),
    };
  };
  return { left: side(-1), right: side(1), value: derivativeAt(body, variable, order, joint) };
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
