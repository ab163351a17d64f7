import { describe, expect, test } from '@jest/globals';
import {
  ArrayEvaluator,
  WasmEvaluator,
  compile,
  derivativeOf,
  derivativesAt,
  enclose,
  evaluateAt,
  meanValuePoints,
  normalTo,
  knownNumber,
  lineFormula,
  printText,
  quotientTable,
  rational,
  readExpression,
  secant,
  slopesBeside,
  tangentAt,
  type Functions,
} from '../src/index.ts';

const scope = {
  names: new Set(['x', 'y', 'a', 'n', 't', 'i']),
  functions: new Set(['f', 'g']),
  argumentCounts: new Map([['g', 2]]),
};
const read = (text: string) => {
  const reading = readExpression(text, scope);
  if (!reading.ok) throw new Error(text);
  return reading.value;
};
const functions: Functions = new Map([
  ['f', { variables: ['t'], body: read('t^3') }],
  ['g', { variables: ['x', 'y'], body: read('x^2 y + y^3') }],
]);
const program = (text: string, order = 0) => compile(read(text), 'x', functions, order);

/** Constructs that arrays, WebAssembly, single points, intervals and jets must agree on. */
const constructs = [
  'x^2 if x < 0; 2x + 1 if x < 1; 7 otherwise',
  'x^2 for -1 ≤ x ≤ 1',
  '(1/x if x ≠ 0; 5 otherwise)',
  'x if not (x < 0 or x > 1) and x ≠ 0.5; -1 otherwise',
  '(2 if 1/x > 2 or x = 0; 3 otherwise)',
  'sum i from 1 to 5 of i x',
  'sum i from 1 to 100 of x^i/i',
  '∫[0, x] t^2 dt',
  'd/dx (x^2 sin x)',
  "f(x) + f'(2x)",
  'g(x, x + 1)',
  '∂_1 g(x, 3) + ∂_2 g(2, x)',
  'd/dx (x^2) at x = x^2',
  'sin(x°) + 30°',
  'min(x, 1 - x) + max(x^2, x)',
];

describe('every construct, in every evaluation', () => {
  test.each(constructs)('%s', (text) => {
    const compiled = program(text);
    const xs = Float64Array.from({ length: 41 }, (_, i) => (i - 20) / 10);
    const isNested = /∫|100/.test(text);
    const evaluators = [new ArrayEvaluator(compiled), ...(isNested ? [] : [new WasmEvaluator(compiled)])];
    const single = [...xs].map((x) => evaluateAt(compiled, x));
    for (const evaluator of evaluators) {
      const ys = new Float64Array(xs.length);
      evaluator.evaluate(xs, ys);
      ys.forEach((y, i) => {
        if (Number.isNaN(single[i])) expect(y).toBeNaN();
        else
          expect(Math.abs(y - (single[i] as number))).toBeLessThanOrEqual(1e-12 * Math.max(1, Math.abs(y)));
      });
    }
    single.forEach((y, i) => {
      const x = xs[i] as number;
      const range = enclose(compiled, x - 0.05, x + 0.05);
      if (Number.isNaN(y)) expect(range.sure).toBe(false);
      else expect(y >= range.low - 1e-9 && y <= range.high + 1e-9).toBe(true);
    });
  });

  test.each(constructs)('the derivative of %s is the one of automatic differentiation', (text) => {
    const symbolic = compile(read(text), 'x', functions, 1);
    for (const x of [-1.3, -0.45, 0.37, 0.62, 1.21]) {
      const [, slope = NaN] = derivativesAt(program(text), x, 1);
      const formula = evaluateAt(symbolic, x);
      if (Number.isNaN(formula)) expect(slope).toBeNaN();
      else expect(Math.abs(slope - formula)).toBeLessThan(1e-10 * Math.max(1, Math.abs(formula)));
    }
  });
});

/** [formula, its derivative as it is written] */
const derivatives: readonly [string, string][] = [
  ['x^2 if x < 1; 2x - 1 otherwise', '2x if x ≤ 1; 2 otherwise'],
  ['x^2 if x < 1; 3 - x otherwise', '2x if x < 1; -1 if x > 1'],
  ['-x if x < 0; x otherwise', '-1 if x < 0; 1 if x > 0'],
  ['x(12 - x)/5 for 0 ≤ x ≤ 12', '2(6 - x)/5 for 0 < x < 12'],
  ['x^2 if x < a; 1 otherwise', '2x if x < a; 0 if x > a'],
  ['∫[0, x] t^2 dt', 'x^2'],
  ['∫[x, x^2] sin(t) dt', '2x sin(x^2) - sin(x)'],
  ['∫[0, 1] x t dt', '∫[0, 1] (t) dt'],
  ['∫[0, x] x t dt', 'x^2 + ∫[0, x] (t) dt'],
  ['sum i from 1 to n of i x^2', 'sum i from 1 to n of (2i x)'],
  ['lim[t → 0] sin(t x)/t', 'lim[t → 0] (cos(t x))'],
  ['d/dx (x^3)', '6x'],
  ['|x|', '-1 if x < 0; 1 if x > 0'],
  ['floor(x)', '0'],
  ['sin(x°)', 'π cos(π x/180)/180'],
];

