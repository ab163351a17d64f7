import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import {
  compile,
  derivativesAt,
  evaluateAt,
  exactValue,
  keyPoints,
  printText,
  rational,
  through,
  type ExactPoint,
} from '../src/index.ts';
import { replayable } from './random.ts';

const point = (x: number, y: number): ExactPoint => ({ x: rational.rational(x), y: rational.rational(y) });
const points = (...list: [number, number][]) => list.map(([x, y]) => point(x, y));

describe('the function through points', () => {
  test('a broken line, with values between and none outside', () => {
    const line = compile(through(points([0, 1], [2, 5], [3, 2]), 'broken', 'x'), 'x');
    expect([0, 1, 2, 2.5, 3].map((x) => evaluateAt(line, x))).toEqual([1, 3, 5, 3.5, 2]);
    expect([-0.1, 3.1].map((x) => evaluateAt(line, x))).toEqual([NaN, NaN]);
  });

  // Burden & Faires, Numerical Analysis (9th ed.), section 3.5, example 1: the natural spline through
  // (1, 2), (2, 3), (3, 5) is 2 + 3/4(x − 1) + 1/4(x − 1)³, then 3 + 3/2(x − 2) + 3/4(x − 2)² − 1/4(x − 2)³.
  test('the natural spline of a published example', () => {
    const spline = through(points([1, 2], [2, 3], [3, 5]), 'smooth', 'x');
    const at = (numerator: number, denominator: number) =>
      exactValue(spline, new Map([['x', rational.rational(numerator, denominator)]]));
    expect(at(3, 2)).toEqual(rational.rational(77, 32));
    expect(at(5, 2)).toEqual(rational.rational(125, 32));
    expect(printText(spline)).toContain('2 + 3/4(x - 1) + 1/4(x - 1)^3');
  });

  // The same, example 2: the natural spline of eˣ at 0, 1, 2, 3 comes near eˣ: its integral is 19.55229.
  test('the natural spline of e^x, rounded to five digits as printed', () => {
    const nodes = [1, 2.71828, 7.38906, 20.08554].map((y, x) => ({
      x: rational.rational(x),
      y: rational.parseDecimal(String(y)) as rational.Rational,
    }));
    const program = compile(through(nodes, 'smooth', 'x'), 'x');
    // S₀(x) = 1 + 1.46600x + 0.25228x³ on [0, 1].
    for (const x of [0.25, 0.5, 0.75])
      expect(evaluateAt(program, x)).toBeCloseTo(1 + 1.466 * x + 0.25228 * x ** 3, 4);
  });

  test('a law: it goes through its points, and a smooth one has neither a corner nor a jump of bend (seed 20261124)', () => {
    const list = fc
      .uniqueArray(fc.integer({ min: -20, max: 20 }), { minLength: 3, maxLength: 8 })
      .chain((xs) =>
        fc.tuple(
          ...xs
            .sort((a, b) => a - b)
            .map((x) => fc.integer({ min: -9, max: 9 }).map((y): [number, number] => [x, y])),
        ),
      );
    fc.assert(
      fc.property(list, fc.constantFrom('broken' as const, 'smooth' as const), (pairs, shape) => {
        const program = compile(through(points(...pairs), shape, 'x'), 'x');
        for (const [x, y] of pairs) expect(evaluateAt(program, x)).toBeCloseTo(y, 9);
        if (shape === 'broken') return;
        for (const [x] of pairs.slice(1, -1)) {
          const [left, right] = (['left', 'right'] as const).map((side) =>
            derivativesAt(program, x, 2, [], side),
          );
          [1, 2].forEach((order) => expect(left?.[order]).toBeCloseTo(right?.[order] ?? NaN, 7));
        }
      }),
      { ...replayable, numRuns: 60 },
    );
  });

  test('slopes and key points work as for any other function', () => {
    const body = through(points([0, 0], [2, 4], [4, 0]), 'broken', 'x');
    const { points: found, complete } = keyPoints(body, 'x', [0, 4]);
    expect(complete).toBe(true);
    expect(found.map(({ kind, x }) => `${kind} ${x}`)).toEqual([
      'endpoint 0',
      'zero 0',
      'maximum 2',
      'corner 2',
      'endpoint 4',
      'zero 4',
    ]);
    const [, slope] = derivativesAt(compile(body, 'x'), 1, 1);
    expect(slope).toBe(2);
  });
});
