import { describe, expect, test } from '@jest/globals';
import {
  compile,
  evaluateAt,
  exactForm,
  isContinuousBetween,
  printText,
  rational,
  simplify,
} from '../src/index.ts';
import { candidates } from '../src/analysis/recognise.ts';
import { expression, program } from './scope.ts';

const none: ReadonlyMap<string, rational.Rational> = new Map();
const at = (...pairs: readonly (readonly [string, string])[]) =>
  new Map(pairs.map(([name, text]) => [name, rational.parseDecimal(text) ?? rational.zero]));
const exact = (text: string, values: ReadonlyMap<string, rational.Rational> = none) => {
  const form = exactForm(expression(text), values);
  return form && printText(form);
};

describe('the exact form of a number', () => {
  // NIST Digital Library of Mathematical Functions, Table 4.17.1: circular functions at multiples of π/12.
  test.each([
    ['sin(π/6)', '1/2'],
    ['cos(π/6)', 'sqrt(3)/2'],
    ['sin(π/4)', 'sqrt(2)/2'],
    ['cos(π/4)', 'sqrt(2)/2'],
    ['tan(π/4)', '1'],
    ['sin(π/3)', 'sqrt(3)/2'],
    ['cos(π/3)', '1/2'],
    ['tan(π/3)', 'sqrt(3)'],
    ['sin(π/2)', '1'],
    ['cos(π/2)', '0'],
    ['cos(2π/3)', '-1/2'],
    ['sin π', '0'],
    ['cos π', '-1'],
  ])('%s = %s', (text, form) => {
    expect(exact(text)).toBe(form);
  });

  // Rules of powers and logarithms: NIST DLMF 4.8.1 and 4.8.10, and by hand.
  test.each([
    ['√12', '2sqrt(3)'],
    ['√(1/2)', 'sqrt(2)/2'],
    ['8^(2/3)', '4'],
    ['ln(e^3)', '3'],
    ['e^(ln 5)', '5'],
    ['ln 1', '0'],
    ['1/3 + 1/6', '1/2'],
  ])('%s = %s', (text, form) => {
    expect(exact(text)).toBe(form);
  });

  test('numbers are put in for names as fractions, and decimals are those fractions', () => {
    expect(exact('√(x + 1)', at(['x', '1']))).toBe('sqrt(2)');
    expect(exact('a x^2', at(['a', '0.5'], ['x', '0.1']))).toBe('1/200');
    expect(exact('e^x', at(['x', '0']))).toBe('1');
  });

  test('is none where a name is left, or where algebra does not reach', () => {
    expect(exact('a + x', at(['x', '1']))).toBeNull();
    expect(exact('f(1)')).toBeNull();
    expect(exact('{1 if x < 0; 2 otherwise}', at(['x', '1']))).toBeNull();
  });

  test.each(['√(x^2 + 3)/(x + 1)', 'x^(1/3) + x^(2/3)', 'sin(π x)^2 + x', 'ln(x^3)/ln(x + 1)'])(
    '%s has the value that it stands for, at every place',
    (text) => {
      for (const place of ['1/2', '1', '2', '7/3'].map(fraction)) {
        const form = exactForm(expression(text), new Map([['x', place]]));
        if (!form) throw new Error('no exact form');
        const value = evaluateAt(program(text), rational.toNumber(place));
        expect(evaluateAt(compile(form, 'x'), 0)).toBeCloseTo(value, 12);
      }
    },
  );
});

const fraction = (text: string): rational.Rational => {
  const [numerator = '0', denominator = '1'] = text.split('/');
  return rational.rational(BigInt(numerator), BigInt(denominator));
};

describe('identities of circular functions', () => {
  // Abramowitz and Stegun, Handbook of Mathematical Functions (1964), 4.3.10 to 4.3.12, and what follows from them.
  test.each([
    ['sin^2 x + cos^2 x', '1'],
    ['3sin(2x)^2 + 3cos(2x)^2', '3'],
    ['1 - sin^2 x', 'cos(x)^2'],
    ['1 - cos^2 x', 'sin(x)^2'],
    ['1 + tan^2 x', 'sec(x)^2'],
    ['sec^2 x - tan^2 x', '1'],
    ['a sin^2 x + a cos^2 x', 'a'],
    ['sin x/cos x', 'tan(x)'],
    ['cos x/sin x', 'cot(x)'],
    ['e^(sin^2 x + cos^2 x)', 'e'],
    ['f(sin^2 x + cos^2 x)', 'f(1)'],
  ])('%s is %s', (text, form) => {
    expect(printText(simplify(expression(text)))).toBe(form);
  });

  test.each([
    ['sin^2 x + cos^2 a'],
    ['sin^2 x - cos^2 x'],
    ['2sin^2 x + cos^2 x'],
    ['sin(x)/cos(2x)'],
    ['(sin x + cos x)^4'],
  ])('%s is no case of them and keeps its value', (text) => {
    const form = simplify(expression(text));
    for (const x of [-1.3, 0.2, 0.9, 2.4]) {
      const values = [0.7];
      const before = evaluateAt(program(text), x, values);
      expect(evaluateAt(compile(form, 'x'), x, values)).toBeCloseTo(before, 10);
    }
  });
});

describe('whether a curve is in one piece between two places', () => {
  test.each([
    ['x^3 - 4x', -5, 5],
    ['1/x', 0.001, 5],
    ['tan x', -1.5, 1.5],
    ['|x - 1|', -2, 3],
    ['√x', 0, 4],
    ['∛x', -1, 1],
    ['ln x', 1e-6, 1],
    ['sin(1/x)', 0.05, 1],
    ['{x if x < 1; 2 - x otherwise}', 0, 3],
  ])('%s from %s to %s is', (text, from, to) => {
    expect(isContinuousBetween(program(text), from, to)).toBe(true);
  });

  test.each([
    ['1/x', -1, 1],
    ['1/x^2', -0.3, 0.7],
    ['tan x', 1, 2],
    ['√x', -1, 4],
    ['ln x', -1, 1],
    ['floor x', 0.5, 1.5],
    ['{x if x < 1; 3 - x otherwise}', 0, 3],
    ['|x|/x', -1, 2],
  ])('%s from %s to %s is not', (text, from, to) => {
    expect(isContinuousBetween(program(text), from, to)).toBe(false);
  });

  test('a parameter decides where the gap is', () => {
    const shifted = program('1/(x - a)');
    expect(isContinuousBetween(shifted, 0, 1, [2])).toBe(true);
    expect(isContinuousBetween(shifted, 0, 1, [0.5])).toBe(false);
  });
});

// Every form costs an exact test for 0 beside it: 15 is tried as 15, and not as a hundred sums like −8 + √529 besides.
test.each([
  [15, ['15']],
  [-2.5, ['-5/2']],
  [2 / 3, ['2/3']],
  [Math.SQRT2, ['(0 + sqrt(2))/1']],
  [(1 - Math.sqrt(5)) / 2, ['(1 + (-sqrt(5)))/2']],
  [Math.PI / 6, ['1/6 π']],
  [Math.log(3), ['ln(3)']],
  [Math.cbrt(2), ['cbrt(2)']],
  [Math.sqrt(Math.E), ['e^(1/2)']],
  [1.234567891, []],
])('the number %d is recognised in its simplest form alone', (value, forms) => {
  expect([...candidates(value)].map((form) => printText(form))).toEqual(forms);
});
