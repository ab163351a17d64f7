import { enclose } from './enclosures.ts';
import type { Program } from './program.ts';

/** Enclosures that one question may take. */
const mostLooks = 400;
/** A part this much narrower than the whole that still cannot be shown continuous is taken for a gap. */
const narrowest = 1e-5;

/**
 * Whether f is defined and continuous on [a, b]: proved by enclosures where the answer is yes, except for places
 * narrower than a hundred-thousandth of the interval at which both sides meet in value.
 * @param parameters values in the order of `program.parameters`
 */
export function isContinuousBetween(
  program: Program,
  a: number,
  b: number,
  parameters: readonly number[] = [],
): boolean {
  const open: [number, number][] = [[a, b]];
  for (let looks = 0; open.length > 0; looks++) {
    if (looks >= mostLooks) return false;
    const [low, high] = open.pop() as [number, number];
    const range = enclose(program, low, high, parameters);
    if (range.sure) continue;
    const middle = low + (high - low) * 0.4871;
    const isNarrow = high - low <= (b - a) * narrowest || !(middle > low && middle < high);
    if (isNarrow && !meets(program, low, high, parameters, a, b)) return false;
    if (!isNarrow) open.push([middle, high], [low, middle]);
  }
  return true;
}

/** Whether the values at both ends of a narrow part are as near as a continuous curve would have them. */
function meets(
  program: Program,
  low: number,
  high: number,
  parameters: readonly number[],
  a: number,
  b: number,
): boolean {
  const value = (x: number) => enclose(program, x, x, parameters);
  const [left, right, first, last] = [value(low), value(high), value(a), value(b)];
  const scale = Math.max(1e-300, Math.abs(first.high - last.low), Math.abs(first.high), Math.abs(last.high));
  return Math.abs(left.low - right.high) <= scale * 0.01;
}
