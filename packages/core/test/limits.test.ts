import { describe, expect, test } from '@jest/globals';
import { compile, limitOfProgram, type tree, type Limit } from '../src/index.ts';
import * as big from '../src/numbers/bigFloat.ts';
import { expression } from './scope.ts';

const limit = (text: string, at: number, side: tree.Side = 'both'): Limit =>
  limitOfProgram(compile(expression(text), 'x'), at, side);
const infinity = Infinity;

/** [f, x tends to, side, limit] */
const finite: readonly [string, number, tree.Side, number][] = [
  // Stewart, Calculus: Early Transcendentals (8th ed.), chapters 2.2–2.6 and 4.4: worked examples.
  ['(x - 1)/(x^2 - 1)', 1, 'both', 0.5],
  ['(sqrt(x^2 + 9) - 3)/x^2', 0, 'both', 1 / 6],
  ['sin(x)/x', 0, 'both', 1],
  ['(x^2 - 1)/(x - 1)', 1, 'both', 2],
  ['((3 + x)^2 - 9)/x', 0, 'both', 6],
  ['x^2 sin(1/x)', 0, 'both', 0],
  ['(3x^2 - x - 2)/(5x^2 + 4x + 1)', infinity, 'both', 3 / 5],
  ['sqrt(2x^2 + 1)/(3x - 5)', infinity, 'both', Math.SQRT2 / 3],
  ['sqrt(2x^2 + 1)/(3x - 5)', -infinity, 'both', -Math.SQRT2 / 3],
  ['sqrt(x^2 + 1) - x', infinity, 'both', 0],
  ['e^(1/x)', 0, 'left', 0],
  ['arctan(1/(x - 2))', 2, 'right', Math.PI / 2],
  ['ln(x)/(x - 1)', 1, 'both', 1],
  ['ln(x)/cbrt(x)', infinity, 'both', 0],
  ['(tan(x) - x)/x^3', 0, 'both', 1 / 3],
  ['x ln(x)', 0, 'right', 0],
  ['1/ln(x) - 1/(x - 1)', 1, 'right', 0.5],
  ['(1 + sin(4x))^cot(x)', 0, 'right', Math.exp(4)],
  ['x^x', 0, 'right', 1],
  // Spivak, Calculus (3rd ed.), chapters 5, 11 and 15: textbook limits.
  ['(1 - cos(x))/x^2', 0, 'both', 0.5],
  ['(1 - cos(x))/x', 0, 'both', 0],
  ['sin(2x)/x', 0, 'both', 2],
  ['tan(x)/x', 0, 'both', 1],
  ['(x^3 - 8)/(x - 2)', 2, 'both', 12],
  ['(sqrt(x) - 2)/(x - 4)', 4, 'both', 0.25],
  ['(sin(x) - x)/x^3', 0, 'both', -1 / 6],
  ['(cos(x) - 1 + x^2/2)/x^4', 0, 'both', 1 / 24],
  ['arcsin(x)/x', 0, 'both', 1],
  // The next term of a Taylor series, after all that cancel: Abramowitz & Stegun 4.3.66.
  ['(cos(x) - 1 + x^2/2 - x^4/24 + x^6/720)/x^8', 0, 'both', 1 / 40320],
  // The number e and its powers: Abramowitz & Stegun 4.2.21 and 4.1.18.
  ['(1 + 1/x)^x', infinity, 'both', Math.E],
  ['(1 + 2/x)^x', infinity, 'both', Math.exp(2)],
  ['(1 + x)^(1/x)', 0, 'both', Math.E],
  ['(e^x - 1)/x', 0, 'both', 1],
  ['(2^x - 1)/x', 0, 'both', Math.LN2],
  ['ln(1 + x)/x', 0, 'both', 1],
  ['x^(1/x)', infinity, 'both', 1],
  // Growth (common practice): exponentials outgrow powers, powers outgrow logarithms.
  ['x^100/e^x', infinity, 'both', 0],
  ['ln(x)^3/x', infinity, 'both', 0],
  ['x e^x', -infinity, 'both', 0],
  ['1/ln(x)', infinity, 'both', 0],
  ['arctan(x)', -infinity, 'both', -Math.PI / 2],
  ['tanh(x)', infinity, 'both', 1],
  ['sinh(x)/e^x', infinity, 'both', 0.5],
  ['sin(x)/x', infinity, 'both', 0],
  ['sqrt(x^2 + x) - x', infinity, 'both', 0.5],
  // Far beyond all usual places: every power of x outgrows every power of ln x (Hardy, Orders of Infinity, 1910, ch. 3).
  ['ln(x)/x^0.001', infinity, 'both', 0],
  ['ln(x)^10/x^0.1', infinity, 'both', 0],
  ['x^0.001 ln(x)', 0, 'right', 0],
  ['ln(ln(x))/ln(x)', infinity, 'both', 0],
  ['1/ln(ln(x))', infinity, 'both', 0],
  // Stewart, Calculus: Early Transcendentals (8th ed.), chapter 4.4: indeterminate powers and differences.
  ['(e^x + x)^(1/x)', infinity, 'both', Math.E],
  ['(2^x + 3^x)^(1/x)', infinity, 'both', 3],
  ['cos(x)^(1/x^2)', 0, 'both', Math.exp(-0.5)],
  ['csc(x) - cot(x)', 0, 'both', 0],
  ['1/x^2 - cot(x)^2', 0, 'both', 2 / 3],
  ['x - ln(1 + e^x)', infinity, 'both', 0],
  ['x^x^x', 0, 'right', 0],
  // Whatever cancels: the next term of the series, by hand from those of Abramowitz & Stegun 4.3.65, 4.3.66 and 4.2.1.
  ['(1 - cos(x^2))/x^4', 0, 'both', 0.5],
  ['(sin(x) - x + x^3/6)/x^5', 0, 'both', 1 / 120],
  ['x^4/(1 - cos(x^2))', 0, 'both', 2],
  ['x^4 (1 - cos(1/x^2))', infinity, 'both', 0.5],
  ['x^5 (sin(1/x) - 1/x + 1/(6x^3))', infinity, 'both', 1 / 120],
  ['(e^x - 1 - x - x^2/2 - x^3/6)/x^4', 0, 'both', 1 / 24],
  ['(sin(tan(x)) - tan(sin(x)))/x^7', 0, 'both', -1 / 30],
  ['e^(x + e^(-x)) - e^x', infinity, 'both', 1],
  // Gruntz, On Computing Limits in a Symbolic Manipulation System (1996), chapter 8: test problems (from memory).
  ['e^x (e^(1/x - e^(-x)) - e^(1/x))', infinity, 'both', -1],
  ['e^x (sin(1/x + e^(-x)) - sin(1/x))', infinity, 'both', 1],
  ['e^(e^(e^x))/e^(e^(e^x - e^(-e^x)))', infinity, 'both', Math.E],
  ['(3^x + 5^x)^(1/x)', infinity, 'both', 5],
  ['e^(ln(ln(x + e^(ln(x) ln(ln(x)))))/ln(ln(ln(e^x + x + ln(x)))))', infinity, 'both', Math.E],
  // Scales that doubles blur.
  ['x/(x + 10^(-200))', 0, 'both', 0],
  ['10^15 + abs(x)/x', 0, 'right', 1e15 + 1],
  ['10^15 + abs(x)/x', 0, 'left', 1e15 - 1],
  // What swings between bounds beside what grows.
  ['(x + sin(x))/(x - cos(x))', infinity, 'both', 1],
  ['floor(x)/x', infinity, 'both', 1],
  ['x^2 sin(1/x)', 0, 'right', 0],
  ['abs(sin(x))/x', infinity, 'both', 0],
  ['x abs(sin(1/x) + 2cos(1/x))', 0, 'right', 0],
  ['x^3/(x^2 + sin(x)) - x', infinity, 'both', 0],
  ['0^x', 2, 'left', 0],
  // Sums, term by term.
  ['(∑[i=1, 5] sin(i x))/x', 0, 'both', 15],
  // At a place that a double only rounds, the place itself is meant.
  ['cos(x)/(x - π/2)', Math.PI / 2, 'both', -1],
  ['sin(x)/(x - π)', Math.PI, 'both', -1],
  ['(x^2 - 0.01)/(x - 0.1)', 0.1, 'both', 0.2],
  // One side.
  ['abs(x)/x', 0, 'right', 1],
  ['abs(x)/x', 0, 'left', -1],
  ['floor(x)', 2, 'left', 1],
  ['floor(x)', 2, 'right', 2],
  ['(x^2 if x < 1; 5 otherwise)', 1, 'left', 1],
  ['sqrt(x)', 0, 'right', 0],
  // Where the function is continuous, its value.
  ['x^2 + 1', 3, 'both', 10],
  ['cos(x)', 0.5, 'both', Math.cos(0.5)],
  // A derivative by its definition, and an average that shrinks to a value.
  ['((2 + x)^3 - 8)/x', 0, 'both', 12],
  ['(∫[0, x] cos(t) dt)/x', 0, 'right', 1],
];

