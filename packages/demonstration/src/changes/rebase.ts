import { applyChange, placeOf, type Change, type Edit } from './change.ts';
import type { Document } from '../schema/document.ts';

/** The same place changed here and elsewhere: a person has to choose. */
export interface Conflict {
  readonly place: string;
  readonly mine: Edit;
  readonly theirs: Edit;
}

export type Choice = 'mine' | 'theirs';

/** Where changes made here touch what was changed elsewhere since, one conflict a place. */
export function conflictsBetween(mine: readonly Change[], theirs: readonly Change[]): Conflict[] {
  const theirEdits = lastAtPlace(theirs);
  const conflicts: Conflict[] = [];
  for (const edit of lastAtPlace(mine).values()) {
    const other = [...theirEdits.values()].find((candidate) => collide(edit, candidate));
    if (other && JSON.stringify(other.new) !== JSON.stringify(edit.new)) {
      conflicts.push({ place: placeOf(edit), mine: edit, theirs: other });
    }
  }
  return conflicts;
}

function lastAtPlace(changes: readonly Change[]): Map<string, Edit> {
  return new Map(changes.flatMap(({ edits }) => edits).map((edit) => [placeOf(edit), edit]));
}

/** The same field, or a field of an entry that the other side removed or put in. */
function collide(a: Edit, b: Edit): boolean {
  const [placeA, placeB] = [placeOf(a), placeOf(b)];
  return placeA === placeB || placeA.startsWith(`${placeB}/`) || placeB.startsWith(`${placeA}/`);
}

/**
 * The changes made here, to be put on top of `theirs`: an edit that was decided for the other side is
 * left out, and an entry that they removed and a person wants to keep is put back first.
 * @param base the document both sides started from
 */
export function rebase(
  base: Document,
  mine: readonly Change[],
  theirs: readonly Change[],
  choose: (conflict: Conflict) => Choice,
): Change[] {
  const conflicts = conflictsBetween(mine, theirs);
  const dropped = new Set(
    conflicts.filter((conflict) => choose(conflict) === 'theirs').map(({ place }) => place),
  );
  const restored = conflicts
    .filter((conflict) => !dropped.has(conflict.place))
    .flatMap((c) => restoration(base, c));
  const kept = mine
    .map((change) => ({ ...change, edits: change.edits.filter((edit) => !dropped.has(placeOf(edit))) }))
    .filter(({ edits }) => edits.length > 0);
  const [first, ...rest] = kept;
  return first ? [{ ...first, edits: [...restored, ...first.edits] }, ...rest] : [];
}

/** A field of mine whose entry they removed can only be kept with the entry. */
function restoration(base: Document, { mine, theirs }: Conflict): Edit[] {
  if (mine.at !== 'field' || theirs.at === 'field' || theirs.at === 'document' || theirs.new !== null)
    return [];
  const before = base[theirs.at][theirs.id];
  return before ? [{ at: theirs.at, id: theirs.id, old: null, new: before } as Edit] : [];
}

export const applyAll = (document: Document, changes: readonly Change[]): Document =>
  changes.reduce(applyChange, document);
