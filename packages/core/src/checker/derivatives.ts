import type { Expression } from '../language/tree.ts';
import {
  approached,
  areApart,
  besideJoint,
  courseBeside,
  edgesOf,
  isNowhereBeside,
  unknownApproach,
  type Approach,
  type Joint,
} from './approach.ts';
import { derivativeWrittenOut } from './identities.ts';
import { withinRules } from './literals.ts';
import * as n from './numbers.ts';
import type { Range } from './numbers.ts';
import { divided } from './quotients.ts';
import { bounded, isToAllDigits, rangeOf, valueAt } from './values.ts';

/** What a derivative is at a joint, and what it comes to from both sides. */

/** From where a function is looked at. */
interface Beside {
  readonly exact: Expression | null;
  readonly place: Range;
  readonly way: -1 | 1;
  /** Parts of at most that width are looked at. */
  readonly room: number;
  readonly edges: Range;
}

/** What is known of a derivative of some order beside a place: of the formula that the function has on that side. */
export function approachedBy(body: Expression, variable: string, order: number, beside: Beside): Approach {
  const { exact, place, way, room, edges } = beside;
  if (order === 0) return approached(body, variable, exact, place, way, room, edges);
  const found = courseBeside(body, variable, exact, edges, way, room);
  if (!found) return unknownApproach;
  const formula = derivativeWrittenOut(found.course.body, variable, order);
  if (formula) return approached(formula, variable, exact, place, way, room, edges);
  const end = withinRules(() => found.course.at(place, order + 2));
  if (!end) return unknownApproach;
  const [limit, slope] = divided(end).slice(order).map(bounded);
  const times = (x: Range | undefined, k: number): Range | undefined => x && n.multiply(x, factorial(k));
  return { ...unknownApproach, limit: times(limit, order), slope: times(slope, order + 1) };
}

const factorial = (k: number): Range =>
  Array.from({ length: k }, (_, i) => n.whole(i + 1)).reduce(n.multiply, n.whole(1));

/**
 * The derivative of some order at a joint; null where there is none, undefined where none is known. Where a function is
 * continuous and its derivative comes to the same from both sides, that is the derivative there (by the mean value theorem).
 */
export function derivativeAt(
  body: Expression,
  variable: string,
  order: number,
  joint: Joint,
): Range | null | undefined {
  const place = rangeOf(joint);
  let value = valueAt(body, variable, place, joint.at);
  for (let k = 0; k <= order && order > 0; k++) {
    if (!value) return value;
    const sides = ([-1, 1] as const).map((way): Range | null | undefined => {
      if (isNowhereBeside(body, variable, edgesOf(joint), way)) return null;
      const beside = { exact: joint.at ?? null, place, way, room: besideJoint, edges: edgesOf(joint) };
      const { limit, pole, isSeen, steep } = approachedBy(body, variable, k, beside);
      if (pole || (k < order && steep !== 0)) return null;
      return isSeen ? undefined : limit;
    });
    if (sides.includes(null)) return null;
    const [left, right] = sides;
    if (!left || !right) return undefined;
    if (areApart(left, right) || (k === 0 && (areApart(left, value) || areApart(right, value)))) return null;
    if (![left, right].every(isToAllDigits) && isToAllDigits(place)) return undefined;
    value = n.common(left, right) ?? undefined;
  }
  return value;
}
