import { describe, expect, test } from '@jest/globals';
import { fuzzClaims, judge, type Claims } from '../fuzz/claims.ts';
import { Random } from '../fuzz/inputs.ts';
import { keyPoints, readExpression } from '../src/index.ts';
import { cases } from '../../../tests/cases.ts';

const read = (text: string) => {
  const reading = readExpression(text, { names: new Set(['x']), functions: new Set() });
  if (!reading.ok) throw new Error(text);
  return reading.value;
};

test('random claims, looked at in three times the digits of a double: none is contradicted', () => {
  const count = cases(80, 2000);
  const { tried, right, wrong } = fuzzClaims(new Random(20261130), count);
  expect(wrong).toEqual([]);
  expect(tried).toBe(count);
  expect(right).toBeGreaterThan(0.8 * count);
});

describe('the judge contradicts what is false', () => {
  const found = (text: string) => keyPoints(read(text), 'x', [-3, 3]);
  const without = (kind: string) => (text: string) => {
    const list = found(text);
    return { ...list, points: list.points.filter((point) => point.kind !== kind) };
  };

  test.each([
    ['keyPoints', 'x^3 - 3x + 1', { keyPoints: without('zero') }],
    ['keyPoints', 'x^3 - 3x + 1', { keyPoints: without('maximum') }],
    ['keyPoints', 'x^3 - 3x + 1', { keyPoints: without('inflection') }],
    [
      'keyPoints',
      'x^3 - 3x + 1',
      {
        keyPoints: (text: string) => {
          const list = found(text);
          const points = list.points.map((p) => (p.kind === 'maximum' ? { ...p, absolute: true } : p));
          return { ...list, points };
        },
      },
    ],
    ['solutions', 'x^3 - 3x + 0.3', { solve: () => ({ solutions: [], everywhere: [], complete: true }) }],
    ['solutions', 'x', { solve: () => ({ solutions: [{ value: 2.5 }], everywhere: [], complete: true }) }],
    [
      'signs',
      'x^2 - 2',
      { signs: () => ({ intervals: [{ from: { value: -1 }, to: { value: 1 }, sign: 1 }] }) },
    ],
    ['values', 'x^2 + 3', { toldValue: () => ({ value: 2.9, exact: null }) }],
    ['values', 'x^2 + 3', { toldValue: () => ({ value: 3, exact: read('3.5') }) }],
    [
      'integrals',
      'x^2',
      { integral: () => ({ value: 1, bound: 1e-9, certainty: 'proved', diverges: false }) },
    ],
    [
      'areas',
      'sin(x)',
      { integral: () => ({ value: 0, bound: 1e-9, certainty: 'proved', diverges: false }) },
    ],
    ['integrals', 'x^2', { integral: () => ({ value: NaN, bound: 0, certainty: 'proved', diverges: true }) }],
  ] as [Parameters<typeof judge>[0]['kind'], string, object][])('%s of %s: %j', (kind, text, claims) => {
    const question = { kind, text, on: [-3, 3] as const };
    const adapted = Object.fromEntries(
      Object.entries(claims as Record<string, (text: string) => unknown>).map(([name, make]) => [
        name,
        () => make(text),
      ]),
    ) as Partial<Claims>;
    const verdicts = [1, 2, 3, 4, 5, 6].map((seed) => judge(question, new Random(seed), adapted));
    expect(verdicts.some((verdict) => verdict !== null && verdict !== 'right')).toBe(true);
    expect([1, 2, 3].map((seed) => judge(question, new Random(seed)))).not.toContainEqual(
      expect.objectContaining({ wrong: expect.anything() }),
    );
  });
});

describe('where zeros may hide', () => {
  // sin(π/x) changes its sign at every 1/k.
  test.each(['max(0, sin(π/x))', 'sin(π/x) if sin(π/x) > 0; 0 otherwise'])(
    'no sign is told over them: %s',
    (text) => {
      const question = { kind: 'signs', text, on: [-0.2, 0.1] } as const;
      const verdicts = [1, 2].map((seed) => judge(question, new Random(seed)));
      expect(verdicts).toEqual(['right', 'right']);
    },
  );

  test('and no end of a domain is listed where they begin', () => {
    const { points, complete } = keyPoints(read('max(0, sin(π/x))'), 'x', [-3, 2]);
    expect(complete).toBe(false);
    expect(points.filter(({ kind }) => kind === 'endpoint').map(({ x }) => x)).toEqual([-3, 2]);
    expect(points.filter(({ kind }) => kind === 'openEnd')).toEqual([]);
  });
});

test.each([
  '(x if x < 0; x otherwise) + e^(-10^10)',
  '0.5(x if x < 0; x otherwise) + 10exp(-((x - 1.5)/10^(-5))^2)',
  '|x| + x - exp(-10^10 - x^2)',
  'sin(x + 2) - 2e^(-9000(x + 0.957)^2)',
])('a zero that nothing tells from a join, where f is not 0, is not passed over: %s', (text) => {
  const { points, complete } = keyPoints(read(text), 'x', [-2, 1]);
  expect(complete && points.every(({ kind }) => kind !== 'zero')).toBe(false);
});

test.each([
  '(1/3 if x < 2; 3 otherwise) + e^(-10^9 x)',
  '(1/3 if x < 2; 3 otherwise) + 10^(-1)*exp(-((x - 0.8)/10^(-5))^2)',
  'floor(x) + 10^(-4)*exp(-((x + 2.5)/10^(-4))^2)',
])('an end is not the lowest of all where f may tend to less: %s', (text) => {
  const [end] = keyPoints(read(text), 'x', [1, 6]).points;
  expect(end).toMatchObject({ kind: 'endpoint', absolute: null });
});
