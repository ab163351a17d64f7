import { describe, expect, test } from '@jest/globals';
import { isNowhereDefined, readExpression } from '../src/index.ts';

const read = (text: string) => {
  const reading = readExpression(text, { names: new Set(['x']), functions: new Set() });
  if (!reading.ok) throw new Error(text);
  return reading.value;
};

describe('a function without any value', () => {
  test.each([
    ['x for 2 < x < 1', true],
    ['sqrt(-1 - x^2)', true],
    ['ln(-x^2)', true],
    ['1/0', true],
    ['x^2/sin(pi)', true],
    ['x + 1/(sqrt(8) - 2 sqrt(2))', true],
    ['x/(sqrt(8) - 2 sqrt(2.1))', false],
    ['arcsin(2 + x^2)', true],
    ['x for x < 1 and x > 3', true],
    ['sqrt(-x^2)', false],
    ['x for 2 < x < 2.0001', false],
    ['ln(x - 1000)', false],
    ['x^2', false],
    ['x for x = 3', false],
  ])('%s: %s', (text, expected) => expect(isNowhereDefined(read(text), 'x', [-1e6, 1e6])).toBe(expected));
});
