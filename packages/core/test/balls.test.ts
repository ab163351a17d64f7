import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { separationBits } from '../src/algebra/separation.ts';
import { signOfConstant } from '../src/limit/constantSign.ts';
import { builtIns } from '../src/functions/table.ts';
import * as balls from '../src/limit/ball.ts';
import * as big from '../src/limit/bigFloat.ts';
import { enclosePrecisely } from '../src/limit/enclosed.ts';
import { evaluatePrecisely } from '../src/limit/precise.ts';
import { compile } from '../src/index.ts';
import { expressions, points, replayable } from './random.ts';
import { expression, program } from './scope.ts';

const holds = (ball: balls.Ball, x: big.BigFloat): boolean => {
  const distance = big.absolute(big.subtract(ball.middle, x, 4000));
  return big.sign(big.subtract(distance, ball.radius, 4000)) <= 0;
};

describe('balls', () => {
  const some = [-3, -1.7, -1, -0.6, -1e-20, 0, 1e-300, 0.25, 0.8, 1, 1.2, 2, 30, 1e15];

  test.each(builtIns.map(({ name }) => [name]))(
    '%s of a ball holds what a finer evaluation tells',
    (name) => {
      const isPair = builtIns.find((row) => row.name === name)?.argumentCount.least === 2;
      const f = program(
        name === 'factorial'
          ? 'x!'
          : isPair
            ? `${name === 'logBase' ? 'log_3' : `${name}(3, `}${name === 'logBase' ? '(' : ''}x)`
            : `${name}(x)`,
      );
      let known = 0;
      for (const x of some) {
        for (const [bits, radius] of [
          [60, 0n],
          [200, -150n],
          [500, 0n],
          [90, -30n],
        ] as const) {
          const middle = big.fromDouble(x);
          const ball = { middle, radius: radius === 0n ? big.zero : { mantissa: 1n, exponent: radius } };
          const value = enclosePrecisely(f, ball, [], bits);
          if (value === 'unsure') continue;
          const finer = evaluatePrecisely(f, middle, [], 2000);
          if (value === null) expect([name, x, finer]).toEqual([name, x, null]);
          else {
            known++;
            expect([name, x, bits, holds(value, finer as big.BigFloat)]).toEqual([name, x, bits, true]);
          }
        }
      }
      expect(known).toBeGreaterThan(name === 'factorial' ? 4 : 10);
    },
  );

  test('compositions of functions: the value with many digits lies in the ball', () => {
    fc.assert(
      fc.property(expressions, points, (body, x) => {
        const f = compile(body, 'x');
        const ball = enclosePrecisely(f, balls.exactly(big.fromDouble(x)), [], 70);
        if (ball === 'unsure') return;
        const finer = evaluatePrecisely(f, big.fromDouble(x), [], 900);
        if (ball === null) expect(finer).toBeNull();
        else expect(holds(ball, finer as big.BigFloat)).toBe(true);
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
