import { readStagedInterval } from '../entries/asking.ts';
import type { Document, Id } from '../schema/document.ts';
import type { Edit } from './change.ts';
import { movingField } from './moment.ts';

/** Fields beside the interval that are shown while they are dragged, of entries that nothing else moves. */
const shownField = { sum: 'cuts', averageValue: 'height' } as const;

/** The edits that make what the stage shows of an entry the document's: a value, points, or an interval. */
export function settledEdits({ entries }: Document, id: Id, shown: string): Edit[] {
  const entry = entries[id];
  if (!entry) return [];
  const fields = entry as Readonly<Record<string, unknown>>;
  const edit = (field: string, value: string): Edit => ({
    at: 'field',
    of: 'entries',
    id,
    field,
    old: fields[field],
    new: value,
  });
  const interval = readStagedInterval(shown);
  if (interval && 'from' in entry && entry.kind !== 'parameter') {
    return [edit('from', interval.from), edit('to', interval.to)];
  }
  if (entry.kind in shownField) return [edit(shownField[entry.kind as keyof typeof shownField], shown)];
  return entry.kind in movingField ? [edit(movingField[entry.kind as keyof typeof movingField], shown)] : [];
}
