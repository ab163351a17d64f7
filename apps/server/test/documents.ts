import { emptyDocument, makeEntry, type Document, type Entry } from '@yperkine/demonstration';

/** A document of so many entries. */
export const documentOf = (count: number, make: (i: number) => Entry): Document => ({
  ...emptyDocument('Large'),
  entries: Object.fromEntries(Array.from({ length: count }, (_, i) => [`n${i}`, make(i)])),
});

/** Hundreds of sums, each as long as one entry may work: together far longer than anybody waits for a picture. */
export const endless = documentOf(499, (i) =>
  makeEntry('value', { order: i, text: `v_${i} = sum k from 1 to 100000 of sin(k + ${i})/k` }),
);

/** More text than a narrow thread can hold. */
export const heavy = documentOf(400, (i) => makeEntry('note', { order: i, text: '∫'.repeat(10_000) }));
