import { z } from 'zod';
import { entrySchema, idSchema, stepSchema, tierSchema, type Document } from '../schema/document.ts';

/**
 * One field, entry, tier or step replaced: where, what stood there, what stands there now.
 * `null` stands for an entry, tier or step that does not exist, so adding and removing are edits too.
 */
export const editSchema = z.discriminatedUnion('at', [
  z.strictObject({
    at: z.literal('document'),
    field: z.enum([
      'title',
      'decimals',
      'angles',
      'x',
      'startX',
      'xTicks',
      'xTyped',
      'xTitle',
      'xUnit',
      'looks',
    ]),
    old: z.unknown(),
    new: z.unknown(),
  }),
  z.strictObject({
    at: z.literal('field'),
    of: z.enum(['entries', 'tiers', 'steps']),
    id: idSchema,
    field: z.string().regex(/^(?!__)\w{1,40}$/),
    old: z.unknown(),
    new: z.unknown(),
  }),
  z.strictObject({
    at: z.literal('entries'),
    id: idSchema,
    old: entrySchema.nullable(),
    new: entrySchema.nullable(),
  }),
  z.strictObject({
    at: z.literal('tiers'),
    id: idSchema,
    old: tierSchema.nullable(),
    new: tierSchema.nullable(),
  }),
  z.strictObject({
    at: z.literal('steps'),
    id: idSchema,
    old: stepSchema.nullable(),
    new: stepSchema.nullable(),
  }),
]);
export type Edit = z.infer<typeof editSchema>;

/** What one action of a person did, to be done and undone as one. */
export const changeSchema = z.strictObject({
  id: idSchema,
  edits: z.array(editSchema).min(1).max(2000),
});
export type Change = z.infer<typeof changeSchema>;

export function invertEdit(edit: Edit): Edit {
  return { ...edit, old: edit.new, new: edit.old } as Edit;
}

/** The change that takes this one back. */
export function invert(change: Change, id: string): Change {
  return { id, edits: change.edits.map(invertEdit).reverse() };
}

export function applyEdit(document: Document, edit: Edit): Document {
  switch (edit.at) {
    case 'document':
      return { ...document, [edit.field]: edit.new };
    case 'field': {
      const target = document[edit.of][edit.id];
      // The entry may be gone by another window's hand; a field of nothing changes nothing.
      if (!target) return document;
      return {
        ...document,
        [edit.of]: { ...document[edit.of], [edit.id]: { ...target, [edit.field]: edit.new } },
      };
    }
    case 'entries':
    case 'tiers':
    case 'steps': {
      const { [edit.id]: removed, ...others } = document[edit.at];
      if (edit.new === null) return removed ? { ...document, [edit.at]: others } : document;
      return { ...document, [edit.at]: { ...others, [edit.id]: edit.new } };
    }
  }
}

/** The document after a change. Everything the change does not touch is the same object as before. */
export function applyChange(document: Document, change: Change): Document {
  return change.edits.reduce(applyEdit, document);
}

/** The place that an edit touches, as one text. */
export function placeOf(edit: Edit): string {
  switch (edit.at) {
    case 'document':
      return `document/${edit.field}`;
    case 'field':
      return `${edit.of}/${edit.id}/${edit.field}`;
    case 'entries':
    case 'tiers':
    case 'steps':
      return `${edit.at}/${edit.id}`;
  }
}

/** Two changes in a row as one, as when a word is typed letter by letter. */
export function merge(first: Change, second: Change): Change {
  const merged = new Map<string, Edit>();
  for (const edit of [...first.edits, ...second.edits]) {
    const before = merged.get(placeOf(edit));
    merged.set(placeOf(edit), before ? ({ ...edit, old: before.old } as Edit) : edit);
  }
  return { id: first.id, edits: [...merged.values()] };
}
