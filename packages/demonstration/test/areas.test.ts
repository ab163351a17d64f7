import { describe, expect, test } from '@jest/globals';
import { Effort } from '@yperkine/core';
import {
  answersNow,
  buildScene,
  emptyStage,
  makeEntry,
  plainText,
  positionOf,
  resolve,
  runOf,
  settledEdits,
  stagedInterval,
  stripAt,
  unanswered,
  valueAtDoubling,
  doublingOf,
  withValue,
  type Document,
  type Entry,
  type ParameterEntry,
  type ParameterResult,
  type RunningTotalResult,
  type Scene,
  type SumErrorsResult,
  type SumResult,
  type Said,
} from '../src/index.ts';
import {
  documentWith,
  given,
  linesOf,
  marksOf,
  ofKind,
  problemOf,
  resultOf,
  sceneOf,
  sentenceOf,
  slider,
  withStudy,
  toldIn,
} from './sample.ts';

const count = (value: string) =>
  makeEntry('parameter', { order: 1.5, name: 'n', value, from: '1', to: '1000', step: '1', whole: true });
const withSum = (text: string, n: string, fields: object, more: Record<string, Entry> = {}): Document =>
  documentWith({
    f: given(1, text),
    n: count(n),
    study: makeEntry('sum', { order: 2, on: 'f', parts: 'n', from: '0', to: '2', ...fields }),
    ...more,
  });
