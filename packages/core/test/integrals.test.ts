import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import {
  evaluateAt,
  compile,
  evenPartition,
  integral,
  orderOfConvergence,
  printText,
  readExpression,
  riemannSum,
  type DefiniteIntegral,
} from '../src/index.ts';
import { cases } from '../../../tests/cases.ts';
import { integralOf } from '../src/evaluate/quadrature.ts';

const read = (text: string) => {
  const reading = readExpression(text, { names: new Set(['x']), functions: new Set() });
  if (!reading.ok) throw new Error(text);
  return reading.value;
};
const over = (text: string, a: number, b: number, options = {}): DefiniteIntegral =>
  integral(read(text), 'x', [a, b], options);
const { PI, E, LN2, SQRT2, log, sqrt, exp, atan, asinh } = Math;
const everything = Infinity;

type Row = [text: string, a: number, b: number, exact: string, value: number];

describe('exact integrals of published worked examples and exercises', () => {
  test.each<Row>([
    // Stewart, Calculus (8th ed.), sections 5.2 to 5.5, examples and exercises; from memory.
    ['x^2', 0, 1, '1/3', 1 / 3],
    ['x^3 - 6x', 0, 3, '-27/4', -6.75],
    ['e^x', 1, 3, 'e^3 - e', exp(3) - E],
    ['x^2', 1, 4, '21', 21],
    ['cos x', 0, PI / 2, '1', 1],
    ['1/x', 3, 6, 'ln(2)', LN2],
    ['2x^3 - 6x + 3/(x^2 + 1)', 0, 2, '3arctan(2) - 4', -4 + 3 * atan(2)],
    ['sqrt(2x + 1)', 0, 4, '26/3', 26 / 3],
    ['1/(3 - 5x)^2', 1, 2, '1/14', 1 / 14],
    ['ln(x)/x', 1, E, '1/2', 0.5],
    ['x^2 - x', 0, 4, '40/3', 40 / 3],
    ['x^2 e^(x^3)', 0, 1, 'e/3 - 1/3', (E - 1) / 3],
    // Stewart, section 7.1 to 7.4; from memory.
    ['arctan x', 0, 1, 'π/4 - ln(2)/2', PI / 4 - LN2 / 2],
    ['x sin x', 0, PI, 'π', PI],
    ['ln x', 1, E, '1', 1],
    ['x e^(-x)', 0, 1, '1 - 2/e', 1 - 2 / E],
    ['sin(x)^2', 0, PI, 'π/2', PI / 2],
    ['sin(x)^4', 0, PI, '3π/8', (3 * PI) / 8],
    ['sqrt(4 - x^2)', 0, 2, 'π', PI],
    ['1/(x^2 - 4)', 3, 4, '', log(5 / 3) / 4],
    ['(x^3 + x)/(x - 1)', 2, 3, '', 65 / 6 + 2 * LN2],
    ['cos(x)^3', 0, PI / 2, '2/3', 2 / 3],
    // OpenStax, Calculus Volume 1, sections 5.3 to 5.7; from memory.
    ['t^2 - 4'.replaceAll('t', 'x'), -2, 2, '-32/3', -32 / 3],
    ['(x - 1)/sqrt(x)', 1, 9, '40/3', 40 / 3],
    ['1/sqrt(1 - x^2)', 0, 1 / 2, 'π/6', PI / 6],
    ['1/(1 + x^2)', 0, 1, 'π/4', PI / 4],
    ['x(x^2 + 1)^3', 0, 1, '15/8', 15 / 8],
    ['cbrt(x)', 1, 8, '45/4', 45 / 4],
    ['sec(x)^2', 0, PI / 4, '1', 1],
    ['sin(x)', 0, PI, '2', 2],
    ['x sqrt(1 - x^2)', 0, 1, '1/3', 1 / 3],
    ['tan(x)', 0, PI / 4, 'ln(2)/2', LN2 / 2],
    // Gradshteyn and Ryzhik, Table of Integrals, sections 2.1 to 2.7; from memory.
    ['1/(x^2 + x + 1)', 0, 1, '', PI / (3 * sqrt(3))],
    ['1/(x^3 + 1)', 0, 1, '', LN2 / 3 + PI / (3 * sqrt(3))],
    ['x/(x^4 + 1)', 0, 1, 'π/8', PI / 8],
    ['1/(x^2 + 1)^2', 0, 1, '', PI / 8 + 1 / 4],
    ['sqrt(x^2 + 1)', 0, 1, '', (SQRT2 + asinh(1)) / 2],
    ['1/sqrt(x^2 + 1)', 0, 1, '', asinh(1)],
    ['e^x sin x', 0, PI, 'e^π/2 + 1/2', (exp(PI) + 1) / 2],
    ['e^(-x) cos(2x)', 0, PI, '', (1 - exp(-PI)) / 5],
    ['x^3 e^(2x)', 0, 1, 'e^2/8 + 3/8', (exp(2) + 3) / 8],
    ['x^2 ln x', 1, E, '2e^3/9 + 1/9', (2 * exp(3) + 1) / 9],
    ['ln(x)^2', 1, E, 'e - 2', E - 2],
    ['x arctan x', 0, 1, 'π/4 - 1/2', PI / 4 - 0.5],
    ['arcsin x', 0, 1, 'π/2 - 1', PI / 2 - 1],
    ['sin(2x) cos(3x)', 0, PI, '-4/5', -0.8],
    ['1/(1 + sqrt(x))', 0, 4, '', 4 - 2 * log(3)],
    ['x sqrt(x + 1)', 0, 3, '116/15', 116 / 15],
    ['1/(1 + e^x)', 0, 1, '', 1 - log((1 + E) / 2)],
    ['sec(x)', 0, PI / 3, '', log(2 + sqrt(3))],
    ['tanh x', 0, 1, 'ln(cosh(1))', log(Math.cosh(1))],
    ['2^x', 0, 3, '7/ln(2)', 7 / LN2],
    ['x^2 cos x', 0, PI / 2, 'π^2/4 - 2', PI ** 2 / 4 - 2],
    ['cos(ln(x))/x', 1, exp(PI / 2), '', 1],
  ])('∫ %s from %d to %d', (text, a, b, exact, value) => {
    const found = over(text, a, b);
    expect(found.value).toBeCloseTo(value, 12);
    expect(found.diverges).toBe(false);
    if (exact !== '') {
      expect(printText(found.exact ?? read('0/0'))).toBe(exact);
      expect(found.certainty).toBe('exact');
    }
    expect(Math.abs(found.value - value)).toBeLessThanOrEqual(
      found.bound + 4e-15 * Math.max(1, Math.abs(value)),
    );
  });
});

