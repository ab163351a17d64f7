import { describe, expect, test } from '@jest/globals';
import { derivative as referenceDerivative } from 'mathjs';
import {
  compile,
  completeDerivatives,
  derivativeOf,
  derivativesAt,
  evaluateAt,
  noFunctions,
  printLatex,
  printText,
} from '../src/index.ts';
import fc from 'fast-check';
import { replayable } from './random.ts';
import { expression, program } from './scope.ts';

/**
 * Reference: mathjs 15 (a general-purpose library), its symbolic derivative evaluated at several
 * points. [in the product's notation, in the library's, points inside the domain]
 */
const everywhere = [-1.3, -0.4, 0.7, 1.9];
const positive = [0.2, 0.9, 1.7, 3.1];
const unit = [-0.8, -0.3, 0.35, 0.9];
const references: readonly [string, string, number[]][] = [
  ['5', '5', everywhere],
  ['x', 'x', everywhere],
  ['3x^2 - 5x - 2', '3x^2 - 5x - 2', everywhere],
  ['x^3', 'x^3', everywhere],
  ['x^7 - 4x^5 + x', 'x^7 - 4x^5 + x', everywhere],
  ['(3x-2)^5', '(3x-2)^5', everywhere],
  ['x(12-x)/5', 'x*(12-x)/5', everywhere],
  ['(x-1)(x+2)(x-3)', '(x-1)*(x+2)*(x-3)', everywhere],
  ['1/x', '1/x', everywhere],
  ['1/x^3', '1/x^3', everywhere],
  ['x^-2', 'x^(-2)', everywhere],
  ['(x^2+1)/(x-5)', '(x^2+1)/(x-5)', everywhere],
  ['x/(x^2+1)', 'x/(x^2+1)', everywhere],
  ['x/(x^2+1)^2', 'x/(x^2+1)^2', everywhere],
  ['(2x+1)/(3x^2+2)', '(2x+1)/(3x^2+2)', everywhere],
  ['√x', 'sqrt(x)', positive],
  ['√(x^2+1)', 'sqrt(x^2+1)', everywhere],
  ['x√(x+4)', 'x*sqrt(x+4)', everywhere],
  ['1/√x', '1/sqrt(x)', positive],
  ['x^(3/2)', 'x^(3/2)', positive],
  ['x^(2/3)', 'x^(2/3)', positive],
  ['∛x', 'cbrt(x)', positive],
  ['sin x', 'sin(x)', everywhere],
  ['cos x', 'cos(x)', everywhere],
  ['tan x', 'tan(x)', unit],
  ['cot x', 'cot(x)', unit],
  ['sec x', 'sec(x)', unit],
  ['csc x', 'csc(x)', unit],
  ['sin 2x', 'sin(2x)', everywhere],
  ['sin x cos x', 'sin(x)*cos(x)', everywhere],
  ['sin^2 x', 'sin(x)^2', everywhere],
  ['sin x^2', 'sin(x^2)', everywhere],
  ['cos^3 2x', 'cos(2x)^3', everywhere],
  ['x^2 sin x', 'x^2*sin(x)', everywhere],
  ['sin x/x', 'sin(x)/x', everywhere],
  ['tan^2 x', 'tan(x)^2', unit],
  ['sin(cos x)', 'sin(cos(x))', everywhere],
  ['2 + 7/5 sin(0.7x) + 0.15x', '2 + 7/5*sin(0.7x) + 0.15x', everywhere],
  ['e^x', 'e^x', everywhere],
  ['e^(-x^2)', 'e^(-x^2)', everywhere],
  ['x e^(-x)', 'x*e^(-x)', everywhere],
  ['e^x/x', 'e^x/x', everywhere],
  ['e^(sin x)', 'e^sin(x)', everywhere],
  ['exp(2x) cos x', 'exp(2x)*cos(x)', everywhere],
  ['2^x', '2^x', everywhere],
  ['3^(-2x)', '3^(-2x)', everywhere],
  ['x^x', 'x^x', positive],
  ['x^(sin x)', 'x^sin(x)', positive],
  ['ln x', 'log(x)', positive],
  ['x ln x', 'x*log(x)', positive],
  ['ln(x^2+1)', 'log(x^2+1)', everywhere],
  ['ln x/x', 'log(x)/x', positive],
  ['(ln x)^2', 'log(x)^2', positive],
  ['log x', 'log10(x)', positive],
  ['log_2(x)', 'log(x, 2)', positive],
  ['arcsin x', 'asin(x)', unit],
  ['arccos x', 'acos(x)', unit],
  ['arctan x', 'atan(x)', everywhere],
  ['arctan(x^2)', 'atan(x^2)', everywhere],
  ['x arctan x', 'x*atan(x)', everywhere],
  ['arccot x', 'pi/2 - atan(x)', everywhere],
  ['sinh x', 'sinh(x)', everywhere],
  ['cosh x', 'cosh(x)', everywhere],
  ['tanh x', 'tanh(x)', everywhere],
  ['arsinh x', 'asinh(x)', everywhere],
  ['arcosh(x+3)', 'acosh(x+3)', everywhere],
  ['artanh x', 'atanh(x)', unit],
  ['|x|', 'abs(x)', everywhere],
  ['|x^2-1|', 'abs(x^2-1)', everywhere],
  ['e^(-0.2x) cos 2x', 'e^(-0.2x)*cos(2x)', everywhere],
];

