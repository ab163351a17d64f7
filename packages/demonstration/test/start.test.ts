import { describe, expect, test } from '@jest/globals';
import {
  applyChange,
  emptyStage,
  makeEntry,
  makeStartEdits,
  resolve,
  restoreStartEdits,
  windowEdits,
  type Document,
  type Edit,
  type Stage,
} from '../src/index.ts';
import { documentWith, setField, slider } from './sample.ts';

const sample = (): Document =>
  documentWith({
    a: slider(1, 'a', '1'),
    g: makeEntry('throughPoints', { order: 2, name: 'g', points: '(0, 1), (2, 3)', tier: 'tier-f' }),
    q: makeEntry('reveal', { order: 3, name: 'question_1' }),
  });
const after = (document: Document, edits: readonly Edit[]): Document =>
  applyChange(document, { id: 'x', edits: [...edits] });

/** The sample with everything moved away from its start. */
const moved = (): Document =>
  after(sample(), [
    setField('a', 'value', '1', '4'),
    setField('g', 'points', '(0, 1), (2, 3)', '(0, 1), (2, -1)'),
    setField('q', 'switchedOn', false, true),
    { at: 'document', field: 'x', old: { from: -5, to: 5 }, new: { from: 0, to: 1 } },
    { at: 'field', of: 'tiers', id: 'slope', field: 'y', old: { from: -5, to: 5 }, new: { from: 3, to: 4 } },
  ]);

describe('the start', () => {
  test('restoring it gives sliders, points, reveals and windows back, and nothing where nothing moved', () => {
    expect(after(moved(), restoreStartEdits(moved()))).toEqual(sample());
    expect(restoreStartEdits(sample())).toEqual([]);
  });

  test('what is shown can be made the start, motion included', () => {
    const stage: Stage = { ...emptyStage, values: { a: 2.5 }, x: { from: 1, to: 2 } };
    const made = after(moved(), makeStartEdits(moved(), stage, resolve(moved(), stage)));
    expect(made.entries.a).toMatchObject({ value: '2.5', start: '2.5' });
    expect(made.entries.g).toMatchObject({ start: '(0, 1), (2, -1)' });
    expect(made.entries.q).toMatchObject({ start: true });
    expect(made).toMatchObject({ x: { from: 1, to: 2 }, startX: { from: 1, to: 2 } });
    expect(made.tiers.slope).toMatchObject({ startY: { from: 3, to: 4 } });
    expect(restoreStartEdits(made)).toEqual([]);
  });

  test('a window chosen by Fit or by typing is the start; looking around is not', () => {
    const chosen = after(sample(), windowEdits(sample(), 'slope', { from: 0, to: 9 }));
    expect(restoreStartEdits(chosen)).toEqual([]);
    const panned = after(chosen, [
      {
        at: 'field',
        of: 'tiers',
        id: 'slope',
        field: 'y',
        old: { from: 0, to: 9 },
        new: { from: 1, to: 10 },
      },
    ]);
    expect(after(panned, restoreStartEdits(panned))).toEqual(chosen);
  });
});
