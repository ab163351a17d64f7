import { describe, expect, test } from '@jest/globals';
import { integral, readExpression, type Expression } from '../src/index.ts';
import { checkedIntegral, shownIntegral } from '../src/area/certificate.ts';
import { exactPlace } from '../src/analysis/place.ts';
import { checkAreas, type AreaCertificate } from '../src/checker/areas.ts';
import { cases } from '../../../tests/cases.ts';
import { Random } from '../fuzz/inputs.ts';

/** What the checker says of integrals with ends at which the function has no value, or at an infinity. */

const read = (text: string): Expression => {
  const reading = readExpression(text, { names: new Set(['x']), functions: new Set() });
  if (!reading.ok) throw new Error(text);
  return reading.value;
};
const infinity = Infinity;

const checked = (text: string, a: number, b: number, isTotal = false) => {
  const body = read(text);
  return checkedIntegral(body, 'x', [a, b], integral(body, 'x', [a, b], { isTotal }), isTotal);
};

/** An integral as it is told once the checker has looked at it. */
const shown = (text: string, a: number, b: number, isTotal = false) => {
  const body = read(text);
  const found = integral(body, 'x', [a, b], { isTotal });
  return { ...found, ...shownIntegral(found, checkedIntegral(body, 'x', [a, b], found, isTotal)) };
};

/** Bounds of the area between doubles and beyond, from a number as a formula or an infinity, and to one. */
function boundsOf(text: string, ends: readonly number[], from: string | null, to: string | null) {
  const open = (end: string): Expression | 'infinity' => (end === 'infinity' ? end : read(end));
  const place = (end: string | null, side: 1 | -1, otherwise: number): number =>
    end === 'infinity' ? side * Infinity : end === null ? otherwise : (exactPlace(read(end))?.value ?? NaN);
  const interval = [place(from, -1, ends[0] ?? NaN), place(to, 1, ends.at(-1) ?? NaN)] as const;
  const certificate = {
    body: read(text),
    variable: 'x',
    ends,
    ...(from === null ? {} : { from: open(from) }),
    ...(to === null ? {} : { to: open(to) }),
  };
  return checkAreas([certificate], interval, { value: 0, bound: 1e-10, exact: null }).bounds;
}

describe('what is proved of an improper integral is accepted', () => {
  const integrals: [string, number, number][] = [
    // Powers, logarithms and roots beside a number.
    ['ln(x)/(1 + x)', 0, 1],
    ['1/sqrt(x)', 0, 1],
    ['1/sqrt(1 - x^4)', 0, 1],
    ['x^(-0.9)', 0, 1],
    ['x^x', 0, 1],
    ['ln(tan x)', 0, Math.PI / 4],
    ['1/sqrt(abs(x))', -1, 1],
    ['ln(abs(x - 1))', 0, 3],
    ['sin(x)/x', 0, 3],
    ['e^(-1/x)/x^2', 0, 1],
    // Far out.
    ['e^(-x)/x', 1, infinity],
    ['sqrt(x) e^(-x)', 0, infinity],
    ['e^(-x^4)', -infinity, infinity],
    ['1/(1 + x^2)', -infinity, infinity],
    ['x^3/(e^x - 1)', 0, infinity],
    ['x^2/cosh(x)^2', 0, infinity],
    ['e^(-x) ln(x)', 0, infinity],
    ['ln(x)/x^2', 1, infinity],
    // Waves.
    ['sin(x)/(1 + x)', 0, infinity],
    ['x sin(x)/(1 + x^2)', 0, infinity],
    ['sin(x)^2/x^2', 0, infinity],
    ['arctan(x) sin(x)/x', 1, infinity],
    ['sin(1/x)', 0, 1],
    ['sin(1/(x - 1))', 0, 1],
  ];
  const step = Math.ceil(integrals.length / cases(8, integrals.length));
  test.each(integrals.filter((_, i) => i % step === 0))('∫ %s from %f to %f', (text, a, b) => {
    expect(checked(text, a, b)).toMatchObject({ isAccepted: true });
  });

  test('turned round, and without signs', () => {
    expect(checked('e^(-x)', infinity, 0)).toMatchObject({ isAccepted: true });
    expect(checked('ln(x)', 0, 2, true)).toMatchObject({ isAccepted: true });
  });
});

