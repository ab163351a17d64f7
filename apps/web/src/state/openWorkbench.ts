import { applyAll } from '@yperkine/demonstration';
import type { StoredDemonstration } from '@yperkine/protocol';
import { demonstrations } from '../api/demonstrations.ts';
import { claimWindowId, findPending, keepPending } from './pending.ts';
import { Saver } from './saver.ts';
import type { AnswerDesk } from './answerDesk.ts';
import { browserDesk } from './browserDesk.ts';
import { Workbench } from './workbench.ts';

let windowId: Promise<string> | null = null;

export interface OpenDemonstration {
  readonly workbench: Workbench;
  close(): void;
}

/** Opens a stored demonstration together with what an earlier window could not save. */
export async function openWorkbench({
  id,
  version,
  document,
}: StoredDemonstration): Promise<OpenDemonstration> {
  windowId ??= claimWindowId();
  const ownWindow = await windowId;
  const pending = await findPending(id, ownWindow);
  const base = pending?.baseDocument ?? document;
  const reducedMotion = window.matchMedia('(prefers-reduced-motion: reduce)');
  let desk: AnswerDesk | null = null;
  const workbench = new Workbench(
    applyAll(base, pending?.changes ?? []),
    (callback) => requestAnimationFrame(callback),
    () => reducedMotion.matches,
    (onNews) => (desk = browserDesk(onNews)),
  );
  const saver = new Saver(
    {
      send: (save) => demonstrations.save(id, save),
      onStale: (_saver, theirs) => workbench.takeIn(theirs),
      onState: (state) => workbench.saveStateIs(state),
      keep: (unsaved) => keepPending(id, ownWindow, unsaved),
      schedule: (callback, milliseconds) => setTimeout(callback, milliseconds),
    },
    pending?.base ?? version,
    base,
    pending?.changes ?? [],
  );
  workbench.saveWith(saver);
  const retry = () => saver.retry();
  window.addEventListener('online', retry);
  window.document.addEventListener('visibilitychange', retry);
  return {
    workbench,
    close: () => {
      desk?.close();
      window.removeEventListener('online', retry);
      window.document.removeEventListener('visibilitychange', retry);
    },
  };
}
