import { describe, expect, test } from '@jest/globals';
import {
  compile,
  evaluateAt,
  printLatex,
  printSpeech,
  printText,
  readCondition,
  readExpression,
  readStatement,
  sentence,
  tree,
  writtenStatement,
  type Scope,
} from '../src/index.ts';
import { longestText } from '../src/language/tokens.ts';

const scope: Scope = {
  names: new Set(['x', 'y', 'a', 'b', 'n', 't', 'h', 'i', 'time', 'level', 'α', 'Δx', 'x_0', 'v_max']),
  functions: new Set(['f', 'g']),
  argumentCounts: new Map([['g', 2]]),
  points: new Set(['P', 'Q']),
};

const read = (text: string) => {
  const reading = readExpression(text, scope);
  if (!reading.ok) throw new Error(`${text}: ${sentence(reading.problem)}`);
  return reading.value;
};
const problemOf = (text: string) => {
  const reading = readExpression(text, scope);
  if (reading.ok) throw new Error(`${text} was read as ${printText(reading.value)}`);
  return reading.problem;
};
const statement = (text: string) => {
  const reading = readStatement(text, scope);
  if (!reading.ok) throw new Error(`${text}: ${sentence(reading.problem)}`);
  return reading.value;
};
const at = (text: string, x: number) => evaluateAt(compile(read(text), 'x'), x);

/** Texts of every kind of notation, each read back from what is written of it. */
const everyNotation = [
  'x^2 if x < 0; 2x + 1 if 0 ≤ x < 3; 7 otherwise',
  'x(12 - x)/5 for 0 ≤ x ≤ 12',
  'x if not (x < 0 or x > 2) and x ≠ 1; 0 otherwise',
  '(x if x < 1; 2 otherwise) for x > 0',
  "f'(3) + f''(x) + f^(4)(x)",
  'd/dx (x^2 sin x)',
  'd²/dx² f(x)',
  'd/dx (x^2) at x = 3',
  '∂/∂x (x^2 y)',
  '∂²/∂y² g(x, y)',
  '∂_1 ∂_2 g(x, y)',
  '∫[0, x] f(t) dt',
  'integral from a to b of f(t) dt',
  '∫[0, 1] ∫[0, x] t dt dx',
  'sum i from 1 to n of f(a + i h)',
  '∑[i = 1, n] i^2',
  'lim[h → 0] (f(x+h) - f(x))/h',
  'lim[x → a+] 1/x - lim[x → a-] 1/x',
  'lim[x → ∞] 1/x + lim[x → -∞] e^x',
  '|PQ|^2 + x_P y_Q',
  '30° + sin 45°',
  'g(x, 2y) + level x',
  'Δx α + v_max',
  'log_2(8) + root(4, x) + n!',
  'x/y/2 - (a - b) - (-x)^2',
  '(d/dx (x^2))(x + 1)',
  '2(sum i from 1 to 3 of i) + 1',
];

