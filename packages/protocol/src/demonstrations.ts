import { changeSchema, currentVersion, documentSchema } from '@yperkine/demonstration';
import { z } from 'zod';
import { demonstrationSummarySchema } from './library.ts';

export const demonstrationSchema = demonstrationSummarySchema.extend({ document: documentSchema });
export type StoredDemonstration = z.infer<typeof demonstrationSchema>;

/** The version of the document's schema in which changes are written. */
const format = z.int().min(1);

/** Changes and characters that one save may carry; a single change may be larger. */
export const saveLimits = { changes: 500, characters: 1_000_000 } as const;

export const saveSchema = z.object({
  /** The version that the changes were made on. */
  base: z.int().min(0).max(2_147_483_647),
  format: format.default(currentVersion),
  changes: z.array(changeSchema).min(1).max(saveLimits.changes),
});
export type Save = z.input<typeof saveSchema>;

/** A save before its changes are looked at: they are read one by one, in whatever version they are written. */
export const unreadSaveSchema = saveSchema.extend({
  changes: z.array(z.unknown()).min(1).max(saveLimits.changes),
});
export type UnreadSave = z.output<typeof unreadSaveSchema>;

export const savedSchema = z.object({ version: z.int(), changedAt: z.iso.datetime() });
export type Saved = z.infer<typeof savedSchema>;

/** The answer to a save that was made on an older version: what happened since, oldest first. */
export const staleSchema = z.object({ version: z.int(), format, since: z.array(changeSchema) });
export type Stale = z.infer<typeof staleSchema>;
