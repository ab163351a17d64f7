import type { Extremes } from '../analysis/reading.ts';
import { isBoundedAt } from '../analysis/reading.ts';
import { located, type Place } from '../analysis/place.ts';
import { signs } from '../analysis/signs.ts';
import type { Expression } from '../language/tree.ts';
import { integral } from './integral.ts';

/** Share of the largest change by which heights have to differ to be told apart: far more than places are rounded. */
const margin = 1e-9;

/**
 * Where on an interval a function is greatest and least, from the areas under the graph of its derivative: by how much
 * it rises and falls between the places where the derivative changes its sign. Null where that is not shown.
 * @param body the formula of the derivative, in the variable alone
 * @param order which derivative of f it is; it tells about the one below
 */
export function extremesByAreas(
  body: Expression,
  variable: string,
  interval: readonly [number, number],
  order: number,
): Extremes | null {
  const stops = stopsOf(body, variable, interval);
  if (!stops) return null;
  const changes: Extremes['changes'][number][] = [];
  const heights = [0];
  let bound = 0;
  for (let i = 1; i < stops.length; i++) {
    const [from, to] = [stops[i - 1], stops[i]] as [Place, Place];
    const area = integral(body, variable, [from.value, to.value]);
    if (!Number.isFinite(area.value) || area.certainty === 'estimated') return null;
    bound += area.bound;
    changes.push({ from: located(from), to: located(to), by: area.value });
    heights.push((heights.at(-1) as number) + area.value);
  }
  const scale = Math.max(...changes.map(({ by }) => Math.abs(by)));
  const apart = 2 * bound + margin * scale;
  const [least, greatest] = ([-1, 1] as const).map((way) => only(heights, way, apart));
  if (least === undefined || greatest === undefined || least === null || greatest === null) return null;
  return {
    kind: 'extremes',
    of: order - 1,
    derivative: order,
    least: located(stops[least] as Place),
    greatest: located(stops[greatest] as Place),
    changes,
  };
}

/** The ends of the interval and the places between at which the derivative changes its sign; null where it has gaps. */
function stopsOf(body: Expression, variable: string, interval: readonly [number, number]): Place[] | null {
  const { intervals, complete } = signs(body, variable, interval);
  const [first, last] = [intervals[0], intervals.at(-1)];
  if (!complete || !first || !last) return null;
  if (first.from.value !== interval[0] || last.to.value !== interval[1]) return null;
  const stops = [first.from];
  for (let i = 1; i < intervals.length; i++) {
    const [before, { from, sign }] = [intervals[i - 1], intervals[i]] as [
      (typeof intervals)[number],
      (typeof intervals)[number],
    ];
    if (before.to !== from || !isBoundedAt(body, variable, from)) return null;
    if (before.sign !== sign) stops.push(from);
  }
  return [...stops, last.to];
}

/** The one height that is largest (1) or smallest (−1); null where others come too near to tell. */
function only(heights: readonly number[], way: 1 | -1, apart: number): number | null {
  const best = heights.reduce(
    (found, height, i) => (way * (height - (heights[found] as number)) > 0 ? i : found),
    0,
  );
  const isAlone = heights.every(
    (height, i) => i === best || way * ((heights[best] as number) - height) > apart,
  );
  return isAlone ? best : null;
}
