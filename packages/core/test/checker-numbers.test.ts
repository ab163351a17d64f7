import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { all, create } from 'mathjs';
import * as functions from '../src/checker/functions.ts';
import * as n from '../src/checker/numbers.ts';
import { replayable } from './random.ts';

describe('the numbers of the checker', () => {
  const digits = create(all ?? {}, { number: 'BigNumber', precision: 70 });

  test.each([
    ['exp', functions.exp, 'exp(x)', [-700, -3.5, -1e-9, -1e-300, 0, 0.1, 0.3466, 1, 20.25]],
    [
      'ln',
      functions.ln,
      'log(x)',
      [1e-300, 0.25, 0.75, 0.999999, 1 - 2 ** -53, 1, 1 + 2 ** -52, 1.5, 2, 1e15, 1e308],
    ],
    ['sin', functions.sin, 'sin(x)', [-100, -1.5, -1e-8, -1e-300, 0, 1e-130, 0.7, 1.6, 3.2, 1e6]],
    ['cos', functions.cos, 'cos(x)', [-100, -1.5, -1e-8, -1e-300, 0, 1e-130, 0.7, 1.6, 3.2, 1e6]],
    ['arctan', functions.arctan, 'atan(x)', [-1e9, -2, -0.3, 0, 1e-300, 1e-130, 1e-7, 0.9, 1, 1.1, 5e5]],
  ] as const)('%s holds what a library of many digits tells, within 38 digits', (_, ours, theirs, places) => {
    const formula = digits.compile(theirs);
    for (const x of places) {
      const { low, high } = ours(n.point(n.fromDouble(x)));
      const told = digits.bignumber(String(formula.evaluate({ x: digits.bignumber(x) })));
      const size = Math.max(Math.abs(Number(told)), 1e-300);
      const [below, above] = [low, high].map(({ m, e }) =>
        digits.multiply(digits.bignumber(String(m)), digits.pow(digits.bignumber(2), e)),
      );
      const slack = digits.bignumber(size * 1e-60);
      expect(digits.smallerEq(below as never, digits.add(told, slack) as never)).toBe(true);
      expect(digits.largerEq(above as never, digits.subtract(told, slack) as never)).toBe(true);
      expect(n.toDouble(n.subtract(n.point(high), n.point(low)).high)).toBeLessThanOrEqual(size * 1e-38);
    }
  });

  test('far out, where π is not known well enough, waves are anywhere between −1 and 1', () => {
    const { low, high } = functions.sin(n.point(n.fromDouble(1e300)));
    expect([n.toDouble(low), n.toDouble(high)]).toEqual([-1, 1]);
  });

  test('sums, products, quotients, roots and the order of random numbers are those of exact fractions', () => {
    const edges = [0n, 1n, 3n, 1n << 159n, (1n << 160n) - 1n, 1n << 160n, (1n << 161n) - 1n];
    const sizes = fc.oneof(fc.bigInt(0n, 1n << 200n), fc.constantFrom(...edges));
    const numbers: fc.Arbitrary<n.Float> = fc
      .tuple(sizes, fc.boolean(), fc.integer({ min: -200, max: 200 }))
      .map(([size, isNegative, e]) => ({ m: isNegative ? -size : size, e }));
    // In units of 2^−2000 all of them are whole.
    const units = ({ m, e }: n.Float): bigint => m << BigInt(e + 2000);
    const one = units({ m: 1n, e: 0 });
    const holds = ({ low, high }: n.Range, top: bigint, bottom = 1n): boolean => {
      const [p, q] = bottom < 0n ? [-top, -bottom] : [top, bottom];
      return units(low) * q <= p && p <= units(high) * q;
    };
    const sorted = (x: n.Float, y: n.Float): n.Range =>
      units(x) <= units(y) ? { low: x, high: y } : { low: y, high: x };
    fc.assert(
      fc.property(numbers, numbers, numbers, numbers, fc.boolean(), (a, b, c, d, arePoints) => {
        const [x, y] = arePoints ? [n.point(a), n.point(b)] : [sorted(a, c), sorted(b, d)];
        expect(n.compare(a, b)).toBe(units(a) < units(b) ? -1 : units(a) > units(b) ? 1 : 0);
        for (const u of [x.low, x.high].map(units)) {
          for (const v of [y.low, y.high].map(units)) {
            expect(holds(n.add(x, y), u + v)).toBe(true);
            expect(holds(n.multiply(x, y), u * v, one)).toBe(true);
            if (n.isOneSided(y)) expect(holds(n.divide(x, y), u * one, v)).toBe(true);
          }
        }
        const size: n.Float = { m: a.m < 0n ? -a.m : a.m, e: a.e };
        const { low, high } = n.root(n.point(size), 3);
        expect(units(low) ** 3n <= units(size) * one ** 2n).toBe(true);
        expect(units(high) ** 3n >= units(size) * one ** 2n).toBe(true);
        // A product of two numbers is told to all digits that are kept.
        const product = n.multiply(n.point(a), n.point(b));
        const width = units(product.high) - units(product.low);
        expect(width << 156n <= (units(size) * (b.m < 0n ? -units(b) : units(b))) / one + 1n).toBe(true);
      }),
      replayable,
    );
  });

  test('π and whole intervals', () => {
    // The first digits of π, from any table.
    const scaled = n.multiply(functions.pi, n.whole(10n ** 40n));
    expect([n.floor(scaled.low), n.floor(scaled.high)]).toEqual(
      Array.from({ length: 2 }, () => 31415926535897932384626433832795028841971n),
    );
    for (const [from, to] of [
      [-1, 2],
      [3, 10],
      [1.5, 1.7],
      [-8, -7],
    ] as const) {
      const { low, high } = functions.sin(n.between(from, to));
      for (let i = 0; i <= 200; i++) {
        const y = Math.sin(from + ((to - from) * i) / 200);
        expect(y).toBeGreaterThanOrEqual(n.toDouble(low) - 1e-15);
        expect(y).toBeLessThanOrEqual(n.toDouble(high) + 1e-15);
      }
    }
  });
});
