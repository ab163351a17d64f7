import { describe, expect, test } from '@jest/globals';
import { cases } from '../../../tests/cases.ts';
import { ArrayEvaluator, chooseXRange, chooseYRange, sampleCurve } from '../src/index.ts';
import { program } from './scope.ts';
import { Random } from '../fuzz/inputs.ts';

function sampled(
  text: string,
  x: [number, number],
  y: [number, number],
  { width = 600, withSlope = true } = {},
) {
  const compiled = program(text);
  const grid = { xFrom: x[0], xTo: x[1], yFrom: y[0], yTo: y[1], width, height: 400 };
  return sampleCurve(
    compiled,
    new ArrayEvaluator(compiled),
    grid,
    [],
    withSlope ? program(text, 1) : undefined,
  );
}

/** Every joined pair of neighbouring points, as [x0, y0, x1, y1]. */
function segments(runs: readonly Float64Array[]): [number, number, number, number][] {
  return runs.flatMap((run) =>
    Array.from(
      { length: Math.max(0, run.length / 2 - 1) },
      (_, i) => [...run.slice(2 * i, 2 * i + 4)] as [number, number, number, number],
    ),
  );
}

describe('a sampled curve', () => {
  test.each([
    ['1/x', [-3.3, 4.1], [0]],
    ['tan x', [-4.4, 4.7], [-Math.PI / 2, Math.PI / 2]],
    ['1/(x^2-4)', [-5.03, 5.2], [-2, 2]],
    ['floor x', [-2.7, 2.9], [-2, -1, 0, 1, 2]],
    ['1/(x-1)^2', [-2.13, 4.02], [1]],
  ] as const)('%s is never joined over a pole or jump', (text, range, gaps) => {
    const { runs } = sampled(text, [...range], [-4, 4]);
    for (const gap of gaps) {
      const crossing = segments(runs).filter(
        ([x0, y0, x1, y1]) => x0 < gap && x1 > gap && Math.abs(y1 - y0) > 0.02,
      );
      expect(crossing).toEqual([]);
    }
    expect(runs.length).toBeGreaterThanOrEqual(gaps.length + 1);
  });

  test('a continuous curve is one run, over its whole width', () => {
    const { runs } = sampled('3x^2-5x-2', [-2, 3.5], [-5, 7]);
    expect(runs).toHaveLength(1);
    expect(runs[0]?.[0]).toBe(-2);
    expect(runs[0]?.at(-2)).toBe(3.5);
  });

  test('a curve reaches the end of its domain to a fraction of a pixel', () => {
    const { runs } = sampled('sqrt(x-1)', [-1.03, 5], [-1, 3]);
    const pixel = 6.03 / 600;
    expect((runs[0]?.[0] ?? 0) - 1).toBeLessThan(pixel / 100);
  });

  test('none of many spikes of width 0.00001 is missed, wherever the window starts', () => {
    const random = new Random(20261124);
    let missed = 0;
    for (let pan = 0; pan < cases(20, 200); pan++) {
      const [from, peak] = [-5 + random.next(), -3 + 6 * random.next()];
      const { runs } = sampled(`1/(1 + (2E5(x-${peak.toFixed(12)}))^2)`, [from, from + 10], [-0.5, 1.5], {
        width: 1200,
      });
      const highest = Math.max(...runs.flatMap((run) => [...run].filter((_, i) => i % 2 === 1)));
      if (highest < 0.9) missed++;
    }
    expect(missed).toBe(0);
  });

  test('no drawn segment crosses a gap: a law, on random quotients and pieces (seed 20261124)', () => {
    const random = new Random(20261124);
    for (let i = 0; i < cases(12, 60); i++) {
      const [pole, jump] = [(-2 + 4 * random.next()).toFixed(3), (-2 + 4 * random.next()).toFixed(3)];
      const texts = [
        `1/(x-${pole})`.replace('--', '+'),
        `(x^2 if x < ${jump}; x^2 + 1 otherwise)`,
        `x + floor(3x-${jump})`.replace('--', '+'),
      ];
      const text = texts[i % 3] as string;
      const height = i % 3 === 0 ? 10 : 0.5;
      for (const run of sampled(text, [-3, 3], [-8, 8]).runs) {
        for (let k = 2; k + 1 < run.length; k += 2) {
          const rise = Math.abs((run[k + 1] as number) - (run[k - 1] as number));
          const isStep = (run[k] as number) - (run[k - 2] as number) < 0.02 && rise > height;
          const crossesPole = i % 3 === 0 && (run[k + 1] as number) * (run[k - 1] as number) < 0;
          expect({ text, x: run[k], isJoined: i % 3 === 0 ? crossesPole : isStep }).toMatchObject({
            isJoined: false,
          });
        }
      }
    }
  });

  test('ordinary functions need at most 4,000 evaluations', () => {
    for (const text of [
      '3x^2-5x-2',
      'sin x',
      'e^(-x^2)',
      'x^3-3x',
      'ln x',
      '2+7/5 sin(0.7x)+0.15x',
      'tan x',
    ]) {
      expect(sampled(text, [-4, 4], [-5, 5], { width: 1200 }).evaluations).toBeLessThanOrEqual(4000);
    }
  });

  test('where the slope keeps its sign nothing is looked at twice, and the curve is the same', () => {
    for (const text of ['3x^2-5x-2', 'x^5-4x^3+x', '(x^2+1)/(x-7)']) {
      const quick = sampled(text, [-3, 3], [-10, 10]);
      const thorough = sampled(text, [-3, 3], [-10, 10], { withSlope: false });
      expect(quick.evaluations).toBeLessThanOrEqual(601 * 1.15);
      expect(thorough.evaluations).toBeGreaterThanOrEqual(quick.evaluations);
      expect(quick.runs).toHaveLength(thorough.runs.length);
      const highest = ({ runs }: typeof quick) =>
        Math.max(...runs.flatMap((run) => [...run].filter((_, i) => i % 2 === 1)));
      expect(highest(quick)).toBeCloseTo(highest(thorough), 1);
    }
  });

  test('columns that stay undecided are named', () => {
    expect(sampled('sin(1/x)', [-1, 1], [-2, 2]).unsure.length).toBeGreaterThan(0);
    expect(sampled('sin x', [-1, 1], [-2, 2]).unsure).toEqual([]);
  });

  test('a function that is nowhere defined has no runs', () => {
    expect(sampled('sqrt(-1 - x^2)', [-1, 1], [-2, 2]).runs).toEqual([]);
  });
});

