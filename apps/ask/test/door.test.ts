import { describe, expect, test } from '@jest/globals';
import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { Answering } from '../src/answering.ts';
import { answerLine } from '../src/answers.ts';

const ask = (question: unknown): unknown => JSON.parse(answerLine(JSON.stringify(question)));
const endpoint = (x: number, y: number, absolute: boolean) => ({
  kind: 'endpoint',
  x,
  y,
  exact: String(x),
  proved: true,
  absolute,
});

interface Certified {
  readonly complete: boolean;
  readonly certificate: {
    readonly accepted: boolean;
    readonly parts: readonly { order: number; zeros: number | string; shown: { by: string } | null }[];
  };
}

describe('questions in bulk', () => {
  test('value', () => {
    expect(ask({ ask: 'value', f: '3x^2-5x-2', at: [1, 2] })).toEqual({ values: [-4, 0] });
    expect(ask({ ask: 'value', f: 'a x', at: [1, 2], parameters: { a: 3 } })).toEqual({ values: [3, 6] });
    expect(ask({ ask: 'value', f: '1/x', at: [0, 4] })).toEqual({ values: [null, 0.25] });
    expect(ask({ ask: 'value', f: 'e^x', at: [1000, 0] })).toEqual({ values: [null, 1], tooLarge: [1000] });
    expect(ask({ ask: 'value', f: 'x!', at: [5, 171, 0.5] })).toEqual({
      values: [120, null, null],
      tooLarge: [171],
    });
    expect(ask({ ask: 'value', f: 'f(t) = t^2', at: [3] })).toEqual({ values: [9] });
  });

  // What doubles miss by a hair, by hand.
  test.each([
    ['floor(2 sin(pi/6) 10)', 0, 10],
    ['tan(pi/2)', 0, null],
    ['ln(sin pi)', 0, null],
    ['mod(x, 0.1)', 0.3, 0],
    ['mod(x, 0.1)', 0.7, 0],
    ['sqrt(1 - sqrt(2)^2/2)', 0, 0],
    ['(1 - cos x)/x^2', 1e-8, 0.5],
    ['sum i from 1 to 4 of 1/i', 0, 25 / 12],
    ['x^a', -8, -512],
    ['200!/198!', 0, 39800],
  ])('the value of %s at %d is %d', (f, x, value) => {
    expect(ask({ ask: 'value', f, at: [x], parameters: { a: 3 } })).toEqual({ values: [value] });
  });

  test('a list of ten thousand places is answered', () => {
    const at = Array.from({ length: 10_000 }, (_, i) => i / 100);
    for (const f of ['sin(x)*e^(-x/3) + sqrt(x + 1)', 'x^2 if x < 3; floor x otherwise']) {
      const { values } = ask({ ask: 'value', f, at }) as { values: number[] };
      expect(values).toHaveLength(10_000);
      expect(values.every(Number.isFinite)).toBe(true);
    }
    expect(ask({ ask: 'value', f: 'x^2', at: [0.05, 0.07] })).toEqual({ values: [0.0025, 0.0049] });
  });

  test('a power with a parameter is real for negative numbers only where that is whole', () => {
    expect(ask({ ask: 'value', f: '(-8)^x', at: [3, 1 / 3, 0.2] })).toEqual({ values: [-512, null, null] });
    expect(ask({ ask: 'value', f: 'x^(1/3)', at: [-8] })).toEqual({ values: [-2] });
  });

  test('what grows too large, or takes too many operations, says so', () => {
    const tooLarge = { error: 'This formula is too large to be worked out.' };
    for (const f of ['(10^6)!', 'sum i from 1 to 10^12 of 1/i', 'sum i from 1 to 3000000 of i'])
      expect(ask({ ask: 'value', f, at: [0] })).toEqual(tooLarge);
    const f = 'sum i from 1 to 10^6 of (sum j from 1 to 10^6 of sin(i j))';
    expect(ask({ ask: 'value', f, at: [0] })).toEqual({
      error: 'This takes more operations than are allowed and was given up.',
    });
  });

  test('derivative', () => {
    expect(ask({ ask: 'derivative', f: 'x^3', order: 1, at: [2] })).toEqual({
      text: '3x^2',
      latex: '3x^{2}',
      values: [12],
    });
    expect(ask({ ask: 'derivative', f: '|x|', at: [-1, 0, 1] })).toMatchObject({ values: [-1, null, 1] });
    expect(ask({ ask: 'derivative', f: 'a x^4', order: 2, at: [1], parameters: { a: 2 } })).toMatchObject({
      text: '12a x^2',
      values: [24],
    });
    expect(ask({ ask: 'derivative', f: 'floor x', at: [1, 1.5] })).toMatchObject({ values: [null, 0] });
  });

  test('key points with their certificate', () => {
    const sure = ask({ ask: 'keyPoints', f: 'x^3 - 3x', on: [-3, 3], certificate: true }) as Certified;
    expect(sure).toMatchObject({
      complete: true,
      certificate: {
        accepted: true,
        joints: [
          [-3, -3],
          [3, 3],
        ],
      },
    });
    const zeros = sure.certificate.parts.filter(({ order, zeros: count }) => order === 0 && count === 1);
    expect(zeros).toHaveLength(3);
    expect(sure.certificate.parts.every(({ shown }) => shown?.by === 'count')).toBe(true);
    // What the checker does not accept is not called complete when it is asked for.
    const open = ask({ ask: 'keyPoints', f: 'x^x', on: [0, 2], certificate: true }) as Certified;
    expect([open.complete, open.certificate.accepted]).toEqual([false, false]);
    expect(ask({ ask: 'keyPoints', f: 'x', on: [0, 1] })).not.toHaveProperty('certificate');
  });

  test('solutions, signs and integrals with their certificates', () => {
    for (const [question, told] of [
      [{ ask: 'solve', f: 'x^2 e^(-x)', equals: '0.2', on: [-1, 8] }, { complete: true }],
      [{ ask: 'solve', f: 'x^3 - 3x', equals: '2', order: 1, on: [-3, 3] }, { complete: true }],
      [{ ask: 'signs', f: 'x^3 - 3x', order: 1, on: [-3, 3] }, { complete: true }],
      [{ ask: 'integral', f: 'sin(x^2)', on: [0, 2] }, { certainty: 'proved' }],
      [{ ask: 'integral', f: '|x^3 - x|', on: [2, -2] }, { certainty: 'exact' }],
      [{ ask: 'integral', f: 'x^3 - x', on: [-2, 2], total: true }, { certainty: 'exact' }],
    ] as const) {
      expect(ask({ ...question, certificate: true })).toMatchObject({
        ...told,
        certificate: { accepted: true },
      });
      expect(ask(question)).toMatchObject(told);
      expect(ask(question)).not.toHaveProperty('certificate');
    }
  });

  test('what is refused is not called complete, proved or exact, and what has no certificate neither', () => {
    const refused = ask({ ask: 'integral', f: '1/(x ln(x)^2)', on: [2, 'Infinity'], certificate: true });
    expect(refused).toMatchObject({ certainty: 'estimated', certificate: { accepted: false, bounds: null } });
    const unknown = ask({ ask: 'integral', f: '1/floor(x)^2', on: [1, 'Infinity'], certificate: true });
    // π²/6 lies between bounds that are too wide to prove the digits.
    const { bounds } = (unknown as { certificate: { bounds: [number, number] } }).certificate;
    expect(unknown).toMatchObject({ certainty: 'estimated', certificate: { accepted: false } });
    expect([bounds[0] < Math.PI ** 2 / 6, bounds[1] > Math.PI ** 2 / 6]).toEqual([true, true]);
    expect(ask({ ask: 'limit', f: 'sin(x)/x', at: 0, certificate: true })).toMatchObject({
      proved: true,
      certificate: { accepted: true, bounds: [1, 1] },
    });
    expect(ask({ ask: 'limit', f: 'sin(1/x)', at: 0, certificate: true })).toMatchObject({
      proved: false,
      certificate: { accepted: false },
    });
    const upper = { ask: 'sum', f: 'x^3 - 3x', on: [-2, 2], n: 4, rule: 'upper', certificate: true };
    expect(ask(upper)).toMatchObject({ total: 6, proved: true, certificate: { accepted: true } });
    const moving = ask({ ask: 'solve', f: 'x^3', equals: 'x', order: 1, on: [-1, 1], certificate: true });
    expect(moving).toMatchObject({ complete: false, certificate: null });
  });

  test('of integrals with open ends, and where only the certificate proves them', () => {
    for (const [f, on, value, certainty] of [
      ['1/sqrt(x)', [0, 1], 2, 'exact'],
      ['e^(-x)', [0, 'Infinity'], 1, 'exact'],
      ['x^(-x)', [0, 1], 1.2912859970626636, 'proved'],
    ] as const) {
      const told = ask({ ask: 'integral', f, on, certificate: true });
      expect([f, told]).toMatchObject([f, { value, certainty, certificate: { accepted: true } }]);
    }
    expect(ask({ ask: 'integral', f: 'x^(-x)', on: [0, 1] })).toMatchObject({ certainty: 'estimated' });
  });

  test('sum', () => {
    expect(ask({ ask: 'sum', f: 'x^2', on: [0, 2], n: 4, rule: 'right' })).toEqual({
      total: 3.75,
      dx: 0.5,
      parts: [
        { x: 0.5, height: 0.25, area: 0.125 },
        { x: 1, height: 1, area: 0.5 },
        { x: 1.5, height: 2.25, area: 1.125 },
        { x: 2, height: 4, area: 2 },
      ],
    });
    expect(ask({ ask: 'sum', f: 'x', on: [0, 2], n: 2, rule: { fraction: 0.25 } })).toMatchObject({
      total: 1.5,
    });
    expect(ask({ ask: 'sum', f: '1/x', on: [0, 1], n: 2, rule: 'left' })).toMatchObject({ total: null });
    expect(ask({ ask: 'sum', f: 'x^2', on: [-1, 1], n: 1, rule: 'lower' })).toMatchObject({
      total: 0,
      proved: true,
    });
    expect(ask({ ask: 'sum', f: 'x sin(1/x)', on: [0, 1], n: 2, rule: 'upper' })).toMatchObject({
      proved: false,
    });
    expect(ask({ ask: 'sum', f: 'x^2', on: [0, 2], n: 3, rule: 'simpson' })).toEqual({
      error: 'Parabolas take the parts in pairs: n has to be even.',
    });
  });

  test('sum from right to left changes its sign', () => {
    expect(ask({ ask: 'sum', f: 'x^2', on: [2, 0], n: 2, rule: 'left' })).toEqual({
      total: -5,
      dx: -1,
      parts: [
        { x: 2, height: 4, area: -4 },
        { x: 1, height: 1, area: -1 },
      ],
    });
  });

  test('integral', () => {
    expect(ask({ ask: 'integral', f: 'x^2', on: [0, 4] })).toMatchObject({
      value: 64 / 3,
      exact: '64/3',
      certainty: 'exact',
      diverges: false,
    });
    expect(ask({ ask: 'integral', f: 'x^2', on: [4, 0] })).toMatchObject({ exact: '-64/3' });
    expect(ask({ ask: 'integral', f: 'sin x', on: [0, 2 * Math.PI], total: true })).toMatchObject({
      value: 4,
      exact: '4',
    });
    expect(ask({ ask: 'integral', f: '1/x^2', on: [1, 'Infinity'] })).toMatchObject({ value: 1, exact: '1' });
    expect(ask({ ask: 'integral', f: '1/x', on: [0, 1] })).toEqual({
      value: null,
      exact: null,
      bound: null,
      certainty: null,
      diverges: true,
    });
    expect(ask({ ask: 'integral', f: 'sqrt(x-1)', on: [0, 2] })).toMatchObject({
      value: null,
      diverges: false,
      undefinedOn: [[0, 1]],
    });
    expect(ask({ ask: 'integral', f: 'a x', on: [0, 1], parameters: { a: 3 } })).toMatchObject({
      exact: '3/2',
    });
    const proved = ask({ ask: 'integral', f: 'e^(x^2)', on: [0, 1], proved: true });
    expect(proved).toMatchObject({ certainty: 'proved', exact: null });
    expect((proved as { bound: number }).bound).toBeLessThan(1e-9);
  });

  test('keyPoints', () => {
    expect(ask({ ask: 'keyPoints', f: 'x^2-1', on: [-2, 2] })).toEqual({
      complete: true,
      points: [
        endpoint(-2, 3, true),
        { kind: 'zero', x: -1, y: 0, exact: '-1', proved: true },
        { kind: 'minimum', x: 0, y: -1, exact: '0', proved: true, absolute: true },
        { kind: 'zero', x: 1, y: 0, exact: '1', proved: true },
        endpoint(2, 3, true),
      ],
      undecided: [],
    });
    expect(ask({ ask: 'keyPoints', f: 'x^3', on: [0, 2], order: 1 })).toMatchObject({
      points: [
        { kind: 'endpoint', y: 0, absolute: true },
        { kind: 'zero' },
        { kind: 'endpoint', y: 12, absolute: true },
      ],
    });
    expect(ask({ ask: 'keyPoints', f: '1/x', on: [-1, 1] })).toMatchObject({
      points: [{ kind: 'endpoint' }, { kind: 'pole', x: 0, y: null }, { kind: 'endpoint' }],
    });
    expect(ask({ ask: 'keyPoints', f: 'sin(1/x)', on: [-1, 1] })).toMatchObject({
      complete: false,
      undecided: expect.arrayContaining([expect.any(Array)]),
    });
  });

  test('signs', () => {
    expect(ask({ ask: 'signs', f: 'x^3-3x', on: [-2, 2], order: 1 })).toEqual({
      intervals: [
        { from: -2, to: -1, sign: 1 },
        { from: -1, to: 1, sign: -1 },
        { from: 1, to: 2, sign: 1 },
      ],
      complete: true,
    });
  });

  test('solve', () => {
    expect(ask({ ask: 'solve', f: 'x^2', equals: '1/2', order: 1, on: [-1, 2] })).toEqual({
      solutions: [{ x: 0.25, exact: '1/4' }],
      complete: true,
    });
    expect(ask({ ask: 'solve', f: 'cos x', equals: 'x', on: [0, 1] })).toEqual({
      solutions: [{ x: 0.7390851332151607, exact: null }],
      complete: true,
    });
  });

  test('tangent', () => {
    expect(ask({ ask: 'tangent', f: 'x^2', at: 1 })).toEqual({
      slope: 2,
      intercept: -1,
      equation: 'y = 2x - 1',
      vertical: false,
      left: 2,
      right: 2,
    });
    expect(ask({ ask: 'tangent', f: '|x|', at: 0 })).toMatchObject({
      slope: null,
      equation: null,
      left: -1,
      right: 1,
      vertical: false,
    });
    expect(ask({ ask: 'tangent', f: 'cbrt(x)', at: 0 })).toMatchObject({
      slope: null,
      vertical: true,
      equation: 'x = 0',
    });
  });

  test('secant', () => {
    expect(ask({ ask: 'secant', f: 'x^2', at: 2, h: 0.5, kind: 'forward' })).toEqual({ slope: 4.5 });
    expect(ask({ ask: 'secant', f: 'x^2', at: 2, h: 0.5, kind: 'backward' })).toEqual({ slope: 3.5 });
    expect(ask({ ask: 'secant', f: 'x^2', at: 2, h: 0.5, kind: 'symmetric' })).toEqual({ slope: 4 });
  });

  test('limit', () => {
    expect(ask({ ask: 'limit', f: 'sin x/x', at: 0, side: 'left' })).toEqual({
      value: 1,
      exact: '1',
      proved: true,
      exists: true,
    });
    expect(ask({ ask: 'limit', f: '(1 - cos(x^2))/x^4', at: 0 })).toMatchObject({
      exact: '1/2',
      proved: true,
    });
    expect(ask({ ask: 'limit', f: 'x^2 + 1', at: 3 })).toMatchObject({
      value: 10,
      exact: '10',
      proved: true,
    });
    expect(ask({ ask: 'limit', f: 'sin(x) sin(πx)', at: 'Infinity' })).toEqual({ value: null, exists: null });
    expect(ask({ ask: 'limit', f: '1/x', at: 0, side: 'left' })).toEqual({
      value: '-Infinity',
      exists: false,
    });
    expect(ask({ ask: 'limit', f: '1/x', at: 0 })).toEqual({ value: null, exists: false });
    expect(ask({ ask: 'limit', f: '1/x', at: 'Infinity' })).toMatchObject({ value: 0, exists: true });
  });

  test('read', () => {
    expect(ask({ ask: 'read', text: '\\frac{x^2}{2}' })).toMatchObject({
      text: 'x^2/2',
      latex: '\\frac{x^{2}}{2}',
      speech: 'the fraction x squared over 2, end fraction',
      mathml: expect.stringContaining('<mfrac><msup><mi>x</mi><mn>2</mn></msup><mn>2</mn></mfrac>'),
    });
    expect(ask({ ask: 'read', text: '(x+1' })).toMatchObject({
      error: 'This bracket is never closed.',
      from: 0,
      to: 4,
    });
    for (const text of [
      'P = (2.5, 1)',
      'g(x, y) = x^2 y',
      'f(x + h) - f(x)',
      'a x^2 + b x + c',
      "f''(x)",
      'v_max t',
      '|PQ|',
    ]) {
      expect(ask({ ask: 'read', text })).toMatchObject({ text });
    }
  });

  test.each([
    ['not JSON', 'nonsense'],
    ['an unknown question', '{"ask":"dance"}'],
    ['no formula', '{"ask":"value","at":[1]}'],
    ['an interval the wrong way round', '{"ask":"signs","f":"x","on":[2,1]}'],
    ['an unknown name', '{"ask":"value","f":"b x","at":[1]}'],
    ['a formula that cannot be read', '{"ask":"value","f":"(x","at":[1]}'],
    ['a list', '[1]'],
  ])('%s gets a sentence', (_name, line) => {
    expect(JSON.parse(answerLine(line))).toEqual({ error: expect.stringMatching(/^[“A-Z].*[.?]$/u) });
  });
});

