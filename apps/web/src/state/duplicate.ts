import { headOf } from '@yperkine/core';
import { inOrder, type Entry, type Id } from '@yperkine/demonstration';
import { added, freeName, newId, nextFamily } from './actions.ts';
import type { Workbench } from './workbench.ts';

/** Letters that the copy of a function and of a value takes. */
const functionLetters = 'fghpqruvw';
const valueLetters = 'mnbcdk';

/** Puts a copy of an entry under it; what it defines is given a free name, so that nothing is named twice. */
export function duplicateEntry(workbench: Workbench, id: Id): void {
  const { document } = workbench.state;
  const entry = document.entries[id];
  if (!entry) return;
  const all = inOrder(document.entries);
  const next = all[all.findIndex(([other]) => other === id) + 1]?.[1].order ?? entry.order + 1;
  const family = 'family' in entry ? { family: nextFamily(document) } : {};
  const copy = {
    ...entry,
    ...family,
    ...nameOfCopy(workbench, entry),
    names: {},
    order: (entry.order + next) / 2,
  } as Entry;
  workbench.change([added(newId(), copy)]);
}

/** The field that holds the name of an entry, with a free name in it. */
function nameOfCopy(workbench: Workbench, entry: Entry): Partial<Record<'name' | 'text', string>> {
  if ('name' in entry) return { name: freeName(workbench, functionLetters) };
  if (entry.kind !== 'function' && entry.kind !== 'value' && entry.kind !== 'givenDerivative') return {};
  const head = entry.text.includes('=') ? headOf(entry.text) : undefined;
  if (!head) return {};
  const letters = head.variable === undefined ? valueLetters : functionLetters;
  // The name is what the text begins with, up to its bracket or equals sign.
  const rest = entry.text.slice(entry.text.search(/[(='′]/u));
  return { text: `${freeName(workbench, letters)}${rest.startsWith('=') ? ' ' : ''}${rest}` };
}
