import { describe, expect, test } from '@jest/globals';
import { evaluateAt, compile, readExpression, solve, tree, type KeyPointKind } from '../src/index.ts';
import { keyPoints } from './checked.ts';

const read = (text: string) => {
  const reading = readExpression(text, { names: new Set(['x']), functions: new Set() });
  if (!reading.ok) throw new Error(text);
  return reading.value;
};
const zeros = (text: string, a: number, b: number): number[] => {
  const found = solve(read(text), tree.number(0), 'x', [a, b]);
  expect(found.complete).toBe(true);
  return found.solutions.map(({ value }) => value);
};

const expectNear = (found: readonly number[], expected: readonly number[], tolerance: number): void => {
  expect(found).toHaveLength(expected.length);
  found.forEach((x, i) => expect(Math.abs(x - (expected[i] as number))).toBeLessThanOrEqual(tolerance));
};
const withNegatives = (positive: readonly number[]): number[] => [
  ...positive.map((x) => -x).reverse(),
  ...positive,
];

/** Polynomials by their three-term recurrences, with whole or rational coefficients. */
function legendre(n: number): string {
  return recurrence(n, '1', 'x', (k, p, q) => `((2*${k}-1)*x*(${p}) - (${k}-1)*(${q}))/${k}`);
}
function hermite(n: number): string {
  return recurrence(n, '1', '2x', (k, p, q) => `2x*(${p}) - 2*(${k}-1)*(${q})`);
}
function laguerre(n: number): string {
  return recurrence(n, '1', '1-x', (k, p, q) => `((2*${k}-1-x)*(${p}) - (${k}-1)*(${q}))/${k}`);
}
function recurrence(
  n: number,
  first: string,
  second: string,
  next: (k: number, p: string, q: string) => string,
): string {
  let [q, p] = [first, second];
  for (let k = 2; k <= n; k++) [q, p] = [p, next(k, p, q)];
  return p;
}

describe('zeros of classical polynomials', () => {
  // Abramowitz & Stegun, Handbook of Mathematical Functions (1964), Table 25.4.
  test.each([
    [2, withNegatives([0.577350269189626])],
    [3, [-0.774596669241483, 0, 0.774596669241483]],
    [4, withNegatives([0.339981043584856, 0.861136311594053])],
    [5, [-0.906179845938664, -0.538469310105683, 0, 0.538469310105683, 0.906179845938664]],
    [6, withNegatives([0.238619186083197, 0.661209386466265, 0.932469514203152])],
    [
      7,
      [
        -0.949107912342759, -0.741531185599394, -0.405845151377397, 0, 0.405845151377397, 0.741531185599394,
        0.949107912342759,
      ],
    ],
    [8, withNegatives([0.18343464249565, 0.525532409916329, 0.796666477413627, 0.960289856497536])],
  ])('Legendre, degree %s', (n, expected) => expectNear(zeros(legendre(n), -1, 1), expected, 1e-15 * 1.1));

  // Abramowitz & Stegun, Table 25.10.
  test.each([
    [2, withNegatives([0.707106781186548])],
    [3, [-1.224744871391589, 0, 1.224744871391589]],
    [4, withNegatives([0.52464762327529, 1.650680123885785])],
    [5, [-2.020182870456086, -0.958572464613819, 0, 0.958572464613819, 2.020182870456086]],
    [6, withNegatives([0.436077411927617, 1.335849074013697, 2.350604973674492])],
  ])('Hermite, degree %s', (n, expected) => expectNear(zeros(hermite(n), -4, 4), expected, 1.1e-15));

  // Abramowitz & Stegun, Table 25.9.
  test.each([
    [2, [0.585786437627, 3.414213562373]],
    [3, [0.415774556783, 2.294280360279, 6.289945082937]],
    [4, [0.322547689619, 1.745761101158, 4.536620296921, 9.395070912301]],
    [5, [0.263560319718, 1.413403059107, 3.596425771041, 7.085810005859, 12.640800844276]],
  ])('Laguerre, degree %s', (n, expected) => expectNear(zeros(laguerre(n), 0, 15), expected, 6e-13));
});

