import { describe, expect, test } from '@jest/globals';
import {
  emptyDocument,
  emptyStage,
  makeEntry,
  readPoints,
  resolve,
  withValue,
  writePoints,
  type CurveResult,
  type Document,
} from '../src/index.ts';
import { buildScene } from '../src/scene/scene.ts';
import { evaluateAt } from '@yperkine/core';
import { documentWith, resultOf } from './sample.ts';

describe('points as they are typed or pasted', () => {
  test.each([
    ['(0, 1), (2, 3.5), (4, 0)', '(0, 1), (2, 3.5), (4, 0)'],
    ['(2, 3) (0, −1)', '(0, -1), (2, 3)'],
    ['(0; 1); (2; 3)', '(0, 1), (2, 3)'],
    ['0\t1\n2\t3.5\n4\t0', '(0, 1), (2, 3.5), (4, 0)'],
    ['0, 1\n2, 3', '(0, 1), (2, 3)'],
  ])('%j', (text, written) => {
    const reading = readPoints(text);
    expect(reading.ok && writePoints(reading.points)).toBe(written);
  });

  test.each([
    ['', 'A function through points needs at least two of them: (0, 1), (2, 3.5).'],
    ['(0, 1)', 'A function through points needs at least two of them: (0, 1), (2, 3.5).'],
    ['(0, 1), (two, 3)', '“two” is not a number.'],
    ['(0, 1), (0, 2)', 'Two points stand at x = 0; a function has one value there.'],
    ['(0, 1), (2, 3), hello', '“hello” is not understood: write points as (0, 1), (2, 3.5).'],
    [
      Array.from({ length: 41 }, (_, i) => `(${i}, 1)`).join(),
      'A function through points takes at most 40 of them.',
    ],
  ])('%j is answered by one sentence', (text, message) => {
    expect(readPoints(text)).toEqual({ ok: false, message });
  });
});

describe('a function through points in a document', () => {
  const document = (shape: 'broken' | 'smooth' = 'broken'): Document => ({
    ...emptyDocument(),
    entries: {
      p: makeEntry('throughPoints', {
        order: 1,
        name: 'p',
        points: '(0, 0), (2, 4), (4, 0)',
        shape,
        tier: 'tier-f',
      }),
      a: makeEntry('parameter', { order: 2, name: 'a', value: '1' }),
      t: makeEntry('tangent', { order: 3, on: 'p', parameter: 'a' }),
      v: makeEntry('value', { order: 4, text: "p'(3)" }),
    },
  });
  const curve = (of: Document, stage = emptyStage): CurveResult => {
    const outcome = resolve(of, stage).entries.get('p')?.outcome;
    if (!outcome?.ok) throw new Error(outcome?.problem.message);
    return outcome.result as CurveResult;
  };

  test('is a function like any other: tangents and values stand on it', () => {
    const { entries } = resolve(document(), emptyStage);
    expect(entries.get('t')?.outcome).toMatchObject({
      ok: true,
      result: { tangent: { slope: { value: 2 } } },
    });
    expect(entries.get('v')?.outcome).toMatchObject({ ok: true, result: { value: { value: -2 } } });
  });

  test('its points are marks of their own, and follow a drag before the document does', () => {
    const stage = withValue(emptyStage, 'p', '(0, 0), (2, 6), (4, 0)');
    expect(evaluateAt(curve(document(), stage).program, 1)).toBe(3);
    const size = { width: 800, height: 600, density: 1, furniture: true };
    const sceneOf = (shown: typeof stage) =>
      buildScene({
        document: document(),
        stage: shown,
        resolution: resolve(document(), shown),
        size,
        here: null,
      });
    const [before, after] = [sceneOf(emptyStage), sceneOf(stage)].map(({ vertices }) => vertices);
    expect(before).toHaveLength(3);
    expect(after?.[1]?.x).toBe(before?.[1]?.x);
    expect(after?.[1]?.y).toBeLessThan(before?.[1]?.y ?? 0);
  });

  test('nothing is compiled again while something else moves', () => {
    const smooth = document('smooth');
    const first = resolve(smooth, emptyStage);
    const second = resolve(smooth, withValue(emptyStage, 'a', '3'), first);
    expect(second.workedOut).toEqual(['a', 't']);
  });

  test('a smooth one has one slope at its points', () => {
    const at = { ...document('smooth') };
    const { entries } = resolve(at, withValue(emptyStage, 'a', '2'));
    expect(entries.get('t')?.outcome).toMatchObject({
      ok: true,
      result: { tangent: { kind: 'line', slope: { value: 0 } } },
    });
  });
});

test('areas under a function through points are those of its trapezoids', () => {
  const document = documentWith({
    p: makeEntry('throughPoints', {
      order: 1,
      name: 'p',
      variable: 'x',
      points: '(0, 1), (2, 5), (5, 2)',
      tier: 'tier-f',
    }),
    area: makeEntry('value', { order: 2, text: '∫_0^5 p(x) dx' }),
  });
  // (1 + 5)/2 · 2 + (5 + 2)/2 · 3 = 16.5.
  expect(resultOf<{ value: { value: number } }>(document, 'area').value.value).toBeCloseTo(16.5, 9);
});
