import { applyAll, emptyStage, resolveInSteps } from '@yperkine/demonstration';
import type { StoredDemonstration } from '@yperkine/protocol';
import { demonstrations } from '../api/demonstrations.ts';
import { listenForNews } from './news.ts';
import { claimWindowId, Keeper, unsavedShelf } from './pending.ts';
import { Saver } from './saver.ts';
import { inStretches, stretchOfPage } from './breathe.ts';
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
  const begun = applyAll(base, pending?.changes ?? []);
  // What is answered before there is a workbench is taken in once there is one.
  let isHeard = false;
  let hear = (): void => {
    isHeard = true;
  };
  const desk = browserDesk(() => hear());
  const workbench = new Workbench(begun, (callback) => requestAnimationFrame(callback), {
    wantsCalm: () => reducedMotion.matches,
    answersWith: (onNews) => {
      hear = onNews;
      return desk;
    },
    first: await inStretches(resolveInSteps(begun, emptyStage, undefined, desk)),
    stretch: stretchOfPage,
  });
  if (isHeard) hear();
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
      desk.close();
      window.removeEventListener('online', retry);
      window.document.removeEventListener('visibilitychange', retry);
    },
  };
}