describe('derivatives agree with a reference library to 1e-10 relative', () => {
  test.each(references)('(%s)′', (text, reference, xs) => {
    const expected = referenceDerivative(reference, 'x').compile();
    for (const x of xs) {
      const value = Number(expected.evaluate({ x }));
      const tolerance = 1e-10 * Math.max(1e-3, Math.abs(value));
      expect(Math.abs(evaluateAt(program(text, 1), x) - value)).toBeLessThanOrEqual(tolerance);
      expect(Math.abs((derivativesAt(program(text), x, 1)[1] as number) - value)).toBeLessThanOrEqual(
        tolerance,
      );
    }
  });
});

/** Length of a text without what a product's notation is free to leave out: spaces, stars, names of constants. */
const bare = (text: string): number => text.replace(/[\s*]/g, '').replace(/exp\(/g, 'e^(').length;

test('derivatives are as short as the reference library writes them: 1.1 times on average, never twice', () => {
  const ratios = references.map(([text, reference]) => {
    const theirs = bare(referenceDerivative(reference, 'x').toString());
    const ours = bare(printText(derivativeOf(expression(text), 'x')));
    return { text, ratio: ours / theirs };
  });
  const mean = ratios.reduce((sum, { ratio }) => sum + ratio, 0) / ratios.length;
  expect(mean).toBeLessThanOrEqual(1.1);
  expect(ratios.filter(({ ratio }) => ratio > 2)).toEqual([]);
});

describe('derivatives are written as a teacher writes them', () => {
  // Common practice of school textbooks: collected, tidy signs, one fraction line, factors kept where shorter.
  test.each([
    ['3x^2 - 5x - 2', '6x - 5'],
    ['x^3/3 - x', 'x^2 - 1'],
    ['x^3', '3x^2'],
    ['sin 2x', '2cos(2x)'],
    ['x ln x', 'ln(x) + 1'],
    ['1/x', '-1/x^2'],
    ['√x', '1/(2sqrt(x))'],
    ['(3x-2)^5', '15(3x - 2)^4'],
    ['e^(-x^2)', '-2x e^(-x^2)'],
    ['e^x/x', 'e^x(x - 1)/x^2'],
    ['x/(x^2+1)^2', '(1 - 3x^2)/(x^2 + 1)^3'],
    ['(x^2+1)/(x-1)', '(x^2 - 2x - 1)/(x - 1)^2'],
    ['x√(x+1)', '(3x + 2)/(2sqrt(x + 1))'],
    ['0.7x^2 + 0.15x', '1.4x + 0.15'],
    ['arcsin x', '1/sqrt(1 - x^2)'],
    ['4e^(-0.3x) cos 2x', '-0.4e^(-0.3x)(20sin(2x) + 3cos(2x))'],
    ['a x^2', '2a x'],
    // sin² + cos² = 1 and its relatives: Stewart, Calculus (8th ed.), chapter 3.3 and reference page 2.
    ['sin x/(1 + cos x)', '1/(cos(x) + 1)'],
    ['ln(cos x)', '-tan(x)'],
    ['ln(sin x)', 'cot(x)'],
    ['sin x cos x tan x', '2cos(x) sin(x)'],
    ['x - sin x cos x', '2sin(x)^2'],
    ['arctan(x/a)', 'a/(a^2 + x^2)'],
    ['x arcsin x + √(1 - x^2)', 'arcsin(x)'],
    // By logarithms: Stewart, chapter 3.6.
    ['x^x', 'x^x(ln(x) + 1)'],
    ['(3x)^x', '(ln(3x) + 1)(3x)^x'],
    ['x^(sin x)', 'x^sin(x)(cos(x) ln(x) + sin(x)/x)'],
    ['f(2x)', "2f'(2x)"],
    ['7', '0'],
  ])('(%s)′ = %s', (text, written) => {
    expect(printText(derivativeOf(expression(text), 'x'))).toBe(written);
  });

  test('as LaTeX', () => {
    expect(printLatex(derivativeOf(expression('x^3'), 'x'))).toBe('3x^{2}');
  });

  test('higher orders', () => {
    expect(printText(derivativeOf(expression('x^5'), 'x', 3))).toBe('60x^2');
    expect(printText(derivativeOf(expression('sin x'), 'x', 4))).toBe('sin(x)');
  });
});

test('identities keep the value, wherever both forms have one', () => {
  const formulas = [
    'sin(x)^3 cos(x)',
    'tan(x) sec(x)',
    '1/(1 + tan(x)^2)',
    'cos(2x)^2/(1 - sin(2x)^2) + x',
    'cot(x)^4',
  ];
  for (const text of formulas) {
    for (const x of [-1.3, -0.4, 0.7, 1.9]) {
      const [, slope = NaN] = derivativesAt(program(text), x, 1);
      expect(evaluateAt(program(text, 1), x)).toBeCloseTo(slope, 9);
    }
  }
});

describe('a derivative exists only where its function does', () => {
  test('ln x has no slope for negative x, though 1/x has a value there', () => {
    expect(evaluateAt(program('ln x', 1), -2)).toBeNaN();
    expect(evaluateAt(program('ln x', 1), 2)).toBe(0.5);
  });

  test('f(x) = g(x)^2 follows g', () => {
    const functions = new Map([['g', { variables: ['t'], body: expression('sin t') }]]);
    const f = compile(expression('g(x)^2'), 'x', functions, 1);
    expect(evaluateAt(f, 0.4)).toBeCloseTo(Math.sin(0.8), 12);
    const slope = compile(expression("g'(2x)"), 'x', functions);
    expect(evaluateAt(slope, 0.4)).toBeCloseTo(Math.cos(0.8), 12);
  });

  test('parameters are inputs of the compiled function', () => {
    const f = compile(expression('a x^2 + b'), 'x');
    expect(f.parameters).toEqual(['a', 'b']);
    expect(evaluateAt(f, 3, [2, 1])).toBe(19);
    expect(evaluateAt(f, 3, [1, 0])).toBe(9);
  });

  test('definitions that mention one another without end stop with a bounded program', () => {
    const functions = new Map([['g', { variables: ['t'], body: expression('g(t) + 1') }]]);
    expect(() => compile(expression('g(x)'), 'x', functions)).toThrow('cannot work out g');
  });
});

// M. Spivak, Calculus, chapters 9 to 11, on x² sin(1/x) and e^(−1/x²) with the value 0 at 0 (from memory).
describe('where a function is glued together at a point', () => {
  const completed = (text: string) => {
    const body = expression(text);
    completeDerivatives(body, 'x');
    const at = (x: number, order: number) => evaluateAt(compile(body, 'x', noFunctions, order), x);
    return { first: printText(derivativeOf(body, 'x')), at };
  };

  test('the derivative names the exception', () => {
    const { first, at } = completed('x^2 sin(1/x) if x ≠ 0; 0 otherwise');
    expect(first).toBe('2x sin(1/x) - cos(1/x) if x ≠ 0; 0 if x = 0');
    expect(at(0, 1)).toBe(0);
    expect(at(0.5, 1)).toBeCloseTo(Math.sin(2) - Math.cos(2), 14);
    // Its derivative swings beside 0, so that there is no second one.
    expect(at(0, 2)).toBeNaN();
  });

  test.each([
    ['sin(x)/x if x ≠ 0; 1 otherwise', 0, 0, -1 / 3],
    ['e^(-1/x^2) if x ≠ 0; 0 otherwise', 0, 0, 0],
    ['(e^(x - 1) - 1)/(x - 1) if x ≠ 1; 1 otherwise', 1, 1 / 2, 1 / 3],
  ])('%s at %s has the slope %s and the second derivative %s', (text, x, slope, second) => {
    const { at } = completed(text);
    expect(at(x, 1)).toBeCloseTo(slope, 15);
    expect(at(x, 2)).toBeCloseTo(second, 15);
  });

  test('a corner and a jump stay exceptions without a slope', () => {
    expect(completed('x if x < 0; 2x otherwise').at(0, 1)).toBeNaN();
    expect(completed('x if x < 0; x + 10^(-19) otherwise').at(0, 1)).toBeNaN();
    expect(completed('x sin(1/x) if x ≠ 0; 0 otherwise').at(0, 1)).toBeNaN();
  });
});

describe('absolute values, minima and maxima', () => {
  // By hand, as a textbook would write them.
  test.each([
    ['max(x, 1)', '0 if x < 1; 1 if x > 1'],
    ['|x|', '-1 if x < 0; 1 if x > 0'],
    ['x |x|', '-2x if x ≤ 0; 2x otherwise'],
    ['|x^2 - 4|', '2x if x < -2; -2x if -2 < x < 2; 2x if x > 2'],
    ['min(x, x^2)', '1 if x < 0; 2x if 0 < x < 1; 1 if x > 1'],
    ['||x| - 1|', '-1 if x < -1; 1 if -1 < x < 0; -1 if 0 < x < 1; 1 if x > 1'],
    ['|3 - 2x|', '-2 if x < 3/2; 2 if x > 3/2'],
    ['|x^2 + 1|', '2x'],
    ['|x|^2', '2x'],
    ['ln|x|', '1/x'],
    ['|x - a|', '-1 if x < a; 1 if x > a'],
    // Not at rational places: as a quotient.
    ['|sin x|', 'abs(sin(x)) cot(x)'],
  ])('the derivative of %s is written in pieces', (text, expected) => {
    expect(printText(derivativeOf(expression(text), 'x'))).toBe(expected);
  });

  test('the second derivative of |x| leaves 0 out', () => {
    expect(printText(derivativeOf(expression('|x|'), 'x', 2))).toBe('0 for x ≠ 0');
  });

  const line = fc
    .tuple(fc.integer({ min: -4, max: 4 }), fc.integer({ min: -4, max: 4 }))
    .map(([m, b]) => `(${m} x + ${b})`);
  const { kinked } = fc.letrec<{ kinked: string }>((tie) => ({
    kinked: fc.oneof(
      { maxDepth: 3 },
      line,
      fc
        .tuple(tie('kinked'), fc.constantFrom('+', '-', '*'), tie('kinked'))
        .map(([a, op, b]) => `(${a} ${op} ${b})`),
      tie('kinked').map((a) => `abs(${a})`),
      fc
        .tuple(fc.constantFrom('min', 'max'), tie('kinked'), tie('kinked'))
        .map(([f, a, b]) => `${f}(${a}, ${b})`),
    ),
  }));

  test('agree with automatic differentiation, and with quotients from both sides where it has no answer', () => {
    const step = 1e-6;
    const offCorners = fc.integer({ min: -50, max: 50 }).map((n) => n / 10 + 0.0371);
    const quotient = (text: string, x: number, h: number): number => {
      const f = program(text);
      return (evaluateAt(f, x + h) - evaluateAt(f, x)) / h;
    };
    fc.assert(
      fc.property(kinked, offCorners, (text, x) => {
        const [height, slope] = derivativesAt(program(text), x, 1) as [number, number];
        const found = evaluateAt(program(text, 1), x);
        const scale = Math.max(1, Math.abs(height), Math.abs(found));
        if (Number.isNaN(found)) expect(slope).toBeNaN();
        else if (!Number.isNaN(slope)) expect(Math.abs(found - slope)).toBeLessThanOrEqual(1e-9 * scale);
        else
          for (const h of [-step, step])
            expect(Math.abs(quotient(text, x, h) - found)).toBeLessThan(1e-3 * scale);
      }),
      replayable,
    );
  });
});
