import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { compile, derivativeOf, evaluateAt, printText, tree, type Expression } from '../src/index.ts';
import { enclose } from '../src/evaluate/enclosures.ts';
import { derivativeWrittenOut, isIdenticallyZero } from '../src/checker/identities.ts';
import { cases } from '../../../tests/cases.ts';
import { expressions, replayable } from './random.ts';
import { expression } from './scope.ts';

const isSame = (left: string, right: string): boolean =>
  isIdenticallyZero(tree.subtract(expression(left), expression(right)));

/** Identities of any school book (common practice), and derivatives as they are worked out by hand. */
const identities: readonly (readonly [string, string])[] = [
  ['(x + 1)^3', 'x^3 + 3x^2 + 3x + 1'],
  ['(x^3 - 1)/(x - 1)', 'x^2 + x + 1'],
  ['1/x - 1/(x + 1)', '1/(x (x + 1))'],
  ['x/2 + 0.25', '(2x + 1)/4'],
  ['sin^2 x + cos^2 x', '1'],
  ['sin(2x)', '2 sin x cos x'],
  ['cos(3x)', '4 cos^3 x - 3 cos x'],
  ['sin(x + 1)', 'sin x cos 1 + cos x sin 1'],
  ['cos(x - pi/2)', 'sin x'],
  ['sin(x + 2pi)', 'sin x'],
  ['sin(-x^2)', '-sin(x^2)'],
  ['1 + tan^2 x', 'sec^2 x'],
  ['cot x csc x', 'cos x/sin^2 x'],
  ['e^(x + 1)', 'e e^x'],
  ['e^(-2x)', '1/(e^x)^2'],
  ['cosh^2 x - sinh^2 x', '1'],
  ['tanh x', '1 - 2/(e^(2x) + 1)'],
  ['2^(x + 1)', '2*2^x'],
  ['4^x', '(2^x)^2'],
  ['ln(x^2)', '2 ln|x|'],
  ['ln(6x)', 'ln 2 + ln 3 + ln x'],
  ['ln(2x + 2)', 'ln 2 + ln(x + 1)'],
  ['ln(x/(x + 1))', 'ln x - ln(x + 1)'],
  ['ln(sqrt(x))', '(ln x)/2'],
  ['ln(e^x)', 'x'],
  ['x^x', 'e^(x ln x)'],
  ['sqrt(x^2)', '|x|'],
  ['|-3x|', '3|x|'],
  ['|x|^2', 'x^2'],
  ['|1 - x|', '|x - 1|'],
  ['sqrt(x^2 + 1)^2', 'x^2 + 1'],
  ['1/sqrt(x)', 'sqrt(x)/x'],
  ['x^(2/3)', 'cbrt(x)^2'],
  ['sqrt(x/2)', 'sqrt(2x)/2'],
  ['arctan(2x/2)', 'arctan x'],
  ['e^x + x e^x', '(x + 1)e^x'],
  ['x/sqrt(x^2 + 1)', '(x sqrt(x^2 + 1))/(x^2 + 1)'],
  ['(x cos x - sin x)/x^2', 'cos x/x - sin x/x^2'],
];

describe('identities that the checker writes out', () => {
  test.each(identities)('%s is %s', (left, right) => {
    expect(isSame(left, right)).toBe(true);
  });

  // What is nearly the same, or the same on one side of 0 only, is none.
  test.each([
    ['sin^2 x + cos^2 x', '1.0000001'],
    ['sqrt(x^2)', 'x'],
    ['ln(x^2)', '2 ln x + 1E-12'],
    ['cbrt(x^2)', 'cbrt(x)'],
    ['e^(2x)', 'e^x + e^x'],
    ['|x + 1|', '|x| + 1'],
    ['sin(x + pi)', 'sin x'],
    ['cos(2x)', '2cos x'],
    ['x^3', 'x^2 |x|'],
    ['2^x', 'e^x'],
    ['arctan x', 'arcsin x'],
    ['x + 1E-300', 'x'],
  ])('%s is not %s', (left, right) => {
    expect(isSame(left, right)).toBe(false);
  });

  test('whatever is written out to 0 lies within bounds that hold 0, in random formulas', () => {
    let shown = 0;
    const count = cases(100, 400);
    const places = [-2.3, -1.1, -0.4, 0.3, 0.7, 1.9, 3.1];
    const mayBe0 = (body: Expression): boolean => {
      const program = compile(body, 'x');
      return places.every((x) => {
        const { low, high, sure } = enclose(program, x, x);
        return !sure || (low <= 0 && high >= 0);
      });
    };
    fc.assert(
      fc.property(expressions, expressions, fc.integer({ min: 1, max: 3 }), (f, g, n) => {
        // Some are identities: n(f + g) − nf − ng, (f + g)² − f² − 2fg − g², and what random ones are.
        const [k, two] = [tree.number(n), tree.number(2)];
        const both = tree.add(f, g);
        const candidates = [
          tree.subtract(f, g),
          tree.subtract(tree.multiply(k, both), tree.add(tree.multiply(k, f), tree.multiply(k, g))),
          tree.subtract(
            tree.power(both, two),
            tree.add(
              tree.power(f, two),
              tree.add(tree.multiply(two, tree.multiply(f, g)), tree.power(g, two)),
            ),
          ),
          tree.subtract(tree.call('sin', both), tree.add(tree.call('sin', f), tree.call('sin', g))),
          tree.subtract(tree.call('abs', both), tree.add(tree.call('abs', f), tree.call('abs', g))),
          tree.subtract(tree.call('sqrt', tree.power(both, two)), both),
          tree.subtract(tree.call('ln', tree.power(both, two)), tree.multiply(two, tree.call('ln', both))),
        ];
        for (const candidate of candidates) {
          if (!isIdenticallyZero(candidate)) continue;
          shown++;
          expect([candidate, mayBe0(candidate)]).toEqual([candidate, true]);
        }
      }),
      { ...replayable, numRuns: count },
    );
    expect(shown).toBeGreaterThan(count / 2);
  });
});

describe('derivatives in lowest terms', () => {
  test.each([
    ['x ln x', 1, '1 + ln|x|'],
    ['x ln x', 2, '1/x'],
    ['x^2 ln x', 1, 'x(1 + 2 ln|x|)'],
    ['e^(1/x)', 1, '-e^(1/x)/x^2'],
  ])('%s, order %i: %s', (text, order, expected) => {
    const written = derivativeWrittenOut(expression(text), 'x', order);
    expect(written && isIdenticallyZero(tree.subtract(written, expression(expected)))).toBe(true);
    expect(written && printText(written)).not.toContain('x/x');
  });

  test('are those of the rules of differentiation, in random formulas', () => {
    let compared = 0;
    fc.assert(
      fc.property(expressions, (body) => {
        const written = derivativeWrittenOut(body, 'x', 1);
        if (!written) return;
        const [ours, theirs] = [compile(written, 'x'), compile(derivativeOf(body, 'x'), 'x')];
        for (const x of [-2.3, -0.4, 0.7, 1.9]) {
          // Where doubles keep both.
          const [a, b] = [enclose(ours, x, x), enclose(theirs, x, x)];
          if (!a.sure || !b.sure || !Number.isFinite(evaluateAt(theirs, x))) continue;
          compared++;
          expect([body, x, a.low <= b.high && b.low <= a.high]).toEqual([body, x, true]);
        }
      }),
      replayable,
    );
    expect(compared).toBeGreaterThan(400);
  });
});