const sumIn = (document: Document): SumResult => resultOf<SumResult>(document, 'study');
describe('a rectangle sum', () => {
  test('says its total, its width, its points, the true area and the error, exactly where it can', () => {
    const lines = linesOf(withSum('f(x) = x^2', '4', { rule: 'right' }));
    expect(lines[0]).toContain('= 3.750');
    expect(lines[1]).toBe('≈ 0.5·(0.250 + 1.000 + 2.250 + 4.000)');
    expect(lines[2]).toContain('(2 − 0)/4 = 0.5');
    expect(lines[3]).toContain('x_i =');
    expect(lines[3]).toContain('·0.5');
    expect(lines[4]).toContain('= 8/3 ≈ 2.667');
    expect(lines[5]).toBe('error = 13/12 ≈ 1.083');
  });

  test('writes many terms short', () => {
    expect(linesOf(withSum('f(x) = x^2', '100', {}))[1]).toBe('≈ 0.02·(0.000 + 4.000·10⁻⁴ + … + 3.920)');
  });

  test.each([
    ['left', 'below', 'f rises, so each left end is the lowest point of its part'],
    ['right', 'above', 'f rises, so each right end is the highest point of its part'],
    ['lower', 'below', 'each rectangle is as high as the lowest point over it'],
    ['upper', 'above', 'each rectangle is as high as the highest point over it'],
    [
      'midpoint',
      'below',
      'f bends up (concave up), so the tangent in the middle of each part lies under the curve',
    ],
    ['trapezoid', 'above', 'f bends up (concave up), so each secant lies over the curve'],
  ] as const)(
    'by %s of a rising curve that bends up lies %s the area, and says why',
    (rule, side, reason) => {
      const sentence = sentenceOf(withSum('f(x) = x^2', '4', { rule }));
      expect(sentence).toContain(`is ${side} the area by`);
      expect(sentence).toContain(`because ${reason}`);
    },
  );

  test('tells a side by numbers alone where the rule does not decide', () => {
    const sentence = sentenceOf(withSum('f(x) = (x - 1.2)^2', '4', { rule: 'left' }));
    expect(sentence).toContain('f neither rises nor falls throughout');
  });

  test('gives a reason only where it holds at jumps and corners, too', () => {
    const sentence = (text: string, rule: string) => sentenceOf(withSum(`f(x) = ${text}`, '4', { rule }));
    expect(sentence('x if x < 1; x + 0.1 otherwise', 'left')).toContain('because f rises');
    expect(sentence('x if x < 1; x - 0.1 otherwise', 'left')).not.toContain('because');
    expect(sentence('x^2 if x < 1; x^2 + x - 1 otherwise', 'trapezoid')).toContain('because f bends up');
    expect(sentence('x^2 if x < 1; x^2 - x + 1 otherwise', 'trapezoid')).not.toContain('because');
  });

  test('of least and greatest heights says where these could not be found', () => {
    expect(problemOf(withSum('f(x) = mod(10000x, 1)', '4', { rule: 'upper' }))).toBe(
      'Where f is least and greatest could not all be found; a shorter interval may help.',
    );
    expect(sumIn(withSum('f(x) = mod(10x, 1)', '4', { rule: 'upper', to: '1' })).total.value).toBe(1);
    expect(sumIn(withSum('f(x) = mod(10x, 1)', '4', { rule: 'lower', to: '1' })).total.value).toBe(0);
  });

  test('claims to be the area only where both are exact', () => {
    const fine = sentenceOf(withSum('f(x) = e^x', '1000', { rule: 'simpson' }));
    expect(fine).toBe('The sum of parabolas differs from the area by less than can be told.');
  });

  test('a width that has no end of digits is not called exact, however many are shown', () => {
    const document = { ...withSum('f(x) = x', '3', { to: '10' }), decimals: 12 };
    expect(linesOf(document)[2]).toContain('(10 − 0)/3 ≈ 3.333333333333');
  });

  test('equals the integral where it does', () => {
    expect(sentenceOf(withSum('f(x) = 2x', '3', { rule: 'midpoint' }))).toBe(
      'The middle sum equals the integral exactly.',
    );
  });

  test('carries units: litres a minute over minutes are litres', () => {
    const document = documentWith({
      f: makeEntry('function', { order: 1, text: 'Q(t) = 3', tier: 'tier-f', unit: 'L/min' }),
      n: count('2'),
      study: makeEntry('sum', { order: 2, on: 'f', parts: 'n', from: '0', to: '4' }),
    });
    expect(linesOf({ ...document, xUnit: 'min' })[0]).toContain('= 12.000 L');
  });

  test('takes any place in each part, random points that stay, and two rules at once', () => {
    expect(sumIn(withSum('f(x) = x', '2', { rule: 'fraction', fraction: '0.25' })).total.value).toBeCloseTo(
      1.5,
      12,
    );
    const random = (seed: number) => sumIn(withSum('f(x) = x^2', '8', { rule: 'random', seed })).total.value;
    expect(random(1)).toBe(random(1));
    expect(random(1)).not.toBe(random(2));
    const both = withSum('f(x) = x^2', '4', { rule: 'left', against: 'right' });
    expect(linesOf(both).some((line) => line.startsWith('right ≈ 3.750'))).toBe(true);
    expect(ofKind(marksOf(sceneOf(both)), 'bars').some(({ isOutline }) => isOutline)).toBe(true);
  });

  test('over a partition of one’s own, with sample points of one’s own', () => {
    const uneven = withSum('f(x) = x', '4', { cuts: '0.5; 1.5' });
    expect([...(sumIn(uneven).sum?.ends ?? [])]).toEqual([0, 0.5, 1.5, 2]);
    expect(sumIn(uneven).total.value).toBeCloseTo(0 + 0.5 + 0.75, 12);
    expect(sentenceOf(uneven)).toContain('The 3 parts are not equally wide.');
    const picked = withSum('f(x) = x', '2', { picks: '0.5; 2' });
    expect(sumIn(picked).total.value).toBeCloseTo(2.5, 12);
    const moved = sumIn(withSum('f(x) = x', '2', { picks: '1.5; 2' }));
    expect([...(moved.sum?.xs ?? [])]).toEqual([1, 2]);
  });

  test('draws what lies under the axis in another hue and hatching, with its points and grips', () => {
    const marks = marksOf(sceneOf(withSum('f(x) = 1 - x', '4', {})));
    const bars = ofKind(marks, 'bars');
    expect(bars.map(({ tone, hatch }) => [tone, hatch])).toEqual([
      ['f', 'up'],
      ['minus', 'down'],
    ]);
    expect(bars[0]?.bars).toHaveLength(2 * 3);
    expect(ofKind(marks, 'cut')).toHaveLength(3);
    expect(ofKind(marks, 'span')).toHaveLength(1);
    expect(
      ofKind(sceneOf(withSum('f(x) = 1 - x', '4', {})).tiers[0]?.marks ?? [], 'dots')[0]?.points,
    ).toHaveLength(8);
  });

  test('draws trapezoids and parabolas with their tops', () => {
    const tops = (rule: 'trapezoid' | 'simpson') =>
      ofKind(marksOf(sceneOf(withSum('f(x) = x^2 + 1', '4', { rule }))), 'area').flatMap(
        ({ outlines }) => outlines,
      );
    expect(tops('trapezoid')).toHaveLength(4);
    expect(tops('simpson')).toHaveLength(2);
    expect(tops('simpson')[0]?.length).toBeGreaterThan(20);
  });

  test('a thousand rectangles are as many bars as there are pixels at most, without outlines', () => {
    const [bars] = ofKind(marksOf(sceneOf(withSum('f(x) = x + 1', '1000', {}))), 'bars');
    expect(bars?.hasEdges).toBe(false);
    expect((bars?.bars.length ?? 0) / 3).toBeLessThanOrEqual(1000);
  });

  test('shows the product of the strip that is looked at, and knows which one lies under a pixel', () => {
    const document = withSum('f(x) = x^2', '4', { rule: 'right' });
    const stage = withValue(emptyStage, 'study', 2);
    const resolution = resolve(document, stage, undefined, answersNow());
    const scene = buildScene({ document, stage, resolution, size: sceneOf(document).size, here: null });
    expect(ofKind(scene.tiers[0]?.marks ?? [], 'label').map(({ text }) => text)).toEqual([
      '2.250 · 0.500 ≈ 1.125',
    ]);
    const { view } = scene.tiers[0] as Scene['tiers'][number];
    expect(stripAt(scene, resolution, view.toX(1.2), view.toY(1))).toEqual({ entry: 'study', index: 2 });
    expect(stripAt(scene, resolution, view.toX(1.2), view.toY(3))).toBeNull();
    expect(stripAt(scene, resolution, view.toX(-1), view.toY(0.1))).toBeNull();
  });

  test.each([
    ['0', {}, 'A sum has at least one part: n is a whole number from 1 up.'],
    ['1000000000', {}, 'That is more than 1 000 000 parts; please take a smaller n.'],
    ['3', { rule: 'simpson' }, 'Parabolas take the parts in pairs: n has to be even, and 3 is odd.'],
    ['4', { rule: 'simpson', cuts: '0.5' }, 'Parabolas take the parts in pairs: n has to be even, and 2'],
    [
      '4',
      { from: '3', to: '1' },
      'An interval goes from a smaller to a larger number; 3 is not smaller than 1.',
    ],
    [
      '4',
      { rule: 'fraction', fraction: '1.5' },
      'The place in each part is a number from 0, the left end, to 1',
    ],
    ['4', { cuts: '0.5; hello' }, 'The ends of the parts are numbers, separated by semicolons.'],
  ])('n = %s with %j says what is wrong in one sentence', (n, fields, message) => {
    const found = problemOf(withSum('f(x) = x', n, fields));
    if (message.includes('and 2')) expect(found).toMatch(/equal parts|has to be even/);
    else expect(found).toContain(message);
  });

  test('over a gap has no total; beside a pole its area diverges and the rest works on', () => {
    expect(problemOf(withSum('f(x) = sqrt(x - 1)', '4', {}))).toContain('has no value at a sample point');
    const pole = sentenceOf(withSum('f(x) = 1/x', '4', { rule: 'right' }));
    expect(pole).toContain('This integral diverges');
    expect(pole).toContain('The sum is a number all the same.');
  });

  test('shows itself and an estimate before the area is known, and moves with an end that is dragged', () => {
    const document = withSum('f(x) = x^2', '4', { rule: 'right' });
    const early = toldIn(resolve(document, emptyStage, undefined, unanswered), 'study');
    expect(early?.ok && (early.result as SumResult & Said).isQuick).toBe(true);
    expect(early?.ok && (early.result as SumResult & Said).lines.map(plainText)[4]).toContain('≈ 2.667');
    expect(early?.ok && (early.result as SumResult & Said).sentence).not.toContain('because');
    expect(early?.ok && (early.result as SumResult & Said).total.value).toBe(3.75);
    const stage = withValue(emptyStage, 'study', stagedInterval('0', '1'));
    const moved = toldIn(resolve(document, stage, undefined, answersNow()), 'study');
    expect(moved?.ok && (moved.result as SumResult & Said).total.value).toBeCloseTo(0.46875, 12);
  });

  test('a partition point that was dragged becomes the document’s', () => {
    const document = withSum('f(x) = x', '4', {});
    expect(settledEdits(document, 'study', '0.25; 1; 1.5')).toEqual([
      { at: 'field', of: 'entries', id: 'study', field: 'cuts', old: '', new: '0.25; 1; 1.5' },
    ]);
  });

  test('its total can be named and used', () => {
    const document = withSum(
      'f(x) = x',
      '4',
      { names: { total: 'S' } },
      {
        twice: makeEntry('value', { order: 3, text: '2 S' }),
      },
    );
    expect(linesOf(document, 'twice')[0]).toContain('3');
  });
});

