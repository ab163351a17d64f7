import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import {
  accept,
  applyChange,
  becomesNearlyFull,
  bytesOfDocument,
  changeSchema,
  documentSchema,
  emptyDocument,
  fullness,
  limits,
  makeEntry,
  newTier,
  unfitSentence,
  unfitSize,
  type Document,
  type Edit,
} from '../src/index.ts';
import { given, setField, tangentDocument } from './sample.ts';

const base = tangentDocument();
const bytes = (value: unknown): number => Buffer.byteLength(JSON.stringify(value));
const add = (id: string, entry: unknown): Edit => ({ at: 'entries', id, old: null, new: entry }) as Edit;
const sentenceOf = (document: Document, ...edits: Edit[]): string => {
  const result = accept(document, { id: 'c', edits });
  return result.ok ? 'taken' : unfitSentence(result.unfit);
};
const note = (text: string) => makeEntry('note', { order: 1, text });

describe('what a document takes', () => {
  const strange = fc.oneof(
    fc.anything(),
    fc.double(),
    fc.constantFrom(
      'x',
      '',
      '1',
      'x'.repeat(201),
      'x'.repeat(10_001),
      { from: 2, to: 1 },
      { from: 0, to: 1 },
      null,
    ),
  );
  const entryIds = fc.constantFrom('f', 'a', 'p', 't', 'nobody');
  const edits: fc.Arbitrary<Edit> = fc.oneof(
    fc
      .record({
        id: entryIds,
        field: fc.constantFrom('text', 'value', 'order', 'hidden', 'kind', 'look', 'made-up'),
        value: strange,
      })
      .map(({ id, field, value }) => setField(id, field, null, value)),
    fc
      .record({ field: fc.constantFrom('title', 'decimals', 'x', 'xTicks', 'looks'), value: strange })
      .map(({ field, value }) => ({ at: 'document', field, old: null, new: value }) as Edit),
    fc
      .record({
        id: entryIds,
        value: fc.oneof(fc.constantFrom(null, given(9, 'g(x) = x'), newTier(3, { from: 0, to: 1 })), strange),
      })
      .map(({ id, value }) => add(id, value === undefined ? null : value)),
  );

  test('is just what the schema of documents takes, whatever the change, with a replayable seed', () => {
    let taken = 0;
    fc.assert(
      fc.property(fc.array(edits, { minLength: 1, maxLength: 3 }), (changed) => {
        const change = { id: 'c', edits: changed };
        const stepwise = changed.every(
          (_, i) =>
            documentSchema.safeParse(applyChange(base, { id: 'c', edits: changed.slice(0, i + 1) })).success,
        );
        const result = accept(base, change);
        expect(result.ok).toBe(stepwise);
        if (!result.ok) return;
        taken++;
        expect(result.document).toEqual(applyChange(base, change));
      }),
      { seed: 20261128, numRuns: 400 },
    );
    expect(taken).toBeGreaterThan(20);
  });

  test('an entry, tier, step, text too many is told with the number', () => {
    const many = <T>(count: number, make: (i: number) => T): Record<string, T> =>
      Object.fromEntries(Array.from({ length: count }, (_, i) => [`n${i}`, make(i)]));
    const full = documentSchema.parse({
      ...emptyDocument(),
      entries: many(500, (i) => given(i, 'x')),
      tiers: many(20, (i) => newTier(i, { from: 0, to: 1 })),
    });
    expect(sentenceOf(full, add('one-more', given(1, 'x')))).toBe(
      'A demonstration has room for 500 entries; delete one first.',
    );
    // One goes, one comes.
    expect(sentenceOf(full, add('n7', null), add('one-more', given(1, 'x')))).toBe('taken');
    expect(
      sentenceOf(full, { at: 'tiers', id: 'one-more', old: null, new: newTier(1, { from: 0, to: 1 }) }),
    ).toBe('A demonstration has room for 20 tiers; close one first.');
    expect(sentenceOf(base, setField('f', 'text', '', 'x'.repeat(10_001)))).toBe(
      'This text can have at most 10,000 characters.',
    );
    expect(sentenceOf(base, setField('f', 'text', '', 'x'.repeat(10_000)))).toBe('taken');
    expect(sentenceOf(base, setField('f', 'made-up', '', 1))).toBe('This does not fit the demonstration.');
  });

  test.each(['__proto__', 'constructor', 'toString', 'hasOwnProperty', 'valueOf'])('%s is no id', (id) => {
    const change = JSON.parse(
      `{"id":"c","edits":[{"at":"entries","id":"${id}","old":null,"new":null}]}`,
    ) as unknown;
    expect(changeSchema.safeParse(change).success).toBe(false);
    const document = {
      ...emptyDocument(),
      entries: JSON.parse(`{"${id}":${JSON.stringify(given(1, 'x'))}}`) as unknown,
    };
    const read = documentSchema.safeParse(document);
    expect(read.success && Object.hasOwn(read.data.entries, id)).toBe(false);
  });
});

describe('the size of a document', () => {
  test('is counted in bytes of UTF-8, whatever is in it', () => {
    fc.assert(
      fc.property(fc.array(fc.string({ unit: 'binary', maxLength: 60 }), { maxLength: 6 }), (texts) => {
        const entries = Object.fromEntries(texts.map((text, i) => [`n${i}`, note(text)]));
        const document = { ...emptyDocument('ä∫😀'), entries };
        expect(Math.abs(bytesOfDocument(document) - bytes(document))).toBeLessThanOrEqual(
          40 + 2 * texts.length,
        );
      }),
      { seed: 20261128, numRuns: 300 },
    );
  });

  test('is limited, and told before the limit is reached', () => {
    const filled = (notes: number): Document => ({
      ...emptyDocument(),
      entries: Object.fromEntries(
        Array.from({ length: notes }, (_, i) => [`n${i}`, note('∫'.repeat(10_000))]),
      ),
    });
    const full = filled(167);
    expect(bytesOfDocument(full)).toBeGreaterThan(limits.bytes);
    expect(unfitSize(emptyDocument(), filled(160))).toBeNull();
    // What is too large already may shrink.
    expect(unfitSize(filled(170), full)).toBeNull();
    expect(unfitSize(full, filled(168))).not.toBeNull();
    expect(unfitSentence(unfitSize(emptyDocument(), full) ?? { reason: 'invalid' })).toBe(
      'A demonstration can take 5 MB, and this would be more.',
    );
    expect(becomesNearlyFull(filled(140), filled(160))).toBe(true);
    expect(becomesNearlyFull(filled(155), filled(160))).toBe(false);
    expect(fullness(filled(160))).toBe('This demonstration takes 4.8 MB of the 5 MB that one may take.');
  });
});