describe('derivatives of every construct', () => {
  test.each(derivatives)('%s', (text, expected) =>
    expect(printText(derivativeOf(read(text), 'x'))).toBe(expected),
  );

  test('a function of two variables has partial derivatives', () => {
    // g = x²y + y³: ∂₁g = 2xy, ∂₂g = x² + 3y², and the chain rule along (x, x²).
    const at = (text: string, x: number) => evaluateAt(program(text), x);
    expect(at('∂_1 g(x, 3)', 2)).toBe(12);
    expect(at('∂_2 g(2, x)', 3)).toBe(31);
    expect(evaluateAt(program('g(x, x^2)', 1), 2)).toBeCloseTo(4 * 8 + 6 * 32, 10);
  });
});

describe('limits inside formulas', () => {
  test('the definition of a derivative has its value', () => {
    const compiled = program('lim[a → 0] ((x + a)^3 - x^3)/a');
    expect(evaluateAt(compiled, 2)).toBeCloseTo(12, 12);
  });
});

describe('slopes from either side', () => {
  test.each([
    ['|x|', 0, -1, 1],
    ['x^(2/3)', 0, -Infinity, Infinity],
    ['cbrt(x)', 0, Infinity, Infinity],
    ['sqrt(x)', 0, NaN, Infinity],
    ['x^2', 3, 6, 6],
    ['floor(x)', 1, NaN, 0],
    ['x^2 if x < 1; 3x - 2 otherwise', 1, 2, 3],
    ['max(x, x^2)', 1, 1, 2],
    ['sqrt(x^2)', 0, -1, 1],
    ['x|x|', 0, 0, 0],
    ['mod(x, 1)', 0.5, 1, 1],
    ['|sin x|', 0, -1, 1],
    ['arcsin x', 1, Infinity, NaN],
    ['x sqrt(x)', 0, NaN, 0],
    ['max(x, 1)', 1, 0, 1],
    // Glued at one point: by the definition's limit, though the slopes beside it swing.
    ['x^2 sin(1/x) if x ≠ 0; 0 otherwise', 0, 0, 0],
    ['sin(x)/x if x ≠ 0; 1 otherwise', 0, 0, 0],
    ['e^(-1/x^2) if x ≠ 0; 0 otherwise', 0, 0, 0],
    ['x sin(1/x) if x ≠ 0; 0 otherwise', 0, NaN, NaN],
    // A jump of 5 at a height of 10^15, and one of 10^(-19).
    ['10^15 + 2x if x < 1; 10^15 + 5 + x otherwise', 1, NaN, 1],
    ['2x if x < 1; 2 + 10^(-19) + 3(x - 1) otherwise', 1, NaN, 3],
    ['10^(-15) |x|', 0, -1e-15, 1e-15],
  ])('%s at %s', (text, x, left, right) => {
    const found = slopesBeside(program(text), knownNumber(x));
    expect(found.left?.value ?? NaN).toBe(left);
    expect(found.right?.value ?? NaN).toBe(right);
  });

  test('a join that is smooth has one slope, one that is not has none', () => {
    const at = (text: string) => derivativesAt(program(text), 1, 2);
    expect(at('x^2 if x < 1; 2x - 1 otherwise')).toEqual([1, 2, NaN]);
    expect(at('x^2 if x ≤ 1; 3 - x otherwise')).toEqual([1, NaN, NaN]);
  });
});

describe('tangents, normals and lines', () => {
  const tangentTo = (text: string, x: number) => {
    const exact = rational.parseDecimal(String(x));
    return tangentAt({ body: read(text), variable: 'x', program: program(text) }, knownNumber(x, exact));
  };
  const line = (text: string, x: number): string => {
    const found = tangentTo(text, x);
    return found.kind === 'line' ? printText(lineFormula(found.slope, found.intercept, 'x')) : found.kind;
  };

  test.each([
    ['x^2', 1, '2x - 1'],
    ['x^2', 0, '0'],
    ['sin(x)', 0, 'x'],
    ['5', 2, '5'],
    ['sqrt(x)', 4, 'x/4 + 1'],
    ['e^x', 1, '2.71828182846x'],
    ['cos(x)', 1, '-0.841470984808x + 1.38177329068'],
    ['1/x', 2, '1 - x/4'],
  ])('the tangent to %s at %s is y = %s', (text, x, expected) => expect(line(text, x)).toBe(expected));

  test('the normal stands at a right angle through the same point', () => {
    const normal = normalTo(tangentTo('x^2', 1));
    expect(normal).toMatchObject({ kind: 'line', slope: { value: -0.5 }, intercept: { value: 1.5 } });
    expect(normalTo(tangentTo('x^2', 0))).toMatchObject({ kind: 'vertical', x: { value: 0 } });
    expect(normalTo(tangentTo('cbrt(x)', 0))).toMatchObject({ kind: 'line', slope: { value: 0 } });
    expect(normalTo(tangentTo('|x|', 0))).toBeUndefined();
  });
});