describe('a sum of very many parts', () => {
  test('is asked for, and drawn as an area', () => {
    const document = withSum('f(x) = x^2', '1000000', { rule: 'midpoint' });
    const result = sumIn(document);
    expect(result.sum).toBeNull();
    expect(result.total.value).toBeCloseTo(8 / 3, 9);
    expect(ofKind(marksOf(sceneOf(document)), 'area')).toHaveLength(1);
    const waiting = toldIn(resolve(document, emptyStage, undefined, unanswered), 'study');
    expect(waiting?.ok === false && waiting.problem.message).toBe(
      'A sum of 1000000 parts is being worked out …',
    );
  });

  test('so is one of a thousand parts whose heights take long: no frame works them out', () => {
    const document = withSum('f(x) = sum k from 1 to 300 of (x/4)^k', '1000', { rule: 'midpoint' });
    const effort = new Effort(1e9);
    const waiting = effort.spendOn(() => resolve(document, emptyStage, undefined, unanswered));
    expect(1e9 - effort.left).toBeLessThan(4_000_000);
    expect(waiting.entries.get('study')?.outcome).toMatchObject({
      ok: false,
      problem: { message: 'A sum of 1000 parts is being worked out …' },
    });
    const result = sumIn(document);
    expect(result.sum).toBeNull();
    // A geometric series: x/(4 − x), whose integral from 0 to 2 is 4 ln 2 − 2.
    expect(result.total.value).toBeCloseTo(4 * Math.log(2) - 2, 5);
  });

  test('one that has no value says so, and is not waited for', () => {
    const document = withSum('f(x) = sqrt(x - 1)', '20000', { rule: 'midpoint' });
    expect(problemOf(document)).toContain('has no value at a sample point');
  });
});

