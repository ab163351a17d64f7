import { TooLarge } from '../budget/tooLarge.ts';
import type { Expression } from '../language/tree.ts';
import { Arcs } from './arcs.ts';

/**
 * Whether a function has no value at all in an interval; null where that could not be decided.
 * @param body a formula in the variable alone
 */
export function isNowhereDefined(
  body: Expression,
  variable: string,
  interval: readonly [number, number],
): boolean | null {
  try {
    const arcs = new Arcs(body, variable, interval, 0);
    const isSomewhere =
      arcs.arcs.some(({ derivatives }) => derivatives !== null) ||
      arcs.joints.some((joint) => arcs.valueAt(joint) !== null);
    if (isSomewhere) return false;
    return arcs.undecided.length === 0 ? true : null;
  } catch (error) {
    if (error instanceof TooLarge) return null;
    throw error;
  }
}
