import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { cases } from '../../../tests/cases.ts';
import { extremes } from '../src/area/extremes.ts';
import { evenPartition, extremeHeights, readExpression, riemannSum, type SumRule } from '../src/index.ts';

const read = (text: string) => {
  const reading = readExpression(text, { names: new Set(['x']), functions: new Set() });
  if (!reading.ok) throw new Error(text);
  return reading.value;
};
const sumOf = (text: string, on: readonly [number, number], n: number, rule: SumRule) =>
  riemannSum(read(text), 'x', evenPartition(...on, n), rule);

describe('sums of published worked examples', () => {
  test.each<
    [text: string, from: number, to: number, n: number, rule: SumRule, total: number, digits: number]
  >([
    // OpenStax, Calculus Volume 1, section 5.1: left and right sums of x² on [0, 2] with four parts; from memory.
    ['x^2', 0, 2, 4, 'left', 1.75, 12],
    ['x^2', 0, 2, 4, 'right', 3.75, 12],
    // Stewart, Calculus (8th ed.), section 5.1, example 1: x² on [0, 1] with four strips; from memory.
    ['x^2', 0, 1, 4, 'right', 0.46875, 12],
    ['x^2', 0, 1, 4, 'left', 0.21875, 12],
    // Stewart, section 7.7, example 1: 1/x on [1, 2] with five parts; from memory.
    ['1/x', 1, 2, 5, 'trapezoid', 0.695635, 6],
    ['1/x', 1, 2, 5, 'midpoint', 0.691908, 6],
    // Stewart, section 7.7, example 4: parabolas, ten parts; from memory.
    ['1/x', 1, 2, 10, 'simpson', 0.69315, 5],
    // By hand: the rule of Simpson is exact for cubics.
    ['x^3', 0, 2, 2, 'simpson', 4, 12],
  ])('%s on [%d, %d], %d parts, %s: %d', (text, from, to, n, rule, total, digits) => {
    expect(sumOf(text, [from, to], n, rule).total).toBeCloseTo(total, digits);
  });
});

describe('lower and upper sums', () => {
  test('reach the heights beside jumps, however many there are', () => {
    const upper = sumOf('mod(1000x, 1)', [0, 1], 4, 'upper');
    expect([...upper.heights]).toEqual([1, 1, 1, 1]);
    expect(upper.isProved).toBe(true);
    expect([...sumOf('mod(1000x, 1)', [0, 1], 4, 'lower').heights]).toEqual([0, 0, 0, 0]);
  });

  test('have no height where the jumps are too many to be looked at', () => {
    const { heights, isProved } = sumOf('mod(1000x, 1)', [0, 100], 4, 'upper');
    expect(isProved).toBe(false);
    expect([...heights].every(Number.isNaN)).toBe(true);
  });

  test('know both sides of a jump in the middle of the interval', () => {
    // 600 jumps, one of them at 1/2: from 1 to 0.
    const ends = Float64Array.from([0.4999, 0.5, 0.5001]);
    const body = read('mod(1200x, 1)');
    const found = extremeHeights(body, 'x', [0, 1]);
    const { heights } = extremes(found, ends, Float64Array.from([0.88, 0, 0.12]), 'upper');
    expect(heights[0]).toBe(1);
    expect(heights[1]).toBeCloseTo(0.12, 9);
  });

  test('find the extremum inside a part, which no end shows', () => {
    const text = '4 - (x - 1)^2';
    expect(sumOf(text, [0, 2], 1, 'upper').total).toBeCloseTo(8, 12);
    expect(sumOf(text, [0, 2], 1, 'lower').total).toBeCloseTo(6, 12);
    expect(sumOf(text, [0, 2], 1, 'upper').xs[0]).toBe(1);
  });

  test('take a narrow bump that samples miss', () => {
    const { total, isProved } = sumOf('x/10 + e^(-9000(x - 0.503)^2)', [0, 1], 4, 'upper');
    expect(isProved).toBe(true);
    expect(total).toBeGreaterThan(0.25 * (0.025 + 0.05 + 1 + 0.1));
  });

  test('take the limits of a jump, each on its own side', () => {
    const text = '1 if x < 1; 3 otherwise';
    expect([...sumOf(text, [0, 2], 2, 'upper').heights]).toEqual([3, 3]);
    expect([...sumOf(text, [0, 2], 2, 'lower').heights]).toEqual([1, 3]);
  });

  test('are infinite beside a pole', () => {
    expect(sumOf('1/x^2', [0, 1], 2, 'upper').total).toBe(Infinity);
    expect(sumOf('1/x^2', [0, 1], 2, 'lower').total).toBeCloseTo(0.5 * (4 + 1), 12);
  });

  test('do not exist over a gap', () => {
    expect(sumOf('√(x^2 - 1)', [-2, 2], 3, 'lower').total).toBeNaN();
    expect(sumOf('√x', [0, 1], 2, 'lower').total).toBeCloseTo(0.5 * Math.SQRT1_2, 12);
  });
});

