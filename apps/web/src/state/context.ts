import { createContext, useContext } from 'react';
import { useStore } from 'zustand';
import { saidOf, type Resolved, type Said } from '@yperkine/demonstration';
import type { SightedStore } from './sight.ts';
import type { Workbench, WorkbenchState } from './workbench.ts';

export const WorkbenchContext = createContext<Workbench | null>(null);

/** The state as the part of the page around sees it, where that may be out of sight. */
export const SightContext = createContext<SightedStore | null>(null);

/** The workbench of the open demonstration. */
export function useWorkbench(): Workbench {
  const workbench = useContext(WorkbenchContext);
  if (!workbench) throw new Error('outside an open demonstration');
  return workbench;
}

/** A part of the workbench's state; the component renders again only when this part changes. */
export function useWorkbenchState<T>(select: (state: WorkbenchState) => T): T {
  const { store } = useWorkbench();
  return useStore(useContext(SightContext) ?? store, select);
}

export function useResolved(id: string): Resolved | undefined {
  return useWorkbenchState((state) => state.resolution.entries.get(id));
}

/** What an entry says; undefined while it could not be worked out. */
export function useSaid(id: string): Said | undefined {
  return useWorkbenchState((state) => saidOf(state.resolution, id));
}
