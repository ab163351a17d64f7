import { describe, expect, test } from '@jest/globals';
import { evaluateAt, headOf, printLatex, printText, readDefinition, sentence } from '../src/index.ts';
import { expression, problemOf, program } from './scope.ts';

/** [typed, what it means with every sign and bracket written] */
const readings: readonly [string, string][] = [
  ['3x^2-5x-2', '((3*(x^2)) - (5*x)) - 2'],
  ['x(x-1)', 'x*(x-1)'],
  ['(x+1)(x-2)', '(x+1)*(x-2)'],
  ['3 sin 2x', '3*sin(2*x)'],
  ['ab', 'a*b'],
  ['2·3×x', '(2*3)*x'],
  ['1/2 x', '(1/2)*x'],
  ['1/(2x)', '1/(2*x)'],
  ['2**3', '2^3'],
  ['-x^2', '-(x^2)'],
  ['2^x^2', '2^(x^2)'],
  ['x²', 'x^2'],
  ['x⁻¹', 'x^(-1)'],
  ['√x', 'sqrt(x)'],
  ['√(x+1)', 'sqrt(x+1)'],
  ['∛x', 'cbrt(x)'],
  ['root(4, x)', 'root(4,x)'],
  ['|x-2|', 'abs(x-2)'],
  ['2|x||x+1|', '(2*abs(x))*abs(x+1)'],
  ['sin x cos x', 'sin(x)*cos(x)'],
  ['sin x^2', 'sin(x^2)'],
  ['sin^2 x', '(sin(x))^2'],
  ['sin² x', '(sin(x))^2'],
  ['sin x/2', '(sin(x))/2'],
  ['ln sin x', 'ln(sin(x))'],
  ['sin -x', 'sin(-x)'],
  ['a(x+1)', 'a*(x+1)'],
  ['e^2x', '(e^2)*x'],
  ['x^1/2', '(x^1)/2'],
  ['2e^x', '2*(e^x)'],
  ['1E-3x', '0.001*x'],
  ['.5x', '0.5*x'],
  ['pi x', 'π*x'],
  ['πx', 'π*x'],
  ['log_2(8)', 'ln(8)/ln(2)'],
  ['log 100', 'ln(100)/ln(10)'],
  ['asin x', 'arcsin(x)'],
  ['5!', '120'],
  ['30°', '30*π/180'],
  ['level x', 'level*x'],
  ['levelx', 'level*x'],
  ['x0 x', 'x_0*x'],
  ['x − 1', 'x-1'],
];

describe('what a textbook prints is read', () => {
  test.each(readings)('%s', (typed, meaning) => {
    const parameters = (text: string) =>
      program(text).parameters.map((name) => ({ a: 2, b: 3, level: 7, x_0: 5 })[name] ?? NaN);
    for (const x of [0.3, 0.7, 0.9]) {
      const [read, meant] = [typed, meaning].map((text) => evaluateAt(program(text), x, parameters(text)));
      expect(read).toBeCloseTo(meant as number, 12);
    }
    const numbersOnly = (text: string) => JSON.stringify(expression(text));
    const isSpelledDifferently = /log|!|°|E/.test(typed);
    if (!isSpelledDifferently)
      expect(numbersOnly(typed).replaceAll('"0.5"', '".5"')).toBe(
        numbersOnly(meaning).replaceAll('"0.5"', '".5"'),
      );
  });
});

