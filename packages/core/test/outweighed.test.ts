import { describe, expect, test } from '@jest/globals';
import { keyPoints, readExpression, type Expression } from '../src/index.ts';
import { canonical, type Canonical } from '../src/algebra/canonical.ts';
import { derivativeOf } from '../src/algebra/differentiate.ts';
import { written } from '../src/algebra/written.ts';
import { withoutOutweighed } from '../src/analysis/outweighed.ts';
import { exactPlace, type Place } from '../src/analysis/place.ts';
import { Zeros } from '../src/analysis/zeros.ts';
import type { ZeroSet } from '../src/analysis/zeroSet.ts';
import { Random } from '../fuzz/inputs.ts';
import { cases } from '../../../tests/cases.ts';

const read = (text: string): Expression => {
  const reading = readExpression(text, { names: new Set(['x']), functions: new Set() });
  if (!reading.ok) throw new Error(text);
  return reading.value;
};

describe('one term outweighs all others beside a place, and lists are complete there', () => {
  // By hand: jumps from −1 to 1 and from 1 to 0, corners and holes, and what no double holds far out.
  test.each<[text: string, on: readonly [number, number], jumps: number, inflections: number]>([
    ['tanh(1/x)', [-2, 2], 1, 2],
    ['1/(1 + e^(1/x))', [-2, 2], 1, 2],
    ['1/(1 + 2^(1/x))', [-2, 2], 1, 2],
    ['tanh(1/(x - 1))', [0, 2], 1, 2],
    ['tanh(1/x^2)', [-2, 2], 0, 2],
    ['x/cosh(x)', [-1000, 1000], 0, 3],
  ])('%s on %j', (text, on, jumps, inflections) => {
    const { complete, points } = keyPoints(read(text), 'x', on);
    const count = (kind: string): number => points.filter((point) => point.kind === kind).length;
    expect([complete, count('jump'), count('inflection')]).toEqual([true, jumps, inflections]);
  });
});

test('slopes of ratios ask no deeper into their own ratios, and the slope of (4 − eˣ)^x is 0 at ln 2', () => {
  let asked = 0;
  class Counted extends Zeros {
    override breaksOf(form: Canonical): ZeroSet {
      asked++;
      return super.breaksOf(form);
    }
  }
  const slope = derivativeOf(read('(4 - e^x)^x'), 'x');
  const { roots } = new Counted('x', 0, 3).of(slope);
  // By hand: ln(4 − eˣ) = x eˣ/(4 − eˣ) at eˣ = 2.
  expect(roots.map(({ low, high }) => low <= Math.LN2 && Math.LN2 <= high)).toEqual([true]);
  expect(asked).toBeLessThan(100);
});

test('no zero lies in what is left out, whatever the terms', () => {
  const random = new Random(20261201);
  const origin = exactPlace(read('0')) as Place;
  let shortened = 0;
  const count = cases(30, 80);
  for (let i = 0; i < count; i++) {
    const terms = Array.from({ length: 2 + random.below(3) }, () => ({
      c: random.pick([-3, -1, 1, 2]),
      a: random.below(5) - 2,
      k: random.below(7) - 3,
    }));
    const text = terms.map(({ c, a, k }) => `(${c}) x^(${a}) e^(${k}/x)`).join(' + ');
    const form = canonical(read(text));
    if (form.kind !== 'sum') continue;
    const zeros = new Zeros('x', 0, 3);
    const stretch = { from: 0, to: 3, fromPlace: origin, toPlace: null };
    const { from } = withoutOutweighed(form, 'x', stretch, (part) => zeros.of(written(part)));
    if (from === 0) continue;
    shortened++;
    // The sum over its largest term: nothing overflows, and a sign of the whole is one of this.
    const scaled = (x: number): number => {
      const sizes = terms.map(({ c, a, k }) => Math.log(Math.abs(c)) + a * Math.log(x) + k / x);
      const largest = Math.max(...sizes);
      return terms.reduce(
        (sum, { c }, j) => sum + Math.sign(c) * Math.exp((sizes[j] as number) - largest),
        0,
      );
    };
    const signs = new Set(Array.from({ length: 200 }, (_, k) => Math.sign(scaled(from * 0.9 ** k))));
    expect([text, from, signs.size]).toEqual([text, from, 1]);
  }
  expect(shortened).toBeGreaterThan(0.375 * count);
});
