import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { keyPoints, printText, signs, SingleValues, solve, tree } from '../src/index.ts';
import { expression } from './scope.ts';
import { replayable } from './random.ts';

const solutions = (left: string, right: string, a: number, b: number) =>
  solve(expression(left), expression(right), 'x', [a, b]);
const points = (text: string, a: number, b: number) => keyPoints(expression(text), 'x', [a, b]);

describe('a value is 0, and two values are equal, only where that is shown', () => {
  test.each([
    ['e^(-x^2)', '0', -10, 10, []],
    ['20 + 80e^(-0.1x)', '20', 0, 400, []],
    ['x^20', '0', 0.1, 1, []],
    ['1.6*10^(-19) x', '0', -1, 5, [0]],
    ['10^9 + x', '10^9 + 10^(-6)', -1, 1, [1e-6]],
    ['10^15', '10^15 + 1', 0, 2, []],
    ['e^(-x)', '10^(-30)', 0, 100, [30 * Math.LN10]],
    ['1/(1 + x^2)', '10^(-12)', -100, 100, []],
  ] as const)('%s = %s', (left, right, a, b, expected) => {
    const { solutions: found, everywhere, complete } = solutions(left, right, a, b);
    expect([complete, everywhere]).toEqual([true, []]);
    expect(found).toHaveLength(expected.length);
    expected.forEach((x, i) => expect(found[i]?.value).toBeCloseTo(x, 12));
  });

  // artanh(1 − 10⁻¹⁵) = ½ ln(2·10¹⁵ − 1), and 1 ∓ 10^(−15/4).
  test.each([
    ['tanh(x) - 1 + 10^(-15)', '0', 0, 40, [0.5 * Math.log(2e15)]],
    ['(x - 1)^4', '10^(-15)', 0, 2, [1 - 10 ** -3.75, 1 + 10 ** -3.75]],
    ['x^20', '10^(-60)', 0, 2, [1e-3]],
  ] as const)('a proved root has the digits that are shown: %s = %s', (left, right, a, b, expected) => {
    const { solutions: found, complete } = solutions(left, right, a, b);
    expect(complete).toBe(true);
    expect(found).toHaveLength(expected.length);
    expected.forEach((x, i) => expect(Math.abs((found[i]?.value ?? NaN) - x)).toBeLessThan(4e-15 * x));
  });

  test.each([
    ['sin(x)^2 + cos(x)^2', '1', 0, 3],
    ['sqrt(x^2)', 'abs(x)', -2, 2],
    ['ln(x^2)', '2ln(abs(x))', 1, 2],
    ['(x + 1)^2', 'x^2 + 2x + 1', -1, 1],
    ['cosh(x)^2 - sinh(x)^2', '1', -1, 1],
  ] as const)('both sides of %s = %s are the same function', (left, right, a, b) => {
    const { solutions: found, everywhere, complete } = solutions(left, right, a, b);
    expect([complete, found]).toEqual([true, []]);
    expect([everywhere[0]?.from.value, everywhere.at(-1)?.to.value]).toEqual([a, b]);
  });

  test('where nothing shows that both sides are the same, the ends are no solutions of their own', () => {
    const found = solutions('arctan(x) + arctan(1/x)', 'π/2', 1, 3);
    expect([found.complete, found.solutions]).toEqual([false, []]);
  });

  test.each([
    ['(5 if x < 1; 10 otherwise) + 10^15', 'jump'],
    ['10^(-19) if x < 1; 2*10^(-19) otherwise', 'jump'],
    ['10^(-15) abs(x - 1)', 'corner'],
    ['10^15 + abs(x - 1)', 'corner'],
    ['10^(-300) abs(x - 1)', 'corner'],
  ])('%s has a %s at 1', (text, kind) => {
    const { points: found, complete } = points(text, 0, 2);
    expect(complete).toBe(true);
    expect(found.filter((point) => point.x === 1).map((point) => point.kind)).toContain(kind);
  });

  test('of two heights that nearly agree only the larger is the absolute maximum', () => {
    const { points: found } = points('-(x^2 - 1)^2 + 10^(-20) x', -2, 2);
    const tops = found
      .filter(({ kind }) => kind === 'maximum')
      .map(({ x, absolute }) => [Math.sign(x), absolute]);
    expect(tops).toEqual([
      [-1, false],
      [1, true],
    ]);
  });

  test('factorials have values at whole numbers alone: equations are solved there, slopes and signs refused', () => {
    expect(() => points('x!', 0, 5)).toThrow(SingleValues);
    expect(() => signs(expression('2x + x!'), 'x', [0, 5])).toThrow(SingleValues);
    const found = (left: string, right: string) => {
      const { solutions: places, everywhere, complete } = solutions(left, right, 0, 5);
      return [places.map(({ value }) => value), everywhere.length, complete];
    };
    expect(found('x!', '6')).toEqual([[3], 0, true]);
    expect(found('x!', '1')).toEqual([[0, 1], 0, true]);
    expect(found('x!', '7')).toEqual([[], 0, true]);
    expect(found('(2x)!', '6')).toEqual([[1.5], 0, true]);
    expect(found('x! + x', '27')).toEqual([[], 0, true]);
    expect(found('x! + x', '28')).toEqual([[4], 0, true]);
    expect(found('3!', '6')).toEqual([[], 1, true]);
    expect(points('floor(x)!', 0, 3).complete).toBe(true);
  });

  test('more jumps than are looked at are told, and not replaced by the argument', () => {
    expect(solutions('floor(x)', 'x', 0, 1000)).toMatchObject({
      everywhere: [],
      complete: false,
      hasTooManyJumps: true,
    });
    expect(points('mod(x, 1)', 0, 1000)).toMatchObject({ complete: false, hasTooManyJumps: true });
    expect(solutions('floor(x)', 'x', 0, 100)).toMatchObject({ complete: true, hasTooManyJumps: false });
  });

  // By hand, with t = √x, ∛x or √(2x + 3): each is a polynomial in t.
  test.each([
    ['x - 3√x + 2', '0', [1, 4]],
    ['√(2x + 3)', 'x', [3]],
    ['cbrt(x)', 'x', [-1, 0, 1]],
    ['x - √x', '0', [0, 1]],
    ['x^(2/3) - x^(1/3)', '2', [-1, 8]],
    ['1/√x', '√x', [1]],
    ['x - 3√x + 1', '0', [(7 - 3 * Math.sqrt(5)) / 2, (7 + 3 * Math.sqrt(5)) / 2]],
  ] as const)('under a root of a line: %s = %s', (left, right, expected) => {
    const { solutions: found, complete } = solutions(left, right, -10, 10);
    expect(complete).toBe(true);
    expect(found.map(({ value }) => value)).toEqual(expected.map((x) => expect.closeTo(x, 14)));
    expect(found.every(({ exact }) => exact !== null)).toBe(true);
  });

  test('an inflection where f″ has no value is found: x/(1 + √|x|) at 0', () => {
    const { points: found, complete } = points('x/(1 + √|x|)', -2, 2);
    expect(complete).toBe(true);
    expect(found.map(({ kind, x }) => [kind, x])).toEqual([
      ['endpoint', -2],
      ['zero', 0],
      ['inflection', 0],
      ['endpoint', 2],
    ]);
  });
});