describe('notation: every kind is read, written and read again', () => {
  test.each(everyNotation)('%s', (text) => {
    const first = read(text);
    expect(read(printText(first))).toEqual(first);
  });

  test.each(everyNotation)('%s, written as LaTeX, means the same', (text) => {
    const first = read(text);
    const latex = printLatex(first);
    // Partial derivatives of a function's argument have no LaTeX that is read back.
    if (latex.includes('\\partial_')) return;
    const again = readExpression(latex.includes('\\') ? latex : `\\displaystyle ${latex}`, scope);
    expect(again.ok ? printLatex(again.value) : sentence(again.problem)).toBe(latex);
  });

  test.each(everyNotation)('%s has MathML that is well formed, and speech in words', (text) => {
    const { mathml, speech } = writtenStatement({ kind: 'expression', body: read(text) });
    const open: string[] = [];
    for (const [, slash, tag] of mathml.matchAll(/<(\/?)([a-z]+)[^>]*>/g)) {
      if (slash === '') open.push(tag as string);
      else expect(open.pop()).toBe(tag);
    }
    expect(open).toEqual([]);
    expect(speech).toMatch(/^[\p{L}\d ,;:'-]+$/u);
  });
});

describe('pieces, domains and conditions', () => {
  const text = 'x^2 if x < 0; 2x + 1 if 0 ≤ x < 3; 7 otherwise';
  test.each([
    [-2, 4],
    [0, 1],
    [2, 5],
    [3, 7],
    [10, 7],
  ])('the piece at %s', (x, y) => expect(at(text, x)).toBe(y));

  test('a function is not defined outside of its domain', () => {
    expect(at('x(12-x)/5 for 0 ≤ x ≤ 12', 2)).toBe(4);
    expect(at('x(12-x)/5 for 0 ≤ x ≤ 12', 13)).toBeNaN();
  });

  test.each([
    ['0 ≤ x < 3', [0, 2.9], [-0.1, 3]],
    ['x<=1 or x>=2', [1, 2], [1.5]],
    ['not x = 1', [0, 2], [1]],
    ['x != 1 and x > 0', [0.5, 2], [1, -1]],
    ['(x < 0 or x > 2) and x < 5', [-1, 3], [1, 6]],
    ['1/x > 2 or x = 0', [0.1, 0], [1]],
    ['-∞ < x < ∞', [0, 1e9], []],
  ])('%s', (condition, holds, fails) => {
    const value = `(1 if ${condition}; 0 otherwise)`;
    for (const x of holds) expect(at(value, x)).toBe(1);
    for (const x of fails) expect(at(value, x)).toBe(0);
  });

  test('a condition alone is read as one', () => {
    const reading = readCondition('0 ≤ x < 3 and x ≠ 1', scope);
    expect(reading).toMatchObject({ ok: true, value: { kind: 'and' } });
  });

  test('a bracket holds an expression or a condition, as its content says', () => {
    expect(at('(1 if (x + 1) < 3; 0 otherwise)', 1)).toBe(1);
    expect(at('(1 if (x < 3); 0 otherwise)', 1)).toBe(1);
    expect(at('(1 if ((x) < (3)); 0 otherwise)', 4)).toBe(0);
  });
});

describe('statements', () => {
  test.each([
    ['P = (2.5, 1)', 'point'],
    ['Q = (a, f(a))', 'point'],
    ['a = 3', 'value'],
    ['f(x) = x^2', 'function'],
    ['g(x, y) = x^2 y', 'function'],
    ["f''(x) = 2 - x cos x", 'givenDerivative'],
    ['y = 3x', 'equation'],
    ['x = 4', 'equation'],
    ["y - f(3) = f'(3)(x - 3)", 'equation'],
    ['x^2 + y^2 = 25', 'equation'],
    ['0 ≤ x < 3', 'condition'],
    ['3x^2', 'expression'],
    ['f(x) = x if x = 2; 1 otherwise', 'function'],
    ['|x| = 2', 'equation'],
  ])('%s is a %s', (text, kind) => expect(statement(text).kind).toBe(kind));

  test.each([
    'P = (2.5, 1)',
    'g(x, y) = x^2 y',
    "f''(x) = 2 - x cos(x)",
    'x^2 + y^2 = 25',
    '0 ≤ x < 3 and x ≠ 1',
    'f(x) = x(12 - x)/5 for 0 ≤ x ≤ 12',
  ])('%s is written as it was typed', (text) => {
    expect(writtenStatement(statement(text)).text).toBe(text);
  });

  test('the distance of two points is their coordinates’ distance', () => {
    const program = compile(read('|PQ|'), 'x');
    const values: Record<string, number> = { x_P: 1, y_P: 2, x_Q: 4, y_Q: 6 };
    expect(
      evaluateAt(
        program,
        0,
        program.parameters.map((name) => values[name] ?? NaN),
      ),
    ).toBe(5);
  });

  test('a point is not a number', () => {
    expect(problemOf('2P')).toMatchObject({ code: 'pointHere' });
    expect(readStatement('P = (1, 2, 3)', scope)).toMatchObject({
      ok: false,
      problem: { code: 'pointNotUnderstood' },
    });
  });
});

/** [LaTeX, the same as typed] */
const pasted: readonly [string, string][] = [
  ['\\frac{x^2-1}{\\sqrt{x+1}}', '(x^2-1)/sqrt(x+1)'],
  ['\\dfrac12 x', '(1/2)x'],
  ['\\sin^{2} x \\cdot \\cos\\left(2x\\right)', 'sin(x)^2 cos(2x)'],
  ['\\sqrt[3]{x}', 'root(3, x)'],
  ['\\left|x-2\\right|', 'abs(x-2)'],
  ['e^{-x^{2}}', 'e^(-x^2)'],
  ['\\ln\\left(x\\right)', 'ln(x)'],
  ['\\log_{2} \\left(x\\right)', 'log_2(x)'],
  ['\\alpha x_{0} + v_{\\mathrm{max}}', 'α x_0 + v_max'],
  ['\\int_{0}^{1} t^2 \\, dt', '∫[0, 1] t^2 dt'],
  ['∫_0^12 t dt', '∫[0, 12] t dt'],
  ['∫_-1.5^(2+a) t dt', '∫[-1.5, 2+a] t dt'],
  ['∫_(a)^(f(2)) t dt', '∫[a, f(2)] t dt'],
  ['\\int_0^x \\frac{1}{1+t^2}\\,\\mathrm{d}t', '∫[0, x] 1/(1+t^2) dt'],
  ['\\lim_{x \\to 0^+} \\frac{\\sin x}{x}', 'lim[x → 0+] sin(x)/x'],
  ['\\sum_{i=1}^{n} i^2', 'sum i from 1 to n of i^2'],
  ['\\frac{d}{dx} x^3', 'd/dx (x^3)'],
  ['\\frac{\\mathrm{d}^{2}}{\\mathrm{d}x^{2}}(x^3)', 'd²/dx² (x^3)'],
  ['\\frac{\\partial}{\\partial x}(x^2 y)', '∂/∂x (x^2 y)'],
  ['30^\\circ', '30°'],
  ["f'\\left(3\\right)", "f'(3)"],
  ['\\lfloor x \\rfloor', 'floor(x)'],
  ['3\\times x\\div 2', '3*x/2'],
  ['2\\pi', '2π'],
  [
    '\\begin{cases} x^2 & \\text{if } x < 0 \\\\ 2x+1 & 0 \\le x < 3 \\\\ 7 & \\text{otherwise} \\end{cases}',
    '(x^2 if x < 0; 2x+1 if 0 ≤ x < 3; 7 otherwise)',
  ],
];

describe('pasted LaTeX and Unicode mathematics', () => {
  test.each(pasted)('%s', (latex, typed) => expect(read(latex)).toEqual(read(typed)));

  test.each([
    ['x² − ½', 'x^2 - 1/2'],
    ['3·x × 2', '3*x*2'],
    ['x ⩽ 3', 'x ≤ 3'],
    ['f′(x)', "f'(x)"],
    ['x₀ + x⁻¹', 'x_0 + x^(-1)'],
    ['√x ÷ 2', 'sqrt(x)/2'],
    ['¾x', '3/4 x'],
  ])('%s', (unicode, plain) => {
    const [a, b] = [statement(unicode), statement(plain)];
    expect(JSON.stringify(a)).toBe(JSON.stringify(b));
  });

  test('an unknown command is a problem at its place in the pasted text', () => {
    expect(problemOf('x + \\foo{2}')).toMatchObject({
      code: 'latexNotUnderstood',
      from: 4,
      to: 8,
      subject: '\\foo',
    });
    expect(problemOf('\\frac{x}{z}')).toMatchObject({ code: 'unknownName', from: 9, to: 10 });
  });
});

describe('degrees', () => {
  test('the sign stands behind a number or a bracket', () => {
    expect(at('sin 30°', 0)).toBeCloseTo(0.5, 15);
    expect(at('cos (2·30°)', 0)).toBeCloseTo(0.5, 15);
    expect(printText(read('30°'))).toBe('30°');
  });
});

/** [text, code, the marked text, what it would be replaced by] */
const corrected: readonly [string, string, string, string][] = [
  ['2 3', 'numbersSideBySide', '2 3', '2*3'],
  ['sin^-1 x', 'inversePower', 'sin^-1', 'arcsin'],
  ['(x+1', 'bracketNotClosed', '(x+1', '(x+1)'],
  ['|x-2', 'barNotClosed', '|x-2', '|x-2|'],
  ['x+1)', 'bracketNotOpened', ')', ''],
  ['sin', 'functionWithoutArgument', 'sin', 'sin(x)'],
  ['f + 1', 'missingFunctionBracket', 'f', 'f(x)'],
  ['Level x', 'unknownName', 'Level', 'level'],
  ['tmie', 'unknownName', 'tmie', 'time'],
  ['1,5x', 'decimalComma', '1,5', '1.5'],
  ['∫[0, 1] x^2', 'differentialMissing', '∫[0, 1] x^2', '∫[0, 1] x^2 dx'],
  ['x2', 'unknownName', 'x2', 'x^2'],
  ['x^2 {1<=x<=3}', 'relationHere', '{1<=x<=3}', 'for 1<=x<=3'],
  ['x^2 (x > 1)', 'relationHere', '(x > 1)', 'for x > 1'],
  ['x^2 [1, 3]', 'relationHere', '[1, 3]', 'for 1 ≤ x ≤ 3'],
];

describe('spoken and printed, a product shows where its parts end', () => {
  test.each([
    ['|x|^2', 'the absolute value of x, end absolute value squared', '\\left|x\\right|^{2}'],
    ['√2 x', 'the square root of 2, end root times x', '\\sqrt{2}x'],
    ['sin(2)(3)', 'sine of 2, times 3', '\\sin\\left(2\\right)\\cdot 3'],
    ['sin(x)^2 y', 'sine squared of x, times y', '\\sin^{2}\\left(x\\right)y'],
    ['Δx + a', 'Delta x plus a', '\\Delta x+a'],
  ])('%s', (text, speech, latex) => {
    expect(printSpeech(read(text))).toBe(speech);
    expect(printLatex(read(text))).toBe(latex);
  });
});

test('three values and more for min and max', () => {
  expect(at('max(x, 2, 1)', 1.5)).toBe(2);
  expect(at('min(x, 2, 1, 0.5)', 1.5)).toBe(0.5);
});

describe('errors', () => {
  test.each([
    ['Sin x', 'sin(x)'],
    ['2COS(x)', '2cos(x)'],
    ['PI x', 'π x'],
    ['Ln(x)', 'ln(x)'],
  ])('%s: what differs from a built-in name in capitals only is that name', (text, meant) => {
    // Even where every letter is a name of its own.
    const letters = [...'SinCOSPLx'];
    const reading = readStatement(text, { names: new Set(letters), functions: new Set() });
    expect(reading.ok && 'body' in reading.value && printText(reading.value.body)).toBe(meant);
  });

  test('a power of ten with a small e, and a point without a name, are told how to be written', () => {
    expect(problemOf('2.5e6 x')).toMatchObject({ code: 'powerOfTen', from: 0, to: 5, correction: '2.5E6' });
    const reading = readStatement('(2, 5)', scope);
    expect(reading.ok || reading.problem).toMatchObject({
      code: 'pointWithoutName',
      correction: 'P = (2, 5)',
    });
  });

  test.each(corrected)('%s', (text, code, marked, correction) => {
    const problem = problemOf(text);
    expect(problem.code).toBe(code);
    expect(text.slice(problem.from, problem.to)).toBe(marked);
    expect(problem.correction).toBe(correction);
    expect(sentence(problem)).toMatch(/[.?]$/);
  });

  test.each(['x+1)', '(x+1', '|x-2', '2 3', '1,5x', 'Level x', '∫[0, 1] x^2', 'x^2 {1<=x<=3}', 'x^2 [1, 3]'])(
    '%s is mended by its correction',
    (text) => {
      const { from, to, correction = '' } = problemOf(text);
      expect(readExpression(text.slice(0, from) + correction + text.slice(to), scope).ok).toBe(true);
    },
  );

  test.each([
    ['∞ + 1', 'infinityHere'],
    ['x < 3', 'relationHere'],
    ['x if', 'unexpectedEnd'],
    ['x if 3', 'conditionExpected'],
    ['7 otherwise; x if x < 1', 'otherwiseNotLast'],
    ['x if x < 1; 3', 'wordMissing'],
    ['sum i from 1 of i', 'wordMissing'],
    ['∫ x dx', 'boundsMissing'],
    ['d²/dx³ (x)', 'unexpectedSign'],
    ['g(x)', 'wrongArgumentCount'],
    ['sin(x, y)', 'wrongArgumentCount'],
    ['lim[x → 0', 'bracketNotClosed'],
    ['\\frac{x', 'bracketNotClosed'],
    ['', 'empty'],
  ])('%s is refused as %s', (text, code) => {
    const problem = problemOf(text);
    expect(problem.code).toBe(code);
    expect(problem.from).toBeLessThanOrEqual(problem.to);
    expect(problem.to).toBeLessThanOrEqual(text.length);
  });
});

test.each([
  ['∫ x dx', 'Give the bounds: ∫_0^3 f(x) dx.'],
  ['integral of x dx', 'Give the bounds: ∫_0^3 f(x) dx.'],
  ['\\int x dx', 'Give the bounds: ∫_0^3 f(x) dx.'],
  ['∑ x', 'Give the bounds: ∑[i = 1, 5] f(i).'],
  ['(x < 3) + 1', 'To limit x, write: for 1 ≤ x ≤ 3.'],
  ['∂(x)', 'Say which variable it is differentiated by, as in d/dt (3t^2).'],
])('%s: %s', (text, words) => {
  expect(sentence(problemOf(text))).toBe(words);
});

test.each(['∫_0^3 f(x) dx', '∑[i = 1, 5] f(i)', 'f(x) for 1 ≤ x ≤ 3'])(
  '%s, as a sentence says it, is read',
  (text) => {
    expect(readExpression(text, scope).ok).toBe(true);
  },
);

describe('any text is answered within a bound of steps', () => {
  test('a text of more than 10,000 characters is refused at once', () => {
    const long = `x${'+1'.repeat(longestText / 2)}`;
    expect(problemOf(long)).toMatchObject({ code: 'tooLong' });
    expect(problemOf(`\\frac${long}`)).toMatchObject({ code: 'tooLong' });
  });

  test.each([
    ['brackets', '('.repeat(9000)],
    ['bars', '|'.repeat(9000)],
    ['signs', '-'.repeat(9000)],
    ['integrals', '∫[0,1]'.repeat(1600)],
    ['nested integrals', '∫[0,1] '.repeat(150) + 'x' + ' dx'.repeat(150)],
    ['conditions', `x if ${'('.repeat(180)}x<1${')'.repeat(180)}`],
    ['negations', `x if ${'not '.repeat(2000)}x<1`],
    ['braces', '\\frac{'.repeat(1500)],
    ['cases', '\\begin{cases}'.repeat(700)],
    ['letters', 'xa'.repeat(4900)],
    ['powers', 'x^'.repeat(4900) + 'x'],
    ['limits', 'lim[x→0]'.repeat(1200) + 'x'],
  ])('%s', (_name, text) => {
    const reading = readExpression(text, scope);
    if (reading.ok) expect(tree.size(reading.value)).toBeLessThan(20_000);
    else expect(sentence(reading.problem)).toMatch(/[.?]$/);
  });
});
