import { describe, expect, test } from '@jest/globals';
import {
  evaluateAt,
  compile,
  printText,
  readExpression,
  readStatement,
  sentence,
  toldValue,
  printLatex,
  mathmlOf,
  printSpeech,
  type Expression,
  type Statement,
} from '../src/index.ts';
import { derivativesAt } from '../src/values/jets.ts';

const scope = {
  names: new Set(['a', 'n', 't', 'g_1', 'a_pi', 'spin']),
  functions: new Set(['f', 'g']),
};

function statement(text: string): Statement {
  const reading = readStatement(text, scope);
  if (!reading.ok) throw new Error(`${text}: ${sentence(reading.problem)}`);
  return reading.value;
}
function bodyOf(text: string) {
  const read = statement(text);
  if (!('body' in read)) throw new Error(`${text} is a ${read.kind}`);
  return read.body;
}
function problemOf(text: string) {
  const reading = readStatement(text, scope);
  if (reading.ok) throw new Error(`${text} was read`);
  return reading.problem;
}

/** [as it stands on a blackboard or in a document, the same in plain notation] */
const same: readonly [string, string][] = [
  // Exponents and bounds without braces are whole numbers.
  ['∫_0^1 x^10 dx', '∫[0, 1] x^(10) dx'],
  ['∑_{k=1}^3 2^10', 'sum k from 1 to 3 of 2^(10)'],
  ['\\frac12 x^12', '1/2 x^(12)'],
  ['\\int_0^1 x^10\\,dx', '∫[0, 1] x^(10) dx'],
  ['∫_0^1 e^(-x) dx', '∫[0, 1] e^(-x) dx'],
  ['∫₀¹² x dx', '∫[0, 12] x dx'],
  ['∫₀^π sin x dx', '∫[0, π] sin x dx'],
  ['∫₋₁² x dx', '∫[-1, 2] x dx'],
  // Mixed numbers, long numbers, hundredths.
  ['3⅓', '3 + 1/3'],
  ['2½ x', '(2 + 1/2) x'],
  ['12\u202f000 x', '12000x'],
  ['1\u00a0000\u00a0000', '1000000'],
  ['10%', '10/100'],
  ['5% x', '5/100 x'],
  // Limits.
  ['lim_{x→2} x^2', 'lim[x → 2] x^2'],
  ['lim_(x->0+) 1/x', 'lim[x → 0+] 1/x'],
  ['lim_{x→0^-} 1/x', 'lim[x → 0-] 1/x'],
  ['lim_(x→(a+1)) x', 'lim[x → a + 1] x'],
  ['\\lim\\limits_{x \\to \\infty} \\frac1x', 'lim[x → ∞] 1/x'],
  // Brackets of whole parts and the word of the remainder.
  ['⌊x⌋ + ⌈x/2⌉', 'floor(x) + ceil(x/2)'],
  ['2⌊3⌊x⌋⌋', '2 floor(3 floor(x))'],
  ['|⌊x⌋ − 2|', 'abs(floor(x) - 2)'],
  ['x mod 2', 'mod(x, 2)'],
  ['2x mod 3 + 1', 'mod(2x, 3) + 1'],
  ['x mod (a + 1)', 'mod(x, a + 1)'],
  ['3 mod(x, 2)', '3*mod(x, 2)'],
  ['sin x mod 2', 'mod(sin x, 2)'],
  // Raised letters.
  ['eˣ', 'e^x'],
  ['e⁻ˣ', 'e^(-x)'],
  ['e⁻ˣ²', 'e^(-x^2)'],
  ['2ⁿ⁺¹', '2^(n + 1)'],
  ['x⁽ⁿ⁻¹⁾', 'x^(n - 1)'],
  ['sinⁿ x', '(sin x)^n'],
  ['f⁽⁴⁾(x)', 'f^(4)(x)'],
  // Other spellings.
  ['tg x + ctg x', 'tan x + cot x'],
  ['sh x · ch x', 'sinh x * cosh x'],
  ['cosec x', 'csc x'],
  ['arctg x', 'arctan x'],
  ['Sin x + COS x', 'sin x + cos x'],
  ['Sin(2x)', 'sin(2x)'],
  ['PI x', 'π x'],
  ['sin2x', 'sin(2x)'],
  ['2sin3x + cos2t', '2 sin(3x) + cos(2t)'],
  ['ln2 + sqrt2', 'ln(2) + sqrt(2)'],
  ['log2 x', 'log_2(x)'],
  ['𝑥² + 𝒂', 'x^2 + a'],
  ['𝑓(𝑥)', 'f(x)'],
  ['（ｘ＋１）', '(x+1)'],
  ['x — 1', 'x - 1'],
  ['‐x', '-x'],
  // Primes in every typography, and on brackets.
  ['f’(x)', "f'(x)"],
  ['f‘(x)', "f'(x)"],
  ['f´(x)', "f'(x)"],
  ['f"(x)', "f''(x)"],
  ['f″(x)', "f''(x)"],
  ["(x^2)'", 'd/dx (x^2)'],
  ["(sin x)''", 'd^2/dx^2 (sin x)'],
  ["(t^2)'", 'd/dt (t^2)'],
  ["(x^2)'(3)", 'd/dx (x^2) at x = 3'],
  ["(a x^2)'", 'd/dx (a x^2)'],
  ['d/dx f(4)', "f'(4)"],
  ['d²/dx² f(a)', "f''(a)"],
  // Around formulas from documents.
  ['$x^2$', 'x^2'],
  ['$$\\frac{x}{2}$$', 'x/2'],
  ['\\(x^2\\)', 'x^2'],
  ['\\[ x^2 \\]', 'x^2'],
  ['10\\% x', '10/100 x'],
  // Products and ways to choose.
  ['∏_{k=1}^3 (x - k)', '∏[k = 1, 3] (x - k)'],
  ['\\prod_{k=1}^{n} k', '∏[k = 1, n] k'],
  ['\\binom{5}{2}', '5!/(2! (5-2)!)'],
  ['binomial(n, 2)', 'n!/(2! (n-2)!)'],
  ['binom(5, 2)', '5!/(2! (5-2)!)'],
  ['sum_{k=1}^4 k^2', 'sum k from 1 to 4 of k^2'],
  ['sum_(k=1)^4 k^2', 'sum k from 1 to 4 of k^2'],
  ['∑_(k=1)^4 k^2', 'sum k from 1 to 4 of k^2'],
  ['2sum_{k=1}^4 k^2', '2 sum k from 1 to 4 of k^2'],
  ['prod_{k=1}^3 (x - k)', '∏[k = 1, 3] (x - k)'],
  ['int_0^1 x^2 dx', '∫[0, 1] x^2 dx'],
  // Domains and cases with commas.
  ['1/x, x ≠ 0', '1/x for x ≠ 0'],
];