describe('the window chosen for a function', () => {
  const windowOf = (text: string) => {
    const plotted = [{ program: program(text), parameters: [] }];
    const x = chooseXRange(plotted);
    return { x, y: chooseYRange(plotted, x) };
  };

  /** Places computed by hand from the formulas. */
  test.each([
    [
      '3x^2-5x-2',
      [
        [-1 / 3, 0],
        [2, 0],
        [5 / 6, -49 / 12],
      ],
    ],
    [
      'x^3-3x',
      [
        [-1, 2],
        [1, -2],
        [Math.sqrt(3), 0],
      ],
    ],
    [
      'x^4-20x^2+7',
      [
        [0, 7],
        [Math.sqrt(10), -93],
      ],
    ],
    [
      '100x^2-3',
      [
        [0, -3],
        [Math.sqrt(0.03), 0],
      ],
    ],
    [
      'x(12-x)/5',
      [
        [0, 0],
        [6, 7.2],
        [12, 0],
      ],
    ],
    [
      'sin x',
      [
        [0, 0],
        [Math.PI / 2, 1],
        [-Math.PI / 2, -1],
      ],
    ],
    ['e^(-x^2)', [[0, 1]]],
    ['ln x', [[1, 0]]],
  ] as const)('%s shows its zeros, highs and lows', (text, places) => {
    const { x, y } = windowOf(text);
    for (const [px, py] of places) {
      expect(px).toBeGreaterThan(x.from);
      expect(px).toBeLessThan(x.to);
      expect(py).toBeGreaterThan(y.from - 1e-9);
      expect(py).toBeLessThan(y.to + 1e-9);
    }
  });

  // Where a curve does all that it does: places computed by hand from the formulas.
  test.each([
    ['(x - 1000)(x - 1010)', [998, 1012], [-25, 20]],
    ['(x - 5000)^2 - 1', [4998, 5002], [-1, 1]],
    ['1000/(1 + 50e^(-0.3x))', [1, 26], [0, 900]],
    ['20 + 60e^(-0.05x)', [0, 60], [23, 80]],
    ['1/(1 + 1E6(x - 0.3)^2)', [0.2, 0.4], [0, 1]],
    ['e^x', [-2, 2], [0, 7]],
    ['1/x', [-3, 3], [-2, 2]],
  ] as const)('%s: from %s to %s there is something to see', (text, xs, ys) => {
    const { x, y } = windowOf(text);
    expect(x.from).toBeLessThanOrEqual(xs[0]);
    expect(x.to).toBeGreaterThanOrEqual(xs[1]);
    expect(y.from).toBeLessThanOrEqual(ys[0]);
    expect(y.to).toBeGreaterThanOrEqual(ys[1]);
    // Not lost in it, either; a lone narrow bump is found, and zoomed in on by hand.
    if (!text.includes('E6')) expect(x.to - x.from).toBeLessThan(6 * (xs[1] - xs[0]));
    expect(y.to - y.from).toBeLessThan(6 * (ys[1] - ys[0]));
  });

  test('a feature fills a good part of the window', () => {
    const { x, y } = windowOf('100x^2-3');
    expect(x.to - x.from).toBeLessThan(2);
    expect(y.to - y.from).toBeLessThan(20);
  });

  test('a pole does not stretch it', () => {
    for (const text of ['1/x', 'tan x', '1/(x^2-4)', '(x^2+1)/(x-1)']) {
      const { y } = windowOf(text);
      expect(y.to - y.from).toBeLessThan(40);
    }
  });

  test('without a feature, or without a value, it is still a window', () => {
    for (const text of ['5', '0', 'e^x', 'sqrt(-1-x^2)', '1E300 x', 'floor x']) {
      const { x, y } = windowOf(text);
      expect(x.to).toBeGreaterThan(x.from);
      expect(y.to).toBeGreaterThan(y.from);
    }
  });
});
