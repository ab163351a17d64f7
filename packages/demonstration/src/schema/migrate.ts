import { z } from 'zod';
import { toVersion2 } from './toVersion2.ts';
import { toVersion3 } from './toVersion3.ts';
import { currentVersion, documentSchema, type Document } from './document.ts';

/** Turns a document of one version into one of the next; the version number is set by `migrated`. */
export type Migration = (document: Record<string, unknown>) => Record<string, unknown>;

/**
 * One row a version: how a document of that version becomes one of the next. A row, once released,
 * never changes; each version has a frozen sample in `samples/`.
 */
export const migrations: Readonly<Record<number, Migration>> = { 1: toVersion2, 2: toVersion3 };

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
