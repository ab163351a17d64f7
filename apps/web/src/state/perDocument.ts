import type { Document } from '@yperkine/demonstration';

/** A function of the document, worked out once for each: the same document gives the same object, however often it is asked. */
export function perDocument<T extends object>(read: (document: Document) => T): (document: Document) => T {
  const known = new WeakMap<Document, T>();
  return (document) => {
    const before = known.get(document);
    if (before) return before;
    const result = read(document);
    known.set(document, result);
    return result;
  };
}
