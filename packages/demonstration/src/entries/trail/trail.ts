import { z } from 'zod';
import { common, idSchema } from '../../fields/fields.ts';
import type { EntryKind } from '../kind.ts';
import { waiting, worked } from '../outcome.ts';

const trailSchema = z.strictObject({
  ...common,
  kind: z.literal('trail'),
  /** The entry whose point leaves it, and which of its points. */
  of: idSchema,
  place: z.string().max(20),
  drawn: z.enum(['dots', 'line']),
  /** Marks that stay at most; the oldest go first. */
  limit: z.int().min(2).max(5000),
});
export type TrailEntry = z.infer<typeof trailSchema>;

export interface TrailResult {
  readonly heading: string;
}

/** The marks that a moving point leaves behind. They belong to what is shown just now, not to the document. */
export const trailKind: EntryKind<TrailEntry, TrailResult> = {
  schema: trailSchema,
  defaults: { drawn: 'dots', limit: 500 },
  standsOn: ({ of }) => [of],
  head: (_entry, result) => ({ heading: result ? `Trail of ${result.heading}` : 'Trail', tone: 'f1' }),

  workOut(entry, context) {
    const heading = context.heading(entry.of);
    if (heading === undefined) return waiting('This waits for its point, which cannot be worked out yet.');
    return worked({ heading: heading.replace(/^[A-Z]/, (letter) => letter.toLowerCase()) });
  },

  say: (_result, { limit, drawn }) => ({
    lines: [],
    sentence: `It keeps the last ${limit} ${drawn === 'dots' ? 'dots' : 'places of the line'}.`,
  }),

  marks: () => [],
};