describe('the error against n', () => {
  const document = withSum(
    'f(x) = e^x',
    '4',
    {},
    {
      errors: makeEntry('sumErrors', {
        order: 3,
        of: 'study',
        rules: ['left', 'midpoint', 'simpson', 'upper'],
      }),
    },
  );
  const result = resultOf<SumErrorsResult>(document, 'errors');

  test('falls by the order of each rule', () => {
    expect(result.series.map(({ order }) => Math.round(order ?? NaN))).toEqual([1, 2, 4, 1]);
    expect(result.sentence).toContain('left: order 1; doubling n divides the error by about 2.');
    expect(result.sentence).toContain('parabolas: order 4; doubling n divides the error by about 16.');
  });

  test.each([
    // Parabolas are exact for cubics: Stewart, section 7.7, exercise 50; from memory. The others by hand.
    [
      'x^3 - x',
      'left: order 1; doubling n divides the error by about 2. middle: order 2; doubling n divides the error by about 4. parabolas: exact for every n.',
    ],
    [
      '2x + 1',
      'left: order 1; doubling n divides the error by about 2. middle: exact for every n. parabolas: exact for every n.',
    ],
    [
      '10^(-14) e^x',
      'left: order 1; doubling n divides the error by about 2. middle: order 2; doubling n divides the error by about 4. parabolas: order 4; doubling n divides the error by about 16.',
    ],
    ['2 + sin(π x)^2', 'left: no error that can be told from rounding.'],
  ])('of %s is called exact only where it is', (text, sentence) => {
    const errors = makeEntry('sumErrors', { order: 3, of: 'study', rules: ['left', 'midpoint', 'simpson'] });
    const fine = withSum(`f(x) = ${text}`, '4', {}, { errors });
    const told = resultOf<SumErrorsResult>(fine, 'errors').sentence;
    expect(told).not.toContain('exact but');
    if (text.includes('sin')) expect(told).not.toContain('exact');
    else expect(told).toBe(sentence);
  });

  test('stands in a table for growing n, with change and error', () => {
    const errors = makeEntry('sumErrors', { order: 3, of: 'study', rules: ['left'] });
    const { table } = resultOf<SumErrorsResult>(
      withSum('f(x) = e^x', '4', { to: '2' }, { errors }),
      'errors',
    );
    expect(table?.caption).toBe('Estimates by left sums for growing n');
    expect(table?.head).toEqual(['n', 'total', 'change', 'error']);
    expect(table?.rows.slice(0, 3).map(({ cells }) => cells)).toEqual([
      ['1', '2.000', '', '−4.389'],
      ['2', '3.718', '1.718', '−2.671'],
      ['4', '4.924', '1.206', '−1.465'],
    ]);
  });

  test('left, middle and right sums stand in one table, and where a rule gives none its cell is empty', () => {
    const rules = ['left', 'midpoint', 'right', 'simpson'] as const;
    const errors = makeEntry('sumErrors', { order: 3, of: 'study', rules: [...rules] });
    const { table } = resultOf<SumErrorsResult>(
      withSum('f(x) = x^2', '4', { to: '2' }, { errors }),
      'errors',
    );
    expect(table?.caption).toBe('Estimates by left, middle, right and parabolas sums for growing n');
    expect(table?.head).toEqual([
      'n',
      'left',
      'middle',
      'right',
      'parabolas',
      'error, left',
      'error, middle',
      'error, right',
      'error, parabolas',
    ]);
    // By hand: the area is 8/3; halves are rounded away from 0.
    expect(table?.rows.slice(0, 3).map(({ cells }) => cells.slice(0, 6))).toEqual([
      ['1', '0.000', '2.000', '8.000', '', '−2.667'],
      ['2', '1.000', '2.500', '5.000', '2.667', '−1.667'],
      ['4', '1.750', '2.625', '3.750', '2.667', '−0.917'],
    ]);
    expect(table?.rows[0]?.numbers?.[4]).toBeNull();
  });
});

