import { parameterOf, type Resolution } from '../resolve/resolve.ts';
import { shownX, shownY } from '../scene/scene.ts';
import type { Document, Entry, Id } from '../schema/document.ts';
import { decimalText, nearestDecimal } from '../stage/slider.ts';
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

const movingIn = ({ entries }: Document): [Id, Moving, string][] =>
  Object.entries(entries).flatMap(([id, entry]) =>
    entry.kind in movingField
      ? [[id, entry as Moving, movingField[entry.kind as Moving['kind']]] as [Id, Moving, string]]
      : [],
  );

const fieldOf = (entry: Moving, field: string): unknown =>
  (entry as Readonly<Record<string, unknown>>)[field];

const changed = (edits: readonly Edit[]): Edit[] =>
  edits.filter((edit) => JSON.stringify(edit.old) !== JSON.stringify(edit.new));

/** The edits that give sliders, points, reveals and windows back what they were at the start. */
export function restoreStartEdits(document: Document): Edit[] {
  const entries = movingIn(document).map(([id, entry, field]): Edit => ({
    at: 'field',
    of: 'entries',
    id,
    field,
    old: fieldOf(entry, field),
    new: entry.start,
  }));
  const tiers = Object.entries(document.tiers).map(([id, { y, startY }]): Edit => ({
    at: 'field',
    of: 'tiers',
    id,
    field: 'y',
    old: y,
    new: startY,
  }));
  return changed([
    ...entries,
    ...tiers,
    { at: 'document', field: 'x', old: document.x, new: document.startX },
  ]);
}

/** The edits that make what is shown just now the start, motion's last values included. */
export function makeStartEdits(document: Document, stage: Stage, resolution: Resolution): Edit[] {
  const entries = movingIn(document).flatMap(([id, entry, field]): Edit[] => {
    const shown = shownIn(id, entry, field, stage, resolution);
    const of = { at: 'field', of: 'entries', id } as const;
    return [
      { ...of, field, old: fieldOf(entry, field), new: shown },
      { ...of, field: 'start', old: entry.start, new: shown },
    ];
  });
  const tiers = Object.entries(document.tiers).flatMap(([id, tier]): Edit[] => {
    const shown = shownY(document, stage, id);
    const of = { at: 'field', of: 'tiers', id } as const;
    return [
      { ...of, field: 'y', old: tier.y, new: shown },
      { ...of, field: 'startY', old: tier.startY, new: shown },
    ];
  });
  const x = shownX(document, stage);
  return changed([
    ...entries,
    ...tiers,
    { at: 'document', field: 'x', old: document.x, new: x },
    { at: 'document', field: 'startX', old: document.startX, new: x },
  ]);
}

function shownIn(id: Id, entry: Moving, field: string, stage: Stage, resolution: Resolution): unknown {
  const staged = stage.values[id];
  if (entry.kind !== 'parameter' || typeof staged !== 'number') return staged ?? fieldOf(entry, field);
  const number = parameterOf(resolution, id)?.value;
  return decimalText(number?.exact ?? nearestDecimal(number?.value ?? staged));
}
