import { lazily } from '../parts/lazily.tsx';
import { keepTyped } from './chooser/typedAhead.ts';
import { loadFormulaEditor } from './working/FormulaField.tsx';

const loadChooser = async () => (await import('./chooser/Chooser.tsx')).Chooser;

/** What opens over the build view now and then: each is loaded when it is first asked for. */
export const DataDialog = lazily(async () => (await import('./data/DataDialog.tsx')).DataDialog);
export const ConflictDialog = lazily(async () => (await import('./ConflictDialog.tsx')).ConflictDialog);
export const Chooser = lazily(loadChooser);

/** Keeps what is typed for a chooser that is still on its way; gives how to stop. */
export function keepTypedForChooser(): () => void {
  const stop = keepTyped();
  // Where it cannot be had, the keys are the page's again.
  loadChooser().catch(stop);
  return stop;
}

const firstMoves = ['pointermove', 'pointerdown', 'keydown'] as const;

/**
 * Fetches the chooser and the editor of formulas as soon as there is somebody to use them: they are there when they are
 * wanted, the server or not.
 */
export function fetchAhead(): () => void {
  const stop = (): void => {
    for (const move of firstMoves) window.removeEventListener(move, fetchIt);
  };
  const fetchIt = (): void => {
    stop();
    // Where it cannot be had, whoever opens it is told.
    for (const load of [loadChooser, loadFormulaEditor]) load().catch(() => undefined);
  };
  for (const move of firstMoves) window.addEventListener(move, fetchIt);
  return stop;
}
