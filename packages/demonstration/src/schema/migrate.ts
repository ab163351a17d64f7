import { z } from 'zod';
import { currentVersion, documentSchema, type Document } from './document.ts';

/**
 * One row a version: how a document of that version becomes one of the next. A row, once released,
 * never changes; each has a frozen sample of its version beside it in `samples/`.
 */
type Migration = (document: Record<string, unknown>) => Record<string, unknown>;
export const migrations: Readonly<Record<number, Migration>> = {};

const anyVersion = z.looseObject({ format: z.literal('yperkine-demonstration'), version: z.int().min(1) });

export type Opened =
  | { readonly ok: true; readonly document: Document }
  | { readonly ok: false; readonly reason: 'notADemonstration' | 'tooNew' | 'damaged' };

/** Reads a document of any version, bringing an older one up to date. */
export function openDocument(stored: unknown): Opened {
  const head = anyVersion.safeParse(stored);
  if (!head.success) return { ok: false, reason: 'notADemonstration' };
  if (head.data.version > currentVersion) return { ok: false, reason: 'tooNew' };
  let document: Record<string, unknown> = head.data;
  for (let version = head.data.version; version < currentVersion; version++) {
    const migration = migrations[version];
    if (!migration) return { ok: false, reason: 'damaged' };
    document = { ...migration(document), version: version + 1 };
  }
  const parsed = documentSchema.safeParse(document);
  return parsed.success ? { ok: true, document: parsed.data } : { ok: false, reason: 'damaged' };
}