describe('what stands on a blackboard or in a document is read as it is meant', () => {
  test.each(same)('%s', (typed, plain) => {
    expect(printText(bodyOf(typed))).toBe(printText(bodyOf(plain)));
  });

  test.each([
    ['cosec x', 'csc(x)'],
    ['cosech x', 'csch(x)'],
    ['cotg x', 'cot(x)'],
    ['sin2x', 'sin(2x)'],
    ['ln2', 'ln(2)'],
    // These may be products.
    ['sh', 's h'],
    ['tg', 't g'],
  ])('%s, although each of its letters is a name', (typed, plain) => {
    const reading = readExpression(typed, {
      names: new Set('abcdefghijklmnopqrstuvwxyz'),
      functions: new Set(),
    });
    expect(reading.ok && printText(reading.value)).toBe(plain);
  });

  test.each([
    ['h: x ↦ x²', 'h(x) = x^2'],
    ['h: t ↦ sin t', 'h(t) = sin t'],
    ['h(x) := x²', 'h(x) = x^2'],
    ['a_1 := 3', 'a_1 = 3'],
    ['h(x) = 1/x, x ≠ 0', 'h(x) = 1/x for x ≠ 0'],
    ['h(x) = √x, 0 ≤ x ≤ 4', 'h(x) = √x for 0 ≤ x ≤ 4'],
    ['h(x) = x², x < 0; 2x, x ≥ 0', 'h(x) = x^2 if x < 0; 2x if x ≥ 0'],
    ['h(x) = { x², x < 0; 2x, x ≥ 0', 'h(x) = x^2 if x < 0; 2x if x ≥ 0'],
    ['h(x) = { x², x < 0; 2x, x ≥ 0 }', 'h(x) = x^2 if x < 0; 2x if x ≥ 0'],
    ['h(x) = x², if x < 0; 2x, otherwise', 'h(x) = x^2 if x < 0; 2x otherwise'],
    [
      'h(x) = \\begin{cases} x^2, & x < 0 \\\\ 2x, & x \\ge 0 \\end{cases}',
      'h(x) = x^2 if x < 0; 2x if x ≥ 0',
    ],
    [
      'h(x) = \\begin{cases} x^2 & \\text{if } x < 0, \\\\ 2x & \\text{otherwise} \\end{cases}',
      'h(x) = x^2 if x < 0; 2x otherwise',
    ],
    ['f \\colon x \\mapsto x^2', 'f(x) = x^2'],
  ])('%s', (typed, plain) => {
    expect(statement(typed)).toEqual(statement(plain));
  });

  test('a comma between two arguments stays one, and so does that of a point', () => {
    expect(printText(bodyOf('max(x, 2)'))).toBe('max(x, 2)');
    expect(statement('P = (2, 3)')).toMatchObject({ kind: 'point' });
    expect(problemOf('h(x) = x, 2')).toMatchObject({ code: 'unexpectedSign' });
  });

  test('letters that are names here are not read as a function of another school', () => {
    const named = { names: new Set(['s', 'h', 't', 'g', 'x']), functions: new Set<string>() };
    const reading = readStatement('sh + tg', named);
    expect(reading.ok && 'body' in reading.value && printText(reading.value.body)).toBe('s h + t g');
  });

  test('a derivative at a place is set in brackets where more follows, so that it is read back', () => {
    for (const text of [
      "(x^2)'(3) x",
      "2 + (x^2)'(3) + x",
      "(x^2)''(-2) (x + 1)",
      "(6)'(0)/(x + 1)",
      "((x^2)'(3))^2",
    ]) {
      const read = bodyOf(text);
      expect(bodyOf(printText(read))).toEqual(read);
    }
  });

  test('names keep the letters they are made of', () => {
    for (const name of ['a_pi', 'spin']) expect(printText(bodyOf(name))).toBe(name);
    expect(printLatex(bodyOf('spin'))).not.toContain('π');
  });
});

