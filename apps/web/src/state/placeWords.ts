import {
  headOfEntry,
  inOrder,
  type Document,
  type Edit,
  type Entry,
  type Resolution,
  type Tier,
} from '@yperkine/demonstration';

/** What is known of a demonstration when a place in it is named. */
export interface Known {
  readonly document: Document;
  readonly resolution: Resolution;
}

const ofDocument: ReadonlyMap<string, string> = new Map([
  ['title', 'The title'],
  ['decimals', 'The decimal places'],
  ['angles', 'Whether angles are degrees'],
  ['x', 'The window along the x-axis'],
  ['startX', 'The window along the x-axis at the start'],
  ['xTicks', 'The distance of ticks of the x-axis'],
  ['xTyped', 'Whether the x-limits are kept'],
  ['xTitle', 'The title of the x-axis'],
  ['xUnit', 'The unit of the x-axis'],
  ['looks', 'The looks'],
]);

const ofField: ReadonlyMap<string, string> = new Map([
  ['text', 'the formula'],
  ['value', 'the value'],
  ['start', 'the value at the start'],
  ['from', 'the left limit'],
  ['to', 'the right limit'],
  ['step', 'the step'],
  ['name', 'the name'],
  ['names', 'the names of results'],
  ['seconds', 'the seconds a run'],
  ['speed', 'the units a second'],
  ['pause', 'the pause'],
  ['repeat', 'how often it runs'],
  ['motion', 'how it moves'],
  ['unit', 'the unit'],
  ['order', 'the place in the working'],
  ['hidden', 'whether it is drawn'],
  ['shownWhen', 'when it is shown'],
  ['look', 'the look'],
  ['points', 'the points'],
  ['table', 'the data'],
  ['title', 'the title'],
  ['tier', 'the tier'],
  ['y', 'the window'],
  ['startY', 'the window at the start'],
  ['yTicks', 'the distance of ticks'],
  ['switchedOn', 'whether it is on'],
]);

/** Anything else: the field's name as words, "maxParts" as "max parts". */
const spelledOut = (field: string): string =>
  `the setting “${field.replaceAll(/([A-Z\d]+)/g, ' $1').toLowerCase()}”`;

/** The place that an edit is about, in words: "The value of slider a". */
export function placeInWords(edit: Edit, known: Known): string {
  if (edit.at === 'document') return ofDocument.get(edit.field) ?? 'A setting of the demonstration';
  const map = edit.at === 'field' ? edit.of : edit.at;
  const thing = { entries: entryInWords, tiers: tierInWords, steps: stepInWords }[map](edit, known);
  if (edit.at !== 'field') return capital(thing);
  return capital(`${ofField.get(edit.field) ?? spelledOut(edit.field)} of ${thing}`);
}

const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

function entryInWords(edit: Edit & { readonly id: string }, { document, resolution }: Known): string {
  // What one side deleted is known by what it was.
  const entry = document.entries[edit.id] ?? wholeEntry(edit);
  if (entry?.kind === 'parameter') return `slider ${entry.name}`;
  const resolved = resolution.entries.get(edit.id);
  const heading = resolved && headOfEntry(resolved).heading;
  const text = entry && 'text' in entry ? entry.text : '';
  if (text !== '') return `“${text.length > 60 ? `${text.slice(0, 60)} …` : text}”`;
  return heading ? `“${heading}”` : 'an entry';
}

function wholeEntry(edit: Edit): Entry | null {
  return edit.at === 'entries' ? (edit.new ?? edit.old) : null;
}

function tierInWords({ id }: { readonly id: string }, { document }: Known): string {
  const place = inOrder<Tier>(document.tiers).findIndex(([tier]) => tier === id);
  return place < 0 ? 'a tier' : `tier ${place + 1}`;
}

function stepInWords({ id }: { readonly id: string }, { document }: Known): string {
  const title = document.steps[id]?.title ?? '';
  return title === '' ? 'a step' : `step “${title}”`;
}

/** What an edit puts there, in words: a number or text as it is, a window with its ends. */
export function valueInWords(edit: Edit): string {
  const value: unknown = edit.new;
  if (value === null) return edit.at === 'field' || edit.at === 'document' ? 'none' : 'deleted';
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  if (value === '') return 'empty';
  if (typeof value === 'string' || typeof value === 'number') return String(value);
  if (typeof value !== 'object') return 'changed';
  if ('from' in value && 'to' in value) return `from ${String(value.from)} to ${String(value.to)}`;
  if ('text' in value && value.text !== '') return String(value.text);
  return edit.at === 'field' || edit.at === 'document' ? 'changed' : 'kept';
}