describe('improper integrals', () => {
  test.each<Row>([
    // Stewart, section 7.8, and OpenStax, Calculus Volume 2, section 3.7; from memory.
    ['1/x^2', 1, everything, '1', 1],
    ['x e^x', -everything, 0, '-1', -1],
    ['1/(1 + x^2)', -everything, everything, 'π', PI],
    ['1/sqrt(x - 2)', 2, 5, '2sqrt(3)', 2 * sqrt(3)],
    ['ln x', 0, 1, '-1', -1],
    ['e^(-x)', 0, everything, '1', 1],
    ['1/x^3', 1, everything, '1/2', 0.5],
    ['1/sqrt(4 - x)', 0, 4, '4', 4],
    ['1/(x^2 + 4)', -everything, 0, 'π/4', PI / 4],
    ['x ln x', 0, 1, '-1/4', -0.25],
    ['1/cbrt(x)', -1, 8, '9/2', 4.5],
    ['1/(x^2 - 1)', 2, everything, 'ln(3)/2', log(3) / 2],
    ['ln(x)/x^2', 1, everything, '1', 1],
    ['1/(x ln(x)^2)', E, everything, '1', 1],
    ['e^(-x) sin x', 0, everything, '1/2', 0.5],
    ['1/(sqrt(x) (1 + x))', 0, everything, 'π', PI],
    ['1/sqrt(x(1 - x))', 0, 1, 'π', PI],
    ['x^2 e^(-x)', 0, everything, '2', 2],
    ['1/(1 + x^3)', 0, everything, '2sqrt(3) π/9', (2 * PI) / (3 * sqrt(3))],
    // Abramowitz and Stegun, 7.1.1, 5.1 and 6.1; from memory.
    ['e^(-x^2)', -everything, everything, '', sqrt(PI)],
    ['sqrt(x) e^(-x)', 0, everything, '', sqrt(PI) / 2],
    ['x/(e^x - 1)', 0, everything, '', PI ** 2 / 6],
    ['ln(x)/(x - 1)', 0, 1, '', PI ** 2 / 6],
    ['e^(-x) ln(x)', 0, everything, '', -0.5772156649015329],
  ])('∫ %s from %d to %d', (text, a, b, exact, value) => {
    const found = over(text, a, b);
    expect(found.value).toBeCloseTo(value, 10);
    if (exact !== '') expect(printText(found.exact ?? read('0/0'))).toBe(exact);
  });

  test.each<[text: string, a: number, b: number]>([
    ['1/x', 0, 1],
    ['1/x', 1, everything],
    ['1/x', -1, 1],
    ['1/x^2', -1, 1],
    ['1/(x - 1)', 0, 3],
    ['sec(x)^2', 0, PI],
    ['tan x', 0, PI / 2],
    ['1/sqrt(x)', 1, everything],
    ['1/(x ln x)', 2, everything],
    ['1/(x ln x)', 1, 2],
    ['cos x', 0, everything],
    ['x', -everything, everything],
    ['e^x', 0, everything],
    ['ln(x)/x', 1, everything],
    // No elementary antiderivative: told by comparison with powers.
    ['e^x/x', 0, 1],
    ['1/ln x', 1, 2],
    ['sqrt(x^3 + 1)/x^2', 1, everything],
    ['e^(x^2)', 0, everything],
  ])('∫ %s from %d to %d diverges', (text, a, b) => {
    const found = over(text, a, b);
    expect(found.diverges).toBe(true);
    expect(found.value).toBeNaN();
    expect(found.exact).toBeNull();
  });
});

