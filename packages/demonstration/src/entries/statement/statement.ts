import { z } from 'zod';
import { common, idSchema, standingSchema, textSizeSchema } from '../../fields/fields.ts';
import type { EntryKind } from '../kind.ts';
import { waiting, worked } from '../outcome.ts';

const statementSchema = z.strictObject({
  ...common,
  kind: z.literal('statement'),
  /** The entry whose words these are. */
  of: idSchema,
  /** Which of its lines; null for its sentence. */
  line: z.int().min(0).max(20).nullable(),
  standing: standingSchema,
  size: textSizeSchema,
});
export type StatementEntry = z.infer<typeof statementSchema>;

export interface StatementResult {
  /** How the entry is headed that says so. */
  readonly heading: string;
}

/** An equation or result of another entry, standing on the graphs as a label that can be moved. */
export const statementKind: EntryKind<StatementEntry, StatementResult> = {
  schema: statementSchema,
  defaults: { line: 0, standing: { at: 'screen', x: 0.5, y: 0.1 }, size: 'medium' },
  standsOn: ({ of }) => [of],
  head: (_entry, result) => ({
    heading: result ? `On the graph: ${result.heading}` : 'On the graph',
    tone: 'ink',
  }),

  workOut(entry, context) {
    const heading = context.heading(entry.of);
    if (heading === undefined) return waiting('This waits for its entry, which cannot be worked out yet.');
    return worked({ heading });
  },

  say(_result, { of, line }, wording) {
    const { lines = [], sentence = '' } = wording.said(of) ?? {};
    if (line === null) return { lines: [], sentence };
    const chosen = lines[line];
    return chosen
      ? { lines: [chosen], sentence: '' }
      : { lines: [], sentence: 'Its entry no longer says this.' };
  },

  marks: () => [],
};
