import { expect, test } from '@jest/globals';
import { isSignAt } from '../src/checker/values.ts';
import { expression } from './scope.ts';

/** A number as the checker takes it: between two doubles, and by its formula. */
const place = (text: string, near: number) => ({
  low: near - Math.abs(near) * 2 ** -52,
  high: near + Math.abs(near) * 2 ** -52,
  at: expression(text),
});

test.each([
  ['sqrt(x - 2)', '2', 2, 0],
  ['1/x', '0', 0, null],
  ['e^(-1/x^2)', '0', 0, null],
  ['sin x', 'π', Math.PI, 0],
  ['floor(x^2)', 'sqrt(2)', Math.SQRT2, 1],
  ['sign(x^2 - 2)', 'sqrt(2)', Math.SQRT2, 0],
  ['mod(x^2, 2)', '2sqrt(2)', 2 * Math.SQRT2, 0],
  ['round(x/2) - 1', '1', 1, 0],
  ['ceil(x) - x', '3', 3, 0],
  ['sqrt(x + 1/3)', '-1/3', -1 / 3, 0],
  ['ln x', '1/2', 0.5, -1],
  ['x^2 if x < 1; -1 otherwise', '1', 1, -1],
] as const)('the sign of %s at %s', (text, at, near, sign) => {
  const accepted = ([-1, 0, 1, null] as const).filter((told) =>
    isSignAt(expression(text), 'x', place(at, near), told),
  );
  expect(accepted).toEqual([sign]);
});

test('of a number that is only known to be between two doubles, 0 is not refuted, and no other sign accepted', () => {
  // x³ = x + 2 has its root at 1.5213797…; √(x³ − x − 2) is 0 there.
  const root = { low: 1.521379706804567, high: 1.521379706804568 };
  const accepted = ([-1, 0, 1, null] as const).filter((told) =>
    isSignAt(expression('sqrt(x^3 - x - 2)'), 'x', root, told),
  );
  expect(accepted).toEqual([0]);
  expect(isSignAt(expression('x'), 'x', root, 0)).toBe(false);
});