describe('total area and area between curves', () => {
  test.each<[text: string, a: number, b: number, exact: string, value: number]>([
    // Stewart, sections 5.4 and 6.1; from memory.
    ['sin x', 0, 2 * PI, '4', 4],
    ['x^2 - x - 6', 1, 4, '61/6', 61 / 6],
    ['x^2 - (2x - x^2)', 0, 1, '1/3', 1 / 3],
    ['sin(x) - cos(x)', 0, PI / 2, '2sqrt(2) - 2', 2 * SQRT2 - 2],
    ['x^3 - x', -1, 1, '1/2', 0.5],
    ['x^2 - 2', 0, 2, '', (8 * SQRT2) / 3 - 4 / 3],
    // OpenStax, Calculus Volume 1, section 5.4: 3t − 5 on [0, 3]; from memory.
    ['3x - 5', 0, 3, '41/6', 41 / 6],
  ])('of %s on [%d, %d]', (text, a, b, exact, value) => {
    const found = over(text, a, b, { isTotal: true });
    expect(found.value).toBeCloseTo(value, 12);
    if (exact !== '') expect(printText(found.exact ?? read('0/0'))).toBe(exact);
  });

  test('is split at every crossing, each part with its sign', () => {
    const { parts } = over('x^3 - x', -1, 2, { isTotal: true });
    expect(parts.map(({ from, to, sign }) => [from, to, sign])).toEqual([
      [-1, 0, 1],
      [0, 1, -1],
      [1, 2, 1],
    ]);
    expect(parts.map(({ value }) => value)).toEqual([0.25, -0.25, 2.25]);
  });

  test('is proved where a crossing is known to any number of digits only', () => {
    const found = over('e^x - 3x', 0, 2, { isTotal: true });
    expect(found.certainty).toBe('proved');
    // By hand, with the roots of e^x = 3x from tables of the W function.
    const F = (x: number) => exp(x) - 1.5 * x * x;
    const [p, q] = [0.619061286735945, 1.512134551657842];
    expect(found.value).toBeCloseTo(F(p) - F(0) - (F(q) - F(p)) + F(2) - F(q), 12);
  });
});

describe('what has no value says why', () => {
  test('a function that is not defined on a part', () => {
    const found = over('sqrt(x - 1)', 0, 2);
    expect(found.undefinedOn).toEqual([{ low: 0, high: 1 }]);
    expect(found.diverges).toBe(false);
    expect(found.value).toBeNaN();
  });

  test('bounds from right to left change the sign of an integral, not of an area', () => {
    expect(over('x^2', 4, 0).value).toBeCloseTo(-64 / 3, 12);
    expect(printText(over('x^2', 4, 0).exact ?? read('0'))).toBe('-64/3');
    expect(over('x', -1, 1, { isTotal: true }).value).toBe(1);
    expect(over('x', 1, -1, { isTotal: true }).value).toBe(1);
    expect(over('x^2', 3, 3).value).toBe(0);
  });

  test('a step and a corner are taken at their places', () => {
    expect(over('floor x', 0, 3.5).value).toBe(4.5);
    expect(over('abs(x - 1)', 0, 3).value).toBe(2.5);
    expect(over('x^2 if x < 1; 2x + 1 otherwise', 0, 2).value).toBeCloseTo(13 / 3, 14);
  });

  test.each<[text: string, value: number]>([
    // By hand: tanh 49 is below 1 by 2e^(−98), which no double shows.
    ['floor(tanh(49))', 0],
    ['floor(tanh(7(7 if x < 1/2; x otherwise)))', 0],
    ['ceil(tanh(49 + x))', 4],
    ['floor(1 + e^(-100 - x))', 4],
    ['floor(1 - 10^(-20))', 0],
    ['floor(sin(x)^2 + cos(x)^2)', 4],
    ['floor(2 sin(π/6))', 4],
  ])('%s is on the side of its step on which it is, not that of its double', (text, value) => {
    expect(over(text, 0, 4)).toMatchObject({ value, certainty: 'exact' });
  });
});

