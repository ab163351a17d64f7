import { describe, expect, test } from '@jest/globals';
import { Effort, keyPoints, readExpression, signs, solve, tree, type Expression } from '../src/index.ts';
import { Random } from '../fuzz/inputs.ts';

const read = (text: string): Expression => {
  const reading = readExpression(text, { names: new Set(['x']), functions: new Set() });
  if (!reading.ok) throw new Error(text);
  return reading.value;
};

const points = (text: string, on: readonly [number, number], order = 0) => {
  const { points: found, complete } = keyPoints(read(text), 'x', on, order);
  return { complete, list: found.map(({ kind, x }) => `${kind} ${x.toPrecision(9)}`) };
};

describe('a running total that has no formula', () => {
  test('has its key points where its integrand has zeros and turns', () => {
    // Fresnel's integral: its slope sin x² is 0 at √(kπ), and turns where cos x² is 0.
    const { points: found, complete } = keyPoints(read('∫_0^x sin(t^2) dt'), 'x', [0, 3]);
    const told = found.map(({ kind, x, proved }) => [kind, x.toFixed(12), proved]);
    expect(complete).toBe(true);
    const at = (kind: string, x: number) => [kind, x.toFixed(12), true];
    expect(told).toEqual([
      at('endpoint', 0),
      at('zero', 0),
      at('inflection', Math.sqrt(Math.PI / 2)),
      at('maximum', Math.sqrt(Math.PI)),
      at('inflection', Math.sqrt((3 * Math.PI) / 2)),
      at('minimum', Math.sqrt(2 * Math.PI)),
      at('inflection', Math.sqrt((5 * Math.PI) / 2)),
      at('endpoint', 3),
    ]);
    // Abramowitz and Stegun, table 7.8: S₂ at its first maximum; here ∫ sin t² up to √π.
    const highest = found.find(({ kind }) => kind === 'maximum');
    expect([highest?.y?.toFixed(6), highest?.absolute]).toEqual(['0.894831', true]);
  });

  test('meets a height where tables say so', () => {
    // erf 0.47693628 = ½ (NIST Digital Library of Mathematical Functions, chapter 7; from memory).
    const { solutions, complete } = solve(read('2/√π ∫_0^x e^(-t^2) dt'), tree.number('0.5'), 'x', [-3, 3]);
    expect(complete).toBe(true);
    expect(solutions.map(({ value }) => value.toFixed(9))).toEqual(['0.476936276']);
  });

  test('bends where its integrand has a corner', () => {
    const { complete, list } = points('∫_0^x |t^2 - 1| dt', [-2, 2]);
    expect(complete).toBe(true);
    expect(list).toEqual([
      'endpoint -2.00000000',
      'inflection -1.00000000',
      'zero 0.00000000',
      'inflection 0.00000000',
      'inflection 1.00000000',
      'endpoint 2.00000000',
    ]);
  });

  test('of a second derivative, with a weight that moves', () => {
    // f″ = 2 − x cos x, f(0) = 0, f′(0) = −1: f = x² + x cos x − 2 sin x.
    const weighted = points('-x + ∫_0^x (x - t)(2 - t cos t) dt', [-4, 4]);
    expect(weighted).toEqual({ ...points('x^2 + x cos x - 2 sin x', [-4, 4]), complete: true });
  });

  test('has signs, and key points of its slope', () => {
    const { intervals, complete } = signs(read('∫_1^x e^(-t^2) dt'), 'x', [-2, 2]);
    expect(complete).toBe(true);
    expect(intervals.map(({ from, to, sign }) => [from.value, to.value, sign])).toEqual([
      [-2, 1, -1],
      [1, 2, 1],
    ]);
    expect(points('∫_0^x e^(-t^2) dt', [-2, 2], 1).list).toEqual(points('e^(-x^2)', [-2, 2]).list);
  });

  test('keeps its end points where nothing else is decided', () => {
    for (const integrand of ['floor(t^2)', 'sin(t)/t', 't^t', '1/(t - 5)']) {
      const { list } = points(`∫_1^x ${integrand} dt`, [0.5, 2]);
      expect([integrand, list[0], list.at(-1)]).toEqual([
        integrand,
        'endpoint 0.500000000',
        'endpoint 2.00000000',
      ]);
    }
  });

  test('over poles is given up soon', () => {
    const effort = new Effort(30_000_000);
    const told = effort.spendOn(() => signs(read('∫_0^x tan(t) dt'), 'x', [-2, 2]));
    expect(told.complete).toBe(false);
  });

  test('is not complete over a place where its integrand has no value, or jumps', () => {
    for (const integrand of ['1/t', 'floor(2t)', 'ln(t)', 'tan(2t)', '(t if t < 0; 1 otherwise)'])
      expect([integrand, points(`∫_(-1)^x ${integrand} dt`, [-0.9, 1]).complete]).toEqual([integrand, false]);
  });
});

test('a total and the formula of its antiderivative have the same key points', () => {
  const random = new Random(20261204);
  let looked = 0;
  for (let i = 0; i < 16; i++) {
    const [a, b] = [1 + random.below(3), random.below(5) - 2];
    const [integrand, formula] = random.pick([
      [`t^2 - ${a}`, `x^3/3 - ${a} x`],
      [`cos(${a} t) + ${b} t`, `sin(${a} x)/${a} + ${b} x^2/2`],
      [`e^(-t) - 1/${a}`, `1 - e^(-x) - x/${a}`],
      [`t cos t - (${b})`, `x sin x + cos x - 1 - (${b}) x`],
      [`1/(1 + t^2) - 1/${a + 1}`, `arctan x - x/${a + 1}`],
      [`|t| - ${a}/2`, `x|x|/2 - ${a} x/2`],
    ] as const);
    const on = [-2 - random.next(), 2 + random.next()] as const;
    const [total, known] = [points(`∫_0^x ${integrand} dt`, on), points(formula, on)];
    if (!total.complete || !known.complete) continue;
    looked++;
    expect([integrand, on, total.list]).toEqual([integrand, on, known.list]);
  }
  expect(looked).toBeGreaterThan(9);
});