describe('what can be read in two ways is asked, never guessed', () => {
  test.each([
    ['1.5e-3', 'powerOrConstant', '1.5E-3', 0, 6],
    ['x + 2e+5', 'powerOrConstant', '2E+5', 4, 8],
    ['1 000', 'spacedNumber', '1000', 0, 5],
    ['12 345 678 x', 'spacedNumber', '12345678', 0, 10],
    ['1 2', 'numbersSideBySide', '1*2', 0, 3],
    ['1,000', 'commaOfThousands', undefined, 0, 5],
    ['1,5', 'decimalComma', '1.5', 0, 3],
    ['sin(1,5)', 'decimalComma', '1.5', 4, 7],
    ['f(2,25)', 'decimalComma', '2.25', 2, 6],
    ['sin2 x', 'unknownName', 'sin^2', 0, 4],
    ['x % 2', 'remainderSign', undefined, 2, 3],
    ['7 % 3', 'remainderSign', undefined, 2, 3],
    ["(a t^2)'", 'derivativeVariable', undefined, 7, 8],
    ["x^2'", 'primesWithoutBracket', undefined, 3, 4],
    ['lim x→2 x^2', 'limitTarget', undefined, 0, 3],
    ['∏[k=a,3] k', 'productStart', undefined, 0, 5],
    ["f'", 'missingFunctionBracket', "f'(x)", 0, 2],
    ["h(t) = 2f''", 'missingFunctionBracket', "f''(t)", 8, 11],
    ['[x+1', 'bracketNotClosed', '[x+1]', 0, 4],
    ['{x+1', 'bracketNotClosed', '{x+1}', 0, 4],
    ['⌊x', 'bracketNotClosed', '⌊x⌋', 0, 2],
    ['x⁺', 'unexpectedSign', undefined, 1, 2],
    ['2.5½', 'numbersSideBySide', undefined, 3, 4],
    ['5$', 'unexpectedCharacter', undefined, 1, 2],
  ])('%s', (text, code, correction, from, to) => {
    const problem = problemOf(text);
    expect(problem).toMatchObject({ code, from, to });
    expect(problem.correction).toBe(correction);
    expect(sentence(problem)).toMatch(/^.+[.?]$/u);
  });

  test('what is offered can be read', () => {
    for (const text of ['1.5e-3', '1 000', '1,5', "f'", '[x+1', '{x+1', '⌊x']) {
      const { from, to, correction } = problemOf(text);
      const mended = text.slice(0, from) + (correction ?? '') + text.slice(to);
      expect([mended, readStatement(mended, scope).ok]).toEqual([mended, true]);
    }
  });

  test('names of a language are names like any other', () => {
    for (const name of ['constructor', 'valueOf', 'hasOwnProperty', 'toString', 'isPrototypeOf']) {
      expect(problemOf(`${name}(x)`).code).toBe('unknownName');
      expect(statement(`${name} = 3`)).toMatchObject({ kind: 'value', name });
    }
  });

  test('a problem in converted text stands at its place in what was typed', () => {
    expect(problemOf('𝑥 + 𝑞')).toMatchObject({ code: 'unknownName', from: 5, to: 7 });
    expect(problemOf('$x + q$')).toMatchObject({ code: 'unknownName', from: 5, to: 6 });
  });
});

