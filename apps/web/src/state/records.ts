import type { Id, ReadoutResult, Resolution } from '@yperkine/demonstration';

/** The least and the greatest value that a large number has had since it was last started anew. */
interface Extremes {
  readonly least: number;
  readonly greatest: number;
  /** The formula that they are values of. */
  readonly text: string;
}
export type Records = Readonly<Record<Id, Extremes>>;

/** The records with the present values taken in; the same object while none of them is a new one. */
export function recordsAfter(records: Records, { entries }: Resolution): Records {
  let changed: Record<Id, Extremes> | null = null;
  for (const { id, entry, outcome } of entries.values()) {
    if (entry.kind !== 'readout' || !outcome.ok) continue;
    const { value } = (outcome.result as ReadoutResult).value;
    if (!Number.isFinite(value)) continue;
    const known = records[id]?.text === entry.text ? records[id] : undefined;
    const least = Math.min(value, known?.least ?? value);
    const greatest = Math.max(value, known?.greatest ?? value);
    if (known?.least === least && known.greatest === greatest) continue;
    changed ??= { ...records };
    changed[id] = { least, greatest, text: entry.text };
  }
  return changed ?? records;
}
