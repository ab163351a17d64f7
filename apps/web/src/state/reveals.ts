import { headOf, isReserved } from '@yperkine/core';
import {
  inOrder,
  lastOrder,
  makeEntry,
  withRevealRenamed,
  revealUse,
  withRevealUse,
  type Document,
  type Edit,
  type Entry,
  type EntryOf,
  type Id,
} from '@yperkine/demonstration';
import { added, newId, setField } from './actions.ts';
import type { Workbench } from './workbench.ts';

/** Named switches that show entries. Each is one change. */

export const revealsOf = ({ entries }: Document): [Id, EntryOf<'reveal'>][] =>
  inOrder(entries).flatMap(([id, entry]) =>
    entry.kind === 'reveal' ? [[id, entry] as [Id, EntryOf<'reveal'>]] : [],
  );

/** The name as one writes it: question1 for question_1. */
export const spokenName = (name: string): string => name.replace('_', '');

export const titleOfReveal = ({ title, name }: EntryOf<'reveal'>): string => title || spokenName(name);

/** Puts in a reveal with the next free name: question1, question2, … */
export function addReveal(workbench: Workbench): void {
  const { idOf } = workbench.current().directory;
  let number = 1;
  while (idOf.has(`question_${number}`)) number++;
  const order = lastOrder(workbench.state.document.entries);
  const entry = makeEntry('reveal', { order, name: `question_${number}`, title: `Question ${number}` });
  workbench.change([added(newId(), entry)]);
}

/** The first entry, from top to bottom, that is not shown and that one of some reveals takes part in showing. */
export function firstShownBy(workbench: Workbench, reveals: readonly EntryOf<'reveal'>[]): Id | undefined {
  const { directory, visibilities } = workbench.current();
  const isWaiting = ([id, { shownWhen }]: readonly [Id, Entry]): boolean =>
    visibilities.get(id)?.isShown === false &&
    reveals.some(({ name }) => revealUse(shownWhen, name, directory) !== 'none');
  return inOrder(workbench.state.document.entries).find(isWaiting)?.[0];
}

export function switchReveal(workbench: Workbench, id: Id, switchedOn: boolean): void {
  setField(workbench, id, 'switchedOn', switchedOn, `switch ${id}`);
}

/** Whether a reveal is one of those that show an entry; a sentence where its condition does not allow the change. */
export function showBy(workbench: Workbench, entry: Id, reveal: string, isWanted: boolean): string | null {
  const { document } = workbench.state;
  const text = document.entries[entry]?.shownWhen ?? '';
  const next = withRevealUse(text, reveal, isWanted, workbench.current().directory);
  if (next === null) return 'This condition is more than a list of reveals; please change it by typing.';
  setField(workbench, entry, 'shownWhen', next);
  return null;
}

/** Gives a reveal another name, also in the conditions that ask for it; a sentence where the name cannot be taken. */
export function renameReveal(workbench: Workbench, id: Id, typed: string): string | null {
  const { document } = workbench.state;
  const entry = document.entries[id];
  if (entry?.kind !== 'reveal') return null;
  const { directory } = workbench.current();
  const head = headOf(`${typed} = 0`);
  if (!head || head.variable !== undefined)
    return 'A name is letters with or without a number, such as question1.';
  const { name } = head;
  if (name === entry.name) return null;
  if (isReserved(name) || directory.idOf.has(name))
    return `“${typed}” is already taken; please choose another name.`;
  const edits: Edit[] = [{ at: 'field', of: 'entries', id, field: 'name', old: entry.name, new: name }];
  for (const [other, { shownWhen }] of Object.entries(document.entries)) {
    const renamed = withRevealRenamed(shownWhen, entry.name, name, directory);
    if (renamed !== null && renamed !== shownWhen)
      edits.push({ at: 'field', of: 'entries', id: other, field: 'shownWhen', old: shownWhen, new: renamed });
  }
  workbench.change(edits);
  return null;
}
