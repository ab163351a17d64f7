import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import {
  applyAll,
  applyChange,
  conflictsBetween,
  documentSchema,
  emptyHistory,
  invert,
  rebase,
  remember,
  undo,
  type Change,
  type Document,
  type Edit,
} from '../src/index.ts';
import { slider, tangentDocument } from './sample.ts';

const replayable = { seed: 20261124, numRuns: 300 } as const;
const base = tangentDocument();

/** An intention of a person; it becomes an edit once the document it meets is known. */
type Intent = (document: Document) => Edit | null;

const letters = fc.constantFrom('a', 'p', 't', 'd', 'f', 'n1', 'n2');
const intents: fc.Arbitrary<Intent> = fc.oneof(
  fc.string({ maxLength: 8 }).map((title): Intent => (document) => ({
    at: 'document',
    field: 'title',
    old: document.title,
    new: title,
  })),
  fc.integer({ min: 0, max: 12 }).map((n): Intent => (document) => ({
    at: 'document',
    field: 'decimals',
    old: document.decimals,
    new: n,
  })),
  fc.integer({ min: -99, max: 99 }).map((n): Intent => (document) => {
    const entry = document.entries.a;
    return entry?.kind === 'parameter'
      ? { at: 'field', of: 'entries', id: 'a', field: 'value', old: entry.value, new: String(n) }
      : null;
  }),
  letters.map((id): Intent => (document) => {
    const entry = document.entries[id];
    return entry ? { at: 'entries', id, old: entry, new: null } : null;
  }),
  letters.map(
    (id): Intent =>
      (document) =>
        document.entries[id] ? null : { at: 'entries', id, old: null, new: slider(20, id, '1') },
  ),
);

/** Turns intentions into changes of one edit each, every one made on the document after those before it. */
function changesOn(start: Document, wanted: readonly Intent[], prefix: string): Change[] {
  let document = start;
  return wanted.flatMap((intent, i) => {
    const edit = intent(document);
    if (!edit) return [];
    const change = { id: `${prefix}${i}`, edits: [edit] };
    document = applyChange(document, change);
    return [change];
  });
}

const sequences = fc.array(intents, { maxLength: 8 });

describe('laws of changes, with a replayable seed', () => {
  test('any sequence of changes is taken back by its inverses in reverse', () => {
    fc.assert(
      fc.property(sequences, (wanted) => {
        const changes = changesOn(base, wanted, 'c');
        const inverses = [...changes].reverse().map((change) => invert(change, `back-${change.id}`));
        expect(applyAll(applyAll(base, changes), inverses)).toEqual(base);
      }),
      replayable,
    );
  });

  test('the history undoes everything, one step after the other', () => {
    fc.assert(
      fc.property(sequences, (wanted) => {
        const changes = changesOn(base, wanted, 'c');
        let document = applyAll(base, changes);
        let history = changes.reduce((h, change) => remember(h, change), emptyHistory);
        for (let step = undo(history, 'u'); step; step = undo(history, 'u')) {
          document = applyChange(document, step.change);
          history = step.history;
        }
        expect(document).toEqual(base);
        expect(history.future).toHaveLength(changes.length);
      }),
      replayable,
    );
  });

  test('a change never alters the document it is applied to', () => {
    const frozen = JSON.stringify(base);
    fc.assert(
      fc.property(sequences, (wanted) => {
        applyAll(base, changesOn(base, wanted, 'c'));
        expect(JSON.stringify(base)).toBe(frozen);
      }),
      replayable,
    );
  });

  test('two windows end with a valid document, whichever side is chosen', () => {
    fc.assert(
      fc.property(
        sequences,
        sequences,
        fc.constantFrom('mine' as const, 'theirs' as const),
        (a, b, choice) => {
          const mine = changesOn(base, a, 'm');
          const theirs = changesOn(base, b, 't');
          const joined = applyAll(
            applyAll(base, theirs),
            rebase(base, mine, theirs, () => choice),
          );
          expect(documentSchema.safeParse(joined).success).toBe(true);
        },
      ),
      replayable,
    );
  });

  test('without a conflict nothing of either side is lost', () => {
    let joinedOften = 0;
    fc.assert(
      fc.property(sequences, sequences, (a, b) => {
        const mine = changesOn(base, a, 'm');
        const theirs = changesOn(base, b, 't');
        if (mine.length === 0 || theirs.length === 0 || conflictsBetween(mine, theirs).length > 0) return;
        joinedOften++;
        const rebased = rebase(base, mine, theirs, () => 'mine');
        const one = applyAll(applyAll(base, theirs), rebased);
        const other = applyAll(applyAll(base, mine), theirs);
        expect(one).toEqual(other);
      }),
      replayable,
    );
    expect(joinedOften).toBeGreaterThan(30);
  });

  test('where everything is decided for the other side, their document comes out', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 5 }), fc.string({ maxLength: 5 }), (a, b) => {
        const titled = (id: string, title: string): Change => ({
          id,
          edits: [{ at: 'document', field: 'title', old: base.title, new: title }],
        });
        const [mine, theirs] = [[titled('m', a)], [titled('t', b)]];
        const server = applyAll(base, theirs);
        expect(
          applyAll(
            server,
            rebase(base, mine, theirs, () => 'theirs'),
          ),
        ).toEqual(server);
      }),
      replayable,
    );
  });
});
