import {
  chooseXRange,
  chooseYRange,
  Effort,
  evaluatorFor,
  ifInTime,
  roughCurve,
  type Plotted,
  type Range,
} from '@yperkine/core';
import type { Edit } from './change.ts';
import { windowEdits } from './windows.ts';
import type { Resolution } from '../resolve/resolution.ts';
import { atOnce } from '../resolve/steps.ts';
import type { Document, Id } from '../schema/document.ts';
import { plottedOf } from '../entries/curve.ts';
import { curvesIn } from '../scene/titles.ts';

/** Operations that choosing one axis of a window may take of the page's time, and a rough choice beside it. */
const mostOperations = 2_000_000;
const ofRoughCurves = 3_000_000;
/** Room above and below, as a share of the height. */
const roughMargin = 0.08;

export type FitScope = 'both' | 'height';

/**
 * The edits that give every tier a good window. With typed x-limits, or when asked for the height
 * alone, x stays as it is.
 * @param shown the window along x that is kept when only the height is fitted
 */
export const fitEdits = (document: Document, resolution: Resolution, scope: FitScope, shown: Range): Edit[] =>
  atOnce(fitInSteps(document, resolution, scope, shown));

/** The same axis by axis, for who has other things to do in between. */
export function* fitInSteps(
  document: Document,
  resolution: Resolution,
  scope: FitScope,
  shown: Range,
): Generator<void, Edit[]> {
  const tierIds = Object.keys(document.tiers);
  const functions = tierIds.flatMap((tier) => plottedIn(resolution, tier, 0));
  // Where only a derivative is given, its own features tell where to look.
  const given = functions.length > 0 ? functions : tierIds.flatMap((tier) => plottedIn(resolution, tier));
  const keepsX = scope === 'height' || document.xTyped || given.length === 0;
  const x = keepsX ? shown : (ifInTime(mostOperations, () => chooseXRange(given)) ?? shown);
  const edits: Edit[] = keepsX
    ? [{ at: 'document', field: 'x', old: document.x, new: x }]
    : windowEdits(document, 'x', x);
  for (const tier of tierIds) {
    yield;
    const plotted = curvesIn(resolution, tier).map(({ curve }) => plottedOf(curve, x));
    if (plotted.length === 0) continue;
    const y = ifInTime(mostOperations, () => chooseYRange(plotted, x)) ?? roughHeights(plotted, x);
    if (y) edits.push(...windowEdits(document, tier, y));
  }
  return edits.filter((edit) => JSON.stringify(edit.old) !== JSON.stringify(edit.new));
}

/** The heights of a few places, for curves of which more would take too long; null where even these would. */
function roughHeights(plotted: readonly Plotted[], { from, to }: Range): Range | null {
  const grid = { xFrom: from, xTo: to, yFrom: 0, yTo: 1, width: 1, height: 1 };
  const share = ofRoughCurves / plotted.length;
  const heights = plotted.flatMap(({ program, parameters }) =>
    roughCurve(() => evaluatorFor(program), grid, parameters, new Effort(share)).flatMap((run) =>
      [...run].filter((_, i) => i % 2 === 1),
    ),
  );
  const [low, high] = [Math.min(...heights), Math.max(...heights)];
  const margin = (high - low) * roughMargin;
  return low < high ? { from: low - margin, to: high + margin } : null;
}

function plottedIn(resolution: Resolution, tier: Id, order?: number) {
  return curvesIn(resolution, tier)
    .filter(({ curve }) => curve.standIn === undefined && (order === undefined || curve.order === order))
    .map(({ curve: { program, parameters } }) => ({ program, parameters }));
}
