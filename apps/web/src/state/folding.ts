import { applyChange, inOrder, type Document, type Edit, type Entry, type Id } from '@yperkine/demonstration';
import { perDocument } from './perDocument.ts';

/** What is seen in the working, with its headings folded and unfolded. */

/** The entries that a change puts somewhere: new ones, and those that get another place. */
const placedBy = (edits: readonly Edit[]): Set<Id> =>
  new Set(
    edits.flatMap((edit) => {
      if (edit.at === 'entries') return edit.new === null ? [] : [edit.id];
      return edit.at === 'field' && edit.of === 'entries' && edit.field === 'order' ? [edit.id] : [];
    }),
  );

/** The edits that unfold a heading under which a change puts an entry, so that it is seen where it has come to. */
export function unfoldingEdits(document: Document, edits: readonly Edit[]): Edit[] {
  const placed = placedBy(edits);
  if (placed.size === 0) return [];
  const after = applyChange(document, { id: 'preview', edits: [...edits] });
  const unfolded = new Set<Id>();
  let heading: Id | null = null;
  for (const [id, entry] of inOrder(after.entries)) {
    if (entry.kind === 'heading') heading = entry.folded && !placed.has(id) ? id : null;
    else if (heading !== null && placed.has(id) && isListed(entry)) unfolded.add(heading);
  }
  return [...unfolded].map((id) => ({
    at: 'field',
    of: 'entries',
    id,
    field: 'folded',
    old: true,
    new: false,
  }));
}

/** Whether an entry has a card; sliders and reveals are in the deck. */
const isListed = ({ kind }: Entry): boolean => kind !== 'parameter' && kind !== 'reveal';

/** The entries that are seen in the working: no sliders and reveals, and nothing under a folded heading. */
export const shownInWorking = perDocument((document): readonly Id[] => {
  let isFolded = false;
  return inOrder(document.entries).flatMap(([id, entry]) => {
    if (entry.kind === 'heading') isFolded = entry.folded;
    const isSeen = entry.kind === 'heading' || !isFolded;
    return isSeen && isListed(entry) ? [id] : [];
  });
});
