import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { all, create } from 'mathjs';
import { evaluateAt, exactValue, rational, type Rational } from '../src/index.ts';
import { replayable } from './random.ts';
import { expression, program } from './scope.ts';
import { cases } from '../../../tests/cases.ts';

const rationals: fc.Arbitrary<Rational> = fc
  .tuple(fc.bigInt({ min: -(10n ** 12n), max: 10n ** 12n }), fc.bigInt({ min: 1n, max: 10n ** 9n }))
  .map(([n, d]) => rational.rational(n, d));

describe('exact fractions obey the laws of arithmetic', () => {
  test('addition and multiplication: order and grouping do not matter, products spread over sums', () => {
    fc.assert(
      fc.property(rationals, rationals, rationals, (a, b, c) => {
        const { add, multiply } = rational;
        expect(add(a, b)).toEqual(add(b, a));
        expect(multiply(a, b)).toEqual(multiply(b, a));
        expect(add(add(a, b), c)).toEqual(add(a, add(b, c)));
        expect(multiply(a, add(b, c))).toEqual(add(multiply(a, b), multiply(a, c)));
      }),
      replayable,
    );
  });

  test('subtraction and division undo addition and multiplication', () => {
    fc.assert(
      fc.property(rationals, rationals, (a, b) => {
        expect(rational.subtract(rational.add(a, b), b)).toEqual(a);
        if (!rational.isZero(b)) expect(rational.divide(rational.multiply(a, b), b)).toEqual(a);
      }),
      replayable,
    );
  });

  test('always in lowest terms over a positive denominator', () => {
    expect(rational.rational(6, -4)).toEqual({ numerator: -3n, denominator: 2n });
    expect(() => rational.rational(1, 0)).toThrow(RangeError);
  });

  test('the greatest integer below', () => {
    fc.assert(
      fc.property(rationals, (r) => {
        const floor = rational.rational(rational.floor(r));
        expect(rational.compare(floor, r)).toBeLessThanOrEqual(0);
        expect(rational.compare(rational.add(floor, rational.one), r)).toBe(1);
      }),
      replayable,
    );
  });

  test('a double goes to its exact fraction and back', () => {
    fc.assert(
      fc.property(fc.double({ noNaN: true, noDefaultInfinity: true }), (x) => {
        expect(rational.toNumber(rational.fromDouble(x))).toBe(x === 0 ? 0 : x);
      }),
      replayable,
    );
  });

  test('powers and roots undo one another', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: -50, max: 50 }),
        fc.integer({ min: 1, max: 50 }),
        fc.constantFrom(3, 5, 7),
        (n, d, k) => {
          const r = rational.rational(n, d);
          const power = rational.integerPower(r, k);
          expect(power && rational.exactRoot(power, k)).toEqual(r);
        },
      ),
      replayable,
    );
  });

  test('a power that would grow beyond reason is given up, not computed', () => {
    expect(rational.integerPower(rational.rational(3), 10_000)).toBeNull();
    expect(rational.integerPower(rational.minusOne, 9999)).toEqual(rational.minusOne);
    expect(rational.integerPower(rational.zero, -1)).toBeNull();
  });

  test('decimal text goes through fractions unchanged', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: -99_999, max: 99_999 }),
        fc.integer({ min: 0, max: 6 }),
        (digits, places) => {
          const r = rational.rational(BigInt(digits), 10n ** BigInt(places));
          const text = rational.toDecimal(r, places);
          expect(text && rational.parseDecimal(text)).toEqual(r);
        },
      ),
      replayable,
    );
  });
});

describe('exact values of expressions', () => {
  const at = (text: string, x: string) => {
    const value = exactValue(expression(text), new Map([['x', rational.parseDecimal(x) as Rational]]));
    return value && rational.toText(value);
  };

  test.each([
    ['3x^2 - 5x - 2', '0.1', '-247/100'],
    ['1/x + 1/(x+1)', '2', '5/6'],
    ['√x', '2.25', '3/2'],
    ['x^(2/3)', '8', '4'],
    ['|x| - floor x', '-1.5', '7/2'],
    ['sin x + cos x + e^x', '0', '2'],
    ['x^x', '3', '27'],
    ['min(x, 2) max(x, 2)', '5', '10'],
    ['ln x', '1', '0'],
  ])('%s at %s is exactly %s', (text, x, value) => {
    expect(at(text, x)).toBe(value);
  });

  test.each([
    ['√x', '2'],
    ['sin x', '1'],
    ['e^x', '1'],
    ['π x', '1'],
    ['1/x', '0'],
    ['x^x', '0.5'],
    ['f(x)', '1'],
  ])('%s at %s is not claimed to be rational', (text, x) => {
    expect(at(text, x)).toBeNull();
  });

  test('where it is claimed, it is the value', () => {
    fc.assert(
      fc.property(fc.integer({ min: -200, max: 200 }), (n) => {
        const x = rational.rational(n, 8);
        for (const text of ['(x^3 - 2x)/(x^2 + 1)', '|x - 1| + x^2/3', 'ceil x - floor x', '(2x - 1)^5']) {
          const exact = exactValue(expression(text), new Map([['x', x]]));
          const value = evaluateAt(program(text), rational.toNumber(x));
          expect(exact && rational.toNumber(exact)).toBeCloseTo(value, 6);
        }
      }),
      replayable,
    );
  });
});

test('rounds to decimals, halves away from zero, as a general-purpose library does', () => {
  // mathjs, whose big numbers have 64 digits and round halves away from zero.
  const math = create(all ?? {}, { number: 'BigNumber', precision: 64 });
  const number = fc.integer({ min: -10_000_000, max: 10_000_000 });
  const denominator = fc.oneof(fc.integer({ min: 1, max: 4000 }), fc.constantFrom(2, 20, 2000, 20_000));
  fc.assert(
    fc.property(number, denominator, fc.integer({ min: 0, max: 12 }), (n, d, places) => {
      const quotient = math.bignumber(n).div(d);
      const withoutMinusZero = (text: string): string => text.replace(/^-(?=[0.]+$)/, '');
      expect(withoutMinusZero(rational.toFixed(rational.rational(n, d), places))).toBe(
        withoutMinusZero(quotient.toFixed(places)),
      );
    }),
    { numRuns: cases(150, 500), seed: 41 },
  );
});