describe('limits that exist', () => {
  test.each(finite)('%s as x tends to %s (%s)', (text, at, side, value) => {
    const found = limit(text, at, side);
    expect(found.kind).toBe('finite');
    if (found.kind === 'finite')
      expect(Math.abs(found.value - value)).toBeLessThan(
        2e-15 * Math.max(1, Math.abs(value)) + (text.includes('∫') ? 1e-9 : 0),
      );
  });

  test('a limit is called proved where it follows from continuity or a series, and only there', () => {
    expect(limit('cos(x)', 0.5)).toMatchObject({ proved: true });
    expect(limit('sin(x)/x', 0)).toMatchObject({ proved: true });
    expect(limit('(∫[0, x] cos(t) dt)/x', 0, 'right')).toMatchObject({ proved: false, exact: null });
  });
});

describe('a factor that is 0 in more than its digits', () => {
  // √(3 + 2√2) = 1 + √2 and sin(π/12) = (√6 − √2)/4, so that each is 0 throughout.
  test.each([
    '(√(3 + 2√2) - 1 - √2)/(x - 1)',
    '(sin(π/12) - (√6 - √2)/4)/(x - 1)^3',
    '(1 - max(1, 1))/(x - 1)',
    '(2 - min(2, 3))/(x - 1)^2',
    '(|-1| - 1) e^(1/(x - 1)^2)',
    '(floor(2) - 2)/|x - 1|',
    '(1 - (1 if 2 < 3; 0 otherwise))/(x - 1)',
  ])('%s tends to 0', (text) => {
    expect(limit(text, 1)).toMatchObject({ kind: 'finite', value: 0 });
  });

  test('and what is left counts: x + (√(3 + 2√2) − 1 − √2)x² grows as x does', () => {
    expect(limit('(x + (√(3 + 2√2) - 1 - √2)x^2)/x', infinity)).toMatchObject({ kind: 'finite', value: 1 });
    expect(limit('x^(√(3 + 2√2) - 1 - √2)', infinity)).toMatchObject({ kind: 'finite', value: 1 });
  });
});

