import { describe, expect, test } from '@jest/globals';
import { derivativesAt, evaluateAt } from '@yperkine/core';
import {
  emptyStage,
  makeEntry,
  resolve,
  type CurveResult,
  type DifferenceQuotientResult,
} from '../src/index.ts';
import { documentWith, given, outcomeOf, resultOf, slider } from './sample.ts';

describe('the numerical derivative with a chosen step', () => {
  const quotient = (direction: 'forward' | 'backward' | 'symmetric', h = '0.5') =>
    documentWith({
      f: given(1, 'f(x) = x^3'),
      h: slider(2, 'h', h),
      q: makeEntry('differenceQuotient', {
        order: 3,
        of: 'f',
        step: 'h',
        name: 'q',
        direction,
        tier: 'slope',
      }),
      use: given(4, "g(x) = q(x) - f'(x)"),
    });

  // Burden & Faires, Numerical Analysis (9th ed.), section 4.1: for x³ the three quotients are 3x² ± 3xh + h² and 3x² + h².
  test.each([
    ['forward', 3 * 4 + 3 * 2 * 0.5 + 0.25],
    ['backward', 3 * 4 - 3 * 2 * 0.5 + 0.25],
    ['symmetric', 3 * 4 + 0.25],
  ] as const)('%s: the textbook value for x³ at 2', (direction, expected) => {
    const { program, parameters } = resultOf<DifferenceQuotientResult>(quotient(direction), 'q');
    expect(evaluateAt(program, 2, parameters)).toBeCloseTo(expected, 12);
  });

  test('it is a function like any other, and its own error is another', () => {
    const { program, parameters } = resultOf<CurveResult>(quotient('symmetric'), 'use');
    expect(evaluateAt(program, 7, parameters)).toBeCloseTo(0.25, 9);
    const own = resultOf<CurveResult>(quotient('symmetric'), 'q');
    expect(derivativesAt(own.program, 2, 1, own.parameters)[1]).toBeCloseTo(12, 9);
  });

  test('a moving step compiles nothing', () => {
    const document = quotient('forward');
    const before = resolve(document, emptyStage);
    const after = resolve(document, { ...emptyStage, values: { h: '0.25' } }, before);
    const [first, second] = [before, after].map(({ entries }) => {
      const outcome = entries.get('q')?.outcome;
      return outcome?.ok ? (outcome.result as DifferenceQuotientResult) : null;
    });
    expect(second?.program).toBe(first?.program);
    expect(second?.parameters).toEqual([0.25]);
  });

  test('a step of 0 is answered in a sentence', () => {
    expect(outcomeOf(quotient('forward', '0'), 'q')).toMatchObject({
      ok: false,
      problem: { message: 'With h = 0 the quotient would be 0/0.' },
    });
  });
});
