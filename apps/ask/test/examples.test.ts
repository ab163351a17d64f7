import { describe, expect, test } from '@jest/globals';
import { answerLine } from '../src/answers.ts';

/**
 * Questions at which programs that work with doubles, samples or differences alone are led to claim what is not so. Each
 * answer is by hand, unless it names its source.
 */
const ask = (question: object): Record<string, unknown> =>
  JSON.parse(answerLine(JSON.stringify(question))) as Record<string, unknown>;
const { E, PI, sqrt } = Math;

type Interval = readonly [number, number];
const throughout = (...stretches: (readonly [number, number, boolean, boolean])[]) =>
  stretches.map(([from, to, includesFrom, includesTo]) => ({ from, to, includesFrom, includesTo }));

describe('zero means zero', () => {
  test.each<[f: string, equals: string, on: Interval, at: number[]]>([
    ['e^(-x^2)', '0', [-10, 10], []],
    ['20 + 80e^(-0.1x)', '20', [0, 400], []],
    ['x^20', '0', [0.1, 1], []],
    ['1.6*10^(-19)*x', '0', [-1, 5], [0]],
    ['10^9 + x', '10^9 + 10^(-6)', [-5, 5], [1e-6]],
    ['(x - 1)^4', '10^(-15)', [0, 2], [1 - 10 ** -3.75, 1 + 10 ** -3.75]],
    ['tanh(x)', '1 - 10^(-15)', [0, 30], [0.5 * Math.log(2e15 - 1)]],
    ['x!', '6', [0, 5], [3]],
  ])('%s = %s on %j', (f, equals, on, at) => {
    const { solutions, complete, everywhere } = ask({ ask: 'solve', f, equals, on });
    expect([complete, everywhere]).toEqual([true, undefined]);
    const places = (solutions as { x: number }[]).map(({ x }) => x);
    expect(places).toHaveLength(at.length);
    places.forEach((x, i) =>
      expect(Math.abs(x - (at[i] as number))).toBeLessThanOrEqual(Math.abs(x) * 1e-15),
    );
  });

  test.each<[f: string, equals: string, on: Interval, everywhere: unknown]>([
    ['sin(x)^2 + cos(x)^2', '1', [-3, 3], throughout([-3, 3, true, true])],
    ['sqrt(x^2)', '|x|', [-3, 3], throughout([-3, 3, true, true])],
    ['ln(x^2)', '2ln(|x|)', [-3, 3], throughout([-3, 0, true, false], [0, 3, false, true])],
    ['⌊x⌋', '2', [-5, 5], throughout([2, 3, true, false])],
    ['x/x', '1', [-2, 2], throughout([-2, 0, true, false], [0, 2, false, true])],
    ['sign(x)', '1', [-2, 2], throughout([0, 2, false, true])],
  ])('%s = %s throughout', (f, equals, on, everywhere) => {
    expect(ask({ ask: 'solve', f, equals, on })).toEqual({ solutions: [], complete: true, everywhere });
  });

  test('jumps of 5 at heights of 10¹⁵ and of 10⁻¹⁹ are jumps, and 10⁻¹⁵|x| has a corner', () => {
    const kinds = (f: string) =>
      (ask({ ask: 'keyPoints', f, on: [-1, 1] }).points as { kind: string; x: number }[])
        .filter(({ x }) => x === 0)
        .map(({ kind }) => kind);
    expect(kinds('10^15 if x < 0; 10^15 + 5 otherwise')).toContain('jump');
    expect(kinds('x if x < 0; x + 10^(-19) otherwise')).toContain('jump');
    expect(kinds('10^(-15)|x|')).toEqual(['zero', 'minimum', 'corner']);
    expect(ask({ ask: 'tangent', f: '10^(-15)|x|', at: 0 })).toMatchObject({ slope: null });
  });
});

