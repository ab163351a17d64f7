import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { taylorCoefficients } from '../src/index.ts';
import { enclosedJet } from '../src/evaluate/enclosedJets.ts';
import { coefficient, variable } from '../src/numbers/intervalJet.ts';
import { builtIns } from '../src/functions/table.ts';
import { cases } from '../../../tests/cases.ts';
import { program } from './scope.ts';

const length = 7;

const over = (text: string, low: number, high: number) =>
  enclosedJet(program(text), variable({ low, high, sure: true }, length));

/** What the doubles of a coefficient worked out at one place may be off by. */
const rounding = 1e-9;

/** That every coefficient at a place lies in its enclosure, and that nothing is sure that has no value there. */
function expectInside(text: string, low: number, high: number, x: number): void {
  if (!(x > low && x < high)) return;
  const enclosed = over(text, low, high);
  const told = taylorCoefficients(program(text), x, length - 1);
  told.forEach((c, k) => {
    const range = coefficient(enclosed, k);
    const where = `${text}: coefficient ${k} at ${x} of [${low}, ${high}]`;
    if (range.sure && Number.isNaN(c)) throw new Error(`${where} is sure, and has no value`);
    if (Number.isNaN(c) || Number.isNaN(range.low)) return;
    const slack = rounding * Math.max(1, Math.abs(c));
    if (!(c >= range.low - slack && c <= range.high + slack))
      throw new Error(`${where} is ${c}, beyond ${range.low} … ${range.high}`);
  });
}

/** One example of each built-in function, with bounds between which it is tried. */
const examples: readonly (readonly [text: string, low: number, high: number])[] = [
  ['sin x', -9, 9],
  ['cos x', -9, 9],
  ['tan x', -4, 4],
  ['cot x', -4, 4],
  ['sec x', -4, 4],
  ['csc x', -4, 4],
  ['arcsin x', -1.2, 1.2],
  ['arccos x', -1.2, 1.2],
  ['arctan x', -5, 5],
  ['arccot x', -5, 5],
  ['sin(40x°)', -9, 9],
  ['sinh x', -4, 4],
  ['cosh x', -4, 4],
  ['tanh x', -4, 4],
  ['arsinh x', -4, 4],
  ['arcosh x', 0.5, 5],
  ['artanh x', -1.2, 1.2],
  ['arcsec x', -5, 5],
  ['arccsc x', -5, 5],
  ['sech x', -4, 4],
  ['csch x', -4, 4],
  ['coth x', -4, 4],
  ['arsech x', -0.2, 1.2],
  ['arcsch x', -4, 4],
  ['arcoth x', -5, 5],
  ['e^x', -5, 5],
  ['ln x', -0.5, 9],
  ['log x', -0.5, 9],
  ['log_3(x)', -0.5, 9],
  ['sqrt x', -0.5, 9],
  ['cbrt x', -3, 3],
  ['root(5, x)', -3, 3],
  ['abs(x) + x^2', -3, 3],
  ['x sign x', -3, 3],
  ['x^2 floor x', -3, 3],
  ['x ceil x', -3, 3],
  ['x round x', -3, 3],
  ['min(x, x^2)', -2, 2],
  ['max(sin x, cos x)', -5, 5],
  ['mod(x^2, 2)', -3, 3],
  ['x!', -1, 5],
  ['x^3 if x < 1; 2 - x otherwise', -1, 3],
  ['x^x', 0.1, 4],
  ['x^(-3)', -3, 3],
  ['x^(2/3)', -3, 3],
  ['2^x/(1 + x^4)', -3, 3],
  ['sum k from 1 to 4 of x^k/k', -2, 2],
  ['∫[0, x] e^(-t^2) dt', -2, 2],
];

/** From 0 to 1, without numbers so small that doubles overflow on the way. */
const share = fc.integer({ min: 0, max: 2 ** 20 }).map((n) => n / 2 ** 20);

describe('enclosures of Taylor coefficients', () => {
  test('are tried with every built-in function', () => {
    const used = new Set(examples.flatMap(([text]) => program(text).steps.flatMap((step) => (step.op === 'call' ? [step.name] : [])))); // prettier-ignore
    expect(builtIns.map(({ name }) => name).filter((name) => !used.has(name))).toEqual([]);
  });

  test.each(examples)('of %s from %d to %d hold the coefficients at every place', (text, low, high) => {
    fc.assert(
      fc.property(share, share, share, (start, width, inside) => {
        const from = low + start * (high - low);
        // Narrow parts and wide ones.
        const to = Math.min(high, from + (high - low) * width ** 4);
        const x = Math.min(to, from + inside * (to - from));
        expectInside(text, from, to, x);
      }),
      { numRuns: cases(60, 2000), seed: 17 },
    );
  });

  test('hold those of random compositions', () => {
    const leaf = fc.constantFrom('x', 'x', '2', '0.3', '(-1)', 'π');
    const unary = ['sin', 'cos', 'exp', 'arctan', 'sqrt', 'abs', 'ln', 'tanh', 'cbrt'];
    const { tree: formula } = fc.letrec<{ tree: string }>((tie) => ({
      tree: fc.oneof(
        { maxDepth: 4 },
        leaf,
        fc.tuple(fc.constantFrom(...unary), tie('tree')).map(([name, of]) => `${name}(${of})`),
        fc
          .tuple(fc.constantFrom('+', '-', '*', '/', '^'), tie('tree'), tie('tree'))
          .map(([sign, a, b]) => (sign === '^' ? `(${a})^2` : `(${a}) ${sign} (${b})`)),
      ),
    }));
    const place = share.map((part) => 6 * part - 3);
    fc.assert(
      fc.property(formula, place, share, share, (text, from, width, inside) => {
        const to = from + width ** 4;
        expectInside(text, from, to, Math.min(to, from + inside * (to - from)));
      }),
      { numRuns: cases(300, 20_000), seed: 18 },
    );
  });

  test('tell where a derivative is missing', () => {
    expect(over('abs(x)', -1, 1).known).toBe(1);
    expect(over('floor(x)', 0.5, 1.5).known).toBe(0);
    expect(over('sqrt x', 0, 1).known).toBe(1);
    expect(over('1/x', -1, 1).known).toBe(0);
    expect(over('x^3', -1, 1).known).toBe(length);
  });
});
