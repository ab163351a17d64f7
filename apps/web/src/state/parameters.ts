import { rational } from '@yperkine/core';
import { decimalText, settingValue, type Edit, type EntryOf, type Id } from '@yperkine/demonstration';
import { setField } from './actions.ts';
import type { Workbench } from './workbench.ts';

/** Settings of a parameter that change several of its fields at once. Each is one change. */

/** Lets a slider take whole numbers only: value, limits and step become whole; or any number again. */
export function setWhole(workbench: Workbench, id: Id, whole: boolean): void {
  const entry = workbench.state.document.entries[id];
  if (entry?.kind !== 'parameter') return;
  workbench.stop(id);
  workbench.settle(id);
  const edit = (field: keyof EntryOf<'parameter'>, value: unknown): Edit => ({
    at: 'field',
    of: 'entries',
    id,
    field,
    old: entry[field],
    new: value,
  });
  const [from, to] = [wholeText(entry.from, Math.floor), wholeText(entry.to, Math.ceil)];
  const rounded = whole
    ? [
        edit('from', from),
        edit('to', to),
        edit(
          'step',
          wholeText(entry.step, (step) => Math.max(1, Math.round(step))),
        ),
        edit('value', wholeText(entry.value, Math.round)),
        edit('start', wholeText(entry.start, Math.round)),
      ]
    : [];
  workbench.change([...rounded, edit('whole', whole)]);
}

const wholeText = (text: string, round: (value: number) => number): string =>
  decimalText(rational.rational(round(rational.toNumber(settingValue(text) ?? rational.zero))));

/** How a place on a curve moves: by its slider, by its point alone, or not at all. */
export function setMoves(workbench: Workbench, id: Id, moves: EntryOf<'parameter'>['moves']): void {
  const entry = workbench.state.document.entries[id];
  if (entry?.kind !== 'parameter') return;
  workbench.stop(id);
  workbench.settle(id);
  workbench.change([{ at: 'field', of: 'entries', id, field: 'moves', old: entry.moves, new: moves }]);
}

/** Gives the slider of a name a value; its limits go with it. A name that is no slider keeps what it is. */
export function takeValue(workbench: Workbench, name: string, value: string): void {
  const id = workbench.current().directory.idOf.get(name);
  const entry = id === undefined ? undefined : workbench.state.document.entries[id];
  if (id === undefined || entry?.kind !== 'parameter')
    return workbench.tell(`${name} is no slider, so it keeps its value.`);
  const together = `take ${id}`;
  const number = rational.toNumber(settingValue(value) ?? rational.zero);
  workbench.setValue(id, value, together);
  if (number < Number(entry.from)) setField(workbench, id, 'from', String(Math.floor(number)), together);
  if (number > Number(entry.to)) setField(workbench, id, 'to', String(Math.ceil(number)), together);
}