describe('limits', () => {
  test.each<[f: string, at: number | string, exact: string]>([
    ['(1 - cos(x^2))/x^4', 0, '1/2'],
    ['(sin(x) - x + x^3/6)/x^5', 0, '1/120'],
    ['x^4 (1 - cos(1/x^2))', 'Infinity', '1/2'],
    ['x/(x + 10^(-200))', 0, '0'],
    ['e^(x + e^(-x)) - e^x', 'Infinity', '1'],
    ['x^4/(1 - cos(x^2))', 0, '2'],
    ['sin(x)/x', 0, '1'],
  ])('%s at %s is %s', (f, at, exact) =>
    expect(ask({ ask: 'limit', f, at })).toMatchObject({ exact, proved: true, exists: true }),
  );

  test.each<[f: string, at: number | string]>([
    ['cos(ln(ln(ln(x))))', 'Infinity'],
    ['sin(x^0.001)', 'Infinity'],
    ['|sin(x)|^x', 'Infinity'],
    ['x^2/(1 + x^4 sin(x)^2)', 'Infinity'],
    ['sign(x sin(1/x))', 0],
    ['10^15 + |x|/x', 0],
  ])('%s at %s does not exist', (f, at) =>
    expect(ask({ ask: 'limit', f, at })).toMatchObject({ value: null, exists: false }),
  );

  test('10⁻²⁰⁰ x grows beyond all bounds', () =>
    expect(ask({ ask: 'limit', f: '10^(-200) x', at: 'Infinity' })).toEqual({
      value: 'Infinity',
      exists: false,
    }));
});

describe('where', () => {
  const points = (f: string, on: Interval) => {
    const { points: found, complete } = ask({ ask: 'keyPoints', f, on });
    return {
      complete,
      list: (found as { kind: string; x: number }[])
        .filter(({ kind }) => kind !== 'endpoint')
        .map(({ kind, x }) => `${kind} ${Number(x.toFixed(4))}`),
    };
  };

  test.each<[f: string, on: Interval, list: string[]]>([
    ['1/(1 - cos(x^2))', [-1, 1], ['pole 0']],
    ['x/(1 + sqrt(|x|))', [-2, 2], ['zero 0', 'inflection 0']],
    ['max(x, 1)', [-2, 3], ['corner 1']],
    ['ln(1 + x^4)/x^4', [0.5, 20], ['inflection 1.0294']],
    // The inflections are where tanh(1/x) = x.
    ['tanh(1/x)', [-2, 2], ['inflection -0.8336', 'jump 0', 'inflection 0.8336']],
    ['1/(1 + e^(1/x))', [-2, 2], ['inflection -0.4168', 'jump 0', 'inflection 0.4168']],
  ])('key points of %s on %j', (f, on, list) => expect(points(f, on)).toEqual({ complete: true, list }));

  test('more jumps than are looked at are no solutions, and a factorial has no key points', () => {
    expect(ask({ ask: 'solve', f: '⌊x⌋', equals: 'x', on: [0, 1000] })).toEqual({
      solutions: [],
      complete: false,
    });
    expect(ask({ ask: 'keyPoints', f: 'x!', on: [0, 5] }).error).toContain('whole numbers only');
  });

  test.each<[f: string, at: number, tangent: object]>([
    ['arcsin(x)', 1, { vertical: true, left: 'Infinity', right: null }],
    ['x sqrt(x)', 0, { slope: 0, left: null, right: 0 }],
    ['|x|', 0, { slope: null, left: -1, right: 1 }],
  ])('tangent of %s at %f', (f, at, tangent) =>
    expect(ask({ ask: 'tangent', f, at })).toMatchObject(tangent),
  );
});

