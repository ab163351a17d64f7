import type { Expression } from '../language/tree.ts';
import { evaluate, numberOf } from './evaluate.ts';
import { approached, areApart, unknownApproach, type Approach } from './approach.ts';
import { withinRules } from './literals.ts';
import * as n from './numbers.ts';
import type { Range } from './numbers.ts';
import { rationalOf } from './polynomials.ts';
import { divided } from './quotients.ts';
import { around } from './values.ts';

/** What is claimed of a limit: a number, none since it is beyond all bounds, or none since the sides differ. */
export type ClaimedLimit =
  | { readonly kind: 'finite'; readonly value: number; readonly exact: Expression | null }
  | { readonly kind: 'infinite'; readonly sign: -1 | 1 }
  | { readonly kind: 'none' };

export interface CheckedLimit {
  readonly isAccepted: boolean;
  /** Of a number: between what it was shown to be. */
  readonly bounds: readonly [number, number] | null;
}

/** How far from a place a function is looked at, and how far out. */
const room = 2 ** -20;
const farOut = 400;
/** Bounds that tell a limit are at most so wide, relative to it. */
const narrow = 1e-30;

/**
 * Whether a claim of a limit is shown by the checker's own means: what the function comes to at the place, without a zero
 * that dividend and divisor share; at infinity the quotient of the leading coefficients, or bounds far out.
 * @param place a number as a formula, or the sign of an infinity
 */
export function checkLimit(
  body: Expression,
  variable: string,
  place: Expression | 1 | -1,
  sides: readonly ('left' | 'right')[],
  claimed: ClaimedLimit,
): CheckedLimit {
  const ways = typeof place === 'number' ? [place] : sides.map((side) => (side === 'left' ? -1 : 1));
  const found = ways.map((way): Approach | null => {
    if (typeof place === 'number') return farAway(body, variable, place);
    const at = withinRules(() => numberOf(place));
    const approach = at && approached(body, variable, place, at, way as -1 | 1, room);
    // What is only seen to grow shows no limit.
    return approach?.pole === 'seen' ? unknownApproach : approach;
  });
  const refused = { isAccepted: false, bounds: null };
  if (!found.every((one) => one !== null)) return refused;
  if (claimed.kind === 'infinite')
    return { ...refused, isAccepted: found.every(({ infinite }) => infinite === claimed.sign) };
  if (claimed.kind === 'none') return { ...refused, isAccepted: found.length === 2 && differ(found) };
  const target =
    (claimed.exact && withinRules(() => numberOf(claimed.exact as Expression))) ?? around(claimed.value);
  const limits = found.map(({ limit, isSeen }) => (isSeen ? undefined : limit));
  if (!limits.every((limit) => limit !== undefined)) return refused;
  const all = limits.reduce(n.hull);
  const isAccepted = limits.every((limit) => isNarrow(limit) && n.common(limit, target) !== null);
  return { isAccepted, bounds: [n.toDouble(all.low), n.toDouble(all.high)] };
}

function differ([left, right]: readonly Approach[]): boolean {
  if (!left || !right) return false;
  const bothKnown = [left, right].every(({ limit, infinite }) => infinite !== 0 || limit !== undefined);
  return bothKnown && (left.infinite !== right.infinite || areApart(left.limit, right.limit));
}

function isNarrow({ low, high }: Range): boolean {
  const width = n.toDouble(n.subtract(n.point(high), n.point(low)).high);
  return width <= narrow * Math.max(1, Math.abs(n.toDouble(low)));
}

function farAway(body: Expression, variable: string, side: 1 | -1): Approach | null {
  const rational = withinRules(() => rationalOf(body, variable));
  if (rational) {
    const [above, below] = [rational.above, rational.below].map((p) => ({
      degree: p.length - 1,
      first: p.at(-1) ?? 0n,
    }));
    if (!above || !below || below.first === 0n) return null;
    if (above.degree <= below.degree)
      return {
        ...unknownApproach,
        limit: above.degree < below.degree ? n.whole(0) : n.fraction(above.first, below.first),
      };
    const isTurned = side < 0 && (above.degree - below.degree) % 2 === 1;
    const isPositive = above.first > 0n === below.first > 0n;
    return { ...unknownApproach, pole: 'shown', infinite: isPositive === isTurned ? -1 : 1 };
  }
  const start = n.scaled(n.whole(side), farOut);
  const part =
    side > 0 ? { low: start.low, high: n.everything.high } : { low: n.everything.low, high: start.high };
  const courses = withinRules(() => evaluate(body, variable, part, 1));
  const values = (courses ?? []).map((course) => divided(course)[0] ?? n.everything);
  if (values.length === 0 || !courses?.every(({ isWhole }) => isWhole)) return null;
  const all = values.reduce(n.hull);
  return n.isBounded(all) ? { ...unknownApproach, limit: all } : null;
}
