import { z } from 'zod';
import { toVersion2 } from './toVersion2.ts';
import { toVersion3 } from './toVersion3.ts';
import { toVersion4 } from './toVersion4.ts';
import { toVersion5 } from './toVersion5.ts';
import { toVersion6 } from './toVersion6.ts';
import { toVersion7 } from './toVersion7.ts';
import { toVersion8 } from './toVersion8.ts';
import { toVersion9 } from './toVersion9.ts';
import { toVersion10 } from './toVersion10.ts';
import type { Migration } from './migration.ts';
import { currentVersion, documentSchema, type Document } from './document.ts';

/**
 * One row a version: how a document of that version becomes one of the next. A row, once released,
 * never changes; each version has a frozen sample in `samples/`.
 */
export const migrations: Readonly<Record<number, Migration>> = {
  1: toVersion2,
  2: toVersion3,
  3: toVersion4,
  4: toVersion5,
  5: toVersion6,
  6: toVersion7,
  7: toVersion8,
  8: toVersion9,
  9: toVersion10,
};

/** The document brought from its version to `target`, one version at a time; null where a step is missing. */
export function migrated(
  document: Record<string, unknown>,
  target: number,
  steps: Readonly<Record<number, Migration>>,
): Record<string, unknown> | null {
  let current = document;
  for (let version = Number(document.version); version < target; version++) {
    const step = steps[version];
    if (!step) return null;
    current = { ...step(current), version: version + 1 };
  }
  return current;
}

const wholeEdit = z.looseObject({ at: z.enum(['entries', 'tiers', 'steps']), id: z.string() });
const anyChange = z.looseObject({ edits: z.array(z.unknown()) });

/**
 * A change that was made on a document of an older version, with the entries, tiers and steps that it puts in or takes
 * out brought up to date. What is no change comes back as it is, for the schema to refuse.
 */
export function migratedChange(stored: unknown, version: number): unknown {
  const change = anyChange.safeParse(stored);
  if (!change.success || version >= currentVersion) return stored;
  return { ...change.data, edits: change.data.edits.map((edit) => migratedEdit(edit, version)) };
}

function migratedEdit(stored: unknown, version: number): unknown {
  const edit = wholeEdit.safeParse(stored);
  if (!edit.success) return stored;
  const { at, id } = edit.data;
  const upToDate = (value: unknown): unknown => {
    if (value === null || value === undefined) return value;
    const alone = { version, entries: {}, tiers: {}, steps: {}, [at]: { [id]: value } };
    const document = migrated(alone, currentVersion, migrations);
    return (document?.[at] as Record<string, unknown> | undefined)?.[id] ?? value;
  };
  return { ...edit.data, old: upToDate(edit.data.old), new: upToDate(edit.data.new) };
}

const anyVersion = z.looseObject({ format: z.literal('yperkine-demonstration'), version: z.int().min(1) });

export type Opened =
  | { readonly ok: true; readonly document: Document }
  | { readonly ok: false; readonly reason: 'notADemonstration' | 'tooNew' | 'damaged' };

/** Reads a document of any version, bringing an older one up to date. */
export function openDocument(stored: unknown): Opened {
  const head = anyVersion.safeParse(stored);
  if (!head.success) return { ok: false, reason: 'notADemonstration' };
  if (head.data.version > currentVersion) return { ok: false, reason: 'tooNew' };
  const document = migrated(head.data, currentVersion, migrations);
  const parsed = documentSchema.safeParse(document);
  return parsed.success ? { ok: true, document: parsed.data } : { ok: false, reason: 'damaged' };
}