// Of the first Bessel's integral 2 K₁(2), DLMF table; Sophomore's dream for x^(−x): Σ n^(−n); E₁(1); −π²/6; π. From memory.
const estimated: [string, number, number, number][] = [
  ['e^(-x - 1/x)', 0, infinity, 0.2797317636330449],
  ['x^(-x)', 0, 1, 1.2912859970626636],
  ['e^(-1/x)/x', 0, 1, 0.21938393439552029],
  ['ln(1 - e^(-x))', 0, infinity, -(Math.PI ** 2) / 6],
  ['sin(sqrt(x))/x', 0, infinity, Math.PI],
  // coth(π/2)/2
  ['e^(-x) |sin x|', 0, infinity, 1 / (2 * Math.tanh(Math.PI / 2))],
  // π/2 − Si(1), with Si(1) = 0.94608307036718301494 (Abramowitz & Stegun, table 5.1; from memory).
  ['sin(e^x)', 0, infinity, Math.PI / 2 - 0.946083070367183],
  // By parts: cos 1 less the integral before.
  ['e^(-x) cos(e^x)', 0, infinity, Math.cos(1) - Math.PI / 2 + 0.946083070367183],
];
const some = Math.ceil(estimated.length / cases(3, estimated.length));
test.each(estimated.filter((_, i) => i % some === 0))(
  'where ∫ %s from %f to %f is estimated only, the checker’s own bounds prove it',
  (text, a, b, known) => {
    const body = read(text);
    expect(integral(body, 'x', [a, b]).certainty).toBe('estimated');
    const { value, bound, certainty } = shown(text, a, b);
    expect(certainty).toBe('proved');
    expect(bound).toBeLessThan(1e-9 * Math.abs(known) * 2);
    expect(Math.abs(value - known)).toBeLessThanOrEqual(bound + 1e-15 * Math.abs(known));
  },
);

test.each<[text: string, from: number, isTotal: boolean, known: number, width: number]>([
  // The sum of the squares' reciprocals, π²/6 (Euler).
  ['1/floor(x)^2', 1, false, Math.PI ** 2 / 6, 1e-3],
  ['1/ceil(x)^2', 0, false, Math.PI ** 2 / 6, 1e-3],
  // By parts |sin x|/x² over (0, π), (π, 2π), … is Σ ∫ sin t/(t + kπ)² dt; its ends by hand, from 0.7741 to 0.7745.
  ['|sin(x)|/x^2', 1, false, 0.7743, 0.01],
  ['sin(x)/x^2', 1, true, 0.7743, 0.01],
])(
  'between bounds, proved, lies ∫ %s from %f to ∞, which no digits are claimed of',
  (text, from, isTotal, known, width) => {
    const { bounds, certainty } = shown(text, from, infinity, isTotal);
    expect(certainty).toBe('estimated');
    const [low, high] = bounds ?? [NaN, NaN];
    expect([low < known, known < high, high - low < width]).toEqual([true, true, true]);
  },
);

test('no bound is shown of what diverges, nor of what is no number', () => {
  for (const [text, a, b] of [
    ['1/x', 0, 1],
    ['sin x', 0, infinity],
    ['1/floor(x)', 1, infinity],
    ['|sin(x)|/x', 1, infinity],
  ] as const) {
    const body = read(text);
    const found = integral(body, 'x', [a, b]);
    expect(shownIntegral(found, checkedIntegral(body, 'x', [a, b], found, false)).bounds).toBeNull();
    const told = { ...found, value: 1, bound: 1, certainty: 'estimated', diverges: false } as const;
    expect(checkedIntegral(body, 'x', [a, b], told, false)?.bounds ?? null).toBeNull();
  }
});

