import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { evaluateAt, integral, integralOfProgram, ledIntegral, type DefiniteIntegral } from '../src/index.ts';
import { Effort } from '../src/budget/effort.ts';
import { integralOf } from '../src/evaluate/quadrature.ts';
import { cases } from '../../../tests/cases.ts';
import { expression, program } from './scope.ts';

const over = (text: string, a: number, b: number, options = {}): DefiniteIntegral =>
  integral(expression(text), 'x', [a, b], options);
const { PI, E, LN2, log, sqrt, exp, sin, cos, atan } = Math;
const everything = Infinity;

describe('quadrature', () => {
  const school: [name: string, f: (x: number) => number, a: number, b: number, value: number][] = [
    // Kahaner, Comparison of numerical quadrature formulas, in Rice, Mathematical Software (1971); from memory.
    ['e^x', exp, 0, 1, E - 1],
    ['a step at 0.3', (x) => (x > 0.3 ? 1 : 0), 0, 1, 0.7],
    ['√x', sqrt, 0, 1, 2 / 3],
    ['cosh', (x) => (23 / 25) * Math.cosh(x) - cos(x), -1, 1, (46 / 25) * Math.sinh(1) - 2 * sin(1)],
    ['x√x', (x) => x ** 1.5, 0, 1, 0.4],
    ['1/√x', (x) => 1 / sqrt(x), 0, 1, 2],
    ['2/(2 + sin 10πx)', (x) => 2 / (2 + sin(10 * PI * x)), 0, 1, 2 / sqrt(3)],
    ['1/(1 + x)', (x) => 1 / (1 + x), 0, 1, LN2],
    ['1/(1 + e^x)', (x) => 1 / (1 + exp(x)), 0, 1, 1 - log((1 + E) / 2)],
    ['a narrow bell', (x) => sqrt(50) * exp(-50 * PI * x * x), 0, 10, 0.5],
    ['25 e^(−25x)', (x) => 25 * exp(-25 * x), 0, 10, 1 - exp(-250)],
    ['a narrow pole pair', (x) => 50 / PI / (2500 * x * x + 1), 0, 10, atan(500) / PI],
    ['ln x', log, 0, 1, -1],
    // By hand.
    ['a corner at 1/3', (x) => Math.abs(x - 1 / 3), 0, 1, 5 / 18],
    ['a half disc', (x) => sqrt(1 - x * x), -1, 1, PI / 2],
    ['(ln x)/√x', (x) => log(x) / sqrt(x), 0, 1, -4],
    ['a bell to infinity', (x) => exp(-x * x), -everything, everything, sqrt(PI)],
    ['x⁻⁰·⁹', (x) => x ** -0.9, 0, 1, 10],
  ];

  test.each(school)('%s: twelve digits with at most 1,500 evaluations', (_name, f, a, b, value) => {
    let evaluations = 0;
    const counted = (x: number) => {
      evaluations++;
      return f(x);
    };
    const found = integralOf(counted, a, b);
    expect(Math.abs(found.value - value)).toBeLessThan(1e-12 * Math.max(1, Math.abs(value)));
    expect(evaluations).toBeLessThanOrEqual(1500);
  });

  test.each<[string, string, number, number, number, number]>([
    // By hand: straight lines through (0, 0), (2, 4), (5, 4), (9, −4), (12, 2) as trapezoids.
    [
      'a broken line',
      'a (2x if x < 2; 4 if x < 5; 14 - 2x if x < 9; 2x - 22 otherwise)',
      0,
      12,
      4 + 12 + 0 - 3,
      4,
    ],
    // By hand: a jump whose place is a parameter.
    ['a jump at a parameter', '(a x if x <= b; 5 otherwise)', 0, 3, 0.5 + 10, 2],
  ])('%s: from seam to seam, so that each piece needs one look', (_name, text, from, to, value, pieces) => {
    const body = program(text);
    let evaluations = 0;
    const parameters = new Proxy([1, 1], {
      get(values, key) {
        if (key === String(body.parameters.indexOf('a'))) evaluations++;
        return Reflect.get(values, key) as unknown;
      },
    });
    expect(integralOfProgram(body, parameters, from, to)).toBeCloseTo(value, 12);
    expect(integralOfProgram(body, parameters, to, from)).toBeCloseTo(-value, 12);
    expect(evaluations).toBeGreaterThan(0);
    // The search for needles reads the parameters three times: twice when it searches, once when it remembers.
    expect(evaluations - 3).toBeLessThanOrEqual(2 * 15 * pieces);
  });

  test('what has no value does not settle, and ends soon', () => {
    let evaluations = 0;
    const found = integralOf((x) => (evaluations++, 1 / x), 0, 1);
    expect(found.error / found.magnitude).toBeGreaterThan(0.01);
    expect(evaluations).toBeLessThan(3000);
  });
});

