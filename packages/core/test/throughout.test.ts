import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { bendThroughout, slopeThroughout } from '../src/analysis/throughout.ts';
import { evaluateAt } from '../src/index.ts';
import { cases } from '../../../tests/cases.ts';
import { expression, program } from './scope.ts';

test.each<[text: string, a: number, b: number, slope: number | string | null, bend: number | string | null]>([
  // By hand.
  ['x^2', 0, 2, 1, 1],
  ['x^2', -1, 2, 'both', 1],
  ['x^3', -1, 1, 1, 'both'],
  ['3', 0, 1, 0, 0],
  ['2 - x', 0, 1, -1, 0],
  ['sqrt x', 0, 4, 1, -1],
  ['abs x', -1, 1, 'both', null],
  ['cbrt x', -1, 1, 1, 'both'],
  // It rises on both sides of a jump, up or down; or of a value that stands alone.
  ['x if x < 1; x + 0.1 otherwise', 0, 2, 1, null],
  ['x if x < 1; x - 0.1 otherwise', 0, 2, null, null],
  ['x if x < 1; 5 if x = 1; x + 0.1 otherwise', 0, 2, null, null],
  ['x if x < 1; 1.05 if x = 1; x + 0.1 otherwise', 0, 2, 1, null],
  ['x if x < 2; 0 otherwise', 0, 2, null, null],
  ['x if x > 0; -1 otherwise', 0, 2, 1, null],
  ['floor x', 0, 3, null, null],
  ['10^15 + x if x < 1; 10^15 + x - 10^(-17) otherwise', 0, 2, null, null],
  // Corners that bend with the curve, and against it.
  ['x^2 if x < 1; 3x - 2 otherwise', 0, 2, 1, null],
  ['x^2 if x < 1; x^2 + x - 1 otherwise', 0, 2, 1, 1],
  ['x^2 if x < 1; x^2 - x + 1 otherwise', 0, 2, 1, null],
  ['-x^2 if x < 1; -x^2 - x + 1 otherwise', 0, 2, -1, -1],
  ['sqrt(abs(x))', -1, 1, 'both', null],
  ['1/x', -1, 1, null, 'both'],
])('%s from %d to %d: slope %s, bend %s', (text, a, b, slope, bend) => {
  expect(slopeThroughout(expression(text), 'x', [a, b])).toBe(slope);
  expect(bendThroughout(expression(text), 'x', [a, b])).toBe(bend);
});

test('what is said to rise or to bend up does so between any three places', () => {
  const number = fc.integer({ min: -9, max: 9 });
  const share = fc.integer({ min: 0, max: 1000 }).map((n) => n / 1000);
  fc.assert(
    fc.property(number, number, number, number, share, share, share, (p, q, r, s, ...shares) => {
      const text = `${p} x^2 + ${q} x if x < 1; ${r} x + ${s} otherwise`;
      const [slope, bend] = [slopeThroughout, bendThroughout].map((of) => of(expression(text), 'x', [0, 2]));
      const xs = shares.map((part) => 2 * part).sort((x, y) => x - y);
      const [x, y, z] = xs as [number, number, number];
      const [f, g, h] = xs.map((at) => evaluateAt(program(text), at)) as [number, number, number];
      if (slope === 1) expect(f <= g && g <= h).toBe(true);
      if (slope === -1) expect(f >= g && g >= h).toBe(true);
      const chord = f + ((h - f) * (y - x)) / Math.max(z - x, 1e-9);
      if (bend === 1) expect(g).toBeLessThanOrEqual(chord + 1e-9);
      if (bend === -1) expect(g).toBeGreaterThanOrEqual(chord - 1e-9);
    }),
    { numRuns: cases(60, 5000), seed: 31 },
  );
});
