import { invert, merge, type Change } from './change.ts';

/** What this window did and took back. Other windows' changes are not in it. */
export interface History {
  readonly past: readonly Remembered[];
  readonly future: readonly Change[];
}
interface Remembered {
  readonly change: Change;
  /** Changes in a row with the same key are undone as one. */
  readonly together: string | undefined;
}

export const emptyHistory: History = { past: [], future: [] };
const longestHistory = 500;

export function remember(history: History, change: Change, together?: string): History {
  const last = history.past.at(-1);
  const joins = last !== undefined && together !== undefined && last.together === together;
  const past = joins
    ? [...history.past.slice(0, -1), { change: merge(last.change, change), together }]
    : [...history.past, { change, together }];
  return { past: past.slice(-longestHistory), future: [] };
}

/** Ends a run of changes that are undone as one. */
export function seal(history: History): History {
  const last = history.past.at(-1);
  if (last?.together === undefined) return history;
  return { ...history, past: [...history.past.slice(0, -1), { change: last.change, together: undefined }] };
}

/** The change to apply for going back one step, and the history after it; null when there is nothing to undo. */
export function undo(history: History, id: string): { change: Change; history: History } | null {
  const last = history.past.at(-1);
  if (!last) return null;
  return {
    change: invert(last.change, id),
    history: { past: history.past.slice(0, -1), future: [last.change, ...history.future] },
  };
}

/** The change to apply for going forward one step again; null when there is nothing to redo. */
export function redo(history: History, id: string): { change: Change; history: History } | null {
  const [next, ...future] = history.future;
  if (!next) return null;
  return {
    change: { ...next, id },
    history: { past: [...history.past, { change: next, together: undefined }], future },
  };
}