describe('order of convergence', () => {
  // Common knowledge of numerical analysis: order 1 for ends, 2 for midpoints and trapezoids, 4 for parabolas.
  test.each([
    ['left', 1],
    ['right', 1],
    ['midpoint', 2],
    ['trapezoid', 2],
    ['simpson', 4],
  ] as const)('of %s is %d', (rule, order) => {
    const errors = [4, 8, 16, 32, 64].map((n) => {
      const { total } = riemannSum(read('e^x'), 'x', evenPartition(0, 1, n), rule);
      return { n, total, error: total - (E - 1) };
    });
    expect(orderOfConvergence(errors)).toBeCloseTo(order, 1);
  });

  test('is not told of errors that are rounding, or do not fall like a power', () => {
    expect(orderOfConvergence([1, 2, 4].map((n) => ({ n, total: 1, error: 1e-16 })))).toBeNull();
    expect(
      orderOfConvergence([1, 0.9, 0.01, 0.008].map((error, n) => ({ n: 2 ** n, total: 1, error }))),
    ).toBeNull();
  });
});

describe('laws', () => {
  const polynomial = fc
    .tuple(fc.integer({ min: -5, max: 5 }), fc.integer({ min: -5, max: 5 }), fc.integer({ min: -5, max: 5 }))
    .map(([a, b, c]) => `(${a})x^2 + (${b})x + (${c})`);
  const smooth = fc.oneof(
    polynomial,
    polynomial.map((p) => `(${p}) e^(-x)`),
    polynomial.map((p) => `(${p}) sin(2x)`),
    polynomial.map((p) => `1/((${p})^2 + 1)`),
  );
  const bound = fc.integer({ min: -6, max: 6 }).map((k) => k / 2);
  const options = { seed: 20261125, numRuns: cases(20, 40) };

  test('the integral over two neighbouring parts is that over both', () => {
    fc.assert(
      fc.property(smooth, bound, bound, bound, (text, a, b, c) => {
        const whole = over(text, a, c).value;
        const tolerance = 1e-9 * Math.max(1, Math.abs(whole));
        expect(Math.abs(over(text, a, b).value + over(text, b, c).value - whole)).toBeLessThan(tolerance);
      }),
      options,
    );
  });

  test('an exact value, the quadrature and a fine sum of parabolas are the same number', () => {
    fc.assert(
      fc.property(smooth, bound, (text, a) => {
        const body = read(text);
        const found = over(text, a, a + 1);
        const program = compile(body, 'x');
        const seen = integralOf((x) => evaluateAt(program, x), a, a + 1).value;
        expect(Math.abs(found.value - seen)).toBeLessThan(1e-10 * Math.max(1, Math.abs(seen)));
        const { total } = riemannSum(body, 'x', evenPartition(a, a + 1, 2000), 'simpson');
        expect(Math.abs(found.value - total)).toBeLessThan(1e-7 * Math.max(1, Math.abs(total)));
      }),
      options,
    );
  });

  test('the integral lies between the lower and the upper sum, and a total area is never smaller', () => {
    fc.assert(
      fc.property(polynomial, fc.integer({ min: 1, max: 20 }), (text, n) => {
        const on = [-1, 2] as const;
        const value = over(text, ...on).value;
        const sum = (rule: 'lower' | 'upper') =>
          riemannSum(read(text), 'x', evenPartition(...on, n), rule).total;
        expect(sum('lower')).toBeLessThanOrEqual(value + 1e-9);
        expect(sum('upper')).toBeGreaterThanOrEqual(value - 1e-9);
        expect(over(text, ...on, { isTotal: true }).value).toBeGreaterThanOrEqual(Math.abs(value) - 1e-9);
      }),
      options,
    );
  });
});