describe('how much', () => {
  test.each<[f: string, a: number | string, b: number | string, value: number]>([
    ['e^(-((x - 3.3)/0.001)^2)', 0, 10, sqrt(PI) / 1000],
    ['10^6 e^(-(x - 3)^2*10^12)', 0, 10, sqrt(PI)],
    ['e^(-(x - 100)^2)', '-Infinity', 'Infinity', sqrt(PI)],
    // By the series of the cosine.
    ['(1 - cos(x^2))/x^4', -1, 1, 0.98363819190232],
    ['sin(x)/x', 0, 'Infinity', PI / 2],
    ['sin(x^2)', 0, 'Infinity', sqrt(PI / 8)],
    ['cos(x)/(1 + x^2)', 0, 'Infinity', PI / (2 * E)],
    ['sin(x)^2/x^2', 0, 'Infinity', PI / 2],
    ['sin(x)/(1 + x)', 0, 'Infinity', 0.6214496242358134],
    ['x^3/(e^x - 1)', 0, 'Infinity', PI ** 4 / 15],
    // sin 1 − Ci 1 (NIST Digital Library of Mathematical Functions, section 6.2; from memory).
    ['sin(1/x)', 0, 1, Math.sin(1) - 0.3374039229009681],
  ])('∫ %s from %s to %s holds within its bound', (f, a, b, known) => {
    const { value, bound, certainty } = ask({ ask: 'integral', f, on: [a, b] }) as Record<string, number>;
    expect(['proved', 'exact']).toContain(certainty);
    expect(Math.abs((value as number) - known)).toBeLessThan((bound as number) + 1e-14);
    expect(bound).toBeLessThan(1e-10);
  });

  test.each<[f: string, a: number, b: number, exact: string]>([
    ['x', 0, 2 / 3, '2/9'],
    ['sec(x)', 0, 1, 'ln(1/cos(1) + tan(1))'],
    ['1/cosh(x)', 0, 1, 'arctan(sinh(1))'],
    ['1/(1 + sin(x))', 0, 1, '1 - cos(1)/(sin(1) + 1)'],
    ['sin(sqrt(x))', 0, 1, '2sin(1) - 2cos(1)'],
    ['sqrt((1 - x)/(1 + x))', 0, 1, 'π/2 - 1'],
  ])('∫ %s from %f to %f is %s', (f, a, b, exact) =>
    expect(ask({ ask: 'integral', f, on: [a, b] })).toMatchObject({ exact, certainty: 'exact' }),
  );

  test('1/⌊x⌋² and e^(−x)|sin x| have areas, and that of sin x/x without signs has no end', () => {
    const over = (f: string, a: number, total = false) =>
      ask({ ask: 'integral', f, on: [a, 'Infinity'], total }) as Record<string, number>;
    expect(over('1/floor(x)^2', 1).value).toBeCloseTo(PI ** 2 / 6, 5);
    expect(over('e^(-x) |sin(x)|', 0).value).toBeCloseTo((1 + E ** -PI) / (2 * (1 - E ** -PI)), 10);
    expect(over('sin(x)/x', 0, true)).toMatchObject({ value: null, diverges: true });
  });

  test('upper and lower sums of mod(1000x, 1) are 1 and 0', () => {
    const sum = (rule: string) => ask({ ask: 'sum', f: 'mod(1000x, 1)', on: [0, 1], n: 4, rule });
    expect(sum('upper')).toMatchObject({ total: 1, proved: true });
    expect(sum('lower')).toMatchObject({ total: 0, proved: true });
  });
});

test.each<[text: string, plain: string]>([
  ['∫_0^1 x^10 dx', '∫[0, 1] (x^10) dx'],
  ['∑_{k=1}^3 2^10', 'sum k from 1 to 3 of (2^10)'],
  ['\\frac12 x^12', '1/2 x^12'],
  ['3⅓', '3 + 1/3'],
  ['2½', '2 + 1/2'],
  ['∫_0^1 e^(-x) dx', '∫[0, 1] (e^(-x)) dx'],
  ['lim_{x→2} x^2', 'lim[x → 2] (x^2)'],
  ['lim_(x->0+) 1/x', 'lim[x → 0+] (1/x)'],
  ['⌊x⌋', 'floor(x)'],
  ['x mod 2', 'mod(x, 2)'],
  ['10%', '10/100'],
  ['e⁻ˣ', 'e^(-x)'],
  ['f: x ↦ x^2', 'f(x) = x^2'],
  ['f(x) = 1/x, x ≠ 0', 'f(x) = 1/x for x ≠ 0'],
  ['$x^2$', 'x^2'],
  ['cosec x', 'csc(x)'],
  ['SIN(x)', 'sin(x)'],
  ['sin2x', 'sin(2x)'],
  ['𝑥²', 'x^2'],
  ["(x^2)'", 'd/dx (x^2)'],
  ['d/dx f(4)', "f'(4)"],
  ['sum_{k=1}^4 k', 'sum k from 1 to 4 of (k)'],
  ['arcsec x', 'arcsec(x)'],
])('%s is read as %s', (text, plain) => expect(ask({ ask: 'read', text })).toMatchObject({ text: plain }));

test.each<[text: string, correction: string]>([
  ['1.5e-3', '1.5E-3'],
  ['1 000', '1000'],
  ['2,5', '2.5'],
  ["f'", "f'(x)"],
  ['{1', '{1}'],
  ['x^2 on [1,3]', 'for 1 ≤ x ≤ 3'],
])('for %s the offer is %s', (text, correction) =>
  expect(ask({ ask: 'read', text })).toMatchObject({ correction }),
);
