import { describe, expect, test } from '@jest/globals';
import { rational } from '@yperkine/core';
import {
  emptyStage,
  makeEntry,
  settingValue,
  stepped,
  type Entry,
  type JoinsResult,
  type ParameterResult,
  shownValue,
  type Said,
} from '../src/index.ts';
import { documentWith, given, linesOf, marksOf, outcomeOf, resultOf, sceneOf, slider } from './sample.ts';

const rule = { decimals: 3, decimalMark: '.' } as const;

describe('a slider of whole numbers', () => {
  const whole = (value: string): Entry => slider(1, 'n', value, { whole: true, step: '1', unit: 'days' });

  test('moves from one to the next, and each is exact', () => {
    const document = documentWith({ n: whole('3') });
    const at = (shown: number) =>
      resultOf<ParameterResult>(document, 'n', { ...emptyStage, values: { n: shown } });
    expect([2.4, 2.6, -0.4].map((shown) => shownValue(at(shown), rule))).toEqual(['2', '3', '0']);
    expect(at(2.6).value.exact).not.toBeNull();
  });

  test('any other number is refused in a sentence', () => {
    expect(outcomeOf(documentWith({ n: whole('2.5') }), 'n')).toMatchObject({
      ok: false,
      problem: { message: 'n takes whole numbers only, and 2.5 is none.' },
    });
  });
});

describe('a slider at a fraction', () => {
  const document = documentWith({
    f: given(1, 'f(x) = 3k x + 1'),
    k: slider(2, 'k', '-4/3'),
    p: makeEntry('point', { order: 3, on: 'f', parameter: 'k' }),
    v: makeEntry('value', { order: 4, text: '3k' }),
  });

  test('is that fraction, exactly, wherever it is used', () => {
    const result = resultOf<ParameterResult>(document, 'k');
    expect([shownValue(result, rule), result.value.exact]).toEqual(['−4/3', rational.rational(-4, 3)]);
    expect(linesOf(document, 'v')[0]).toContain('= -4.000'.replace('-', '−'));
    // By hand: 3·(−4/3)·(−4/3) + 1 = 19/3.
    expect(linesOf(document, 'p')[0]).toContain('= 19/3 ≈ 6.333');
  });

  test.each(['1/0', '1/', '/3', '4/3/2', '1.5/2', '4/-3', '1/3x'])('%s is no number for it', (text) => {
    expect(settingValue(text)).toBeNull();
    expect(() => makeEntry('parameter', { order: 1, name: 'k', value: text })).toThrow();
  });

  test('is what mends a join, where that is a fraction', () => {
    const mends = (formula: string) =>
      resultOf<JoinsResult>(
        documentWith({
          k: slider(1, 'k', '1'),
          f: given(2, formula),
          study: makeEntry('joins', { order: 3, on: 'f', from: '-5', to: '5', constant: 'k' }),
        }),
        'study',
      ).mends.map(({ value }) => value);
    // By hand: 3k = 4; k² = 4; every k is continuous and 2·2 = k is smooth; k² = 2 is no fraction; no k at all.
    expect(mends('f(x) = 3k x if x < 1; 4 otherwise')).toEqual(['4/3']);
    expect(mends('f(x) = k^2 x if x < 1; 4 otherwise')).toEqual(['-2', '2']);
    expect(mends('f(x) = x^2 if x < 2; k(x - 2) + 4 otherwise')).toEqual(['4']);
    expect(mends('f(x) = k^2 x if x < 1; 2 otherwise')).toEqual([]);
    expect(mends('f(x) = x + 0k if x < 1; 4 otherwise')).toEqual([]);
  });

  test('a jump at a join has an open circle at the end that is not its value', () => {
    const shapes = (formula: string) =>
      marksOf(
        sceneOf(
          documentWith({
            f: given(2, formula),
            study: makeEntry('joins', { order: 3, on: 'f', from: '-5', to: '5' }),
          }),
        ),
      ).flatMap((mark) => (mark.kind === 'dot' ? [mark.shape ?? 'filled'] : []));
    expect(shapes('f(x) = x if x < 1; 4 otherwise')).toEqual(['ring', 'filled']);
    expect(shapes('f(x) = x if x < 1; 4 if x > 1')).toEqual(['ring', 'ring']);
    expect(shapes('f(x) = x if x < 1; 1 otherwise')).toEqual(['diamond']);
    expect(shapes('f(x) = x if x < 1; 1 if x > 1')).toEqual(['ring', 'ring']);
  });

  test('the keys go on from it by whole steps', () => {
    const { scale } = resultOf<ParameterResult>(document, 'k');
    expect(settingValue(stepped('-4/3', 1, scale))).toEqual(
      rational.add(rational.rational(-4, 3), rational.rational(1, 10)),
    );
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
    expect(resultOf<Said>(document, 'p').sentence).toContain('at the height 2.250');
  });
});
