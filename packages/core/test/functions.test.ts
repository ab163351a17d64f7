import { describe, expect, test } from '@jest/globals';
import {
  compile,
  derivativesAt,
  enclose,
  evaluateAt,
  printLatex,
  printText,
  readExpression,
} from '../src/index.ts';
import { exactly } from '../src/numbers/ball.ts';
import * as big from '../src/numbers/bigFloat.ts';
import { builtIns } from '../src/functions/table.ts';
import { expression, program } from './scope.ts';

/** Points inside the domain of every function of one variable, for the checks that go through the table. */
const samples: Readonly<Record<string, readonly number[]>> = {
  arcosh: [1.2, 2, 5],
  arcsin: [-0.9, 0.1, 0.8],
  arccos: [-0.9, 0.1, 0.8],
  artanh: [-0.9, 0.1, 0.8],
  arcsec: [-7, -1.2, 1.2, 5],
  arccsc: [-7, -1.2, 1.2, 5],
  arsech: [0.05, 0.4, 0.9],
  arcoth: [-7, -1.2, 1.2, 5],
  ln: [0.1, 1, 7],
  log: [0.1, 1, 7],
  sqrt: [0.1, 1, 7],
};
const usual = [-1.3, 0.4, 1.2];
const ofOneVariable = builtIns.filter(({ argumentCount }) => argumentCount.most === 1);
const smooth = ofOneVariable.filter(({ derivatives }) => derivatives[0] !== undefined);

describe('the table of built-ins', () => {
  test('no spelling belongs to two functions, and no name stands twice', () => {
    const spellings = builtIns.flatMap((row) => row.spellings);
    expect(new Set(spellings).size).toBe(spellings.length);
    expect(new Set(builtIns.map(({ name }) => name)).size).toBe(builtIns.length);
  });

  test.each(builtIns.flatMap(({ name, spellings }) => spellings.map((spelling) => [spelling, name])))(
    '%s is read as %s',
    (spelling, name) => {
      const row = builtIns.find((candidate) => candidate.name === name);
      const args = row?.argumentCount.least === 2 ? '(2, x)' : '(x)';
      expect(expression(spelling + args)).toMatchObject({ kind: 'call', name });
    },
  );

  test.each(smooth.map(({ name }) => [name]))(
    'the row of %s: its derivative formula agrees with its jet',
    (name) => {
      for (const x of samples[name] ?? usual) {
        const formula = evaluateAt(program(`${name}(x)`, 1), x);
        const [, jet = NaN] = derivativesAt(program(`${name}(x)`), x, 1);
        expect(formula).toBeCloseTo(jet, 9);
      }
    },
  );

  test.each(ofOneVariable.map(({ name }) => [name]))('the row of %s: its range holds its values', (name) => {
    const f = program(name === 'factorial' ? 'x!' : `${name}(x)`);
    for (const x of samples[name] ?? usual) {
      for (const width of [0, 1e-9, 0.01, 0.3]) {
        const range = enclose(f, x - width, x + width);
        const value = evaluateAt(f, x);
        if (!Number.isNaN(value)) expect(value >= range.low && value <= range.high).toBe(true);
        else expect(range.sure).toBe(false);
      }
    }
  });

  test.each(builtIns.map((row) => [row.name, row.argumentCount.least] as const))(
    'the row of %s is written out as text that reads back, and as LaTeX',
    (name, count) => {
      const args =
        count === 2
          ? [
              { kind: 'number', text: '2' },
              { kind: 'name', name: 'x' },
            ]
          : [{ kind: 'name', name: 'x' }];
      const tree = { kind: 'call', name, arguments: args } as unknown as ReturnType<typeof expression>;
      expect(expression(printText(tree))).toEqual(tree);
      expect(printLatex(tree)).toMatch(/x/);
    },
  );
});

/** Arguments on both sides of every boundary of the table. */
const arguments_ = [-7, -2.5, -1, -0.6, 0, 0.25, 1, 1.5, 4];
const second = [-1.5, 0.5, 2, 3];
const bits = 200;

/** Every row with arguments to try: one number, or two. */
const tried = builtIns.map((row) => ({
  row,
  lists:
    row.argumentCount.most === 1
      ? arguments_.map((x) => [x])
      : arguments_.flatMap((x) => second.map((y) => (row.name === 'root' ? [3, x] : [x, y]))),
}));

/** A formula of the table at given arguments. */
function formulaAt(text: string, [x = NaN, y = NaN]: readonly number[]): number {
  const reading = readExpression(text, { names: new Set(['x', 'y']), functions: new Set() });
  if (!reading.ok) throw new Error(text);
  const compiled = compile(reading.value, 'x');
  return evaluateAt(
    compiled,
    x,
    compiled.parameters.map(() => y),
  );
}

