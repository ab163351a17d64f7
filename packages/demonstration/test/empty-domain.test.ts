import { expect, test } from '@jest/globals';
import { type CurveResult } from '../src/index.ts';
import { documentWith, given, resultOf, slider } from './sample.ts';

test.each([
  ['f(x) = x for 2 < x < 1', 'f has no value anywhere: its domain is empty.'],
  ['f(x) = sqrt(-1 - x^2)', 'f has no value anywhere: its domain is empty.'],
  ['f(x) = x for a < x < 1', 'f has no value anywhere: its domain is empty.'],
  ['f(x) = x for 2 < x < 2.001', ''],
  ['f(x) = sqrt(x)', ''],
])('%s is answered %j', (text, sentence) => {
  const document = documentWith({ f: given(1, text), a: slider(2, 'a', '3') });
  expect(resultOf<CurveResult>(document, 'f').sentence).toBe(sentence);
});
