import type { Resolution } from '../resolve/resolution.ts';
import type { Document } from '../schema/document.ts';
import type { Stage } from '../stage/stage.ts';
import type { Edit } from './change.ts';
import { momentEdits, shownMoment, startEdits, startMoment } from './moment.ts';

/** The edits that give sliders, points, reveals and windows back what they were at the start. */
export const restoreStartEdits = (document: Document): Edit[] => momentEdits(document, startMoment(document));

/** The edits that make what is shown just now the start, motion's last values included. */
export function makeStartEdits(document: Document, stage: Stage, resolution: Resolution): Edit[] {
  const shown = shownMoment(document, stage, resolution);
  return [...momentEdits(document, shown), ...startEdits(document, shown)];
}