describe('what a row says agrees with itself', () => {
  test.each(tried.map(({ row, lists }) => [row.name, row, lists] as const))(
    '%s: its value to any number of digits is its value',
    (_name, row, lists) => {
      for (const list of lists) {
        const value = row.value(...list);
        const [x, y = x] = list.map(big.fromDouble) as [big.BigFloat, big.BigFloat?];
        const ball = row.ball(bits, exactly(x), exactly(y));
        if (Number.isNaN(value)) expect({ list, ball }).toEqual({ list, ball: null });
        else {
          const rounded = ball && ball !== 'unsure' ? big.toDouble(ball.middle) : NaN;
          const isClose =
            Math.abs(rounded - value) <= 1e-13 * Math.max(1, Math.abs(value)) || Math.abs(value) > 1e15;
          expect({ list, rounded, value, isClose }).toMatchObject({ isClose: true });
        }
      }
    },
  );

  test.each(tried.map(({ row, lists }) => [row.name, row, lists] as const))(
    '%s: it has a value exactly in its domain',
    (name, row, lists) => {
      const domain = row.domain ?? '0 = 0';
      for (const list of lists) {
        // The domain of a root is said for a literal degree by its parity; the table's row is for any degree.
        if (name === 'root') continue;
        const holds = formulaAt(`(1 if ${domain}; 0 otherwise)`, list);
        expect({ list, hasValue: !Number.isNaN(row.value(...list)) }).toEqual({
          list,
          hasValue: holds === 1,
        });
      }
    },
  );

  test.each(
    tried.filter(({ row }) => row.inTermsOf).map(({ row, lists }) => [row.name, row, lists] as const),
  )('%s: it is what it is in terms of simpler functions', (_name, row, lists) => {
    for (const list of lists) {
      const [value, simpler] = [row.value(...list), formulaAt(row.inTermsOf as string, list)];
      if (Number.isNaN(value)) expect(simpler).toBeNaN();
      else expect(simpler).toBeCloseTo(value, 10);
    }
  });

  test.each(tried.filter(({ row }) => row.sides).map(({ row, lists }) => [row.name, row, lists] as const))(
    '%s: on either side of its boundary it is the simpler formula',
    (_name, row, lists) => {
      for (const list of lists) {
        const boundary = formulaAt(row.boundaries?.[0] as string, list);
        if (boundary === 0) continue;
        const side = boundary > 0 ? row.sides?.positive : row.sides?.negative;
        expect(formulaAt(side as string, list)).toBe(row.value(...list));
      }
    },
  );

  test('every row has a word to be spoken by', () => {
    for (const { spoken } of builtIns) expect(spoken).toMatch(/^[a-z ]{3,}$/);
  });
});

/**
 * Special values. Source: Abramowitz & Stegun, Handbook of Mathematical Functions (1964), tables 4.3.46
 * (circular functions), 4.4 (inverse circular functions), 4.5 (hyperbolic functions), 4.1 (logarithms);
 * the closed forms are from memory, their decimals are worked out here.
 */
const specialValues: readonly [string, number, number][] = [
  ['sin x', Math.PI / 6, 1 / 2],
  ['sin x', Math.PI / 4, Math.SQRT1_2],
  ['sin x', Math.PI / 3, Math.sqrt(3) / 2],
  ['sin x', Math.PI / 12, (Math.sqrt(6) - Math.sqrt(2)) / 4],
  ['cos x', Math.PI / 3, 1 / 2],
  ['cos x', Math.PI / 5, (1 + Math.sqrt(5)) / 4],
  ['cos x', Math.PI, -1],
  ['tan x', Math.PI / 4, 1],
  ['tan x', Math.PI / 8, Math.SQRT2 - 1],
  ['tan x', Math.PI / 12, 2 - Math.sqrt(3)],
  ['cot x', Math.PI / 6, Math.sqrt(3)],
  ['sec x', Math.PI / 3, 2],
  ['csc x', Math.PI / 6, 2],
  ['arcsin x', 1 / 2, Math.PI / 6],
  ['arccos x', -1, Math.PI],
  ['arccos x', Math.SQRT1_2, Math.PI / 4],
  ['arctan x', 1, Math.PI / 4],
  ['arctan x', Math.sqrt(3), Math.PI / 3],
  ['arccot x', 1, Math.PI / 4],
  ['arccot x', -1, (3 * Math.PI) / 4],
  ['sinh x', Math.log(2), 3 / 4],
  ['cosh x', Math.log(2), 5 / 4],
  ['tanh x', Math.log(2), 3 / 5],
  ['arsinh x', 3 / 4, Math.log(2)],
  ['arcosh x', 5 / 4, Math.log(2)],
  ['artanh x', 3 / 5, Math.log(2)],
  ['arcsec x', 2, Math.PI / 3],
  ['arcsec x', -1, Math.PI],
  ['arccsc x', 2, Math.PI / 6],
  ['arccsc x', -1, -Math.PI / 2],
  ['sech x', Math.log(2), 4 / 5],
  ['csch x', Math.log(2), 4 / 3],
  ['coth x', Math.log(2), 5 / 3],
  ['arsech x', 3 / 5, Math.log(3)],
  ['arcsch x', 3 / 4, Math.log(3)],
  ['arcoth x', 5 / 3, Math.log(2)],
  ['ln x', Math.E ** 2, 2],
  ['log x', 1000, 3],
  ['log_2(x)', 1 / 8, -3],
  ['log_3(x)', 81, 4],
  ['exp x', 1, Math.E],
  ['√x', 144, 12],
  ['∛x', -27, -3],
  ['root(5, x)', -32, -2],
  ['x^(2/5)', -32, 4],
  ['x^(3/4)', 16, 8],
  ['x!', 10, 3_628_800],
  ['|x|', -2.5, 2.5],
  ['sign x', -7, -1],
  ['floor x', -1.5, -2],
  ['ceil x', -1.5, -1],
  ['round x', 2.5, 3],
  ['mod(x, 5)', -3, 2],
  ['0^x', 0, 1],
];

