import { describe, expect, test } from '@jest/globals';
import { makeEntry } from '../src/index.ts';
import { documentWith, linesOf, sentenceOf, slider } from './sample.ts';

const valueOf = (text: string) =>
  documentWith({ study: makeEntry('value', { order: 1, text }), a: slider(2, 'a', '3') });

describe('a value is as exact as what is proved of it', () => {
  test.each([
    ['lim[x → 0] (1 - cos(x^2))/x^4', '= 0.5'],
    ['lim[x → 0] (sin(x) - x)/x^3', '= -1/6 ≈ -0.167'],
    ['lim[x → ∞] (1 + a/x)^x', '= e³ ≈ 20.086'],
    ['2 lim[x → 0+] arctan(1/x)', '= π ≈ 3.142'],
    ['sum i from 1 to 4 of 1/i', '= 25/12 ≈ 2.083'],
    ['sum i from 1 to 10 of i^2', '= 385'],
  ])('%s %s', (text, tail) => {
    const [line = ''] = linesOf(valueOf(text));
    expect(line.replaceAll('−', '-')).toContain(tail);
  });

  test.each([
    ['lim[x → 0] 1/x', 'The limit does not exist: from the left it is −∞, from the right ∞.'],
    ['lim[x → 0] abs(x)/x', 'The limit does not exist: from the left it is -1, from the right 1.'],
    ['lim[x → 0] 1/x^2', 'There is no limit: it grows beyond all bounds, to ∞.'],
    ['lim[x → ∞] sin(x)', 'The limit does not exist: it swings.'],
    ['lim[x → 0-] sqrt(x)', 'There is no limit: nothing is defined beside this place.'],
    ['lim[x → ∞] sin(x) sin(π x)', 'Whether this limit exists is not decided.'],
  ])('%s: %s', (text, sentence) => {
    expect(sentenceOf(valueOf(text)).replaceAll('−1', '-1')).toBe(sentence);
    expect(linesOf(valueOf(text))[0]).not.toMatch(/[=≈]/);
  });
});
