import { inOrder, type Document, type Edit, type Id } from '@yperkine/demonstration';
import type { Workbench } from './workbench.ts';

/** The order of the working. Each move is one change. */

/** A gap between two order keys below which all of them are given out anew. */
const narrowest = 1e-6;

/** An entry with what moves with it: a folded heading takes along what is under it. */
export function blockOf(document: Document, id: Id): readonly Id[] {
  const all = inOrder(document.entries);
  const at = all.findIndex(([other]) => other === id);
  const entry = all[at]?.[1];
  if (entry?.kind !== 'heading' || !entry.folded) return [id];
  const rest = all.slice(at + 1);
  const end = rest.findIndex(([, { kind }]) => kind === 'heading');
  return [id, ...rest.slice(0, end < 0 ? rest.length : end).map(([member]) => member)];
}

/** The edits that put entries before another one, or at the end. */
export function orderEdits(document: Document, moved: readonly Id[], before: Id | null): Edit[] {
  const others = inOrder(document.entries).filter(([id]) => !moved.includes(id));
  const found = others.findIndex(([id]) => id === before);
  const at = found < 0 ? others.length : found;
  const upper = others[at]?.[1].order ?? (others.at(-1)?.[1].order ?? 0) + moved.length + 1;
  const lower = others[at - 1]?.[1].order ?? upper - moved.length - 1;
  const gap = (upper - lower) / (moved.length + 1);
  if (gap < narrowest) {
    const ids = others.map(([id]) => id);
    return [...ids.slice(0, at), ...moved, ...ids.slice(at)].flatMap((id, i) => edit(document, id, i + 1));
  }
  return moved.flatMap((id, i) => edit(document, id, lower + gap * (i + 1)));
}

function edit(document: Document, id: Id, order: number): Edit[] {
  const old = document.entries[id]?.order;
  return old === undefined || old === order
    ? []
    : [{ at: 'field', of: 'entries', id, field: 'order', old, new: order }];
}

/**
 * Moves an entry to where another one stands in the working.
 * @param shown the entries that are seen in the working, in order
 */
export function moveOnto(workbench: Workbench, shown: readonly Id[], id: Id, onto: Id): void {
  const [from, to] = [shown.indexOf(id), shown.indexOf(onto)];
  if (from < 0 || to < 0 || from === to) return;
  const { document } = workbench.state;
  const before = from < to ? (shown[to + 1] ?? null) : onto;
  workbench.change(orderEdits(document, blockOf(document, id), before));
}

/** Moves an entry one place up or down among those that are seen. */
export function moveBy(workbench: Workbench, shown: readonly Id[], id: Id, by: -1 | 1): void {
  const onto = shown[shown.indexOf(id) + by];
  if (onto !== undefined) moveOnto(workbench, shown, id, onto);
}
