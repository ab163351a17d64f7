import { z } from 'zod';

export const demonstrationSummarySchema = z.object({
  id: z.uuid(),
  title: z.string(),
  version: z.int(),
  changedAt: z.iso.datetime(),
});
export type DemonstrationSummary = z.infer<typeof demonstrationSummarySchema>;

/** One page of the library, the last changed first. */
export const librarySchema = z.object({
  demonstrations: z.array(demonstrationSummarySchema),
  /** What to ask the next page with; null where this is the last. */
  next: z.string().nullable(),
});
export type Library = z.infer<typeof librarySchema>;

/** Demonstrations on a page of the library. */
export const libraryPage = 20;
/** Demonstrations that one person may keep. */
export const mostKept = 1000;

export const newDemonstrationSchema = z.object({
  title: z.string().max(200).optional(),
  /** A demonstration of one's own to copy. */
  copyOf: z.uuid().optional(),
});
export type NewDemonstration = z.infer<typeof newDemonstrationSchema>;
