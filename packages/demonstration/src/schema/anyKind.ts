import type { Entry, EntryKindName, EntryOf } from './document.ts';
import { usualLook } from '../fields/look.ts';
import type { EntryKind } from '../entries/kind.ts';
import { entryKinds } from '../entries/table.ts';

/** The row of the table for an entry, whose stored form and result belong together. */
export const kindOf = (entry: Entry): EntryKind<Entry, unknown> =>
  entryKinds[entry.kind] as unknown as EntryKind<Entry, unknown>;

/**
 * A new entry of a kind, with its usual settings where none are given.
 * @throws ZodError where a field that has no usual setting is missing
 */
export function makeEntry<K extends EntryKindName>(
  kind: K,
  fields: Partial<Omit<EntryOf<K>, 'kind'>> & { readonly order: number },
): EntryOf<K> {
  const { schema, defaults } = entryKinds[kind] as unknown as EntryKind<EntryOf<K>, unknown>;
  const usual = typeof defaults === 'function' ? defaults(fields as Partial<EntryOf<K>>) : defaults;
  return schema.parse({
    hidden: false,
    names: {},
    shownWhen: '',
    look: usualLook,
    ...usual,
    ...fields,
    kind,
  });
}