describe('roots of transcendental equations', () => {
  test('tan x = x', () => {
    // Abramowitz & Stegun, Table 4.19 (values to more digits from memory).
    const expected = [
      4.493409457909064, 7.725251836937707, 10.904121659428899, 14.06619391283147, 17.22075527193077,
    ];
    expectNear(zeros('sin(x) - x*cos(x)', 1, 18), expected, 4e-15);
  });

  test('x tan x = 1', () => {
    // Abramowitz & Stegun, Table 4.20, λ = 1.
    expectNear(
      zeros('x*sin(x) - cos(x)', 0, 13),
      [0.86033359, 3.42561846, 6.43729818, 9.52933441, 12.64528722],
      6e-9,
    );
  });

  test('cosh x cos x = 1 and −1: the free and the clamped beam', () => {
    // Blevins, Formulas for Natural Frequency and Mode Shape (1979), Table 8-1.
    expectNear(
      zeros('cosh(x) cos(x) - 1', 1, 18),
      [4.73004074, 7.85320462, 10.9956078, 14.1371655, 17.2787597],
      6e-8,
    );
    expectNear(
      zeros('cosh(x) cos(x) + 1', 1, 15),
      [1.87510407, 4.69409113, 7.85475744, 10.9955407, 14.1371684],
      6e-8,
    );
  });

  // Finch, Mathematical Constants (2003): sections 1.1, 1.2, 6.11 and others; values from memory.
  test.each([
    ['cos(x) - x', 0, 2, 0.7390851332151607],
    ['x*e^x - 1', 0, 2, 0.5671432904097838],
    ['x^2 - x - 1', 0, 3, 1.618033988749895],
    ['x^3 - x - 1', 0, 3, 1.324717957244746],
    ['x^3 - 2x - 5', 0, 4, 2.0945514815423265],
    ['x^5 - x - 1', 0, 2, 1.1673039782614187],
    ['x^x - 2', 1, 2, 1.5596104694623694],
    ['5(1 - e^(-x)) - x', 1, 10, 4.965114231744276],
    ['3(1 - e^(-x)) - x', 1, 10, 2.8214393721220787],
    ['2^x - x^2', -2, 0, -0.7666646959621231],
    ['tanh(x) - 1/x', 0.5, 3, 1.199678640257734],
    ['x - 0.5 sin(x) - 1', 0, 3, 1.4987011335178484],
    ['ln(x) + x', 0.1, 2, 0.5671432904097838],
    ['x^3 + 2x^2 + 10x - 20', 0, 3, 1.368808107821373],
    ['e^x - 3x', 1, 2, 1.5121345516578424],
  ])('%s between %s and %s', (text, a, b, expected) =>
    expectNear(zeros(text, a, b), [expected], 5e-16 * Math.max(1, Math.abs(expected))),
  );
});