test('a function that is 0 without being seen to be is left open, and not called undefined', () => {
  // arctan x + arctan 1/x = π/2 for x > 0 (Abramowitz & Stegun 4.4.34, from memory), out of reach of the algebra.
  const body = 'arctan(x) + arctan(1/x) - π/2';
  expect(points(body, 1, 2).complete).toBe(false);
  expect(points(`abs(${body})`, 1, 2).complete).toBe(false);
  expect(solutions(`e^x + ${body}`, 'e^x', 1, 2)).toMatchObject({ complete: false, solutions: [] });
});

test('random lines, moved and scaled by any power of ten, meet their level where algebra says', () => {
  const exponents = fc.integer({ min: -250, max: 250 });
  fc.assert(
    fc.property(
      fc.integer({ min: -9, max: 9 }),
      fc.integer({ min: 1, max: 9 }),
      exponents,
      (zero, slope, n) => {
        const scale = `10^(${n})`;
        const body = expression(`${slope}*${scale}*(x - (${zero}))`);
        const found = solve(body, tree.number(0), 'x', [-20, 20]);
        expect(found.complete).toBe(true);
        expect(found.solutions.map(({ exact }) => exact && printText(exact))).toEqual([String(zero)]);
      },
    ),
    { ...replayable, numRuns: 60 },
  );
});

test('a running total without a formula lists its end points', () => {
  const { points: found, complete } = points('∫[0, x] e^(-t^2) dt', -2, 2);
  expect(complete).toBe(true);
  // Abramowitz & Stegun, table 7.1: erf 2 = 0.9953222650.
  const height = (Math.sqrt(Math.PI) / 2) * 0.995322265;
  const ends = found.filter(({ kind }) => kind === 'endpoint');
  expect(ends.map(({ x }) => x)).toEqual([-2, 2]);
  expect(ends[1]?.y).toBeCloseTo(height, 9);
});
