import { createContext, useContext } from 'react';
import { useStore } from 'zustand';
import type { Resolved } from '@yperkine/demonstration';
import type { Workbench, WorkbenchState } from './workbench.ts';

export const WorkbenchContext = createContext<Workbench | null>(null);

/** The workbench of the open demonstration. */
export function useWorkbench(): Workbench {
  const workbench = useContext(WorkbenchContext);
  if (!workbench) throw new Error('outside an open demonstration');
  return workbench;
}

/** A part of the workbench's state; the component renders again only when this part changes. */
export function useWorkbenchState<T>(select: (state: WorkbenchState) => T): T {
  return useStore(useWorkbench().store, select);
}

export function useResolved(id: string): Resolved | undefined {
  return useWorkbenchState((state) => state.resolution.entries.get(id));
}