describe('a text that cannot be read gets one sentence at its place', () => {
  const problems: readonly [string, string, number, number][] = [
    ['2 3', 'numbersSideBySide', 0, 3],
    ['sinn x', 'unknownName', 0, 4],
    ['x + Sim x', 'unknownName', 4, 7],
    ['sin', 'functionWithoutArgument', 0, 3],
    ['2 sin', 'functionWithoutArgument', 2, 5],
    ['()', 'emptyBracket', 0, 2],
    ['|x', 'barNotClosed', 0, 2],
    ['||', 'emptyBracket', 0, 2],
    ['||x|', 'barNotClosed', 0, 4],
    ['(x+1', 'bracketNotClosed', 0, 4],
    ['x)', 'bracketNotOpened', 1, 2],
    ['x +', 'unexpectedEnd', 2, 3],
    ['x * / 2', 'unexpectedSign', 4, 5],
    ['sin^-1 x', 'inversePower', 0, 6],
    ['1,5x', 'decimalComma', 0, 3],
    ['x $ 2', 'unexpectedCharacter', 2, 3],
    ['', 'empty', 0, 0],
    ['f x', 'missingFunctionBracket', 0, 1],
    ['root(x)', 'wrongArgumentCount', 0, 4],
  ];
  test.each(problems)('%s', (text, code, from, to) => {
    const problem = problemOf(text);
    expect(problem).toMatchObject({ code, from, to });
    expect(sentence(problem)).toMatch(/^[“A-Z0-9a-z].*[.?]$/u);
  });

  test('a name that differs in capitals, or by one letter, is offered', () => {
    expect(problemOf('Level').correction).toBe('level');
    expect(problemOf('sinn x').correction).toBe('sin');
    expect(problemOf('lvel').correction).toBe('level');
    expect(problemOf('x2').correction).toBe('x^2');
    expect(problemOf('1,5').correction).toBe('1.5');
  });

  test('text over 10,000 characters, deep nesting and long chains are refused, not choked on', () => {
    expect(problemOf('x'.repeat(10_001)).code).toBe('tooLong');
    expect(problemOf('('.repeat(5000)).code).toBe('tooNested');
    expect(problemOf('-'.repeat(9000) + 'x').code).toBe('tooNested');
    expect(problemOf('x' + '+x'.repeat(4000)).code).toBe('tooLarge');
    expect(problemOf('sin '.repeat(2000)).code).toBe('tooNested');
  });

  test('a chain that is just short enough is read, differentiated and written', () => {
    const long = expression('x' + '+x'.repeat(900));
    expect(printText(long).length).toBeGreaterThan(3000);
    expect(printLatex(long)).toContain('x+x');
  });
});

describe('definitions', () => {
  test('a function, its variable and its body', () => {
    const reading = readDefinition('L(t) = 2 + sin t');
    expect(reading).toMatchObject({ ok: true, value: { name: 'L', variable: 't' } });
  });
  test('a constant', () => {
    expect(readDefinition('v_max = 3')).toMatchObject({
      ok: true,
      value: { name: 'v_max', variable: undefined },
    });
  });
  test('the head is known even while the body cannot be read', () => {
    expect(headOf('g(x) = 2 + + )')).toEqual({ name: 'g', variable: 'x' });
    expect(headOf('2x + 1')).toBeUndefined();
  });
  test.each([
    ['sin(x) = 2', 'reservedName', 0],
    ['e = 3', 'reservedName', 0],
    ['2x = 3', 'headNotUnderstood', 0],
    ['f(x) =', 'bodyMissing', 6],
    ['f(x) = x = 2', 'secondEquals', 9],
  ])('%s', (text, code, from) => {
    expect(readDefinition(text)).toMatchObject({ ok: false, problem: { code, from } });
  });
});

describe('writing out', () => {
  test.each([
    ['3x^2 - 5x - 2', '3x^{2}-5x-2'],
    ['(x+1)/(x-1)', '\\frac{x+1}{x-1}'],
    ['sin^2 x', '\\sin^{2} x'],
    ['sin(x) x', '\\sin\\left(x\\right)x'],
    ['sin(0.7x)', '\\sin\\left(0.7x\\right)'],
    ['x^(2/3)', 'x^{2/3}'],
    ['√(x+1)', '\\sqrt{x+1}'],
    ['|x|', '\\left|x\\right|'],
    ['(1/x)^2', '\\left(\\frac{1}{x}\\right)^{2}'],
    ['x_0 + 1E-3', 'x_{0}+1\\cdot 10^{-3}'],
    ["f''(3)", "f''\\left(3\\right)"],
  ])('%s as LaTeX', (text, latex) => {
    expect(printLatex(expression(text))).toBe(latex);
  });
});
