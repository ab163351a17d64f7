import { expect, test } from '@jest/globals';
import { fuzzAnalyses, fuzzReader } from '../fuzz/runs.ts';
import { cases } from '../../../tests/cases.ts';

const seed = 20261124;
const clock = () => 0;

test('random texts: each is read, written and read again, or refused with a sentence at its place', () => {
  const count = cases(2000, 20_000);
  const { faults, answered, refused } = fuzzReader(seed, count, clock);
  expect(faults).toEqual([]);
  expect(answered).toBeGreaterThan(count / 10);
  expect(answered + refused).toBe(count);
});

test('random formulas: every analysis answers in order, whatever the formula', () => {
  const count = cases(40, 150);
  const { faults, answered } = fuzzAnalyses(seed, count, clock);
  expect(faults).toEqual([]);
  expect(answered).toBeGreaterThan(0.93 * count);
});
