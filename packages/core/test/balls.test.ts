import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { all, create } from 'mathjs';
import * as rational from '../src/numbers/rational.ts';
import { separationBits } from '../src/algebra/separation.ts';
import { signOfConstant } from '../src/limit/constantSign.ts';
import { builtIns } from '../src/functions/table.ts';
import * as balls from '../src/numbers/ball.ts';
import * as big from '../src/numbers/bigFloat.ts';
import { enclosePrecisely } from '../src/limit/enclosed.ts';
import { compile } from '../src/index.ts';
import { expressions, points, replayable } from './random.ts';
import { expression, program } from './scope.ts';

/** Whether a ball holds a number that is itself known to 85 decimal digits. */
const holdsNearly = ({ middle, radius }: balls.Ball, x: big.BigFloat): boolean => {
  const distance = big.absolute(big.subtract(middle, x, 4000));
  const slack = { mantissa: 1n, exponent: (big.isZero(x) ? 0n : big.order(x)) - 280n };
  return big.sign(big.subtract(distance, big.add(radius, slack, 4000), 4000)) <= 0;
};

/** A general library of numbers with many digits, as an independent evaluator. */
const digits = create(all ?? {}, { number: 'BigNumber', precision: 90 });
const theirs: Readonly<Record<string, string>> = {
  arcsin: 'asin(x)',
  arccos: 'acos(x)',
  arctan: 'atan(x)',
  arccot: 'pi/2 - atan(x)',
  arsinh: 'asinh(x)',
  arcosh: 'acosh(x)',
  artanh: 'atanh(x)',
  arcsec: 'acos(1/x)',
  arccsc: 'asin(1/x)',
  arsech: 'acosh(1/x)',
  arcsch: 'asinh(1/x)',
  arcoth: 'atanh(1/x)',
  ln: 'log(x)',
  log: 'log10(x)',
  logBase: 'log(x)/log(3)',
  root: 'cbrt(x)',
  round: 'floor(x + 0.5)',
  min: 'min(3, x)',
  max: 'max(3, x)',
  mod: '3 - x floor(3/x)',
  degrees: 'x pi/180',
  factorial: 'x!',
};
const ours: Readonly<Record<string, string>> = {
  logBase: 'log_3(x)',
  root: 'root(3, x)',
  min: 'min(3, x)',
  max: 'max(3, x)',
  mod: 'mod(3, x)',
  degrees: 'x°',
  factorial: 'x!',
};

describe('balls', () => {
  const some = ['-3', '-1.75', '-1', '-0.625', '0.25', '0.5', '0.8125', '1', '1.25', '2', '30', '41.5'];

  test.each(builtIns.map(({ name }) => [name]))(
    '%s of a ball holds what a library of many digits tells',
    (name) => {
      const f = program(ours[name] ?? `${name}(x)`);
      const theirFormula = digits.compile(theirs[name] ?? `${name}(x)`);
      let known = 0;
      for (const x of some) {
        if (name === 'factorial' && !/^\d\d?$/.test(x)) continue;
        for (const [bits, radius] of [
          [60, 0n],
          [150, -100n],
          [230, 0n],
          [90, -30n],
        ] as const) {
          const middle = big.fromDouble(Number(x));
          const ball = { middle, radius: radius === 0n ? big.zero : { mantissa: 1n, exponent: radius } };
          const value = enclosePrecisely(f, ball, [], bits);
          if (value === 'unsure') continue;
          const told: unknown = theirFormula.evaluate({ x: digits.bignumber(x) });
          const isReal = digits.isBigNumber(told) && told.isFinite();
          if (value === null) expect([name, x, isReal]).toEqual([name, x, false]);
          else {
            known++;
            const exact = rational.parseDecimal(String(told).toUpperCase().replace('E+', 'E'));
            const size = big.fromRational(exact ?? rational.zero, 400);
            expect([name, x, bits, holdsNearly(value, size)]).toEqual([name, x, bits, true]);
          }
        }
      }
      expect(known).toBeGreaterThan(name === 'factorial' ? 4 : 10);
    },
  );

  test('compositions of functions: a ball of many digits lies within one of fewer', () => {
    fc.assert(
      fc.property(expressions, points, (body, x) => {
        const f = compile(body, 'x');
        const at = balls.exactly(big.fromDouble(x));
        const [rough, fine] = [enclosePrecisely(f, at, [], 70), enclosePrecisely(f, at, [], 900)];
        if (rough === 'unsure' || fine === 'unsure') return;
        if (rough === null || fine === null) expect(rough).toBe(fine);
        else expect(holdsNearly(rough, fine.middle)).toBe(true);
      }),
      replayable,
    );
  });
});

describe('the sign of a constant', () => {
  test.each([
    ['sqrt(2)^2 - 2', 0],
    ['sqrt(3 + 2sqrt(2)) - 1 - sqrt(2)', 0],
    ['sqrt(5 + 2sqrt(6)) - sqrt(2) - sqrt(3)', 0],
    ['cbrt(2 + sqrt(5)) + cbrt(2 - sqrt(5)) - 1', 0],
    ['sin(π/12) - (sqrt(6) - sqrt(2))/4', 0],
    ['cos(π/5) - (1 + sqrt(5))/4', 0],
    // Near to 0 without being it: the sums of roots of Graham, from memory.
    ['sqrt(10) + sqrt(11) - sqrt(5) - sqrt(18) - 1.0022', -1],
    ['sqrt(3 + 2sqrt(2)) - 1 - sqrt(2) - 10^-100', -1],
    ['e^(-100)', 1],
    ['e^(-1000000)', 1],
    ['e^(π sqrt(163)) - 262537412640768744', -1],
    ['10^15 + 10^-60 - 10^15', 1],
    ['tanh(30) - 1', -1],
    ['sin(1)^2 + cos(1)^2 - 1', 0],
    ['ln(-1)', NaN],
    ['tan(π/2)', NaN],
  ])('%s', (text, sign) => {
    expect(signOfConstant(expression(text))).toBe(sign);
  });

  test('what nothing shows is left open', () => {
    expect(signOfConstant(expression('arctan(1/2) + arctan(1/3) - π/4'))).toBeNaN();
  });

  test('a bound for roots alone', () => {
    expect(separationBits(expression('sqrt(2) - 1'))).toBeGreaterThan(1);
    expect(separationBits(expression('e - 2'))).toBeNull();
  });
});

test('binary digits are counted at every power of two, beyond the range of doubles, too', () => {
  for (let k = 0; k <= 1400; k++)
    for (const n of [(1n << BigInt(k)) - 1n, 1n << BigInt(k), (1n << BigInt(k)) + 1n]) {
      const digits = n === 0n ? 0 : n.toString(2).length;
      expect([n, big.bitLength(n), big.bitLength(-n)]).toEqual([n, digits, digits]);
    }
});