/** An integral with open ends whose value is known by hand. */
interface Known {
  readonly text: string;
  readonly ends: readonly number[];
  readonly from: string | null;
  readonly to: string | null;
  readonly value: number;
}

const factorial = (n: number): number => (n < 2 ? 1 : n * factorial(n - 1));
const wave = (a: number, b: number): number => b / (a * a + b * b);

/** By parts and substitution; the last by residues. */
const kinds: ((random: Random) => Known)[] = [
  (random) => {
    const [p, q, j] = [random.below(9) - 3, 4 + random.below(3), random.below(4)];
    const b = p / q + 1;
    return {
      text: `x^(${p}/${q}) ln(x)^${j}`,
      ends: [0.5, 1],
      from: '0',
      to: null,
      value: ((-1) ** j * factorial(j)) / b ** (j + 1),
    };
  },
  (random) => {
    const [n, a] = [random.below(5), 1 + random.below(5)];
    return {
      text: `x^${n} e^(-${a}x)`,
      ends: [0, 8],
      from: null,
      to: 'infinity',
      value: factorial(n) / a ** (n + 1),
    };
  },
  (random) => {
    const [p, j] = [3 + random.below(4), random.below(3)];
    return {
      text: `x^(-${p}/2) ln(x)^${j}`,
      ends: [1, 8],
      from: null,
      to: 'infinity',
      value: factorial(j) / (p / 2 - 1) ** (j + 1),
    };
  },
  (random) => {
    const [a, b] = [1 + random.below(4), 1 + random.below(3)];
    return { text: `e^(-${a}x) sin(${b}x)`, ends: [0, 8], from: null, to: 'infinity', value: wave(a, b) };
  },
  (random) => {
    const [b, c] = [1 + random.below(3), 1 + random.below(3)];
    const value = (Math.PI * Math.exp(-b * c)) / (2 * c);
    return { text: `cos(${b}x)/(${c}^2 + x^2)`, ends: [0, 8], from: null, to: 'infinity', value };
  },
  (random) => {
    const [a, b] = [1 + random.below(5), 1 + random.below(5)];
    // ∫ (b − x)^(−1/a) from 0 to b.
    const exponent = 1 - 1 / (a + 1);
    const value = b ** exponent / exponent;
    return { text: `(${b} - x)^(-1/${a + 1})`, ends: [0, b / 2], from: null, to: String(b), value };
  },
];

test('bounds hold what is known by hand', () => {
  const random = new Random(20261202);
  for (let i = 0; i < cases(12, 240); i++) {
    const { text, ends, from, to, value } = (kinds[i % kinds.length] as (random: Random) => Known)(random);
    const bounds = boundsOf(text, ends, from, to);
    if (!bounds) throw new Error(text);
    const slack = 1e-15 * Math.abs(value);
    if (bounds[0] > value + slack || bounds[1] < value - slack)
      throw new Error(`${text}: ${bounds.join(' … ')} without ${value}`);
    expect([text, bounds[1] - bounds[0] < 1e-9]).toEqual([text, true]);
  }
});