describe('special values of handbooks', () => {
  test.each(specialValues)('%s at %f is %f', (text, x, value) => {
    expect(evaluateAt(program(text), x)).toBeCloseTo(value, 12);
  });

  test.each([
    ['ln x', 0],
    ['ln x', -1],
    ['√x', -1],
    ['root(4, x)', -16],
    ['x^0.25', -16],
    ['arcsin x', 1.1],
    ['arcosh x', 0.9],
    ['artanh x', 1],
    ['arcsec x', 0.5],
    ['arccsc x', 0],
    ['csch x', 0],
    ['coth x', 0],
    ['arsech x', 1.5],
    ['arsech x', 0],
    ['arcsch x', 0],
    ['arcoth x', 1],
    ['1/x', 0],
    ['cot x', 0],
    ['x^(-2)', 0],
    ['x!', 2.5],
    ['root(x, 8)', 0.5],
    ['log_1(x)', 3],
  ])('%s has no value at %f', (text, x) => {
    expect(evaluateAt(program(text), x)).toBeNaN();
  });
});

/**
 * Maclaurin series. Source: the usual table of a first calculus course (Stewart, Calculus, section
 * "Taylor and Maclaurin Series"; from memory). [formula, coefficients of 1, x, x², …]
 */
const series: readonly [string, readonly number[]][] = [
  ['e^x', [1, 1, 1 / 2, 1 / 6, 1 / 24, 1 / 120, 1 / 720]],
  ['sin x', [0, 1, 0, -1 / 6, 0, 1 / 120, 0]],
  ['cos x', [1, 0, -1 / 2, 0, 1 / 24, 0, -1 / 720]],
  ['tan x', [0, 1, 0, 1 / 3, 0, 2 / 15, 0]],
  ['sec x', [1, 0, 1 / 2, 0, 5 / 24, 0, 61 / 720]],
  ['arctan x', [0, 1, 0, -1 / 3, 0, 1 / 5, 0]],
  ['arcsin x', [0, 1, 0, 1 / 6, 0, 3 / 40, 0]],
  ['ln(1+x)', [0, 1, -1 / 2, 1 / 3, -1 / 4, 1 / 5, -1 / 6]],
  ['1/(1-x)', [1, 1, 1, 1, 1, 1, 1]],
  ['√(1+x)', [1, 1 / 2, -1 / 8, 1 / 16, -5 / 128, 7 / 256, -21 / 1024]],
  ['(1+x)^(1/3)', [1, 1 / 3, -1 / 9, 5 / 81, -10 / 243, 22 / 729, -154 / 6561]],
  ['sinh x', [0, 1, 0, 1 / 6, 0, 1 / 120, 0]],
  ['cosh x', [1, 0, 1 / 2, 0, 1 / 24, 0, 1 / 720]],
  ['tanh x', [0, 1, 0, -1 / 3, 0, 2 / 15, 0]],
  ['artanh x', [0, 1, 0, 1 / 3, 0, 1 / 5, 0]],
  ['arsinh x', [0, 1, 0, -1 / 6, 0, 3 / 40, 0]],
  ['e^x sin x', [0, 1, 1, 1 / 3, 0, -1 / 30, -1 / 90]],
  ['x^3 - 2x', [0, -2, 0, 1, 0, 0, 0]],
];

describe('Taylor coefficients at 0 are those of the usual table', () => {
  test.each(series)('%s', (text, coefficients) => {
    const derivatives = derivativesAt(program(text), 0, 6);
    let factorial = 1;
    coefficients.forEach((coefficient, k) => {
      factorial *= Math.max(1, k);
      expect((derivatives[k] as number) / factorial).toBeCloseTo(coefficient, 12);
    });
  });

  test.each(series)('%s: the symbolic derivatives of order 1 to 4 give the same', (text, coefficients) => {
    let factorial = 1;
    for (let order = 1; order <= 4; order++) {
      factorial *= order;
      const value = evaluateAt(program(text, order), 0);
      expect(value / factorial).toBeCloseTo(coefficients[order] as number, 10);
    }
  });
});
