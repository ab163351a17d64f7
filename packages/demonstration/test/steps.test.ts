import { describe, expect, test } from '@jest/globals';
import {
  applyChange,
  emptyStage,
  invert,
  makeEntry,
  momentEdits,
  resolve,
  shownMoment,
  stageWithout,
  type Document,
  type Edit,
  type Stage,
  type Step,
} from '../src/index.ts';
import { accepted, documentWith, setField, slider } from './sample.ts';

const sample = (): Document =>
  documentWith({
    a: slider(1, 'a', '1'),
    b: slider(2, 'b', '0.5'),
    g: makeEntry('throughPoints', { order: 3, name: 'g', points: '(0, 1), (2, 3)', tier: 'tier-f' }),
    q: makeEntry('reveal', { order: 4, name: 'question_1' }),
  });
const after = (document: Document, edits: readonly Edit[]): Document =>
  applyChange(document, { id: 'x', edits: [...edits] });
const shown = (document: Document, stage: Stage = emptyStage) =>
  shownMoment(document, stage, resolve(document, stage));

const nothing: Pick<Step, 'values' | 'reveals' | 'windows'> = { values: null, reveals: null, windows: null };
const step: Step = { ...nothing, order: 1, title: 'The gap shrinks', clearsTrails: true };

describe('what is shown, kept and shown again', () => {
  test('holds values, points, reveals and windows; motion and dragging included', () => {
    const stage: Stage = {
      values: { a: 2.5, g: '(0, 1), (2, -1)' },
      x: { from: 0, to: 1 },
      y: { slope: { from: 7, to: 8 } },
    };
    expect(shown(sample(), stage)).toEqual({
      values: { a: '2.5', b: '0.5', g: '(0, 1), (2, -1)' },
      reveals: { q: false },
      windows: {
        x: { from: 0, to: 1 },
        y: { 'tier-f': { from: -5, to: 5 }, slope: { from: 7, to: 8 } },
      },
    });
  });

  test('comes back from wherever things have moved to, and changes nothing where they still are', () => {
    const kept = shown(sample());
    expect(momentEdits(sample(), kept)).toEqual([]);
    const moved = after(sample(), [
      setField('a', 'value', '1', '4'),
      setField('g', 'points', '(0, 1), (2, 3)', '(0, 1), (2, -1)'),
      setField('q', 'switchedOn', false, true),
      { at: 'document', field: 'x', old: { from: -5, to: 5 }, new: { from: 0, to: 1 } },
    ]);
    expect(after(moved, momentEdits(moved, kept))).toEqual(sample());
  });

  test('leaves alone what it does not name, and what is no longer there', () => {
    expect(momentEdits(sample(), nothing)).toEqual([]);
    const some = { ...nothing, values: { a: '3', gone: '7' } };
    expect(momentEdits(sample(), some)).toEqual([setField('a', 'value', '1', '3')]);
    const window = { from: 0, to: 1 };
    const windows = { x: sample().x, y: { slope: window, gone: window } };
    expect(after(sample(), momentEdits(sample(), { ...nothing, windows })).tiers).toEqual({
      ...sample().tiers,
      slope: { ...sample().tiers.slope, y: window },
    });
  });

  test('a value that the entry could not keep is left out, so that the demonstration can be saved', () => {
    const edits = momentEdits(sample(), { ...nothing, values: { a: 'three', b: '2' } });
    expect(edits).toEqual([setField('b', 'value', '0.5', '2')]);
  });

  test('on the stage only what it does not decide stays', () => {
    const stage: Stage = {
      values: { a: 2.5, b: 3 },
      x: { from: 0, to: 1 },
      y: { slope: { from: 7, to: 8 }, other: { from: 1, to: 2 } },
    };
    expect(stageWithout(stage, { a: '1' }, null)).toEqual({ ...stage, values: { b: 3 } });
    expect(stageWithout(stage, {}, { y: { slope: { from: 0, to: 1 } } })).toEqual({
      ...stage,
      x: null,
      y: { other: { from: 1, to: 2 } },
    });
  });
});

test('a step is put in, changed and taken out by edits that can be taken back', () => {
  const added = { id: 'x', edits: [{ at: 'steps', id: 's', old: null, new: step } as Edit] };
  const renamed: Edit = {
    at: 'field',
    of: 'steps',
    id: 's',
    field: 'title',
    old: step.title,
    new: 'Smaller still',
  };
  const document = accepted(sample(), added);
  expect(document?.steps).toEqual({ s: step });
  const change = { id: 'y', edits: [renamed] };
  const changed = document && accepted(document, change);
  expect(changed?.steps.s?.title).toBe('Smaller still');
  expect(changed && applyChange(changed, invert(change, 'z'))).toEqual(document);
  expect(document && applyChange(document, invert(added, 'w'))).toEqual(sample());
});

test.each([
  ['more than the limit', Object.fromEntries(Array.from({ length: 101 }, (_, i) => [`s${i}`, step]))],
  ['a window that runs backwards', { s: { ...step, windows: { x: { from: 1, to: 0 }, y: {} } } }],
  ['a reveal that is neither on nor off', { s: { ...step, reveals: { q: 'on' } } }],
])('steps with %s cannot be stored', (_what, steps) => {
  const edits = Object.entries(steps).map(([id, value]) => ({ at: 'steps', id, old: null, new: value }));
  expect(accepted(sample(), { id: 'x', edits: edits as Edit[] })).toBeNull();
});
