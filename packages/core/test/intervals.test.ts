import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import * as intervals from '../src/numbers/interval.ts';
import { interval, isNothing, type Interval } from '../src/numbers/interval.ts';
import { rational } from '../src/index.ts';
import { replayable } from './random.ts';

const finite = fc.double({ min: -1e6, max: 1e6, noNaN: true });
const intervalArbitrary = fc
  .tuple(finite, fc.double({ min: 0, max: 100, noNaN: true }))
  .map(([low, width]) => interval(low, low + width));
const share = fc.double({ min: 0, max: 1, noNaN: true });

/** A number of the interval, from one end to the other. */
const pick = ({ low, high }: Interval, t: number): number =>
  Math.min(high, Math.max(low, low + t * (high - low)));
const holds = (range: Interval, value: number): boolean => value >= range.low && value <= range.high;

const operations: readonly [
  string,
  (a: Interval, b: Interval) => Interval,
  (a: number, b: number) => number,
][] = [
  ['sum', intervals.add, (a, b) => a + b],
  ['difference', intervals.subtract, (a, b) => a - b],
  ['product', intervals.multiply, (a, b) => a * b],
  ['quotient', intervals.divide, (a, b) => a / b],
];

describe('interval arithmetic', () => {
  test.each(operations)('the %s of intervals holds every %s of their numbers', (_name, combine, exact) => {
    fc.assert(
      fc.property(intervalArbitrary, intervalArbitrary, share, share, (a, b, s, t) => {
        const [x, y] = [pick(a, s), pick(b, t)];
        const value = exact(x, y);
        if (Number.isFinite(value)) expect(holds(combine(a, b), value)).toBe(true);
      }),
      replayable,
    );
  });

  test('results are rounded outward: the ends of 0.1 + 0.2 enclose 3/10', () => {
    const sum = intervals.add(intervals.exactly(0.1), intervals.exactly(0.2));
    expect(sum.low).toBeLessThan(0.1 + 0.2);
    expect(sum.high).toBeGreaterThanOrEqual(0.1 + 0.2);
    const exact = rational.add(rational.fromDouble(0.1), rational.fromDouble(0.2));
    expect(rational.compare(rational.fromDouble(sum.low), exact)).toBe(-1);
    expect(rational.compare(rational.fromDouble(sum.high), exact)).toBe(1);
    expect(sum.high - sum.low).toBeLessThan(1e-15);
  });

  test.each([
    [interval(-2, 3), 2, 0, 9],
    [interval(-3, -2), 2, 4, 9],
    [interval(-2, 3), 3, -8, 27],
    [interval(2, 3), -1, 1 / 3, 1 / 2],
    [interval(-2, 3), 0, 1, 1],
  ])('%j to the power %i lies in [%f, %f], tightly', (x, n, low, high) => {
    const range = intervals.integerPower(x, n);
    expect(range.low).toBeLessThanOrEqual(low);
    expect(range.high).toBeGreaterThanOrEqual(high);
    expect(range.low).toBeCloseTo(low, 12);
    expect(range.high).toBeCloseTo(high, 12);
  });

  test('dividing by an interval with zero inside is never called sure, and by zero alone has no value', () => {
    expect(intervals.divide(interval(1, 2), interval(-1, 1))).toMatchObject({
      low: -Infinity,
      high: Infinity,
      sure: false,
    });
    expect(intervals.divide(interval(1, 2), interval(0, 2))).toMatchObject({ high: Infinity, sure: false });
    expect(isNothing(intervals.divide(interval(1, 2), intervals.exactly(0)))).toBe(true);
  });

  test.each([
    ['within', interval(-1, 1)],
    ['outside', interval(-3, -2)],
  ])('√ of an interval %s its domain', (where, x) => {
    const range = intervals.rationalPower(x, 1, 2);
    if (where === 'outside') expect(isNothing(range)).toBe(true);
    else expect(range).toMatchObject({ low: 0, sure: false });
  });

  test('sin and cos know their highs and lows, whatever the interval', () => {
    expect(intervals.sin(interval(1, 2))).toMatchObject({ high: 1 });
    expect(intervals.cos(interval(3, 4))).toMatchObject({ low: -1 });
    expect(intervals.sin(interval(0, 0.1)).high).toBeLessThan(0.11);
    expect(intervals.cos(interval(0.1, 0.2)).high).toBeLessThan(1);
    expect(intervals.sin(interval(-1e9, 1e9))).toMatchObject({ low: -1, high: 1, sure: true });
    fc.assert(
      fc.property(finite, fc.double({ min: 0, max: 7, noNaN: true }), share, (low, width, t) => {
        const x = interval(low, low + width);
        expect(holds(intervals.sin(x), Math.sin(pick(x, t)))).toBe(true);
        expect(holds(intervals.cos(x), Math.cos(pick(x, t)))).toBe(true);
      }),
      replayable,
    );
  });

  test('a step function is sure only where it does not jump', () => {
    expect(intervals.stepwise(Math.floor, interval(0.2, 0.8))).toEqual({ low: 0, high: 0, sure: true });
    expect(intervals.stepwise(Math.floor, interval(0.8, 1.2))).toEqual({ low: 0, high: 1, sure: false });
  });

  test('what is undefined stays undefined through everything', () => {
    for (const combine of [intervals.add, intervals.subtract, intervals.multiply, intervals.divide]) {
      expect(isNothing(combine(intervals.nothing, interval(1, 2)))).toBe(true);
      expect(isNothing(combine(interval(1, 2), intervals.nothing))).toBe(true);
    }
    for (const apply of [intervals.negate, intervals.exp, intervals.ln, intervals.sin, intervals.absolute]) {
      expect(isNothing(apply(intervals.nothing))).toBe(true);
    }
  });
});