describe('the running total', () => {
  const document = withStudy(
    'f(x) = 3x^2 - 3',
    makeEntry('runningTotal', { order: 3, on: 'f', from: '0', parameter: 'a', name: 'A', tier: 'tier-f' }),
    { a: slider(2, 'a', '2'), slope: makeEntry('derivative', { order: 4, of: 'study', tier: 'tier-f' }) },
  );

  test('has its value, its formula and its sign in words', () => {
    expect(resultOf<RunningTotalResult>(document, 'study').value).toBeCloseTo(2, 10);
    expect(sentenceOf(document)).toBe(
      'From 0 to a it has come to 2.000; it is still growing, since f is positive there.',
    );
  });

  test('is x³ − 3x as a curve, shaded up to the place, and its slope is f', () => {
    const scene = sceneOf(document);
    const marks = marksOf(scene);
    const { view } = scene.tiers[0] as Scene['tiers'][number];
    const [run] = ofKind(marks, 'curve')[0]?.runs ?? [];
    for (let i = 0; i + 1 < (run?.length ?? 0); i += 40) {
      const x = view.fromX(run?.[i] as number);
      expect(view.fromY(run?.[i + 1] as number)).toBeCloseTo(x ** 3 - 3 * x, 5);
    }
    expect(run?.length).toBeGreaterThan(100);
    expect(ofKind(marks, 'area').map(({ tone }) => tone)).toEqual(['total', 'minus']);
    const slope = resultOf<{ lines: Parameters<typeof plainText>[0][] }>(document, 'slope');
    expect(plainText(slope.lines[0] ?? [])).toContain('3x^{2}-3');
  });

  test('ends at a pole and says so beyond it', () => {
    const pole = withStudy(
      'f(x) = 1/(x - 1)',
      makeEntry('runningTotal', { order: 3, on: 'f', from: '0', parameter: 'a', name: 'A', tier: 'tier-f' }),
      { a: slider(2, 'a', '2') },
    );
    expect(sentenceOf(pole)).toContain('There is no total from 0 to a');
    const scene = sceneOf(pole);
    const { view } = scene.tiers[0] as Scene['tiers'][number];
    const [run] = ofKind(marksOf(scene), 'curve')[0]?.runs ?? [];
    expect(view.fromX(run?.at(-2) as number)).toBeLessThan(1);
  });
});