/** [f, a, b, kind, x, exact, y] */
const textbook: readonly [string, number, number, KeyPointKind, number, number][] = [
  // Stewart, Calculus (8th ed.), chapter 4: worked examples on extrema, concavity and optimisation.
  ['3x^4 - 16x^3 + 18x^2', -1, 4, 'maximum', 1, 5],
  ['3x^4 - 16x^3 + 18x^2', -1, 4, 'minimum', 3, -27],
  ['x^3 - 3x^2 + 1', -0.5, 4, 'maximum', 0, 1],
  ['x^3 - 3x^2 + 1', -0.5, 4, 'minimum', 2, -3],
  ['x^3 - 3x^2 + 1', -0.5, 4, 'inflection', 1, -1],
  ['x - 2 sin(x)', 0, 6.25, 'minimum', Math.PI / 3, Math.PI / 3 - Math.sqrt(3)],
  ['x - 2 sin(x)', 0, 6.25, 'maximum', (5 * Math.PI) / 3, (5 * Math.PI) / 3 + Math.sqrt(3)],
  ['3x^4 - 4x^3 - 12x^2 + 5', -2, 3, 'minimum', -1, 0],
  ['3x^4 - 4x^3 - 12x^2 + 5', -2, 3, 'maximum', 0, 5],
  ['3x^4 - 4x^3 - 12x^2 + 5', -2, 3, 'minimum', 2, -27],
  ['x^4 - 4x^3', -1, 5, 'minimum', 3, -27],
  ['x^4 - 4x^3', -1, 5, 'inflection', 0, 0],
  ['x^4 - 4x^3', -1, 5, 'inflection', 2, -16],
  ['x^(2/3)(6-x)^(1/3)', -1, 7, 'maximum', 4, 2 ** (5 / 3)],
  ['x^(2/3)(6-x)^(1/3)', -1, 7, 'minimum', 0, 0],
  ['x e^x', -4, 1, 'minimum', -1, -1 / Math.E],
  ['x e^x', -4, 1, 'inflection', -2, -2 / Math.E ** 2],
  ['cos(x)/(2 + sin(x))', 0, 6.25, 'maximum', (11 * Math.PI) / 6, 1 / Math.sqrt(3)],
  ['cos(x)/(2 + sin(x))', 0, 6.25, 'minimum', (7 * Math.PI) / 6, -1 / Math.sqrt(3)],
  ['2400x - 2x^2', 0, 1200, 'maximum', 600, 720_000],
  // Thomas, Calculus (11th ed.), chapter 4.
  ['x^2/(x^2 + 1)', -3, 3, 'minimum', 0, 0],
  ['x^(1/3)(x - 4)', -3, 5, 'minimum', 1, -3],
  ['x^(1/3)(x - 4)', -3, 5, 'inflection', -2, 6 * 2 ** (1 / 3)],
  ['ln(x)/x', 0.5, 10, 'maximum', Math.E, 1 / Math.E],
  ['x^2 e^(-x)', -1, 5, 'maximum', 2, 4 / Math.E ** 2],
  ['x + 1/x', 0.2, 4, 'minimum', 1, 2],
  // The normal curve: inflections one standard deviation from the middle (common practice).
  ['e^(-x^2/2)', -3, 3, 'inflection', 1, Math.exp(-0.5)],
  ['e^(-x^2/2)', -3, 3, 'inflection', -1, Math.exp(-0.5)],
  // The witch of Agnesi: inflections at a/√3.
  ['1/(1 + x^2)', -3, 3, 'inflection', 1 / Math.sqrt(3), 0.75],
  // x^x: Finch, Mathematical Constants (2003).
  ['x^x', 0.1, 2, 'minimum', 1 / Math.E, 0.6922006275553463],
];

describe('key points of textbook examples', () => {
  test.each(textbook)('%s on [%s, %s] has a %s at %s', (text, a, b, kind, x, y) => {
    const { points, complete } = keyPoints(read(text), 'x', [a, b]);
    const found = points
      .filter((point) => point.kind === kind)
      .find((point) => Math.abs(point.x - x) < 1e-12 * Math.max(1, Math.abs(x)));
    expect(found).toBeDefined();
    expect(Math.abs((found?.y ?? NaN) - y)).toBeLessThan(1e-12 * Math.max(1, Math.abs(y)));
    expect(found?.proved).toBe(true);
    expect(complete).toBe(true);
  });
});

describe('integrals and sums as values', () => {
  // Abramowitz & Stegun: 7.1 (error function), 5.2 (sine integral), 4.4.3, and elementary antiderivatives.
  test.each([
    ['∫[0, 1] e^(-t^2) dt', 0.746824132812427],
    ['∫[0, π] sin(t)/t dt', 1.851937051982466],
    ['∫[0, 1] 4/(1 + t^2) dt', Math.PI],
    ['∫[1, e] 1/t dt', 1],
    ['∫[0, π] sin(t) dt', 2],
    ['∫[0, 1] sqrt(t) dt', 2 / 3],
    ['∫[0, 2] t^3 dt', 4],
    ['∫[-1, 1] abs(t) dt', 1],
    ['∫[1, 0] t dt', -0.5],
    ['sum i from 1 to 100 of i', 5050],
    ['sum i from 1 to 100 of i^2', 338_350],
    ['sum i from 0 to 60 of 1/i!', Math.E],
    ['sum i from 1 to 1000 of 1/i', 7.485470860550345],
    ['sum i from 5 to 1 of i', 0],
  ])('%s', (text, expected) => {
    expect(Math.abs(evaluateAt(compile(read(text), 'x'), 0) - expected)).toBeLessThan(
      2e-12 * Math.max(1, Math.abs(expected)),
    );
  });
});