describe('infinite limits', () => {
  test.each([
    ['1/x', 0, 'left', -1],
    ['1/x', 0, 'right', 1],
    ['1/x^2', 0, 'both', 1],
    ['ln(x)', 0, 'right', -1],
    ['tan(x)', Math.PI / 2, 'left', 1],
    ['tan(x)', Math.PI / 2, 'right', -1],
    ['e^(1/x)', 0, 'right', 1],
    ['x^3', -infinity, 'both', -1],
    ['e^(e^x)', infinity, 'both', 1],
    ['ln(ln(x))', infinity, 'both', 1],
    ['ln(ln(ln(x)))', infinity, 'both', 1],
    ['ln(x) - ln(ln(x))', infinity, 'both', 1],
    ['ln(x)/ln(ln(x))', infinity, 'both', 1],
    ['abs(ln(abs(x)))', 0, 'both', 1],
    ['x^(1/997)', infinity, 'both', 1],
    ['x - ln(x)', infinity, 'both', 1],
    ['x^(1/3)/x', 0, 'both', 1],
    ['10^(-200) x', infinity, 'both', 1],
    ['1/(1 - cos(x^2))', 0, 'both', 1],
    ['x/ln(x^(ln(x)^(ln(2)/ln(x))))', infinity, 'both', 1],
    ['x(2 + sin(x))', infinity, 'both', 1],
  ] as const)('%s as x tends to %s (%s)', (text, at, side, sign) => {
    expect(limit(text, at, side)).toEqual({ kind: 'infinite', sign });
  });
});

