import type { Expression } from '../language/tree.ts';
import type { Certificate } from './claims.ts';
import { evaluate, type Course } from './evaluate.ts';
import { withinRules } from './literals.ts';
import * as n from './numbers.ts';
import type { Float, Range } from './numbers.ts';
import { divided } from './quotients.ts';
import { withoutCommonZero } from './removable.ts';
import { bounded, isToAllDigits } from './values.ts';

export type Joint = Certificate['joints'][number];

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
const coefficients = 3;

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
  // Values beside two doubles are not those beside a number between them.
  const isAtEdge = n.compare(way < 0 ? edges.low : edges.high, way < 0 ? place.low : place.high) === 0;
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
    const limit = isAtEdge ? sharp(close) : undefined;
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

/** How far beside a joint a function is looked for. */
export const besideJoint = 2 ** -20;

/** Whether the function has no value next to a place, but for what is nearer than all that is looked at. */
export function isNowhereBeside(
  body: Expression,
  variable: string,
  { low, high }: Range,
  way: -1 | 1,
): boolean {
  const away = (share: number): Float => {
    const step = n.point(n.fromDouble(way * besideJoint * share));
    return n.add(n.point(way < 0 ? low : high), step).low;
  };
  const [far, close] = [away(1), away(nearer)];
  const part = way < 0 ? { low: far, high: close } : { low: close, high: far };
  return withinRules(() => evaluate(body, variable, part, 1))?.length === 0;
}
