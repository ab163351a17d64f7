import { describe, expect, test } from '@jest/globals';
import { compile as compileReference } from 'mathjs';
import { evaluateAt, simplify, compile } from '../src/index.ts';
import { expression, program } from './scope.ts';

/**
 * Reference: mathjs 15, evaluating the same formula with every sign and bracket written out.
 * [as a textbook prints it, written out for the library]
 */
const formulas: readonly [string, string][] = [
  ['3x^2 - 5x - 2', '3*x^2 - 5*x - 2'],
  ['x(x-1)(x-2)', 'x*(x-1)*(x-2)'],
  ['(x+1)^3/(x^2+1)', '(x+1)^3/(x^2+1)'],
  ['-x^2', '-(x^2)'],
  ['2^-x', '2^(-x)'],
  ['2^x^2', '2^(x^2)'],
  ['1/2 x', '0.5*x'],
  ['1/2x', '0.5*x'],
  ['x/2/4', 'x/8'],
  ['x - 1 - 2', '(x-1)-2'],
  ['-x/3 + 2', '-(x/3)+2'],
  ['- -x', 'x'],
  ['x·-2', '-2*x'],
  ['sin 2x cos 3x', 'sin(2*x)*cos(3*x)'],
  ['sin x^2', 'sin(x^2)'],
  ['sin^2 x + cos^2 x', '1'],
  ['sin x/x', 'sin(x)/x'],
  ['3 sin(2x + 1)', '3*sin(2*x+1)'],
  ['cos πx', 'cos(pi*x)'],
  ['e^2x', '(e^2)*x'],
  ['e^(2x)', 'exp(2*x)'],
  ['2e^-x', '2*exp(-x)'],
  ['x e^x', 'x*exp(x)'],
  ['ln(x^2 + 1)', 'log(x^2+1)'],
  ['log(x^2 + 1)', 'log10(x^2+1)'],
  ['log_2(x^2 + 1)', 'log2(x^2+1)'],
  ['√(x^2 + 4)', 'sqrt(x^2+4)'],
  ['2√(x^2+1)x', '2*sqrt(x^2+1)*x'],
  ['∛(x^2 + 1)', 'cbrt(x^2+1)'],
  ['|x - 2| + |x|', 'abs(x-2)+abs(x)'],
  ['||x| - 2|', 'abs(abs(x)-2)'],
  ['2|x|^3', '2*abs(x)^3'],
  ['x² + x³', 'x^2+x^3'],
  ['x⁻²', 'x^(-2)'],
  ['arctan 2x', 'atan(2*x)'],
  ['sinh x cosh x', 'sinh(x)*cosh(x)'],
  ['tanh(x)^2', 'tanh(x)^2'],
  ['floor(2x) - ceil(x)', 'floor(2*x)-ceil(x)'],
  ['max(x, 1) - min(x, -1)', 'max(x,1)-min(x,-1)'],
  ['90° + x', 'pi/2 + x'],
  ['4! + x', '24 + x'],
  ['1.5E2 x', '150*x'],
  ['(x+1)(x+2)/(x+3.5)', '(x+1)*(x+2)/(x+3.5)'],
  ['x^(1/2) x^(1/2)', 'sqrt(x)*sqrt(x)'],
];
const points = [-2.3, -0.7, 0.4, 1.1, 3.2];

describe('values agree with a reference library', () => {
  test.each(formulas)('%s', (text, reference) => {
    const expected = compileReference(reference);
    let compared = 0;
    for (const x of points) {
      const value: unknown = expected.evaluate({ x });
      if (typeof value !== 'number' || !Number.isFinite(value)) continue;
      compared++;
      expect(evaluateAt(program(text), x)).toBeCloseTo(value, 10);
      expect(evaluateAt(compile(simplify(expression(text)), 'x'), x)).toBeCloseTo(value, 10);
    }
    expect(compared).toBeGreaterThanOrEqual(3);
  });
});