describe('limits that do not exist', () => {
  test.each([
    ['abs(x)/x', 0, 'both'],
    ['1/x', 0, 'both'],
    ['sin(1/x)', 0, 'both'],
    ['sin(x)', infinity, 'both'],
    ['x sin(x)', infinity, 'both'],
    ['floor(x)', 2, 'both'],
    ['e^(1/x)', 0, 'both'],
    ['x - floor(x)', infinity, 'both'],
    ['mod(x, 1)', infinity, 'both'],
    ['sqrt(x)', 0, 'both'],
    ['10^15 + abs(x)/x', 0, 'both'],
    // Slow swings, and swings that are hidden: along different ways they tend to different values.
    ['cos(ln(ln(ln(x))))', infinity, 'both'],
    ['sin(x^0.001)', infinity, 'both'],
    ['abs(sin(x))^x', infinity, 'both'],
    ['x^2/(1 + x^4 sin(x)^2)', infinity, 'both'],
    ['sign(x sin(1/x))', 0, 'both'],
    ['sin(x) + sin(2x)', infinity, 'both'],
    ['tan(x)', infinity, 'both'],
    ['e^(x sin(x))', infinity, 'both'],
    // What is divided by a swing has no bounds, whatever stands beside it.
    ['x tan(x)', infinity, 'both'],
  ] as const)('%s as x tends to %s', (text, at, side) => expect(limit(text, at, side).kind).toBe('none'));

  // arctan 1/2 + arctan 1/3 = π/4 (Machin's kind; Abramowitz & Stegun 4.4.34) is out of reach of the algebra.
  test.each([
    ['(arctan(1/2) + arctan(1/3) - π/4)/x', 0, 'right'],
    ['sin(x) sin(π x)', infinity, 'both'],
    ['1/(x sin(x))', infinity, 'both'],
    ['1/(x ln(x) sin(x))', infinity, 'both'],
    ['tan(1/x) x', 0, 'both'],
  ] as const)('nothing is said of %s as x tends to %s', (text, at, side) =>
    expect(limit(text, at, side).kind).toBe('undecided'),
  );

  test.each([
    ['sqrt(x)', 0, 'left'],
    ['ln(x)', 0, 'left'],
    ['arcsin(x)', infinity, 'both'],
    // A part without a value, though it would vanish.
    ['ln(-2)/x', infinity, 'both'],
  ] as const)('%s is not defined beside %s', (text, at, side) =>
    expect(limit(text, at, side).kind).toBe('undefined'),
  );
});

describe('numbers of any precision', () => {
  const bits = 400;
  const digits = (x: big.BigFloat, places: number): string => {
    const scaled = big.floor(big.multiply(x, big.fromInteger(10n ** BigInt(places)), bits));
    return String(scaled.mantissa << scaled.exponent);
  };
  // Abramowitz & Stegun, Table 1.1 (π, e, ln 2, √2 to 24 decimals).
  test.each([
    ['π', big.pi(bits), '3141592653589793238462643'],
    ['e', big.exp(big.one, bits), '2718281828459045235360287'],
    ['ln 2', big.ln(big.fromInteger(2n), bits), '693147180559945309417232'],
    ['ln 10', big.ln(big.fromInteger(10n), bits), '2302585092994045684017991'],
    ['√2', big.root(big.fromInteger(2n), 2, bits), '1414213562373095048801688'],
    ['∛2', big.root(big.fromInteger(2n), 3, bits), '1259921049894873164767210'],
    ['sin 1', big.sinCos(big.one, bits)[0], '841470984807896506652502'],
    ['cos 1', big.sinCos(big.one, bits)[1], '540302305868139717400936'],
    ['4 arctan 1', big.scale(big.arctan(big.one, bits), 2n), '3141592653589793238462643'],
  ])('%s', (_name, value, expected) => expect(digits(value, 24)).toBe(expected));

  test.each([0.1, 1, -2.5, 1e-30, 40, 1e10])('sin² + cos² = 1 and ln eˣ = x at %s', (x) => {
    const value = big.fromDouble(x);
    const [sine, cosine] = big.sinCos(value, bits);
    const sum = big.add(big.multiply(sine, sine, bits), big.multiply(cosine, cosine, bits), bits);
    expect(big.order(big.subtract(sum, big.one, bits))).toBeLessThan(-380n);
    const back = big.subtract(big.ln(big.exp(value, bits), bits), value, bits);
    expect(big.isZero(back) || big.order(back) < -360n).toBe(true);
  });

  test('what is no number is refused', () => {
    for (const x of [Infinity, -Infinity, NaN]) expect(() => big.fromDouble(x)).toThrow(big.OutOfRange);
  });

  test('a root of any degree, by whole numbers or by logarithms', () => {
    for (const n of [2, 3, 17, 120, 999]) {
      const root = big.root(big.fromInteger(7n), n, bits);
      const back = big.subtract(big.integerPower(root, n, bits), big.fromInteger(7n), bits);
      expect(big.isZero(back) || big.order(back) < -370n).toBe(true);
    }
  });

  test('doubles go there and back', () => {
    for (const x of [0.1, -1 / 3, 5e-324, 1.7976931348623157e308, 12345.678])
      expect(big.toDouble(big.fromDouble(x))).toBe(x);
  });
});