test('no answer needs more than 64 MB, and what cannot be finished within bounds says so', () => {
  const ask = (question: Record<string, unknown>) => JSON.stringify(question);
  const heavy = [
    ask({ ask: 'value', f: 'sum i from 1 to 1E9 of 1/i^2', at: [1] }),
    ask({ ask: 'keyPoints', f: 'x + 2^(10^9)', on: [-1, 1] }),
    ask({ ask: 'keyPoints', f: '(x + 1)^1000 - x', on: [-3, 3] }),
    ask({ ask: 'derivative', f: 'x^x^x^x', order: 4, at: [1] }),
    ask({ ask: 'derivative', f: 'sin(cos(tan(x^2 + 1)))', order: 10, at: [1] }),
    ask({ ask: 'keyPoints', f: 'sin(1000x)', on: [0, 10] }),
    ask({ ask: 'keyPoints', f: 'floor(1000x)', on: [0, 10] }),
    ask({ ask: 'signs', f: 'tan((0.5 + x)^x)', on: [-2, 2], order: 1 }),
    ask({ ask: 'limit', f: 'e^(x^100)/e^(x^99)', at: 'Infinity' }),
    ask({ ask: 'limit', f: 'root(999, x)', at: 0, side: 'right' }),
    ask({ ask: 'value', f: '('.repeat(9_000), at: [1] }),
  ];
  const main = join(import.meta.dirname, '../src/main.ts');
  const { stdout, status } = spawnSync('node', ['--max-old-space-size=64', '--import', 'tsx', main], {
    input: heavy.join('\n'),
    encoding: 'utf8',
  });
  expect(status).toBe(0);
  const answers = stdout
    .trim()
    .split('\n')
    .map((line) => JSON.parse(line) as Record<string, unknown>);
  expect(answers).toMatchObject([
    { error: 'This formula is too large to be worked out.' },
    { complete: expect.any(Boolean) },
    { complete: true },
    { text: expect.any(String) },
    // The formula is too long to be read; its value comes from automatic differentiation.
    { text: null, values: [expect.any(Number)], error: 'This formula is too large to be worked out.' },
    { complete: false },
    { complete: false },
    { complete: false },
    { value: 'Infinity', exists: false },
    { value: 0, exists: true },
    { error: expect.stringMatching(/nested|bracket/) },
  ]);
});

