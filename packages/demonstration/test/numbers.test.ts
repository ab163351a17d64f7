import { describe, expect, test } from '@jest/globals';
import { knownNumber, rational, readExpression, type Rational } from '@yperkine/core';
import { exactTextOf, format, formatBound, formatTidily, lineEquation, plainText } from '../src/index.ts';
import { cases } from '../../../tests/cases.ts';

const rule = { decimals: 3, decimalMark: '.' } as const;
const exact = (n: number, d = 1) => knownNumber(NaN, rational.rational(n, d));

describe('one rounding rule', () => {
  test.each([
    [knownNumber(0.5591), '0.559', false],
    [exact(17, 4), '4.250', true],
    [exact(1, 3), '0.333', false],
    [exact(-4), '−4.000', true],
    [knownNumber(-0), '0.000', false],
    [knownNumber(-0.0001), '−1.000·10⁻⁴', false],
    [exact(0), '0.000', true],
    [knownNumber(2.5e12), '2.500·10¹²', false],
    [knownNumber(NaN), '–', false],
    [knownNumber(-Infinity), '−∞', false],
  ])('%j', (number, text, isExact) => {
    expect(format(number, rule)).toEqual({ text, isExact });
  });

  test.each([
    // Halves are rounded from the exact number, away from 0; doubles lie beside them.
    [exact(10_005, 10_000), 3, '1.001'],
    [exact(20_005, 10_000), 3, '2.001'],
    [exact(-10_005, 10_000), 3, '−1.001'],
    [exact(1, 2), 0, '1'],
    [exact(1_234_567_891, 10), 12, '123456789.100000000000'],
    // No digits are invented that a double does not have.
    [knownNumber(123456789.1), 12, '123456789.100000'],
    [knownNumber(64 / 3), 12, '21.333333333333'],
    // A tiny height keeps its power of ten, however many decimals there are.
    [knownNumber(1.326e-7), 8, '1.326·10⁻⁷'],
    [knownNumber(-5.551e-14), 12, '−5.551·10⁻¹⁴'],
    [exact(1, 1_000_000), 6, '0.000001'],
  ])('%j to %i places is %s', (number, decimals, text) => {
    expect(format(number, { decimals, decimalMark: '.' }).text).toBe(text);
  });

  test('a decimal comma is a setting', () => {
    expect(format(exact(5, 2), { decimals: 2, decimalMark: ',' }).text).toBe('2,50');
  });

  test('inside an equation exact numbers lose their trailing zeros', () => {
    expect(formatTidily(exact(5, 2), rule)).toEqual({ text: '2.5', isExact: true });
    expect(formatTidily(knownNumber(2.5), rule)).toEqual({ text: '2.500', isExact: false });
  });
});

describe('a bound', () => {
  test.each([
    [2, 'up', '2'],
    [2.3456, 'up', '2.35'],
    [2.3456, 'down', '2.34'],
    [-2.3456, 'down', '−2.35'],
    [0.1 + 0.2, 'up', '0.301'],
    [123456, 'down', '123000'],
    [1.23456e-9, 'down', '1.23·10⁻⁹'],
    [9.999e20, 'up', '1·10²¹'],
    [0, 'down', '0'],
    [Infinity, 'up', null],
  ] as const)('%d rounded %s is %s', (x, way, text) => {
    expect(formatBound(x, way, rule)).toBe(text);
  });

  test('never says more than it knows, whatever the size', () => {
    let seed = 11;
    const random = (): number => (seed = (seed * 48271) % 2147483647) / 2147483647;
    for (let i = 0; i < cases(1000, 3000); i++) {
      const size = 10 ** Math.floor(random() * 40 - 20);
      // Every second one is a short decimal number itself.
      const x = (random() < 0.5 ? 1 : -1) * (i % 2 ? random() * size : Math.round(random() * 1000) * size);
      if (x === 0) continue;
      for (const way of ['down', 'up'] as const) {
        const [digits = '', power = '0'] = (formatBound(x, way, rule) ?? '').split('·10');
        const raised = [...power]
          .map((c) => (c === '⁻' ? '-' : c === '0' ? c : '⁰¹²³⁴⁵⁶⁷⁸⁹'.indexOf(c)))
          .join('');
        const mantissa = rational.parseDecimal(digits.replace('−', '-'));
        const scale = rational.integerPower(rational.rational(10), Number(raised));
        if (!mantissa || !scale) throw new Error(digits);
        const side = rational.compare(rational.multiply(mantissa, scale), rational.fromDouble(x));
        expect(way === 'down' ? side <= 0 : side >= 0).toBe(true);
        expect(Math.abs(rational.toNumber(rational.multiply(mantissa, scale)) - x)).toBeLessThan(
          Math.abs(x) * 0.021,
        );
      }
    }
  });
});

describe('the equation of a line', () => {
  test.each([
    [exact(1), exact(0), 'y = x'],
    [exact(-1), exact(3), 'y = −x + 3'],
    [exact(0), exact(0), 'y = 0'],
    [exact(0), exact(-2), 'y = −2'],
    [exact(3, 2), exact(-1, 4), 'y = 1.5x − 0.25'],
    [knownNumber(1), knownNumber(0), 'y ≈ 1.000x + 0.000'],
    [exact(2, 3), exact(1), 'y ≈ 0.667x + 1'],
  ])('%#: %s', (slope, intercept, text) => {
    const equation = lineEquation(slope, intercept, 'x', rule);
    expect(equation.text).toBe(text);
    expect(plainText(equation.line)).toBe(text);
  });
});

describe('the exact form beside a rounded number', () => {
  const formOf = (text: string, x: Rational, value: number): string | null => {
    const reading = readExpression(text, { names: new Set(['x']), functions: new Set() });
    if (!reading.ok) throw new Error(text);
    return exactTextOf(reading.value, new Map([['x', x]]), knownNumber(value));
  };

  test.each([
    ['√(x + 1)', 1, Math.SQRT2, '√2'],
    ['√(x + 1)', 7, Math.sqrt(8), '2√2'],
    ['√5 x/2', 1, Math.sqrt(5) / 2, '√5/2'],
    ['(1 + √5)/2', 0, 1.618, '(√5 + 1)/2'],
    ['x/3', 64, 64 / 3, '64/3'],
    ['π x/4', 3, 2.356, '3π/4'],
    ['e^x', 2, Math.exp(2), 'e²'],
    ['ln(x)', 2, Math.LN2, 'ln 2'],
    ['-∛x', 2, -1.26, '−∛2'],
    ['arctan(x) + arctan(2x) + √(x+1)', 1, 3.3, null],
    ['sin(x)', 1, Math.sin(1), null],
    ['√(x^2 + 123456)', 1, 351.4, null],
  ])('%s at %s', (text, x, value, expected) => {
    expect(formOf(text, rational.rational(x), value)).toBe(expected);
  });

  test('a decimal needs none, nor has a value that does not exist one', () => {
    const x = new Map([['x', rational.rational(1)]]);
    const quarter = readExpression('1/4', { names: new Set(), functions: new Set() });
    if (!quarter.ok) throw new Error('1/4');
    expect(exactTextOf(quarter.value, x, exact(1, 4))).toBeNull();
    expect(exactTextOf(quarter.value, x, knownNumber(NaN))).toBeNull();
  });
});
