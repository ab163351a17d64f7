import { lastOrder, makeEntry, type Id } from '@yperkine/demonstration';
import { added, newId } from './actions.ts';
import type { Workbench } from './workbench.ts';

/** Lets a point of an entry leave marks while it moves. One change. */
export function addTrail(workbench: Workbench, of: Id, place: string): void {
  const order = lastOrder(workbench.state.document.entries);
  workbench.change([added(newId(), makeEntry('trail', { order, of, place }))]);
}