test('parabolas need pairs of parts', () => {
  expect(() => sumOf('x', [0, 1], 3, 'simpson')).toThrow(RangeError);
});

test('a part without a value leaves the sum without one', () => {
  expect(sumOf('√x', [-1, 1], 2, 'left').total).toBeNaN();
});

test('the ends of equal parts come out as they are written', () => {
  expect([...evenPartition(0, 2, 4)]).toEqual([0, 0.5, 1, 1.5, 2]);
  expect(evenPartition(0, 0.3, 3).at(-1)).toBe(0.3);
});

describe('laws', () => {
  const polynomial = fc
    .tuple(fc.integer({ min: -4, max: 4 }), fc.integer({ min: -4, max: 4 }), fc.integer({ min: -4, max: 4 }))
    .map(([a, b, c]) => `(${a})x^3 + (${b})x^2 + (${c})x`);
  const counts = fc.integer({ min: 1, max: 12 });
  const options = { seed: 7, numRuns: cases(20, 40) };

  test('the parts add up to the total, and every sum lies between the lower and the upper one', () => {
    fc.assert(
      fc.property(polynomial, counts, (text, n) => {
        const on = [-2, 3] as const;
        const [lower, upper] = [sumOf(text, on, n, 'lower').total, sumOf(text, on, n, 'upper').total];
        for (const rule of ['left', 'right', 'midpoint', { fraction: 0.3 }] as const) {
          const { total, areas } = sumOf(text, on, n, rule);
          expect(areas.reduce((sum, area) => sum + area, 0)).toBeCloseTo(total, 9);
          expect(total).toBeGreaterThanOrEqual(lower - 1e-9);
          expect(total).toBeLessThanOrEqual(upper + 1e-9);
        }
      }),
      options,
    );
  });

  test('refining never raises the upper sum nor lowers the lower one', () => {
    fc.assert(
      fc.property(polynomial, counts, (text, n) => {
        const on = [-2, 3] as const;
        expect(sumOf(text, on, 2 * n, 'upper').total).toBeLessThanOrEqual(
          sumOf(text, on, n, 'upper').total + 1e-9,
        );
        expect(sumOf(text, on, 2 * n, 'lower').total).toBeGreaterThanOrEqual(
          sumOf(text, on, n, 'lower').total - 1e-9,
        );
      }),
      options,
    );
  });

  test('the trapezoids are the mean of left and right, and parabolas two thirds midpoint and one third trapezoid', () => {
    fc.assert(
      fc.property(polynomial, counts, (text, n) => {
        const on = [-2, 3] as const;
        const total = (rule: SumRule, parts = n) => sumOf(text, on, parts, rule).total;
        expect(total('trapezoid')).toBeCloseTo((total('left') + total('right')) / 2, 8);
        expect(total('simpson', 2 * n)).toBeCloseTo((2 * total('midpoint') + total('trapezoid')) / 3, 8);
      }),
      options,
    );
  });

  test('a shift along the axis changes nothing', () => {
    fc.assert(
      fc.property(counts, fc.integer({ min: -20, max: 20 }), (n, by) => {
        const shifted = sumOf(`(x - (${by}))^2 + 1`, [by - 1, by + 2], n, 'midpoint').total;
        expect(shifted).toBeCloseTo(sumOf('x^2 + 1', [-1, 2], n, 'midpoint').total, 9);
      }),
      options,
    );
  });
});
