import { makeStartEdits, restoreStartEdits } from '@yperkine/demonstration';
import type { Workbench } from './workbench.ts';

/** Gives sliders, points, reveals and windows back what they were at the start, and takes all trails away. */
export function restoreStart(workbench: Workbench): void {
  workbench.reset(restoreStartEdits(workbench.state.document));
}

/** Makes what is shown just now the start. */
export function makeStart(workbench: Workbench): void {
  const { document, stage } = workbench.state;
  workbench.reset(makeStartEdits(document, stage, workbench.current()));
}
