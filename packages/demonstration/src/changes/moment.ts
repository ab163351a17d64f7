import type { Range } from '@yperkine/core';
import { parameterOf } from '../resolve/resolve.ts';
import type { Resolution } from '../resolve/resolution.ts';
import { shownX, shownY } from '../scene/scene.ts';
import {
  entrySchema,
  type Document,
  type Entry,
  type Id,
  type Moment,
  type Step,
  type Tier,
} from '../schema/document.ts';
import { decimalText, nearestDecimal } from '../numbers/slider.ts';
import type { Stage } from '../stage/stage.ts';
import type { Edit } from './change.ts';

/** The field of an entry that moves while a demonstration is shown; its start is kept in `start`. */
export const movingField = {
  parameter: 'value',
  throughPoints: 'points',
  nearest: 'points',
  reveal: 'switchedOn',
} as const;
type Moving = Extract<Entry, { kind: keyof typeof movingField }>;

const movingIn = ({ entries }: Document): [Id, Moving][] =>
  Object.entries(entries).flatMap(([id, entry]) =>
    entry.kind in movingField ? [[id, entry as Moving] as [Id, Moving]] : [],
  );

/** The parts of a step that say where things stand; null for what it leaves as it is. */
type Wanted = Pick<Step, 'values' | 'reveals' | 'windows'>;

/** The moment at which each moving entry stands where `standOf` says, in the given windows. */
function momentOf(
  document: Document,
  standOf: (id: Id, entry: Moving) => string | boolean,
  windows: Moment['windows'],
): Moment {
  const stands = movingIn(document).map(([id, entry]) => [id, standOf(id, entry)] as const);
  const values = stands.filter((stand): stand is [Id, string] => typeof stand[1] === 'string');
  const reveals = stands.filter((stand): stand is [Id, boolean] => typeof stand[1] === 'boolean');
  return { values: Object.fromEntries(values), reveals: Object.fromEntries(reveals), windows };
}

const tierWindows = ({ tiers }: Document, windowOf: (id: Id, tier: Tier) => Range): Record<Id, Range> =>
  Object.fromEntries(Object.entries(tiers).map(([id, tier]) => [id, windowOf(id, tier)]));

/** What is shown just now, motion's last values included. */
export function shownMoment(document: Document, stage: Stage, resolution: Resolution): Moment {
  return momentOf(document, (id, entry) => shownIn(id, entry, stage, resolution), {
    x: shownX(document, stage),
    y: tierWindows(document, (id) => shownY(document, stage, id)),
  });
}

function shownIn(id: Id, entry: Moving, stage: Stage, resolution: Resolution): string | boolean {
  if (entry.kind === 'reveal') return entry.switchedOn;
  const staged = stage.values[id];
  if (typeof staged === 'string') return staged;
  if (entry.kind !== 'parameter') return entry.points;
  if (staged === undefined) return entry.value;
  const number = parameterOf(resolution, id)?.value;
  return decimalText(number?.exact ?? nearestDecimal(number?.value ?? staged));
}

/** What everything was at the start. */
export function startMoment(document: Document): Moment {
  return momentOf(document, (_id, entry) => entry.start, {
    x: document.startX,
    y: tierWindows(document, (_id, { startY }) => startY),
  });
}

/** An edit of a field of an entry or tier, with what stands there. */
const fieldEdit = (of: 'entries' | 'tiers', id: Id, target: object, field: string, value: unknown): Edit => ({
  at: 'field',
  of,
  id,
  field,
  old: (target as Readonly<Record<string, unknown>>)[field],
  new: value,
});

const isReal = (edit: Edit): boolean => JSON.stringify(edit.old) !== JSON.stringify(edit.new);

/**
 * The edits that put everything where a moment has it. What it does not name stays, and so does an entry that could
 * not be stored with the value.
 */
export function momentEdits(document: Document, { values, reveals, windows }: Wanted): Edit[] {
  const wanted: Readonly<Record<Id, string | boolean>> = { ...values, ...reveals };
  const entries = movingIn(document).flatMap(([id, entry]): Edit[] => {
    const field = movingField[entry.kind];
    const value = wanted[id];
    const fits = value !== undefined && entrySchema.safeParse({ ...entry, [field]: value }).success;
    return fits ? [fieldEdit('entries', id, entry, field, value)] : [];
  });
  const tiers = Object.entries(document.tiers).flatMap(([id, tier]): Edit[] => {
    const y = windows?.y[id];
    return y ? [fieldEdit('tiers', id, tier, 'y', y)] : [];
  });
  const x: Edit[] = windows ? [{ at: 'document', field: 'x', old: document.x, new: windows.x }] : [];
  return [...entries, ...tiers, ...x].filter(isReal);
}

/** The edits that make a moment the start. */
export function startEdits(document: Document, { values, reveals, windows }: Moment): Edit[] {
  const wanted: Readonly<Record<Id, string | boolean>> = { ...values, ...reveals };
  return [
    ...movingIn(document).map(([id, entry]) => fieldEdit('entries', id, entry, 'start', wanted[id])),
    ...Object.entries(document.tiers).map(([id, tier]) =>
      fieldEdit('tiers', id, tier, 'startY', windows.y[id]),
    ),
    { at: 'document', field: 'startX', old: document.startX, new: windows.x } as const,
  ].filter(isReal);
}
