import { describe, expect, test } from '@jest/globals';
import {
  applyAll,
  applyChange,
  conflictsBetween,
  emptyHistory,
  invert,
  rebase,
  redo,
  remember,
  seal,
  undo,
  type Change,
  type Edit,
} from '../src/index.ts';
import { accepted, setField, tangentDocument } from './sample.ts';

const base = tangentDocument();
const change = (id: string, ...edits: Edit[]): Change => ({ id, edits });
const title = (id: string, old: string, next: string) =>
  change(id, { at: 'document', field: 'title', old, new: next });
const value = (id: string, old: string, next: string) => change(id, setField('a', 'value', old, next));
const removeTangent = change('r', { at: 'entries', id: 't', old: base.entries.t ?? null, new: null });

describe('changes', () => {
  test('a change and its inverse leave the document as it was', () => {
    for (const c of [title('1', 'Sample', 'New'), value('2', '1', '2.5'), removeTangent]) {
      const there = applyChange(base, c);
      expect(there).not.toEqual(base);
      expect(applyChange(there, invert(c, 'back'))).toEqual(base);
    }
  });

  test('what a change does not touch stays the same object', () => {
    const after = applyChange(base, value('1', '1', '2'));
    expect(after.entries.f).toBe(base.entries.f);
    expect(after.tiers).toBe(base.tiers);
  });

  test('a change that would break the document is not applied', () => {
    expect(accepted(base, value('1', '1', 'two'))).toBeNull();
    expect(
      accepted(base, change('2', { at: 'document', field: 'x', old: base.x, new: { from: 3, to: 1 } })),
    ).toBeNull();
    expect(accepted(base, change('3', setField('f', 'kind', 'function', 'note')))).toBeNull();
  });

  test('a field of an entry that is gone changes nothing', () => {
    expect(applyChange(base, change('1', setField('nobody', 'value', '1', '2')))).toBe(base);
  });
});

describe('undo and redo', () => {
  test('go back and forth through what was done', () => {
    const first = title('1', 'Sample', 'One');
    const second = value('2', '1', '2');
    const history = remember(remember(emptyHistory, first), second);
    const done = applyAll(base, [first, second]);
    const back = undo(history, 'u1');
    const backDocument = applyChange(done, back?.change as Change);
    expect(backDocument).toEqual(applyChange(base, first));
    const forth = redo(back?.history ?? emptyHistory, 'r1');
    expect(applyChange(backDocument, forth?.change as Change)).toEqual(done);
  });

  test('letters typed one after the other are undone as one word, until the run is sealed', () => {
    const typing = remember(
      remember(emptyHistory, title('1', 'Sample', 'H'), 'title'),
      title('2', 'H', 'Hi'),
      'title',
    );
    expect(typing.past).toHaveLength(1);
    expect(undo(typing, 'u')?.change.edits[0]).toMatchObject({ new: 'Sample', old: 'Hi' });
    expect(remember(seal(typing), title('3', 'Hi', 'Hi!'), 'title').past).toHaveLength(2);
  });

  test('a new change ends what could be redone', () => {
    const back = undo(remember(emptyHistory, title('1', 'Sample', 'One')), 'u');
    expect(remember(back?.history ?? emptyHistory, value('2', '1', '2')).future).toEqual([]);
  });

  test('nothing to undo is said, not thrown', () => {
    expect(undo(emptyHistory, 'u')).toBeNull();
    expect(redo(emptyHistory, 'r')).toBeNull();
  });
});

describe('two windows on the same demonstration', () => {
  test('different fields are joined without a question', () => {
    const mine = [title('m', 'Sample', 'Mine')];
    const theirs = [value('t', '1', '2')];
    expect(conflictsBetween(mine, theirs)).toEqual([]);
    const joined = applyAll(
      applyAll(base, theirs),
      rebase(base, mine, theirs, () => 'mine'),
    );
    expect(joined).toMatchObject({ title: 'Mine', entries: { a: { value: '2' } } });
  });

  test('the same field asks, and either answer can be kept', () => {
    const mine = [title('m', 'Sample', 'Mine')];
    const theirs = [title('t', 'Sample', 'Theirs')];
    expect(conflictsBetween(mine, theirs).map(({ place }) => place)).toEqual(['document/title']);
    const joined = (choice: 'mine' | 'theirs') =>
      applyAll(
        applyAll(base, theirs),
        rebase(base, mine, theirs, () => choice),
      ).title;
    expect([joined('mine'), joined('theirs')]).toEqual(['Mine', 'Theirs']);
  });

  test('the same value on both sides is no conflict', () => {
    expect(conflictsBetween([title('m', 'Sample', 'Same')], [title('t', 'Sample', 'Same')])).toEqual([]);
  });

  test('an entry that they removed and I changed can be kept with my change', () => {
    const mine = [change('m', setField('t', 'triangle', true, false))];
    const theirs = [removeTangent];
    expect(conflictsBetween(mine, theirs)).toHaveLength(1);
    const server = applyAll(base, theirs);
    expect(
      applyAll(
        server,
        rebase(base, mine, theirs, () => 'theirs'),
      ).entries.t,
    ).toBeUndefined();
    expect(
      applyAll(
        server,
        rebase(base, mine, theirs, () => 'mine'),
      ).entries.t,
    ).toMatchObject({ triangle: false });
  });
});