test('a power with a slider above is the real power where its value is a whole number', () => {
  const power = compile(bodyOf('x^n'), 'x');
  const slope = compile(bodyOf('x^n'), 'x', undefined, 1);
  for (const [n, x, value, rate] of [
    [3, -2, -8, 12],
    [2, -3, 9, -6],
    [-1, -2, -1 / 2, -1 / 4],
    [0, -2, 1, 0],
  ] as const) {
    expect(evaluateAt(power, x, [n])).toBe(value);
    expect(evaluateAt(slope, x, [n])).toBeCloseTo(rate, 14);
    expect(derivativesAt(power, x, 1, [n])[1]).toBeCloseTo(rate, 14);
  }
  for (const n of [1 / 3, 0.5, -0.2]) {
    expect(evaluateAt(power, -2, [n])).toBeNaN();
    expect(evaluateAt(slope, -2, [n])).toBeNaN();
  }
});

describe('angles in degrees', () => {
  const inDegrees = (text: string) => {
    const reading = readStatement(text, { ...scope, angles: 'degrees' });
    if (!reading.ok || !('body' in reading.value)) throw new Error(text);
    return reading.value.body;
  };

  test.each([
    ['sin 30', 1 / 2],
    ['cos(60)', 1 / 2],
    ['tan 45', 1],
    ['cot(45)', 1],
    ['sec 60', 2],
    ['csc 30', 2],
    ['sin(90 - 60)', 1 / 2],
    ['sin^2 30', 1 / 4],
    ['sin 30°', 1 / 2],
    ['arcsin(1/2)', 30],
    ['arccos(-1)', 180],
    ['arctan 1', 45],
    ['arcsec 2', 60],
    ['tan(arctan 3)', 3],
    ['arcsin(sin 40)', 40],
    ['e^1', Math.E],
    ['sinh(1)', Math.sinh(1)],
  ])('%s', (text, value) => {
    expect(evaluateAt(compile(inDegrees(text), 'x'), 0)).toBeCloseTo(value, 12);
  });

  test('a value at a known angle is exact', () => {
    expect(toldValue(inDegrees('sin 30'))).toMatchObject({ value: 1 / 2 });
    expect(printText(toldValue(inDegrees('tan 60')).exact as Expression)).toBe('sqrt(3)');
  });

  test('the slope carries the factor π/180', () => {
    const slope = compile(inDegrees('sin x'), 'x', undefined, 1);
    expect(evaluateAt(slope, 60)).toBeCloseTo(Math.PI / 360, 16);
  });

  test.each([
    'sin x',
    'sin(2x + 10)',
    'cos^2 x',
    'arcsin x',
    '2 arctan(x/3)',
    'x/arccos x',
    'tan(arctan x)',
    'arctan^2 x',
  ])('%s is written with its degrees, and read back in either unit as the same', (text) => {
    const read = inDegrees(text);
    expect(printText(read)).toContain('°');
    expect(inDegrees(printText(read))).toEqual(read);
    expect(bodyOf(printText(read))).toEqual(read);
  });
});

