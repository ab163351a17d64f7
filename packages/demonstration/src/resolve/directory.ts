import { headOf, type Scope } from '@yperkine/core';
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
    const head =
      entry.kind === 'function'
        ? rememberedHead(entry.text)
        : entry.kind === 'parameter'
          ? { name: entry.name, variable: undefined }
          : undefined;
    if (!head) continue;
    if (idOf.has(head.name)) {
      duplicates.add(id);
      continue;
    }
    idOf.set(head.name, id);
    (head.variable === undefined ? names : functions).add(head.name);
  }
  const key = [...idOf].map(([name, id]) => `${functions.has(name) ? 'f' : 'p'}${name}=${id}`).join(';');
  return { idOf, scope: { names, functions }, duplicates, key: `${key}|${[...duplicates].join()}` };
}

const heads = new Map<string, ReturnType<typeof headOf>>();
const mostHeads = 2000;

/** Heads are read again and again while a slider moves, so the last ones are kept. */
function rememberedHead(text: string): ReturnType<typeof headOf> {
  if (heads.has(text)) return heads.get(text);
  if (heads.size >= mostHeads) heads.clear();
  const head = headOf(text);
  heads.set(text, head);
  return head;
}
