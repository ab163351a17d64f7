import type { z } from 'zod';
import { bytesOfDocument } from '../schema/bytes.ts';
import {
  documentSchema,
  entrySchema,
  limits,
  stepSchema,
  tierSchema,
  type Document,
} from '../schema/document.ts';
import { applyEdit, type Change, type Edit } from './change.ts';
import { inThousands } from '../numbers/inThousands.ts';

/** Why a document does not take a change. */
export type Unfit =
  | {
      readonly reason: 'tooManyEntries' | 'tooManyTiers' | 'tooManySteps' | 'tooLarge';
      readonly most: number;
    }
  /** A text that is longer than its place takes. */
  | { readonly reason: 'tooLong'; readonly most: number }
  | { readonly reason: 'invalid' };

export type Accepted =
  { readonly ok: true; readonly document: Document } | { readonly ok: false; readonly unfit: Unfit };

const schemas = { entries: entrySchema, tiers: tierSchema, steps: stepSchema } as const;
const overfull = { entries: 'tooManyEntries', tiers: 'tooManyTiers', steps: 'tooManySteps' } as const;

/**
 * The document after a change, where it is a valid document still. The document before is taken to be valid, so only
 * what the change touches is looked at. Server and interface ask the same function: what one takes the other takes.
 */
export function accept(document: Document, { edits }: Change): Accepted {
  let changed = document;
  for (const edit of edits) {
    const next = applyEdit(changed, edit);
    const unfit = next === changed ? null : unfitEdit(changed, next, edit);
    if (unfit) return { ok: false, unfit };
    changed = next;
  }
  return { ok: true, document: changed };
}

function unfitEdit(before: Document, after: Document, edit: Edit): Unfit | null {
  if (edit.at === 'document') return unfitValue(documentSchema.shape[edit.field], after[edit.field]);
  const map = edit.at === 'field' ? edit.of : edit.at;
  const value = after[map][edit.id];
  if (value === undefined) return null;
  const most = limits[map];
  const isNew = !Object.hasOwn(before[map], edit.id);
  if (isNew && Object.keys(after[map]).length > most) return { reason: overfull[map], most };
  return unfitValue(schemas[map], value);
}

function unfitValue(schema: z.ZodType, value: unknown): Unfit | null {
  const parsed = schema.safeParse(value);
  if (parsed.success) return null;
  const long = parsed.error.issues.find((issue) => issue.code === 'too_big' && issue.origin === 'string');
  if (long?.code === 'too_big') return { reason: 'tooLong', most: Number(long.maximum) };
  return { reason: 'invalid' };
}

/** That a document has grown larger than is kept. One that was larger already may shrink, step by step. */
export function unfitSize(before: Document, after: Document): Unfit | null {
  const bytes = bytesOfDocument(after);
  const isUnfit = bytes > limits.bytes && bytes > bytesOfDocument(before);
  return isUnfit ? { reason: 'tooLarge', most: limits.bytes } : null;
}

/** Whether it grew past the size at which a person should be told that there is not much room left. */
export const becomesNearlyFull = (before: Document, after: Document): boolean =>
  bytesOfDocument(before) <= nearlyFull && bytesOfDocument(after) > nearlyFull;

const nearlyFull = 0.9 * limits.bytes;
const megabytes = (bytes: number): string => `${(bytes / 1e6).toFixed(1).replace('.0', '')} MB`;

/** How full a demonstration is, in a sentence. */
export const fullness = (document: Document): string =>
  `This demonstration takes ${megabytes(bytesOfDocument(document))} of the ${megabytes(limits.bytes)} that one may take.`;

/** What is told of a change that a document does not take. */
export function unfitSentence(unfit: Unfit): string {
  switch (unfit.reason) {
    case 'tooManyEntries':
      return `A demonstration has room for ${unfit.most} entries; delete one first.`;
    case 'tooManyTiers':
      return `A demonstration has room for ${unfit.most} tiers; close one first.`;
    case 'tooManySteps':
      return `A demonstration has room for ${unfit.most} steps; delete one first.`;
    case 'tooLarge':
      return `A demonstration can take ${megabytes(unfit.most)}, and this would be more.`;
    case 'tooLong':
      return `This text can have at most ${inThousands(unfit.most)} characters.`;
    case 'invalid':
      return 'This does not fit the demonstration.';
  }
}
