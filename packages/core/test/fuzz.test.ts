import { expect, test } from '@jest/globals';
import { fuzzAnalyses, fuzzReader } from '../fuzz/runs.ts';

const seed = 20261124;
const clock = () => 0;

test('20,000 random texts: each is read, written and read again, or refused with a sentence at its place', () => {
  const { faults, answered, refused } = fuzzReader(seed, 20_000, clock);
  expect(faults).toEqual([]);
  expect(answered).toBeGreaterThan(2000);
  expect(answered + refused).toBe(20_000);
});

test('150 random formulas: every analysis answers in order, whatever the formula', () => {
  const { faults, answered } = fuzzAnalyses(seed, 150, clock);
  expect(faults).toEqual([]);
  expect(answered).toBeGreaterThan(140);
});
