import { applyAll } from '@yperkine/demonstration';
import type { StoredDemonstration } from '@yperkine/protocol';
import { demonstrations } from '../api/demonstrations.ts';
import { listenForNews } from './news.ts';
import { claimWindowId, Keeper, unsavedShelf } from './pending.ts';
import { Saver } from './saver.ts';
import type { AnswerDesk } from './answerDesk.ts';
import { browserDesk } from './browserDesk.ts';
import { Workbench } from './workbench.ts';

let windowId: Promise<string> | null = null;
const shelf = unsavedShelf();

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
  let isKept = true;
  let tellKept = (kept: boolean): void => {
    isKept = kept;
  };
  const keeper = new Keeper(id, ownWindow, (kept) => tellKept(kept), shelf);
  const pending = await keeper.find();
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
      onSetApart: (change, rest, why) => workbench.setApart(change, rest, why),
      keep: keeper,
      schedule: (callback, milliseconds) => setTimeout(callback, milliseconds),
    },
    pending?.base ?? version,
    base,
    pending?.changes ?? [],
  );
  workbench.saveWith(saver);
  workbench.keptIs(isKept);
  tellKept = (kept) => workbench.keptIs(kept);
  const deafen = listenForNews(id, saver, workbench);
  const retry = () => saver.retry();
  window.addEventListener('online', retry);
  window.document.addEventListener('visibilitychange', retry);
  return {
    workbench,
    close: () => {
      deafen();
      desk?.close();
      window.removeEventListener('online', retry);
      window.document.removeEventListener('visibilitychange', retry);
    },
  };
}
