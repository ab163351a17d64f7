import { z } from 'zod';
import { common, limits } from '../../fields/fields.ts';
import type { EntryKind } from '../kind.ts';
import { worked } from '../outcome.ts';

const headingSchema = z.strictObject({
  ...common,
  kind: z.literal('heading'),
  title: z.string().max(limits.title),
  /** Whether the entries under it are folded away in the working; what they draw stays. */
  folded: z.boolean(),
});
export type HeadingEntry = z.infer<typeof headingSchema>;

/** A heading in the working: it holds the entries from there to the next heading together. */
export const headingKind: EntryKind<HeadingEntry, Readonly<Record<string, never>>> = {
  schema: headingSchema,
  defaults: { title: '', folded: false },
  onlySaid: ['title', 'folded'],
  standsOn: () => [],
  head: ({ title }) => ({ heading: title || 'Heading', tone: 'ink' }),
  workOut: () => worked({}),
  marks: () => [],
};
