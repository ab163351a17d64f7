import type { Scope } from '@yperkine/core';
import { kindOf } from '../entries/anyKind.ts';
import { inOrder, type Document, type Id } from '../schema/document.ts';

/** Which entry each name belongs to. The first entry in the working keeps a name; later ones are duplicates. */
export interface Directory {
  readonly idOf: ReadonlyMap<string, Id>;
  readonly scope: Scope;
  /** Entries that define a name which an earlier one has already. */
  readonly duplicates: ReadonlySet<Id>;
  /** Changes exactly when a name or its kind does. */
  readonly key: string;
}

export function directoryOf(document: Document): Directory {
  const idOf = new Map<string, Id>();
  const duplicates = new Set<Id>();
  const names = new Set<string>();
  const functions = new Set<string>();
  for (const [id, entry] of inOrder(document.entries)) {
    const defined = kindOf(entry).defines?.(entry);
    if (!defined) continue;
    if (idOf.has(defined.name)) {
      duplicates.add(id);
      continue;
    }
    idOf.set(defined.name, id);
    (defined.isFunction ? functions : names).add(defined.name);
  }
  const key = [...idOf].map(([name, id]) => `${functions.has(name) ? 'f' : 'p'}${name}=${id}`).join(';');
  return { idOf, scope: { names, functions }, duplicates, key: `${key}|${[...duplicates].join()}` };
}
