import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import {
  ArrayEvaluator,
  chooseXRange,
  chooseYRange,
  compile,
  derivativeOf,
  derivativesAt,
  enclose,
  evaluateAt,
  exactValue,
  keyPoints,
  noFunctions,
  printLatex,
  printSpeech,
  printText,
  rational,
  readExpression,
  sampleCurve,
  Spline,
  evaluatorFor,
  through,
  tree,
  WasmEvaluator,
  type ExactPoint,
  type Shape,
} from '../src/index.ts';
import { cases } from '../../../tests/cases.ts';
import { replayable } from './random.ts';

const point = (x: number, y: number): ExactPoint => ({
  x: rational.fromDouble(x),
  y: rational.fromDouble(y),
});
const x = tree.name('x');
const table = (shape: Shape, ...pairs: (readonly [number, number])[]): tree.SplineNode =>
  tree.spline(
    Spline.through(
      pairs.map(([a, b]) => point(a, b)),
      shape,
      'D',
    ),
    x,
  );
const shapes = fc.constantFrom('broken' as const, 'smooth' as const);
const pairLists = fc
  .uniqueArray(fc.integer({ min: -40, max: 40 }), { minLength: 3, maxLength: 12 })
  .chain((xs) =>
    fc.tuple(
      ...xs
        .sort((a, b) => a - b)
        .map((a) => fc.integer({ min: -18, max: 18 }).map((b): [number, number] => [a / 2, b / 4])),
    ),
  );

