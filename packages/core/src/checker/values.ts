import type { Expression } from '../language/tree.ts';
import type { Certificate } from './claims.ts';
import { evaluate, numberOf, type Course } from './evaluate.ts';
import { exactJet, exactVariable, isZero } from './exact.ts';
import { withinRules } from './literals.ts';
import * as n from './numbers.ts';
import type { Range } from './numbers.ts';
import { divided } from './quotients.ts';

/** Values at single numbers. */

type Place = Certificate['joints'][number];

/** Width of what is known to all digits of the checker, relative to it. Roots halve the digits. */
const allDigits = 1e-20;

export const bounded = (x: Range | undefined): Range | undefined => (x && n.isBounded(x) ? x : undefined);

/** Whether a range is so narrow that it is that of a known number. */
export function isToAllDigits({ low, high }: Range): boolean {
  const width = n.toDouble(n.subtract(n.point(high), n.point(low)).high);
  return width <= allDigits * Math.max(1, Math.abs(n.toDouble(low)));
}

/** What is known of a place: the number itself, or two doubles between which it is. */
export const rangeOf = ({ low, high, at }: Place): Range =>
  (at && withinRules(() => numberOf(at))) ?? n.between(low, high);

/** The value at a place; null where there is none, undefined where none is known. */
export function valueAt(
  body: Expression,
  variable: string,
  place: Range,
  exact: Expression | undefined,
): Range | null | undefined {
  const [known] =
    (exact && withinRules(() => exactJet(body, new Map([[variable, exactVariable(exact, 1)]]), 1))) ?? [];
  if (known && isZero(known)) return n.whole(0);
  const courses = withinRules(() => evaluate(body, variable, place, 1, exact));
  if (!courses) return undefined;
  const isPoint = n.compare(place.low, place.high) === 0;
  if (courses.length === 0) return isPoint ? null : undefined;
  const isPole = ({ below }: Course): boolean => !!below && n.signOfRange(below[0] as Range) === 0;
  if (isPoint && courses.every(isPole)) return null;
  // At a corner both ways lead to the value.
  const values = courses.map((course) =>
    (course.isWhole || known || !isToAllDigits(place)) &&
    (!course.below || n.isOneSided(course.below[0] as Range))
      ? bounded(divided(course)[0])
      : undefined,
  );
  if (!values.every((value) => value !== undefined)) return undefined;
  // At a jump it is one of both, and which is not known.
  const isOne = values.every((value) => values.every((other) => n.common(value, other)));
  return isOne ? values.reduce(n.hull) : undefined;
}

/**
 * Whether the sign of the value at a place is the one that is told, null where there is none. That it is 0 is only not
 * refuted, at a place of which all digits are known to all of them.
 */
export function isSignAt(body: Expression, variable: string, place: Place, told: -1 | 0 | 1 | null): boolean {
  const value = valueAt(body, variable, rangeOf(place), place.at);
  if (!value || told === null) return value === told;
  return n.isOneSided(value) ? n.signOfRange(value) === told : told === 0;
}

/** How far a double may be from the number that it stands for, relative to it. */
const nearby = 2 ** -44;
const leastReach = 1e-290;

/** What a double stands for: an infinite one, heights beyond all doubles. */
export const around = (x: number): Range => {
  if (x === -Infinity) return n.negate(around(Infinity));
  if (x === Infinity) return n.between(Number.MAX_VALUE, Infinity);
  const reach = Math.max(Math.abs(x) * nearby, leastReach);
  return n.between(x - reach, x + reach);
};