describe('secants', () => {
  test.each([
    ['forward', 1, 3],
    ['backward', 1, 1],
    ['symmetric', 1, 2],
  ] as const)('%s quotient of x² at 1', (kind, h, slope) =>
    expect(secant(program('x^2'), 1, h, kind).slope).toBe(slope),
  );

  test('a step of nothing has no slope, nor has a point outside of the domain', () => {
    expect(secant(program('x^2'), 1, 0, 'forward').slope).toBeNaN();
    expect(secant(program('ln x'), 0.5, 1, 'backward').slope).toBeNaN();
  });

  test('the table of quotients: the error shrinks with h, until rounding takes over', () => {
    const forward = quotientTable(program('e^x'), 1, 'forward', 14);
    const symmetric = quotientTable(program('e^x'), 1, 'symmetric', 14);
    expect(forward.map(({ h }) => h).slice(0, 4)).toEqual([1, 0.1, 0.01, 0.001]);
    // The error of the forward quotient is f″(a)/2·h, of the symmetric one f‴(a)/6·h² (Burden & Faires, chapter 4.1).
    expect((forward[3]?.error ?? NaN) / 0.001).toBeCloseTo(Math.E / 2, 2);
    expect((symmetric[3]?.error ?? NaN) / 1e-6).toBeCloseTo(Math.E / 6, 2);
    expect(forward.findIndex(({ isRounding }) => isRounding)).toBe(8);
    expect(symmetric.findIndex(({ isRounding }) => isRounding)).toBe(5);
    // ±0.001 is near enough for school work (common practice).
    expect(Math.abs(symmetric[3]?.error ?? NaN)).toBeLessThan(1e-5);
  });
});

describe('the mean value theorem', () => {
  test('c with the slope of the secant', () => {
    const found = meanValuePoints(read('x^3 - x'), 'x', [0, 2]);
    // Stewart, Calculus (8th ed.), section 4.2, example 4: c = 2/√3.
    expect(found?.conditions).toBe('hold');
    expect(found?.points.solutions).toHaveLength(1);
    expect(found?.points.solutions[0]?.value).toBeCloseTo(2 / Math.sqrt(3), 15);
  });

  test('at a corner nothing is granted', () => {
    const found = meanValuePoints(read('|x|'), 'x', [-1, 1]);
    expect(found?.conditions).toMatchObject({ kind: 'corner', at: { value: 0 } });
    expect(found?.points.solutions).toEqual([]);
  });

  test.each([
    ['floor(x)', 0, 1, 'jump', 1],
    ['floor(x)', 0.5, 1.5, 'jump', 1],
    ['cbrt(x)', -1, 1, 'verticalTangent', 0],
    ['1/x', -1, 1, 'pole', 0],
    ['x/x', -1, 1, 'noValue', 0],
    ['x if x < 0; x + 1 if x > 1', -1, 2, 'noValue', 0],
    ['5 if x = 0; x otherwise', 0, 1, 'jump', 0],
    ['x^(2/3)', -1, 8, 'verticalTangent', 0],
  ] as const)('%s on [%s, %s]: a %s at %s', (text, a, b, kind, at) => {
    expect(meanValuePoints(read(text), 'x', [a, b])?.conditions).toMatchObject({ kind, at: { value: at } });
  });

  test.each([
    ['√x', 0, 1],
    ['x^2 sin(1/x) if x ≠ 0; 0 otherwise', -1, 1],
    ['arcsin(x)', -1, 1],
    ['|x|', 0, 1],
  ] as const)('%s on [%s, %s]: ends need no slope, and glued points have one', (text, a, b) => {
    expect(['hold', 'undecided']).toContain(meanValuePoints(read(text), 'x', [a, b])?.conditions);
    if (!text.includes('sin(1/x)')) expect(meanValuePoints(read(text), 'x', [a, b])?.conditions).toBe('hold');
  });

  test('what is not decided grants nothing', () => {
    expect(meanValuePoints(read('floor(5000x) + 0sin(x)'), 'x', [0, 1])?.conditions).toBe('undecided');
  });

  test('without a value at an end there is no secant', () =>
    expect(meanValuePoints(read('1/x'), 'x', [0, 1])).toBeNull());
});
