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

  test('of a higher order nothing is said that the definition might contradict, and no lower slope is given for it', () => {
    // By hand: f′(0) = 0, and f′(x)/x tends to 2⌊x²⌋ + … = 0 at 0, so f″(0) is 0; the rules show neither.
    for (const text of ["f''(0)", "f'''(0)"]) {
      expect(sentence('f(x) = x^2 floor(x^2) + x/3', text, '0')).not.toContain('does not exist');
      expect(linesOf(valued('f(x) = x^2 floor(x^2) + x/3', text, '0'))[0]).not.toContain('1/3');
    }
    expect(sentence('f(x) = x', "f'(1/a)", '0')).not.toContain('–');
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

describe('an interval that only a study chose takes no slope away, and the end of a domain has none', () => {
  const box = 'V(x) = x(30 - 2x)(20 - 2x)';
  const studied = (formula: string, [from, to]: readonly [string, string]) =>
    documentWith({
      f: given(1, formula),
      a: slider(2, 'a', '0'),
      study: makeEntry('slopeEquals', { order: 3, on: 'f', from, to, level: '600' }),
      slope: makeEntry('derivative', { order: 4, of: 'f', tier: 'tier-f' }),
      value: makeEntry('value', { order: 5, text: "V'(0)" }),
      tangent: makeEntry('tangent', { order: 6, on: 'f', parameter: 'a' }),
      point: makeEntry('point', { order: 7, on: 'slope', parameter: 'a' }),
    });
  // By hand: V = 600x − 100x² + 4x³, so V′(0) = 600.
  test.each([[['-2', '12'] as const], [['0', '10'] as const]])('the box of a sheet, over %j', (interval) => {
    const open = studied(box, interval);
    expect(sentenceOf(open)).toContain('is 600 at one place, and nowhere else (proved).');
    expect(linesOf(open, 'value')[0]).toContain('= 600');
    expect(linesOf(open, 'tangent')[0]).toContain("V'(0) = 600");
    expect(linesOf(open, 'point')[0]).toContain('= 600');
    const ended = studied(`${box} for 0 ≤ x ≤ 10`, interval);
    expect(sentenceOf(ended)).toContain('is 600 nowhere (proved).');
    expect(sentenceOf(ended, 'value')).toBe('x = 0 is an end of V: there is only a one-sided slope, 600.');
    expect(sentenceOf(ended, 'tangent')).toContain('x = 0 is an end of V: there is only a one-sided slope.');
    expect(linesOf(ended, 'point')[0]).toBe("V'(0) –");
    expect(sentenceOf(ended, 'point')).toBe('V′ has no value at x = 0.');
  });
});
