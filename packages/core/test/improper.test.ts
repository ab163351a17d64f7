import { describe, expect, test } from '@jest/globals';
import { integral, readExpression, type Expression } from '../src/index.ts';
import { exactPlace, type Place } from '../src/analysis/place.ts';
import { boundsBesideEnds } from '../src/area/besideEnds.ts';
import { Random } from '../fuzz/inputs.ts';

const read = (text: string): Expression => {
  const reading = readExpression(text, { names: new Set(['x']), functions: new Set() });
  if (!reading.ok) throw new Error(text);
  return reading.value;
};
const over = (text: string, a: number, b: number) => integral(read(text), 'x', [a, b]);
const { E, PI, log, sqrt } = Math;
const infinity = Infinity;

describe('bounds of improper integrals', () => {
  // Abramowitz and Stegun, tables 5.1 (Si, Ein, E₁), 7.1 (erf), 6.1 (Γ), 17 (elliptic); Catalan's and other constants from
  // the NIST Digital Library of Mathematical Functions; the rest by hand. From memory.
  test.each<[string, number, number, number]>([
    ['sin(x)/x', 0, 3, 1.8486525279994683],
    ['sin(x)/x', -1, 1, 2 * 0.946083070367183],
    ['(e^x - 1)/x', 0, 1, 1.3179021514544038],
    ['(1 - e^(-x))/x', 0, 1, 0.796599599297053],
    ['ln(1 + x)/x', 0, 1, PI ** 2 / 12],
    ['arctan(x)/x', 0, 1, 0.915965594177219],
    ['ln(x)/(1 + x)', 0, 1, -(PI ** 2) / 12],
    ['ln(x)/(1 + x^2)', 0, 1, -0.915965594177219],
    ['1/sqrt(1 - x^4)', 0, 1, 1.3110287771460598],
    ['1/(sqrt(x) sqrt(1 - x) sqrt(1 - x/2))', 0, 1, 2 * 1.8540746773013719],
    ['e^(-x^2)', 1, infinity, 0.13940279264033098],
    ['e^(-x)/x', 1, infinity, 0.2193839343955203],
    ['sqrt(x) e^(-x)', 0, infinity, sqrt(PI) / 2],
    ['e^(-x)/sqrt(x)', 0, infinity, sqrt(PI)],
    ['e^(-x^4)', -infinity, infinity, 1.812804954110954],
    ['1/sqrt(1 + x^4)', 0, infinity, 1.8540746773013719],
    ['1/sqrt(1 + x^4)', -infinity, infinity, 2 * 1.8540746773013719],
    // Factors that vanish at the end, logarithms of them, and sums of exponentials far out.
    ['ln(sin x)', 0, 1, -1.0567202059915843],
    ['x/sin(x)', 0, 1, 1.0597627933483083],
    ['ln(tan x)', 0, PI / 4, -0.915965594177219],
    ['sin(x)/x + cos(x)', 0, 2, 1.6054129768026948 + Math.sin(2)],
    ['ln(x)^2/(1 + x)', 0, 1, 1.803085354739391],
    ['ln(x) ln(1 - x)', 0, 1, 2 - PI ** 2 / 6],
    ['x^x', 0, 1, 0.7834305107121344],
    ['x^3/(e^x - 1)', 0, infinity, PI ** 4 / 15],
    ['sqrt(x)/(e^x - 1)', 0, infinity, (2.612375348685488 * sqrt(PI)) / 2],
    ['x/sinh(x)', -infinity, infinity, PI ** 2 / 2],
    ['x^2/cosh(x)^2', 0, infinity, PI ** 2 / 12],
    ['e^(-x) ln(x)', 0, infinity, -0.5772156649015329],
    ['e^(-x^2) ln(x)', 0, infinity, (-sqrt(PI) / 4) * (0.5772156649015329 + 2 * log(2))],
    // Far parts that converge by their waves alone.
    ['sin(x)/(1 + x)', 0, infinity, 0.6214496242358134],
    ['x sin(x)/(1 + x^2)', 0, infinity, PI / (2 * E)],
    ['sin(x)/sqrt(x)', 0, infinity, sqrt(PI / 2)],
    ['sin(x)/x', 1, infinity, PI / 2 - 0.946083070367183],
    ['e^(-x) sin(x)/x', 0, infinity, PI / 4],
    // Swings without end beside 0: with x = 1/u, sin 1 − Ci 1 and their kin.
    ['sin(1/x)', 0, 1, Math.sin(1) - 0.3374039229009681],
    ['sin(1/x)/x', 0, 1, PI / 2 - 0.946083070367183],
    ['x sin(1/x)', 0, 1, (Math.sin(1) + Math.cos(1) - PI / 2 + 0.946083070367183) / 2],
    ['sin(1/(x - 1))', 0, 1, 0.3374039229009681 - Math.sin(1)],
    ['x^2 e^(-x^2)', -infinity, -1, sqrt(PI) / 4 - (sqrt(PI) / 4) * 0.8427007929497149 + 1 / (2 * E)],
  ])('∫ %s from %f to %f', (text, a, b, known) => {
    const { value, bound, certainty, exact } = over(text, a, b);
    expect([certainty, exact]).toEqual(['proved', null]);
    expect(bound).toBeLessThan(1e-10);
    expect(Math.abs(value - known)).toBeLessThan(bound + 4e-16 * Math.abs(known));
  });

  test('none is told where the integral diverges', () => {
    for (const [text, a, b] of [
      ['sin(x)/x^2', 0, 1],
      ['cos(x)/x', 0, 1],
      ['e^(-x)/x', 0, 1],
      ['cos(x)/(x ln x)', 0, 0.5],
      ['e^x/x', 1, infinity],
      ['1/sqrt(1 + x^2)', 0, infinity],
      ['arctan(x)/x', 1, infinity],
    ] as const)
      expect([text, over(text, a, b)]).toMatchObject([text, { value: NaN, diverges: true }]);
  });
});

