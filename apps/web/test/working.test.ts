import { describe, expect, test } from '@jest/globals';
import { applyChange, inOrder, makeEntry, type Document, type Entry } from '@yperkine/demonstration';
import { removeEntry } from '../src/state/actions.ts';
import { duplicateEntry } from '../src/state/duplicate.ts';
import { shownInWorking } from '../src/state/folding.ts';
import { blockOf, moveBy, moveOnto, orderEdits } from '../src/state/order.ts';
import { Workbench } from '../src/state/workbench.ts';
import { documentOf } from './frameClock.ts';

const given = (order: number, text: string): Entry => makeEntry('function', { order, text, tier: 'tier-f' });
const heading = (order: number, folded = false): Entry =>
  makeEntry('heading', { order, title: 'Part', folded });
const five = (folded = false): Document =>
  documentOf({
    f: given(1, 'f(x) = x'),
    part: heading(2, folded),
    g: given(3, 'g(x) = x'),
    a: makeEntry('parameter', { order: 3.5, name: 'a', value: '1' }),
    h: given(4, 'h(x) = x'),
    last: heading(5),
  });
const order = (document: Document) => inOrder(document.entries).map(([id]) => id);
const after = (document: Document, moved: readonly string[], before: string | null) =>
  order(applyChange(document, { id: 'x', edits: orderEdits(document, moved, before) }));

describe('the order of the working', () => {
  test('an entry is put before another one or at the end', () => {
    expect(after(five(), ['h'], 'part')).toEqual(['f', 'h', 'part', 'g', 'a', 'last']);
    expect(after(five(), ['f'], null)).toEqual(['part', 'g', 'a', 'h', 'last', 'f']);
    expect(after(five(), ['last'], 'f')).toEqual(['last', 'f', 'part', 'g', 'a', 'h']);
  });

  test('a folded heading takes along what is under it, up to the next heading', () => {
    expect(blockOf(five(true), 'part')).toEqual(['part', 'g', 'a', 'h']);
    expect(blockOf(five(false), 'part')).toEqual(['part']);
    expect(after(five(true), blockOf(five(true), 'part'), 'f')).toEqual(['part', 'g', 'a', 'h', 'f', 'last']);
  });

  test('what is under a folded heading is not seen, nor are sliders', () => {
    expect(shownInWorking(five())).toEqual(['f', 'part', 'g', 'h', 'last']);
    expect(shownInWorking(five(true))).toEqual(['f', 'part', 'last']);
  });

  test('however often entries are put between the same two, their order stays', () => {
    let document = five();
    for (let i = 0; i < 100; i++) {
      const moved = i % 2 === 0 ? 'g' : 'h';
      document = applyChange(document, { id: 'x', edits: orderEdits(document, [moved], 'part') });
      expect(order(document)).toEqual(
        moved === 'g' && i === 0
          ? ['f', 'g', 'part', 'a', 'h', 'last']
          : ['f', moved === 'g' ? 'h' : 'g', moved, 'part', 'a', 'last'],
      );
    }
    const keys = inOrder(document.entries).map(([, entry]) => entry.order);
    expect(new Set(keys).size).toBe(keys.length);
  });

  test('is moved from place to place as it is seen, each move one step of the history', () => {
    const workbench = new Workbench(five(true), () => undefined);
    const seen = () => shownInWorking(workbench.state.document);
    moveOnto(workbench, seen(), 'f', 'last');
    expect(seen()).toEqual(['part', 'last', 'f']);
    expect(order(workbench.state.document)).toEqual(['part', 'g', 'a', 'h', 'last', 'f']);
    moveBy(workbench, seen(), 'f', -1);
    // Between a folded heading and the next one it belongs to the first, which unfolds to show it.
    expect(seen()).toEqual(['part', 'g', 'h', 'f', 'last']);
    expect(workbench.state.history.past).toHaveLength(2);
    workbench.undo();
    expect(seen()).toEqual(['part', 'last', 'f']);
  });

  test('what is put in under a folded heading unfolds it', () => {
    const { last: _last, ...entries } = five(true).entries;
    const workbench = new Workbench(documentOf(entries), () => undefined);
    duplicateEntry(workbench, 'h');
    expect(shownInWorking(workbench.state.document)).toHaveLength(5);
  });
});

describe('a duplicate', () => {
  const copied = (entry: Entry) => {
    const workbench = new Workbench(documentOf({ own: entry }), () => undefined);
    duplicateEntry(workbench, 'own');
    const copies = Object.entries(workbench.state.document.entries).filter(([id]) => id !== 'own');
    expect(copies).toHaveLength(1);
    const [[id, copy]] = copies as [[string, Entry]];
    expect(workbench.current().entries.get(id)?.outcome.ok).toBe(true);
    return copy;
  };
  test('of a function or value takes the next free name and colour', () => {
    expect(copied(given(1, 'f(x) = x^2 + 1'))).toMatchObject({ text: 'g(x) = x^2 + 1', family: 1 });
    expect(copied(makeEntry('value', { order: 1, text: 'm = 3 + 4' }))).toMatchObject({ text: 'n = 3 + 4' });
    expect(copied(makeEntry('value', { order: 1, text: '3 + 4' }))).toMatchObject({ text: '3 + 4' });
    expect(
      copied(makeEntry('throughPoints', { order: 1, name: 'f', points: '(0, 0), (1, 1)', tier: 'tier-f' })),
    ).toMatchObject({ name: 'g' });
  });
  test('has none of the names that results were given', () => {
    expect(copied({ ...makeEntry('value', { order: 1, text: '3' }), names: { value: 'k' } })).toMatchObject({
      names: {},
    });
  });
});

describe('the slider of a study that is deleted', () => {
  const after = (kept: Entry | null) => {
    const workbench = new Workbench(
      documentOf({
        f: given(1, 'f(x) = x^2'),
        a: makeEntry('parameter', { order: 2, name: 'a', value: '1' }),
        t: makeEntry('tangent', { order: 3, on: 'f', parameter: 'a' }),
        ...(kept ? { kept } : {}),
      }),
      () => undefined,
    );
    removeEntry(workbench, 't');
    return Object.keys(workbench.state.document.entries);
  };
  test('goes where nothing else needs it', () => {
    expect(after(null)).toEqual(['f']);
  });
  test.each([
    ['a marker', makeEntry('marker', { order: 4, x: 'a', y: 'f(a)', tier: 'tier-f' })],
    ['a note', makeEntry('note', { order: 4, text: 'at {f(a)}' })],
    ['a table of trials', makeEntry('trials', { order: 4, columns: 'a; f(a)', tier: 'tier-f' })],
    ['a condition', { ...given(4, 'g(x) = x'), shownWhen: '2 < a < 5' }],
  ])('stays where %s mentions it', (_what, entry) => {
    expect(after(entry)).toContain('a');
  });
});

test('what was deleted is told, and had back until the next change', () => {
  const workbench = new Workbench(five(), () => undefined);
  removeEntry(workbench, 'g');
  expect(workbench.state.notice).toEqual({ text: 'Deleted: Given.', canUndo: true });
  removeEntry(workbench, 'h');
  workbench.undo();
  workbench.undo();
  expect(Object.keys(workbench.state.document.entries).sort()).toEqual(Object.keys(five().entries).sort());
  removeEntry(workbench, 'g');
  duplicateEntry(workbench, 'f');
  expect(workbench.state.notice).toBeNull();
});