test('what takes longer than the limit is given up, and the next question is answered', async () => {
  const answering = new Answering(1500);
  const terms = 'sum i from 1 to 1000000 of sum j from 1 to 1000000 of sin(i j)';
  const questions = [
    { ask: 'value', f: terms, at: [1] },
    { ask: 'value', f: 'x^2', at: [3] },
  ];
  const answers: unknown[] = [];
  for (const question of questions)
    answers.push(JSON.parse(await answering.answer(JSON.stringify(question))));
  answering.end();
  expect(answers).toEqual([{ error: 'This takes longer than 1.5 s and was given up.' }, { values: [9] }]);
}, 60_000);

test('the program answers line by line and goes on after a bad one', () => {
  const input = '{"ask":"value","f":"x^2","at":[3]}\nnonsense\n\n{"ask":"limit","f":"x","at":2}\n';
  const main = join(import.meta.dirname, '../src/main.ts');
  const { stdout, status } = spawnSync('node', ['--import', 'tsx', main], { input, encoding: 'utf8' });
  expect(status).toBe(0);
  expect(
    stdout
      .trim()
      .split('\n')
      .map((line) => JSON.parse(line) as unknown),
  ).toMatchObject([{ values: [9] }, { error: expect.any(String) }, { value: 2, exists: true }]);
});
