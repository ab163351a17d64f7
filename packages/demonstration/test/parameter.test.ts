import { describe, expect, test } from '@jest/globals';
import { emptyStage, makeEntry, type Entry, type ParameterResult, type StudyResult } from '../src/index.ts';
import { documentWith, given, outcomeOf, resultOf, sceneOf, slider } from './sample.ts';

describe('a slider of whole numbers', () => {
  const whole = (value: string): Entry => slider(1, 'n', value, { whole: true, step: '1', unit: 'days' });

  test('moves from one to the next, and each is exact', () => {
    const document = documentWith({ n: whole('3') });
    const at = (shown: number) =>
      resultOf<ParameterResult>(document, 'n', { ...emptyStage, values: { n: shown } });
    expect([2.4, 2.6, -0.4].map((shown) => at(shown).text)).toEqual(['2', '3', '0']);
    expect(at(2.6).value.exact).not.toBeNull();
  });

  test('any other number is refused in a sentence', () => {
    expect(outcomeOf(documentWith({ n: whole('2.5') }), 'n')).toMatchObject({
      ok: false,
      problem: { message: 'n takes whole numbers only, and 2.5 is none.' },
    });
  });
});

describe('a point that no slider moves', () => {
  const withPoint = (moves: 'slider' | 'free' | 'fixed') =>
    documentWith({
      f: given(1, 'f(x) = x^2'),
      a: slider(2, 'a', '1.5', { moves }),
      p: makeEntry('point', { order: 3, on: 'f', parameter: 'a' }),
    });
  test.each([
    ['slider', 1],
    ['free', 1],
    ['fixed', 0],
  ] as const)('%s: it has %s handle, and says the same', (moves, handles) => {
    const document = withPoint(moves);
    const scene = sceneOf(document);
    expect(scene.handles).toHaveLength(handles);
    expect(scene.tiers[0]?.marks.some(({ kind }) => kind === 'point')).toBe(true);
    expect(resultOf<StudyResult>(document, 'p').sentence).toContain('at the height 2.250');
  });
});