test('an area whose zeros were not all found has no proved value', () => {
  for (const [text, a, b] of [
    ['sin(1/x)', 0, 1],
    ['x^2 sin(1/x)', -1, 1],
    ['sin(3000x)', 0, 10],
  ] as const) {
    const { value, certainty } = integral(read(text), 'x', [a, b], { isTotal: true });
    expect([text, Number.isNaN(value) || certainty === 'estimated']).toEqual([text, true]);
  }
});

test('powers, logarithms and polynomials at random: the bounds hold what is known by hand', () => {
  const random = new Random(20261205);
  const place = (text: string): Place => exactPlace(read(text)) as Place;
  for (let i = 0; i < 60; i++) {
    const [p, q] = [random.below(7) - 2, 3 + random.below(3)];
    const coefficients = Array.from({ length: 1 + random.below(4) }, () => random.below(9) - 4);
    const hasLogarithm = random.below(2) === 1;
    const polynomial = coefficients.map((c, k) => `(${c}) x^${k}`).join(' + ');
    const body = read(`x^(${p}/${q}) (${polynomial})${hasLogarithm ? ' ln(x)' : ''}`);
    const end = random.pick(['1/4', '1/2', '1']);
    const to = place(end);
    const bounds = boundsBesideEnds(
      { from: place('0'), to, body, antiderivative: null, sign: NaN },
      'x',
      ({ value }) => value !== 0,
    );
    // ∫ xᵇ⁻¹ = δᵇ/b and ∫ xᵇ⁻¹ ln x = δᵇ (b ln δ − 1)/b².
    const terms = coefficients.map((c, k) => {
      const b = p / q + k + 1;
      const raised = to.value ** b / b;
      return c * (hasLogarithm ? raised * (log(to.value) - 1 / b) : raised);
    });
    const known = terms.reduce((sum, term) => sum + term, 0);
    const slack = 4e-15 * terms.reduce((sum, term) => sum + Math.abs(term), 0);
    if (!bounds || bounds.low > known + slack)
      throw new Error(`${p}/${q} ${polynomial} ${hasLogarithm} ${end} ${known} ${JSON.stringify(bounds)}`);
    expect(bounds.low).toBeLessThanOrEqual(known + slack);
    expect(bounds.high).toBeGreaterThanOrEqual(known - slack);
    expect(bounds.high - bounds.low).toBeLessThan(1e-9 * (Math.abs(known) + 1));
  }
});
