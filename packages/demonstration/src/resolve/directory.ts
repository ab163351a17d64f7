import type { Directory } from '../entries/names.ts';
import { kindOf } from '../schema/anyKind.ts';
import { inOrder, type Document, type Id } from '../schema/document.ts';

type Angles = Document['angles'];

const directories = {
  radians: new WeakMap<Document['entries'], Directory>(),
  degrees: new WeakMap<Document['entries'], Directory>(),
} satisfies Record<Angles, unknown>;

/** The directory of a document; made once for each state of its entries and angles. */
export function directoryOf({ entries, angles }: Document): Directory {
  const known = directories[angles].get(entries) ?? readDirectory(entries, angles);
  directories[angles].set(entries, known);
  return known;
}

function readDirectory(entries: Document['entries'], angles: Angles): Directory {
  const idOf = new Map<string, Id>();
  const duplicates = new Set<Id>();
  const names = new Set<string>();
  const functions = new Set<string>();
  const truths = new Set<string>();
  const resultOf = new Map<string, string>();
  for (const [id, entry] of inOrder(entries)) {
    const own = kindOf(entry).defines?.(entry);
    const results = Object.entries(entry.names).map(([key, name]) => ({
      name,
      key,
      isFunction: false,
      isTruth: false,
    }));
    for (const { name, isFunction, isTruth, key } of [
      ...(own ? [{ ...own, key: undefined }] : []),
      ...results,
    ]) {
      if (idOf.has(name)) {
        duplicates.add(id);
        continue;
      }
      idOf.set(name, id);
      (isFunction ? functions : names).add(name);
      if (isTruth) truths.add(name);
      if (key !== undefined) resultOf.set(name, key);
    }
  }
  const key = [...idOf]
    .map(
      ([name, id]) =>
        `${functions.has(name) ? 'f' : truths.has(name) ? 't' : 'p'}${name}=${id}/${resultOf.get(name) ?? ''}`,
    )
    .sort()
    .join(';');
  return {
    idOf,
    resultOf,
    scope: { names, functions, truths, angles },
    duplicates,
    key: `${angles}|${key}|${[...duplicates].sort().join()}`,
  };
}