describe('nothing is told', () => {
  test.each<[string, readonly number[], string | null, string | null]>([
    ['1/x', [0.5, 1], '0', null],
    ['1/x', [1, 8], null, 'infinity'],
    ['x^(-3/2)', [0.5, 1], '0', null],
    ['1/(x ln x)', [4, 8], null, 'infinity'],
    ['e^x', [1, 8], null, 'infinity'],
    ['e^(-x)', [-8, 0], 'infinity', null],
    ['e^(1/x)', [0.5, 1], '0', null],
    ['1/(1 - x)', [0, 0.5], null, '1'],
    ['tan x', [0, 1], null, 'pi/2'],
    ['1/sin(x)', [0.5, 1], '0', null],
    ['1/(1 - cos x)^(1/2)', [0.5, 1], '0', null],
    ['(e^x + 1)/(e^x - 1)', [4, 8], null, 'infinity'],
    ['arctan(x)/x', [4, 8], null, 'infinity'],
    ['sin x', [1, 8], null, 'infinity'],
    ['x sin x', [1, 8], null, 'infinity'],
    ['sin(x)(1 + 1/x)', [1, 8], null, 'infinity'],
    ['sin(x)^2/x', [1, 8], null, 'infinity'],
    ['abs(sin x)/x', [1, 8], null, 'infinity'],
    ['cos(1/x)/x^2', [0.5, 1], '0', null],
  ])('where ∫ %s diverges', (text, ends, from, to) => {
    expect(boundsOf(text, ends, from, to)).toBeNull();
  });

  test.each<[string, readonly number[], string | null, string | null]>([
    ['1/(x - 1/1024)', [0.5, 1], '0', null],
    ['sqrt(x - 1/100)', [0.5, 1], '0', null],
    ['ln(x - 1/1000)/sqrt(x)', [0.5, 1], '0', null],
    ['1/(x - 1000)/x', [1, 8], null, 'infinity'],
    ['sin(x)/(x - 1000)', [1, 8], null, 'infinity'],
    ['sqrt(100000 - x)/x^3', [1, 8], null, 'infinity'],
    ['x/(x - x)', [0.5, 1], '0', null],
    ['ln(1 + sqrt(x - 1/1000)^2)', [0.5, 1], '0', null],
    ['sin(sqrt(1000 - x)^2)/x', [1, 8], null, 'infinity'],
  ])('where %s has a pole or no value on the way', (text, ends, from, to) => {
    expect(boundsOf(text, ends, from, to)).toBeNull();
  });

  test('of a certificate that lies on the wrong side of its end, or holds no number', () => {
    expect(boundsOf('1/x^2', [-8, -1], null, 'infinity')).toBeNull();
    expect(boundsOf('1/sqrt(x)', [1, 2], '3', null)).toBeNull();
    expect(boundsOf('1/x^2', [], null, 'infinity')).toBeNull();
  });
});

test('a value beside the area, and bounds that are too narrow, are refused', () => {
  const certificate = {
    body: read('e^(-x)/sqrt(x)'),
    variable: 'x',
    ends: [1],
    from: read('0'),
    to: 'infinity' as const,
  };
  const isAccepted = (value: number, bound: number): boolean =>
    checkAreas([certificate], [0, infinity], { value, bound, exact: null }).isAccepted;
  const value = Math.sqrt(Math.PI);
  expect(isAccepted(value, 1e-10)).toBe(true);
  expect(isAccepted(value + 3e-10, 1e-10)).toBe(false);
  expect(isAccepted(value, 1e-17)).toBe(false);
});

test('stretches that leave something out, overlap, or are of another interval are refused', () => {
  const body = read('1/sqrt(abs(x))');
  const stretch = (ends: readonly number[], open: Pick<AreaCertificate, 'from' | 'to'>): AreaCertificate => ({
    ...{ body, variable: 'x', ends },
    ...open,
  });
  const zero = read('0');
  const [left, right] = [stretch([-1, -0.5], { to: zero }), stretch([0.5, 1], { from: zero })];
  const boundsOver = (on: readonly [number, number], ...stretches: readonly AreaCertificate[]) =>
    checkAreas(stretches, on, { value: 4, bound: 1e-10, exact: null }).bounds;
  const whole = boundsOver([-1, 1], left, right);
  expect(whole?.map((end) => Math.abs(end - 4) < 1e-10)).toEqual([true, true]);
  for (const stretches of [
    [left],
    [right],
    [right, left],
    [left, stretch([0.5, 1], {})],
    [left, stretch([0.5, 1], { from: read('1/100') })],
    [],
  ])
    expect(boundsOver([-1, 1], ...stretches)).toBeNull();
  expect(boundsOver([-1, 2], left, right)).toBeNull();
  expect(boundsOver([-1, Infinity], left, right)).toBeNull();
});
