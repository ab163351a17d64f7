import { describe, expect, test } from '@jest/globals';
import { signs, solve } from '../src/index.ts';
import { keyPoints } from './checked.ts';
import { expression } from './scope.ts';

const whereSlope = (text: string, k: string, a: number, b: number) =>
  solve(expression(text), expression(k), 'x', [a, b], 1);
const points = (text: string, order: number, a: number, b: number) =>
  keyPoints(expression(text), 'x', [a, b], order);

describe('where a slope is k', () => {
  const box = 'x(30 - 2x)(20 - 2x)';

  test('an end that only the question chose is a place like any other', () => {
    expect(whereSlope(box, '600', 0, 10)).toMatchObject({ complete: true, solutions: [{ value: 0 }] });
  });

  test('at an end of the domain the function has a one-sided slope, which is none', () => {
    const found = whereSlope(`${box} if 0 ≤ x ≤ 10`, '600', 0, 10);
    expect(found).toMatchObject({ complete: true, solutions: [] });
  });

  test('at the end of a stretch with a corner the slope is left out', () => {
    const { everywhere, complete } = whereSlope('|x|', '1', 0, 10);
    expect(complete).toBe(true);
    expect(everywhere).toMatchObject([{ includesFrom: false, includesTo: true }]);
  });

  test.each(['sin(x)/x if x ≠ 0; 1 otherwise', 'e^(-1/x^2) if x ≠ 0; 0 otherwise', 'x |x|'])(
    '%s is level at 0',
    (text) => {
      expect(whereSlope(text, '0', -2, 2)).toMatchObject({ complete: true, solutions: [{ value: 0 }] });
    },
  );

  test('where slopes swing beside the place, the definition’s limit is a solution all the same', () => {
    const { solutions } = whereSlope('x^2 sin(1/x) if x ≠ 0; 0 otherwise', '0', -0.5, 0.5);
    expect(solutions.map(({ value }) => value)).toContain(0);
  });
});

test('key points and signs of f′ know that f′ has no value at the ends of the domain of f', () => {
  const text = 'x^2 if 0 ≤ x ≤ 2';
  const open = points(text, 1, 0, 2);
  expect([open.complete, open.points.map(({ kind }) => kind)]).toEqual([true, ['openEnd', 'openEnd']]);
  expect(points('x^2', 1, 0, 2).points.map(({ kind }) => kind)).toEqual(['endpoint', 'zero', 'endpoint']);
  expect(signs(expression(text), 'x', [0, 2], 1).ends.map(({ value }) => value)).toEqual([null, null]);
});
