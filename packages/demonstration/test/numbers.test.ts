import { describe, expect, test } from '@jest/globals';
import { knownNumber, rational } from '@yperkine/core';
import { format, formatTidily, lineEquation, plainText } from '../src/index.ts';

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

  test('a decimal comma is a setting', () => {
    expect(format(exact(5, 2), { decimals: 2, decimalMark: ',' }).text).toBe('2,50');
  });

  test('inside an equation exact numbers lose their trailing zeros', () => {
    expect(formatTidily(exact(5, 2), rule)).toEqual({ text: '2.5', isExact: true });
    expect(formatTidily(knownNumber(2.5), rule)).toEqual({ text: '2.500', isExact: false });
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