describe('a table of many points as a function', () => {
  // Burden & Faires, Numerical Analysis (9th ed.), section 3.5, example 1: the natural spline through
  // (1, 2), (2, 3), (3, 5) is 2 + 3/4(x − 1) + 1/4(x − 1)³, then 3 + 3/2(x − 2) + 3/4(x − 2)² − 1/4(x − 2)³.
  test('the natural spline of a published example: value, slope and bend', () => {
    const program = compile(table('smooth', [1, 2], [2, 3], [3, 5]), 'x');
    expect(evaluateAt(program, 1.5)).toBeCloseTo(77 / 32, 14);
    expect(evaluateAt(program, 2.5)).toBeCloseTo(125 / 32, 14);
    derivativesAt(program, 2, 2).forEach((value, order) =>
      expect(value).toBeCloseTo([3, 3 / 2, 3 / 2][order] as number, 14),
    );
  });

  test('a law: it is the function in pieces through the same points, with all derivatives (seed 20261125)', () => {
    fc.assert(
      fc.property(
        pairLists,
        shapes,
        fc.double({ min: -0.2, max: 1.2, noNaN: true }),
        (pairs, shape, share) => {
          const pieces = compile(
            through(
              pairs.map(([a, b]) => point(a, b)),
              shape,
              'x',
            ),
            'x',
          );
          const program = compile(table(shape, ...pairs), 'x');
          const [first, last] = [pairs[0]?.[0] as number, pairs.at(-1)?.[0] as number];
          for (const place of [first + share * (last - first), ...pairs.map(([a]) => a)]) {
            for (const side of ['left', 'right', 'both'] as const) {
              const [expected, found] = [pieces, program].map((p) => derivativesAt(p, place, 3, [], side));
              found?.forEach((value, order) => {
                const other = expected?.[order] as number;
                // The third derivative of a smooth one jumps; the exact pieces know where two jumps are alike.
                if (order === 3 && Number.isNaN(value) !== Number.isNaN(other)) return;
                if (Number.isNaN(other)) expect(value).toBeNaN();
                else expect(value).toBeCloseTo(other, 8);
              });
            }
          }
        },
      ),
      { ...replayable, numRuns: cases(60, 200) },
    );
  });

  test('a law: every evaluator agrees, and an enclosure contains every value (seed 20261125)', () => {
    const unit = fc.double({ min: 0, max: 1, noNaN: true });
    fc.assert(
      fc.property(
        pairLists,
        shapes,
        fc.constantFrom(0, 1, 2),
        unit,
        unit,
        unit,
        (pairs, shape, order, a, b, c) => {
          const program = compile(table(shape, ...pairs), 'x', noFunctions, order);
          const at = (share: number) => -21 + 42 * share;
          const xs = Float64Array.from([a, b, c].map(at).concat(pairs.map(([p]) => p)));
          const [arrays, wasm] = [ArrayEvaluator, WasmEvaluator].map((Kind) => {
            const ys = new Float64Array(xs.length);
            new Kind(program).evaluate(xs, ys);
            return [...ys];
          });
          const single = [...xs].map((place) => evaluateAt(program, place));
          expect(arrays).toEqual(single);
          expect(wasm).toEqual(single);
          const [low, high] = [Math.min(at(a), at(b)), Math.max(at(a), at(b))];
          const value = evaluateAt(program, low + c * (high - low));
          const range = enclose(program, low, high);
          if (!Number.isNaN(value)) {
            expect(range.low).toBeLessThanOrEqual(value);
            expect(range.high).toBeGreaterThanOrEqual(value);
          } else expect(range.sure).toBe(false);
        },
      ),
      { ...replayable, numRuns: cases(120, 400) },
    );
  });

  test('a broken line has exact values; a smooth curve only where it was measured', () => {
    const exactly = (shape: Shape, n: number, d: number) =>
      exactValue(table(shape, [0, 1], [3, 2], [4, 0]), new Map([['x', rational.rational(n, d)]]));
    expect(exactly('broken', 1, 1)).toEqual(rational.rational(4, 3));
    expect(exactly('broken', 7, 2)).toEqual(rational.one);
    expect(exactly('broken', 9, 2)).toBeNull();
    expect(exactly('smooth', 3, 1)).toEqual(rational.rational(2));
    expect(exactly('smooth', 1, 1)).toBeNull();
  });

  test('the slope of a broken line has no value at a corner or an end, but one where it goes straight on', () => {
    const line = table('broken', [0, 0], [1, 2], [2, 4], [3, 3]);
    const slope = compile(derivativeOf(line, 'x'), 'x');
    expect([0, 0.5, 1, 1.5, 2, 2.5, 3].map((place) => evaluateAt(slope, place))).toEqual([
      NaN,
      2,
      2,
      2,
      NaN,
      -1,
      NaN,
    ]);
    expect(derivativesAt(compile(line, 'x'), 2, 1)[1]).toBeNaN();
    const [left, right] = (['left', 'right'] as const).map((side) =>
      derivativesAt(compile(line, 'x'), 2, 1, [], side),
    );
    expect([left?.[1], right?.[1]]).toEqual([2, -1]);
  });

  test('it is written by its name, and put into other functions like any other', () => {
    const line = table('broken', [0, 0], [2, 4]);
    const of = new Map([['D', { variables: ['x'], body: line }]]);
    const square = tree.power(tree.apply('D', 0, x), tree.number(2));
    expect(evaluateAt(compile(square, 'x', of), 1.5)).toBe(9);
    expect(evaluateAt(compile(square, 'x', of, 1), 1.5)).toBe(12);
    const moved = compile(tree.spline(line.spline, tree.multiply(tree.number(2), x)), 'x', noFunctions, 1);
    expect(evaluateAt(moved, 0.5)).toBe(4);
    expect(evaluateAt(moved, 1.5)).toBeNaN();
    const slope = derivativeOf(line, 'x');
    expect([printText(slope), printLatex(slope), printSpeech(slope)]).toEqual([
      "D'(x)",
      "D'\\left(x\\right)",
      'capital D prime of x',
    ]);
  });

  test('key points are those of the same function in pieces, and as well proved', () => {
    const pairs = [
      [0, 0],
      [2, 4],
      [4, -2],
      [6, 1],
    ] as const;
    for (const shape of ['broken', 'smooth'] as const) {
      const pieces = through(
        pairs.map(([a, b]) => point(a, b)),
        shape,
        'x',
      );
      const [expected, found] = [pieces, table(shape, ...pairs)].map((body) => keyPoints(body, 'x', [0, 6]));
      expect(found?.complete).toBe(true);
      const told = (list: typeof found) => list?.points.map(({ kind, x: at }) => [kind, at.toFixed(9)]);
      expect(told(found)).toEqual(told(expected));
    }
  });

  test('an absolute value, a step or a power of it is taken apart, too', () => {
    const line = table('broken', [0, -1], [2, 3], [4, 0]);
    const { points, complete } = keyPoints(tree.call('abs', line), 'x', [0, 4]);
    expect(complete).toBe(true);
    expect(points.filter(({ kind }) => kind === 'zero').map(({ x: at }) => at)).toEqual([0.5, 4]);
  });
});

