import { describe, expect, test } from '@jest/globals';
import { evaluateAt } from '@yperkine/core';
import {
  answersNow,
  emptyDocument,
  emptyStage,
  makeEntry,
  plainText,
  resolve,
  type CurveResult,
  type Document,
  type KeyPointsResult,
  type Said,
} from '../src/index.ts';
import { given, slider, toldIn } from './sample.ts';

const document = (text: string, startValues = '', startAt = '0'): Document => ({
  ...emptyDocument(),
  entries: {
    d: makeEntry('givenDerivative', { order: 1, text, startValues, startAt, tier: 'tier-f' }),
    a: slider(2, 'a', '2'),
    t: makeEntry('tangent', { order: 3, on: 'd', parameter: 'a' }),
    g: given(4, 'g(x) = f(x)'),
    v: makeEntry('value', { order: 5, text: "f'(2)" }),
  },
});
const outcome = (of: Document, id: string) => toldIn(resolve(of, emptyStage), id);
const problem = (of: Document, id: string) => {
  const found = outcome(of, id);
  return found?.ok ? undefined : found?.problem.message;
};

describe('a function of which only a derivative is given', () => {
  test('is drawn as that derivative, and studies of it speak of the next one', () => {
    const only = document("f''(x) = 2 - x cos x");
    expect(outcome(only, 'd')).toMatchObject({ ok: true, result: { name: 'f', order: 2 } });
    const tangent = outcome(only, 't');
    const [slope] = tangent?.ok ? (tangent.result as Said).lines.map(plainText) : [];
    // By hand: f‴ = −cos x + x sin x, at 2: 0.416 + 1.819.
    expect(slope).toContain('≈ 2.235');
    expect(problem(only, 'g')).toContain('not known here');
  });

  test('with start values f itself is known and can be used: f″ = 6x, f(1) = 2, f′(1) = 4 is x³ + x', () => {
    const whole = document("f''(x) = 6x", '2; 4', '1');
    const g = outcome(whole, 'g');
    if (!g?.ok) throw new Error(g?.problem.message);
    const { program, parameters } = g.result as CurveResult & Said;
    for (const x of [-1, 0, 2]) expect(evaluateAt(program, x, parameters)).toBeCloseTo(x ** 3 + x, 10);
    expect(outcome(whole, 'v')).toMatchObject({
      ok: true,
      result: { value: { value: expect.closeTo(13, 9) } },
    });
  });

  test('the function behind it has its formula, and key points that are proved', () => {
    const entries = {
      d: makeEntry('givenDerivative', {
        order: 1,
        text: "f'(x) = x^2 - 1 for -2 <= x <= 3",
        startValues: '0',
        startAt: '0',
        tier: 'tier-f',
      }),
      f: makeEntry('original', { order: 2, of: 'd', degree: 0, tier: 'tier-f' }),
      g: given(3, 'g(x) = f(x)'),
      k: makeEntry('keyPoints', { order: 4, on: 'g', from: '-2', to: '3' }),
    };
    const resolved = resolve({ ...emptyDocument(), entries }, emptyStage, undefined, answersNow());
    const result = <R>(id: string): R => {
      const found = toldIn(resolved, id);
      if (!found?.ok) throw new Error(found?.problem.message);
      return found.result as R;
    };
    expect(result<Said>('f').lines.map(plainText)).toEqual([
      'f(x) = \\frac{x^{3}}{3}-x,\\quad -2 \\le x \\le 3',
    ]);
    const { points } = result<KeyPointsResult>('k');
    expect(points.map(({ kind, x }) => [kind, Number(x.toFixed(3))])).toEqual([
      ['endpoint', -2],
      ['zero', -1.732],
      ['maximum', -1],
      ['zero', 0],
      ['inflection', 0],
      ['minimum', 1],
      ['zero', 1.732],
      ['endpoint', 3],
    ]);
    expect(result<Said>('k').certainty?.isProved).toBe(true);
  });

  test('follows when a function that the derivative is made of changes', () => {
    const documentOf = (text: string): Document => ({
      ...emptyDocument(),
      entries: {
        g: given(1, text),
        d: makeEntry('givenDerivative', {
          order: 2,
          text: "F'(x) = g(x)",
          startValues: '0',
          startAt: '0',
          tier: 'tier-f',
        }),
        f: makeEntry('original', { order: 3, of: 'd', degree: 0, tier: 'tier-f' }),
        h: given(4, 'h(x) = F(x)'),
      },
    });
    const before = resolve(documentOf('g(x) = 2x'), emptyStage);
    const after = resolve(documentOf('g(x) = 3x^2'), emptyStage, before);
    const value = (of: typeof after, id: string): number => {
      const found = toldIn(of, id);
      if (!found?.ok) throw new Error(found?.problem.message);
      const { program, parameters } = found.result as CurveResult & Said;
      return evaluateAt(program, 2, parameters);
    };
    expect(['f', 'h'].map((id) => value(before, id))).toEqual([4, 4].map((y) => expect.closeTo(y, 9)));
    expect(['f', 'h'].map((id) => value(after, id))).toEqual([8, 8].map((y) => expect.closeTo(y, 9)));
  });

  test.each([
    ["f''(x) = 2 +", '', 'Something is missing after “+”.'],
    ["f''(x) = 6x", '2', 'Start values are needed for f and f′, with ; between.'],
    ["f'(x) = 6x", 'two', '“two” is not a number.'],
  ])('%s with the start values “%s” gets one sentence', (text, startValues, message) => {
    expect(problem(document(text, startValues), 'd')).toBe(message);
  });
});