describe('products', () => {
  const at = (text: string, x: number) => evaluateAt(compile(bodyOf(text), 'x'), x);

  test('between numbers', () => {
    expect(at('∏[k=1,3] (x - k)', 5)).toBe(24);
    expect(at('∏[k=2,1] k', 0)).toBe(1);
    // Wallis (1656): the product of 4k²/(4k² − 1) is π/2, and its first three factors are 256/175.
    expect(toldValue(bodyOf('∏[k=1,3] 4k^2/(4k^2-1)'))).toMatchObject({ value: 256 / 175 });
  });

  test('up to a number that moves, where it is whole', () => {
    for (const [n, value] of [
      [0, 1],
      [1, 1],
      [5, 120],
      [12, 479_001_600],
    ] as const)
      expect(at('∏[k=1,x] k', n)).toBe(value);
    expect(at('∏[k=1,x] k', 2.5)).toBeNaN();
    expect(at('∏[k=1,x] k', 201)).toBeNaN();
  });

  test('its derivative takes one factor at a time', () => {
    // (x − 1)(x − 2)(x − 3) has the derivative 3x² − 12x + 11, by hand.
    const parameterOf = (text: string) => compile(bodyOf(text), 'x', undefined, 1);
    for (const x of [0, 1, 2.5])
      expect(evaluateAt(parameterOf('∏[k=1,3] (x - k)'), x)).toBeCloseTo(3 * x * x - 12 * x + 11, 12);
    const moving = parameterOf('∏[k=1,n] (x - k)');
    expect(moving.parameters).toEqual(['n']);
    for (const x of [0, 1, 2.5]) {
      expect(evaluateAt(moving, x, [3])).toBeCloseTo(3 * x * x - 12 * x + 11, 12);
      const [, slope] = derivativesAt(compile(bodyOf('∏[k=1,n] (x - k)'), 'x'), x, 1, [3]);
      expect(slope).toBeCloseTo(3 * x * x - 12 * x + 11, 12);
    }
  });

  test('in every way of writing', () => {
    const product = bodyOf('∏_{k=1}^n (x - k)');
    expect(printLatex(product)).toBe('\\prod_{k=1}^{n} \\left(x-k\\right)');
    expect(mathmlOf(product)).toContain('∏');
    expect(printSpeech(product)).toContain('product for k from 1 to n');
    expect(printText(bodyOf(printText(product)))).toBe(printText(product));
  });
});