describe('areas under a table', () => {
  const pairs = Array.from({ length: 60 }, (_, i) => [i, Math.round(50 * Math.sin(i * i)) / 10] as const);
  const integral = (body: string, from: string, to: string) => {
    const reading = readExpression(`∫_(${from})^(${to}) ${body} dx`, {
      names: new Set(),
      functions: new Set(['D']),
    });
    if (!reading.ok) throw new Error(body);
    const of = new Map([['D', { variables: ['x'], body: table('broken', ...pairs) }]]);
    return evaluateAt(compile(reading.value, '', of), 0);
  };

  test('are sums of trapezoids, forward and backward, over whole pieces and parts', () => {
    const [first, last] = [pairs[0]?.[1] as number, pairs.at(-1)?.[1] as number];
    const sum = pairs.reduce((total, [, y]) => total + y, 0) - (first + last) / 2;
    expect(integral('D(x)', '0', '59')).toBeCloseTo(sum, 10);
    expect(integral('D(x)', '59', '0')).toBeCloseTo(-sum, 10);
    const [a, b] = [pairs[7]?.[1] as number, pairs[8]?.[1] as number];
    // From 7 to 7.5 the line goes from a to the middle of a and b.
    expect(integral('D(x)', '7', '7.5')).toBeCloseTo((a + (a + b) / 2) / 4, 12);
    expect(integral('D(x)', '50', '60')).toBeNaN();
  });

  test('of its square, too: piece by piece, (a² + ab + b²)/3', () => {
    const sum = pairs.slice(1).reduce((total, [, b], i) => {
      const a = pairs[i]?.[1] as number;
      return total + (a * a + a * b + b * b) / 3;
    }, 0);
    expect(integral('D(x)^2', '0', '59')).toBeCloseTo(sum, 8);
  });

  test('a running total has the table itself as its slope', () => {
    const reading = readExpression('∫_0^x D(t) dt', { names: new Set(['x']), functions: new Set(['D']) });
    if (!reading.ok) throw new Error('∫');
    const line = table('broken', [0, 1], [2, 3], [5, 0]);
    const total = compile(reading.value, 'x', new Map([['D', { variables: ['x'], body: line }]]));
    // By hand: 4 up to 2, and at 3 another 3 − 1/2 = 2.5; the slope is 2 there, the bend −1.
    const [value, slope, bend] = derivativesAt(total, 3, 2);
    expect(value).toBeCloseTo(6.5, 12);
    expect(slope).toBeCloseTo(2, 12);
    expect(bend).toBeCloseTo(-1, 12);
  });

  test('a quadrature that does not settle has no value rather than a wrong one', () => {
    // D(2x) has its corners where the quadrature does not expect them, and far too many.
    const many = Array.from({ length: 3000 }, (_, i) => [i, Math.sin(i * i)] as const);
    const reading = readExpression('∫_0^(1499) D(2x) dx', { names: new Set(), functions: new Set(['D']) });
    if (!reading.ok) throw new Error('∫');
    const of = new Map([['D', { variables: ['x'], body: table('broken', ...many) }]]);
    expect(evaluateAt(compile(reading.value, '', of), 0)).toBeNaN();
  });
});

describe('a table of ten thousand points', () => {
  const count = 10_000;
  // Noise that is the same every time: the fractional part of a large sine.
  const noise = (i: number): number => (Math.sin(i * 12.9898) * 43758.5453) % 1;
  const pairs = Array.from({ length: count }, (_, i) => [i / 8, Math.sin(i / 900) + noise(i) / 5] as const);
  const spike = 4321;
  pairs[spike] = [spike / 8, 7];
  const grid = { xFrom: 0, xTo: 1250, yFrom: -2, yTo: 8, width: 1200, height: 600 };

  test.each(['broken', 'smooth'] as const)(
    '%s: no high is lost in drawing, and no more is drawn than is seen',
    (shape) => {
      const program = compile(table(shape, ...pairs), 'x');
      const { runs, unsure, evaluations } = sampleCurve(program, evaluatorFor(program), grid);
      expect(runs).toHaveLength(1);
      expect(unsure).toEqual([]);
      expect(Math.max(...(runs[0] as Float64Array).filter((_, i) => i % 2 === 1))).toBeGreaterThanOrEqual(7);
      expect(evaluations).toBeLessThanOrEqual(2 * 1200 + 10);
    },
  );

  test('its slope is drawn in pieces that are not joined over a jump', () => {
    const program = compile(table('broken', ...pairs), 'x', noFunctions, 1);
    const { runs, evaluations } = sampleCurve(program, evaluatorFor(program), grid);
    for (const run of runs) {
      const heights = run.filter((_, i) => i % 2 === 1);
      expect(Math.max(...heights)).toBe(Math.min(...heights));
    }
    expect(evaluations).toBeLessThanOrEqual(6 * 1200);
  });

  test('Fit shows all of it', () => {
    const plotted = { program: compile(table('broken', ...pairs), 'x'), parameters: [] };
    const window = chooseXRange([plotted]);
    expect(window.from).toBeLessThanOrEqual(0);
    expect(window.to).toBeGreaterThanOrEqual(1249);
    expect(window.to).toBeLessThanOrEqual(1600);
    expect(chooseYRange([plotted], window).to).toBeGreaterThan(7);
  });

  test('a wide enclosure looks at blocks of pieces and is as narrow as can be', () => {
    const program = compile(table('broken', ...pairs), 'x');
    const { low, high, sure } = enclose(program, 0, 1249.875);
    expect(sure).toBe(true);
    expect(high).toBeCloseTo(7, 12);
    expect(low).toBeCloseTo(Math.min(...pairs.map(([, y]) => y)), 12);
  });

  test('an analysis of all of it says that it is not complete; of a part, it is', () => {
    const body = table('broken', ...pairs);
    expect(keyPoints(body, 'x', [0, 1249]).complete).toBe(false);
    expect(keyPoints(body, 'x', [500, 502]).complete).toBe(true);
  });
});