describe('bounds by interval arithmetic', () => {
  test.each<[text: string, a: number, b: number, value: number]>([
    // Stewart, section 7.7, example 6: e^(x²) on [0, 1], more digits from the series Σ 1/((2k + 1) k!).
    [
      'e^(x^2)',
      0,
      1,
      Array.from({ length: 25 }, (_, k) => k).reduce((s, k) => s + 1 / ((2 * k + 1) * factorial(k)), 0),
    ],
    // By hand.
    ['sqrt x', 0, 1, 2 / 3],
    ['abs(x - 1/3)', 0, 1, 5 / 18],
    ['sin(20x)^2', 0, 3, 1.5 - sin(120) / 80],
    ['x^2', 0, 4, 64 / 3],
    ['1/(1 + x^2)', -3, 5, atan(5) + atan(3)],
  ])('hold for ∫ %s from %d to %d', (text, a, b, value) => {
    const { bounds, error, value: told } = ledIntegral(program(text), a, b);
    expect(bounds?.low).toBeLessThanOrEqual(value + 2e-16 * value);
    expect(bounds?.high).toBeGreaterThanOrEqual(value - 2e-16 * value);
    expect((bounds?.high ?? 1) - (bounds?.low ?? 0)).toBeLessThan(1e-9);
    expect(Math.abs(told - value)).toBeLessThanOrEqual(error + 4e-16 * value);
  });

  test('are not given for what is unbounded, jumps, or is not defined', () => {
    for (const text of ['1/x', 'sqrt x', 'floor x', 'x^(-1/3)'])
      expect([text, ledIntegral(program(text), -1, 1).bounds]).toEqual([text, null]);
  });

  test('stand beside a value, and are wider than what rounding leaves', () => {
    const found = over('e^(x^2)', 0, 1);
    expect(found.certainty).toBe('proved');
    expect(found.bound).toBeLessThan(1e-10);
    expect(found.bound).toBeGreaterThan(0);
    expect(over('x^x', 0, 1).certainty).toBe('proved');
    expect(over('e^(-1/x)/x', 0, 1).certainty).toBe('estimated');
  });

  test('hold for random smooth functions, whose antiderivatives are known', () => {
    const number = fc.integer({ min: -30, max: 30 }).map((n) => n / 10);
    // By hand: ∫ (c + x sin kx + e^(−(x − m)²/s²)(x − m)).
    fc.assert(
      fc.property(
        number,
        fc.integer({ min: 1, max: 40 }),
        number,
        fc.integer({ min: 1, max: 300 }),
        (c, k, m, s) => {
          const width = s / 100;
          const text = `${c} + x sin(${k} x) + (x - ${m}) e^(-((x - ${m})/${width})^2)`.replace(/- -/g, '+ ');
          const F = (x: number): number =>
            c * x +
            sin(k * x) / k ** 2 -
            (x * cos(k * x)) / k -
            (width ** 2 / 2) * exp(-(((x - m) / width) ** 2));
          const truth = F(2.5) - F(-3);
          const { bounds } = ledIntegral(program(text), -3, 2.5);
          const slack = 1e-13 * Math.max(1, Math.abs(F(2.5)), Math.abs(F(-3)));
          expect(bounds && bounds.low - slack <= truth && truth <= bounds.high + slack).toBe(true);
        },
      ),
      { numRuns: cases(10, 2000), seed: 21 },
    );
  });
});

