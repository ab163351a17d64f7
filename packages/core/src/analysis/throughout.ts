import { TooLarge } from '../budget/tooLarge.ts';
import type { Expression } from '../language/tree.ts';
import { Arcs, type SideLimit } from './arcs.ts';
import { compareHeights, type Height } from './height.ts';
import type { Place } from './place.ts';
import { signs } from './signs.ts';
import { SingleValues } from './singleValues.ts';

/** The one way in which a function goes on an interval, or that it goes both ways. */
export type SignThroughout = -1 | 0 | 1 | 'both';

/**
 * Whether a function rises (1), falls (−1) or is level (0) on the whole of an interval, jumps and values between them
 * included; null where nothing shows that, or a jump goes against its slope.
 * @param body a formula in the variable alone
 */
export const slopeThroughout = (
  body: Expression,
  variable: string,
  interval: readonly [number, number],
): SignThroughout | null => throughout(body, variable, interval, 1, rises);

/** Whether it bends up (1) or down (−1) on the whole of it, without a jump, and with no corner that bends the other way. */
export const bendThroughout = (
  body: Expression,
  variable: string,
  interval: readonly [number, number],
): SignThroughout | null => throughout(body, variable, interval, 2, bends);

/** The sign of a derivative where it is one on the whole interval and all joints agree with it. */
function throughout(
  body: Expression,
  variable: string,
  interval: readonly [number, number],
  order: 1 | 2,
  agrees: (arcs: Arcs, joint: Place, sign: -1 | 0 | 1) => boolean,
): SignThroughout | null {
  return within(() => {
    const sign = signOfDerivative(body, variable, interval, order);
    if (sign === null || sign === 'both') return sign;
    const arcs = new Arcs(body, variable, interval, order);
    return arcs.joints.every((joint) => agrees(arcs, joint, sign)) ? sign : null;
  });
}

/** The sign that a derivative has everywhere on the interval, single points apart. */
function signOfDerivative(
  body: Expression,
  variable: string,
  interval: readonly [number, number],
  order: number,
): SignThroughout | null {
  const found = signs(body, variable, interval, order);
  if (!found.complete) return null;
  const kinds = new Set(found.intervals.map(({ sign }) => sign));
  if (kinds.has(1) && kinds.has(-1)) return 'both';
  const [only] = kinds;
  const isWhole = coversWhole(found.intervals, interval);
  return kinds.size === 1 && only !== undefined && isWhole ? only : null;
}

/** Whether stretches leave nothing out: a function may have no slope on a part. */
function coversWhole(
  stretches: readonly { from: Place; to: Place }[],
  [a, b]: readonly [number, number],
): boolean {
  const width = stretches.reduce((total, { from, to }) => total + to.value - from.value, 0);
  return Math.abs(width - (b - a)) <= (b - a) * 1e-9;
}

interface Beside {
  readonly left: Height | null;
  readonly value: Height | null;
  readonly right: Height | null;
}

/** Limits and value at a joint; null for a side without an arc, and undefined where nothing is known of one. */
function beside(arcs: Arcs, joint: Place): Beside | undefined {
  const sides = arcs.arcsAt(joint);
  const [left, right] = [sides.left, sides.right].map((arc) =>
    arc ? finite(arcs.limitAlong(arc, joint, 0)) : null,
  );
  const value = arcs.valueAt(joint);
  return left === undefined || right === undefined ? undefined : { left, value, right };
}

const finite = (limit: SideLimit): Height | undefined => (limit.kind === 'finite' ? limit.height : undefined);

/** Left limit, value and right limit in this order, or all the same where the function is level. */
function rises(arcs: Arcs, joint: Place, sign: -1 | 0 | 1): boolean {
  const heights = beside(arcs, joint);
  if (!heights) return false;
  const inOrder = [heights.left, heights.value, heights.right].filter((height) => height !== null);
  return inOrder.slice(1).every((height, i) => {
    const step = compareHeights(height, inOrder[i] as Height);
    return sign === 0 ? step === 0 : step * sign >= 0;
  });
}

/** A function that goes on without a jump and whose slope steps in the direction of its bend. */
function bends(arcs: Arcs, joint: Place, sign: -1 | 0 | 1): boolean {
  if (!rises(arcs, joint, 0)) return false;
  const { left, right } = arcs.arcsAt(joint);
  if (!left || !right) return true;
  const step = slopeStep(arcs.limitAlong(left, joint, 1), arcs.limitAlong(right, joint, 1));
  return sign === 0 ? step === 0 : step * sign >= 0;
}

/** The sign of the step of the slope, which may be infinite on either side; NaN where it is not known. */
function slopeStep(left: SideLimit, right: SideLimit): number {
  if (left.kind === 'finite' && right.kind === 'finite') return compareHeights(right.height, left.height);
  const before = left.kind === 'infinite' ? left.sign : left.kind === 'finite' ? 0 : NaN;
  const after = right.kind === 'infinite' ? right.sign : right.kind === 'finite' ? 0 : NaN;
  return Math.sign(after - before);
}

/** Work on formulas that may be too large, or have no slope anywhere. */
export function within<R>(work: () => R): R | null {
  try {
    return work();
  } catch (error) {
    if (error instanceof TooLarge || error instanceof SingleValues) return null;
    throw error;
  }
}
