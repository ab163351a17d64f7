import { chooseXRange, chooseYRange, type Range } from '@yperkine/core';
import type { Edit } from '../changes/change.ts';
import { windowEdits } from '../changes/windows.ts';
import type { Resolution } from '../resolve/resolve.ts';
import type { Document, Id } from '../schema/document.ts';
import { plottedOf } from '../entries/curve.ts';
import { curvesIn } from './titles.ts';

export type FitScope = 'both' | 'height';

/**
 * The edits that give every tier a good window. With typed x-limits, or when asked for the height
 * alone, x stays as it is.
 * @param shown the window along x that is kept when only the height is fitted
 */
export function fitEdits(document: Document, resolution: Resolution, scope: FitScope, shown: Range): Edit[] {
  const tierIds = Object.keys(document.tiers);
  const functions = tierIds.flatMap((tier) => plottedIn(resolution, tier, 0));
  // Where only a derivative is given, its own features tell where to look.
  const given = functions.length > 0 ? functions : tierIds.flatMap((tier) => plottedIn(resolution, tier));
  const keepsX = scope === 'height' || document.xTyped || given.length === 0;
  const x = keepsX ? shown : chooseXRange(given);
  const edits: Edit[] = keepsX
    ? [{ at: 'document', field: 'x', old: document.x, new: x }]
    : windowEdits(document, 'x', x);
  for (const tier of tierIds) {
    const plotted = curvesIn(resolution, tier).map(({ curve }) => plottedOf(curve, x));
    if (plotted.length > 0) edits.push(...windowEdits(document, tier, chooseYRange(plotted, x)));
  }
  return edits.filter((edit) => JSON.stringify(edit.old) !== JSON.stringify(edit.new));
}

function plottedIn(resolution: Resolution, tier: Id, order?: number) {
  return curvesIn(resolution, tier)
    .filter(({ curve }) => curve.standIn === undefined && (order === undefined || curve.order === order))
    .map(({ curve: { program, parameters } }) => ({ program, parameters }));
}