describe('no needle is lost', () => {
  test.each<[text: string, a: number, b: number, value: number]>([
    // √π times the width: Abramowitz and Stegun, 7.1.1; from memory.
    ['e^(-((x - 3.3)/0.001)^2)', 0, 10, sqrt(PI) / 1000],
    ['10^6 e^(-10^12 (x - 3)^2)', 0, 10, sqrt(PI)],
    ['e^(-(x - 100)^2)', -everything, everything, sqrt(PI)],
    ['e^(-(x - 54321)^2)', 0, everything, sqrt(PI)],
    ['e^(-(x - 10^12)^2)', 0, 1e15, sqrt(PI)],
    // Bronstein and Semendjajew, table of definite integrals: π/√2 over all numbers; from memory.
    ['1/(1 + x^4)', -1e15, 1e15, PI / sqrt(2)],
    ['10^200 e^(-(x - 1)^2)', -20, 20, 1e200 * sqrt(PI)],
    ['10^(-200) e^(-(x - 1)^2)', -20, 20, 1e-200 * sqrt(PI)],
    ['100 + e^(-((x - 3.3)/0.001)^2)', 0, 10, 1000 + sqrt(PI) / 1000],
    ['e^(-((x - 3.3)/0.001)^2) - e^(-((x - 7.1)/0.002)^2)', 0, 10, -sqrt(PI) / 1000],
    // By hand: their antiderivatives are arcs and powers; the narrow one lies between all samples.
    ['1/(1 + ((x - 3.3)/0.00001)^2)', 0, 10, 0.00001 * (atan(670_000) + atan(330_000))],
    ['max(0, 1 - 10^5 abs(x - pi))', 0, 10, 1e-5],
  ])('∫ %s from %d to %d', (text, a, b, value) => {
    const found = over(text, a, b);
    expect(Math.abs(found.value - value)).toBeLessThan(1e-9 * Math.abs(value));
    expect(Math.abs(found.value - value)).toBeLessThanOrEqual(
      found.bound + 1e-13 * Math.max(1, Math.abs(value)),
    );
  });

  test('wherever it stands and however narrow it is', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 9_999_999 }),
        fc.integer({ min: -8, max: 0 }),
        fc.constantFrom('0', '1', 'x', 'cos(x)'),
        (place, power, base) => {
          const [m, width] = [place / 1e6, 10 ** power];
          const needle = (over: number) => (over - m) / width;
          if (m < 6 * width || 10 - m < 6 * width) return;
          const found = over(`${base} + (e^(-((x - ${m})/${width.toFixed(8)})^2))`, 0, 10);
          const rest = { '0': 0, '1': 10, x: 50, 'cos(x)': sin(10) }[base] ?? NaN;
          expect(needle(10)).toBeGreaterThan(0);
          expect(Math.abs(found.value - rest - width * sqrt(PI))).toBeLessThan(
            found.bound + 2e-14 * Math.abs(rest),
          );
          // The place is a decimal fraction, which no double is: that alone moves a needle of 10⁻⁸ by much.
          expect(found.bound).toBeLessThan(1e-6 * Math.max(Math.abs(rest), width));
        },
      ),
      { numRuns: cases(15, 2000), seed: 22 },
    );
  });

  test.each<[text: string, x: number, value: number]>([
    // √π times the width, as above; the place moves with x, or is where nothing is to be seen yet.
    ['∫[0, x] e^(-((t - 3.3)/0.001)^2) dt', 10, sqrt(PI) / 1000],
    ['∫[0, x] e^(-((t - 3.3)/0.001)^2) dt', 3, 0],
    ['∫[0, 1] e^(-((x t - 0.5)/0.001)^2) dt', 3, sqrt(PI) / 3000],
    ['∫[0, x] (2 + e^(-((t - 3.3)/10^(-6))^2)) dt', 4, 8 + sqrt(PI) / 10 ** 6],
    ['∫[x, x^2] e^(-((t - 3.3)/0.001)^2) dt', 3, sqrt(PI) / 1000],
  ])('%s at %d', (text, x, value) => {
    expect(Math.abs(evaluateAt(program(text), x) - value)).toBeLessThan(
      1e-9 * Math.max(1e-3, Math.abs(value)),
    );
  });

  test('a running total looks for needles once, not at every x', () => {
    const total = program('∫[0, x] e^(-((t - 3.3)/0.001)^2) dt');
    const spent = (x: number): number => {
      const effort = new Effort(1e9);
      effort.spendOn(() => evaluateAt(total, x));
      return 1e9 - effort.left;
    };
    spent(8);
    // A little further it searches again, and ahead: from there on nothing is left to be searched.
    const searching = spent(8.1);
    for (const x of [7.9, 12, 16]) expect(spent(x)).toBeLessThan(0.75 * searching);
  });

  test('cancellation counts into the bound, and is undone by more digits', () => {
    // By the series of the cosine: Σ (−1)ᵏ x⁴ᵏ/(2k + 2)!, integrated.
    const term = (k: number): number => ((-1) ** k * 2) / (factorial(2 * k + 2) * (4 * k + 1));
    const value = [0, 1, 2, 3, 4, 5].reduce((sum, k) => sum + term(k), 0);
    const found = over('(1 - cos(x^2))/x^4', -1, 1);
    expect(Math.abs(found.value - value)).toBeLessThan(1e-11);
    expect(Math.abs(found.value - value)).toBeLessThan(found.bound);
  });
});

