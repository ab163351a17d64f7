import { describe, expect, test } from '@jest/globals';
import { makeEntry } from '../src/index.ts';
import { documentWith, given, linesOf, sentenceOf, slider } from './sample.ts';

const valued = (formula: string, text: string, a: string) =>
  documentWith({
    f: given(1, formula),
    a: slider(2, 'a', a),
    study: makeEntry('value', { order: 3, text }),
  });
const sentence = (formula: string, text: string, a: string): string => sentenceOf(valued(formula, text, a));

describe('a slope that does not exist says why', () => {
  // By hand, by the definition's limit.
  test.each([
    [
      'f(x) = abs(x)',
      "f'(0)",
      'f′ does not exist at this corner: the slope is −1 from the left and 1 from the right.',
    ],
    [
      'f(x) = abs(x - 3)',
      "f'(a)",
      'f′ does not exist at this corner: the slope is −1 from the left and 1 from the right.',
      '3',
    ],
    [
      'f(x) = x abs(x)',
      "f''(0)",
      'f″ does not exist at this corner: the slope is −2 from the left and 2 from the right.',
    ],
    ['f(x) = cbrt(x)', "f'(0)", 'f′ does not exist here: at x = 0 the tangent to f is vertical.'],
    ['f(x) = x^2 for 0 ≤ x ≤ 3', "f'(3)", 'x = 3 is an end of f: there is only a one-sided slope, 6.'],
    ['f(x) = floor(x)', "f'(1)", 'f′ does not exist here: f has no single slope at x = 1.'],
    ['f(x) = 1/x', "f'(0)", 'f′ does not exist here: f has no value at x = 0.'],
    ['f(x) = 1/x', 'f(0)', 'This has no value.'],
  ])('%s, %s', (formula, text, expected, a = '0') => {
    expect(sentence(formula, text, a)).toBe(expected);
  });

  test.each([
    ['f(x) = x^2 sin(1/x) if x ≠ 0; 0 otherwise', "f'(0)", '= 0'],
    ['f(x) = floor(x^2)', "f'(0)", '= 0'],
    ['f(x) = x^2 floor(x) + x/3', "f'(0)", '= 1/3 ≈ 0.333'],
    ['f(x) = mod(x, 2)', "f'(a)", '= 1', '0.5'],
  ])('%s, %s %s: one that exists is given', (formula, text, tail, a = '0') => {
    expect(sentence(formula, text, a)).toBe('');
    expect(linesOf(valued(formula, text, a))[0]).toContain(tail);
  });

  test.each([
    ['floor(x)', '1'],
    ['ceil(x)', '-2'],
    ['round(x)', '1.5'],
    ['sign(x)', '0'],
    ['mod(x, 2)', '4'],
    ['x + floor(2x)', '0.5'],
    ['floor(x)^2 + sin(x)', '1'],
  ])('%s has no slope at %s, and no formula says that it has', (formula, at) => {
    for (const text of ["f'(a)", "2f'(a) + 1", "f''(a)"])
      expect(linesOf(valued(`f(x) = ${formula}`, text, at))[0]).not.toMatch(/[=≈]/);
  });
});
