import { emptyDocument, makeEntry, type Document, type Entry } from '@yperkine/demonstration';

/** A document of so many entries. */
export const documentOf = (count: number, make: (i: number) => Entry): Document => ({
  ...emptyDocument('Large'),
  entries: Object.fromEntries(Array.from({ length: count }, (_, i) => [`n${i}`, make(i)])),
});

/** Hundreds of sums of a thousand terms, which even drawn roughly take longer than anybody waits. */
export const endless = documentOf(499, (i) =>
  makeEntry('function', {
    order: i,
    text: `f_${i}(x) = sum k from 1 to 1000 of sin(k x + ${i})/k`,
    tier: 'tier-f',
  }),
);

/** More text than a narrow thread can hold. */
export const heavy = documentOf(400, (i) => makeEntry('note', { order: i, text: '∫'.repeat(10_000) }));