describe('tails', () => {
  test.each<[text: string, a: number, b: number, value: number, certainty?: string]>([
    // Gradshteyn and Ryzhik, 3.721, 3.691, 3.723, 3.821, 3.784 and 3.757; from memory. Those that stand among the
    // theorems are written so that they are not recognised.
    ['sin(x)/x + cos(x)/(1 + x^2)', 0, everything, PI / 2 + PI / (2 * E)],
    ['2 sin(x) cos(x)/x', -everything, everything, PI],
    ['2 sin(x^2/2) cos(x^2/2)', 0, everything, sqrt(PI / 8)],
    ['1 - 2 sin(x^2/2)^2', -everything, everything, sqrt(PI / 2)],
    ['(4cos(x)^3 - 3cos(x))/(4 + x^2)', 0, everything, (PI / 4) * exp(-6)],
    ['x sin(x)/(1 + x^2)', 0, everything, PI / (2 * E)],
    ['(1 - cos(2x))/(2x^2)', 0, everything, PI / 2],
    ['sin(x)^3/x', 0, everything, PI / 4],
    ['(1 - cos(x))/x^2', 0, everything, PI / 2],
    ['cos(x)/sqrt(x)', 0, everything, sqrt(PI / 2)],
    // By hand: a geometric series of arches, and of steps.
    ['e^(-x) abs(sin x)', 0, everything, (1 + exp(-PI)) / (2 * (1 - exp(-PI))), 'estimated'],
    ['e^(-floor(x))', 0, everything, 1 / (1 - exp(-1)), 'estimated'],
  ])('∫ %s from %d to %d has its value', (text, a, b, value, certainty = 'proved') => {
    const found = over(text, a, b);
    expect(found.certainty).toBe(certainty);
    expect(Math.abs(found.value - value)).toBeLessThan(1e-10);
    if (certainty === 'proved') expect(Math.abs(found.value - value)).toBeLessThan(found.bound + 1e-15);
  });

  test('1/⌊x⌋² is defined, and its integral does not diverge', () => {
    // Euler: Σ 1/n² = π²/6.
    const found = over('1/floor(x)^2', 1, everything);
    expect(found).toMatchObject({ diverges: false, undefinedOn: [], certainty: 'estimated' });
    expect(Math.abs(found.value - PI ** 2 / 6)).toBeLessThan(found.bound);
  });

  test.each<[text: string, a: number, isTotal: boolean]>([
    // Apostol, Mathematical Analysis, section 10.9: sin x/x converges, |sin x|/x does not; from memory.
    ['sin(x)/x', 1, true],
    ['abs(sin(x)/x)', 1, false],
    ['sin(x)^2/x', 1, false],
    ['(1 - cos(x))/x', 1, false],
    ['x sin(x)', 0, false],
    ['sin(ln x)/x', 1, false],
    ['cos(x)^2', 0, true],
  ])('∫ %s from %d diverges (total area: %s)', (text, a, isTotal) => {
    expect(over(text, a, everything, { isTotal })).toMatchObject({ diverges: true, value: NaN });
  });

  test('what is not known is not called divergent', () => {
    expect(over('floor(x)', 0, everything)).toMatchObject({ diverges: false, undefinedOn: [] });
    expect(over('sin(x)/x^2', 1, everything, { isTotal: true }).diverges).toBe(false);
  });
});

function factorial(n: number): number {
  return n < 2 ? 1 : n * factorial(n - 1);
}
