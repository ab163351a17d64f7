import type { Expression } from '../language/tree.ts';
import { besideEnds, type OpenArea, type OpenEnd } from './areaEnds.ts';
import { AreaParts, type Part } from './areaParts.ts';
import { numberOf } from './evaluate.ts';
import { withinRules } from './literals.ts';
import * as n from './numbers.ts';
import type { Float, Range } from './numbers.ts';

/**
 * A function and the doubles between which its area is enclosed part by part, in ascending order, and from where to where it
 * goes on beyond the first and the last of them.
 */
export type AreaCertificate = OpenArea;

/** What is claimed of an integral. */
export interface AreaClaim {
  readonly value: number;
  /** How far the value may be from the integral. */
  readonly bound: number;
  /** The integral as a formula, where it is called exact. */
  readonly exact: Expression | null;
}

export interface CheckedArea {
  /** Whether the bounds lie within what is claimed; of an exact value, whether they agree with it. */
  readonly isAccepted: boolean;
  /** Bounds of the integral; null where the function is not shown to be bounded and to have values everywhere. */
  readonly bounds: readonly [number, number] | null;
  /** Bounds of the area over each part. */
  readonly parts: readonly {
    readonly from: number;
    readonly to: number;
    readonly bounds: readonly [number, number];
  }[];
}

/** The width of bounds beside an exact value that tells anything, relative to the area of |f|. */
const narrow = 1e-9;

/**
 * Encloses the integral over each part by a Taylor polynomial at its middle with its remainder (Moore, Interval Analysis,
 * 1966; from memory), or by the range of values times the width, and holds what is claimed against the sum.
 */
export const checkArea = (certificate: AreaCertificate, claim: AreaClaim): CheckedArea =>
  checkAreas([certificate], [certificate.ends[0] ?? NaN, certificate.ends.at(-1) ?? NaN], claim);

/**
 * The same of an integral that is told in stretches, one behind the other.
 * @param interval over which it is claimed
 */
export function checkAreas(
  certificates: readonly AreaCertificate[],
  interval: readonly [number, number],
  claim: AreaClaim,
): CheckedArea {
  const refused = { isAccepted: false, bounds: null, parts: [] };
  if (!certificates.every(isInOrder) || !follow(certificates, interval)) return refused;
  const areas = certificates.map(({ body, variable, ends }) => {
    const area = new AreaParts(body, variable);
    return { area, rough: area.inParts(ends) };
  });
  const roughs = areas.flatMap(({ rough }) => rough ?? []);
  if (areas.some(({ rough }) => rough === null)) return refused;
  // An exact value is held against bounds of their own width, any other against half of what is claimed.
  const size = roughs.reduce((all, { range }) => all + Math.max(...outward(range).map(Math.abs)), 0);
  const allowed = claim.exact ? size * narrow : claim.bound;
  const length = roughs.reduce((all, { from, to }) => all + to - from, 0);
  const share = ({ from, to }: Part): Float => n.fromDouble((allowed / 4) * ((to - from) / length));
  const parts = areas.flatMap(({ area, rough }) =>
    (rough ?? []).map((part) => area.narrowed(part, share(part))),
  );
  const beside = certificates.flatMap((one) => besideEnds(one, allowed / 8));
  if (!beside.every((range) => range !== null)) return refused;
  const total = [...parts.map(({ range }) => range), ...beside].reduce(n.add, n.whole(0));
  return {
    isAccepted: holds(claim, total, allowed),
    bounds: outward(total),
    parts: parts.map(({ from, to, range }) => ({ from, to, bounds: outward(range) })),
  };
}

/** An area with an open end may begin at one double, any other has two. */
function isInOrder({ ends, from, to }: AreaCertificate): boolean {
  const least = from !== undefined || to !== undefined ? 1 : 2;
  return ends.length >= least && ends.every((end, i) => i === 0 || end > (ends[i - 1] as number));
}

type Edge = number | OpenEnd;

/** Whether stretches are one behind the other, from one end of an interval to the other. */
function follow(certificates: readonly AreaCertificate[], [a, b]: readonly [number, number]): boolean {
  let reached: Edge = a === -Infinity ? 'infinity' : a;
  for (const { ends, from, to } of certificates) {
    if (!meet(reached, from ?? (ends[0] as number))) return false;
    reached = to ?? (ends.at(-1) as number);
  }
  return certificates.length > 0 && meet(reached, b === Infinity ? 'infinity' : b);
}

/** Whether two ends are the same, as far as doubles and the digits of the checker tell numbers apart. */
function meet(x: Edge, y: Edge): boolean {
  if (x === 'infinity' || y === 'infinity' || (typeof x === 'number' && typeof y === 'number'))
    return x === y;
  const [one, other] = [x, y].map((end) =>
    typeof end === 'number' ? besideDouble(end) : withinRules(() => numberOf(end)),
  );
  return !!one && !!other && n.common(one, other) !== null;
}

function besideDouble(x: number): Range {
  const reach = Math.abs(x) * Number.EPSILON;
  return n.between(x - reach, x + reach);
}

function holds({ value, bound, exact }: AreaClaim, total: Range, allowed: number): boolean {
  const [middle, reach] = [n.point(n.fromDouble(value)), n.point(n.fromDouble(bound))];
  if (!exact) {
    const [lowest, highest] = [n.subtract(middle, reach), n.add(middle, reach)];
    return n.compare(lowest.low, total.low) <= 0 && n.compare(total.high, highest.high) <= 0;
  }
  const number = numberOf(exact);
  const width = n.toDouble(n.subtract(n.point(total.high), n.point(total.low)).high);
  return number !== null && n.common(number, total) !== null && width <= allowed;
}

/** Doubles that lie outside of bounds, or at them. */
function outward({ low, high }: Range): readonly [number, number] {
  const beside = (x: number): number => Math.abs(x) * Number.EPSILON + Number.MIN_VALUE;
  const [below, above] = [n.toDouble(low), n.toDouble(high)];
  return [below - beside(below), above + beside(above)];
}