describe('n that doubles', () => {
  const run = { from: 1, to: 100, start: 10, seconds: 1.5, repeat: 'once', pace: 'doubling' } as const;
  test('stands still, then is twice as much, up to the end', () => {
    expect(positionOf(run, 0)).toEqual({ value: 10, isOver: false });
    expect(positionOf(run, 1.4)).toEqual({ value: 10, isOver: false });
    expect(positionOf(run, 1.6)).toEqual({ value: 20, isOver: false });
    expect(positionOf(run, 3.1)).toEqual({ value: 40, isOver: false });
    expect(positionOf(run, 4.6)).toEqual({ value: 80, isOver: true });
  });

  test('is what play does on such a slider, by steps and once; from its end it begins anew', () => {
    const doubling = { ...count('10'), spread: 'doubling', motion: 'steps', repeat: 'once' } as Entry;
    const document = (value: string) => documentWith({ n: { ...doubling, value } as Entry });
    const run = (value: string) =>
      runOf(document(value).entries.n as ParameterEntry, resultOf<ParameterResult>(document(value), 'n'));
    expect(run('10')).toMatchObject({ start: 10, seconds: 1, pace: 'doubling' });
    expect(run('900')).toMatchObject({ start: 1, pace: 'doubling' });
  });

  test('has its own room on the slider for each doubling', () => {
    const scale = {
      from: { numerator: 1n, denominator: 1n },
      to: { numerator: 1024n, denominator: 1n },
      step: { numerator: 1n, denominator: 1n },
    };
    expect(doublingOf(32, scale)).toBe(500);
    expect(valueAtDoubling(500, scale)).toBe('32');
    for (const n of [1, 2, 3, 17, 300, 1024])
      expect(Number(valueAtDoubling(doublingOf(n, scale), scale))).toBeCloseTo(n, -1);
  });
});
