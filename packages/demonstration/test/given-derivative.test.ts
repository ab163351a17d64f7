import { describe, expect, test } from '@jest/globals';
import { evaluateAt } from '@yperkine/core';
import {
  emptyDocument,
  emptyStage,
  makeEntry,
  plainText,
  resolve,
  type CurveResult,
  type Document,
  type StudyResult,
} from '../src/index.ts';
import { given, slider } from './sample.ts';

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
const outcome = (of: Document, id: string) => resolve(of, emptyStage).entries.get(id)?.outcome;
const problem = (of: Document, id: string) => {
  const found = outcome(of, id);
  return found?.ok ? undefined : found?.problem.message;
};

describe('a function of which only a derivative is given', () => {
  test('is drawn as that derivative, and studies of it speak of the next one', () => {
    const only = document("f''(x) = 2 - x cos x");
    expect(outcome(only, 'd')).toMatchObject({ ok: true, result: { name: 'f', order: 2 } });
    const tangent = outcome(only, 't');
    const [slope] = tangent?.ok ? (tangent.result as StudyResult).lines.map(plainText) : [];
    // By hand: f‴ = −cos x + x sin x, at 2: 0.416 + 1.819.
    expect(slope).toContain('≈ 2.235');
    expect(problem(only, 'g')).toContain('not known here');
  });

  test('with start values f itself is known and can be used: f″ = 6x, f(1) = 2, f′(1) = 4 is x³ + x', () => {
    const whole = document("f''(x) = 6x", '2; 4', '1');
    const g = outcome(whole, 'g');
    if (!g?.ok) throw new Error(g?.problem.message);
    const { program, parameters } = g.result as CurveResult;
    for (const x of [-1, 0, 2]) expect(evaluateAt(program, x, parameters)).toBeCloseTo(x ** 3 + x, 10);
    expect(outcome(whole, 'v')).toMatchObject({
      ok: true,
      result: { value: { value: expect.closeTo(13, 9) } },
    });
  });

  test.each([
    ["f''(x) = 2 +", '', 'Something is missing after “+”.'],
    ["f''(x) = 6x", '2', 'Start values are needed for f and f′, with ; between.'],
    ["f'(x) = 6x", 'two', '“two” is not a number.'],
  ])('%s with the start values “%s” gets one sentence', (text, startValues, message) => {
    expect(problem(document(text, startValues), 'd')).toBe(message);
  });
});
