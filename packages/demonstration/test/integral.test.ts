import { describe, expect, test } from '@jest/globals';
import {
  answersNow,
  emptyStage,
  headOfEntry,
  makeEntry,
  openedNumber,
  plainText,
  resolve,
  settledEdits,
  stagedInterval,
  withValue,
  type AverageValueResult,
  type Entry,
  type Said,
} from '../src/index.ts';
import {
  given,
  linesOf,
  marksOf,
  ofKind,
  problemOf,
  resultOf,
  sceneOf,
  sentenceOf,
  withStudy,
  toldIn,
} from './sample.ts';

describe('a definite integral', () => {
  const over = (text: string, fields: object) =>
    withStudy(text, makeEntry('integral', { order: 2, on: 'f', from: '0', to: '4', ...fields }));

  test('is exact where it is proved, signed or in total', () => {
    const signed = over('f(x) = x^2 - 4x + 3', {});
    expect(linesOf(signed)[0]).toContain('= 4/3 ≈ 1.333');
    expect(resultOf<Said>(signed, 'study').certainty).toEqual({ text: 'exact', isProved: true });
    const total = over('f(x) = x^2 - 4x + 3', { isTotal: true });
    expect(linesOf(total)[0]).toContain('= 4.000');
    expect(sentenceOf(total)).toBe('2.667 over the axis and 1.333 under it, counted together.');
  });

  test('says how sure it is, and of what size an estimate may be off', () => {
    const certainty = (text: string, fields: object) =>
      resultOf<Said>(over(`f(x) = ${text}`, fields), 'study').certainty;
    expect(certainty('e^(x^2)', { to: '1' })).toEqual({ text: 'proved to 3 decimals', isProved: true });
    expect(certainty('e^(-((x - 3.3)/0.001)^2)', {})?.isProved).toBe(true);
    expect(certainty('1/sqrt(1 - x^4)', { to: '1' })).toEqual({
      text: 'proved to 3 decimals',
      isProved: true,
    });
    expect(certainty('x^(-x)', { to: '1' })?.isProved).toBe(true);
    expect(certainty('1/floor(x)^2', { from: '1', to: '∞' })).toEqual({
      text: 'estimated',
      isProved: false,
    });
    expect(certainty('1000/floor(x)^2', { from: '1', to: '∞' })?.text).toMatch(
      /^estimated, it may be off by \d\.\d·10⁻³$/,
    );
  });

  test('tells on request between which bounds it is proved to lie', () => {
    const boundsOf = (text: string, fields: object) => {
      const { lines } = resultOf<Said>(over(text, fields), 'study');
      const full = lines[0]?.flatMap((part) => (part.kind === 'number' && part.of ? [part.of] : []))[0];
      return full && openedNumber(full, { decimals: 3, decimalMark: '.' }).between;
    };
    expect(boundsOf('f(x) = 1/floor(x)^2', { from: '1', to: '∞' })).toBe('1.64481 and 1.64532');
    expect(boundsOf('f(x) = sin(e^x)', { to: '∞' })).toMatch(/^0\.6247132564\d+ and 0\.6247132564\d+$/);
    expect(boundsOf('f(x) = e^(x^2)', { to: '1' })).toBe('1.462651745907179 and 1.462651745907185');
    expect(boundsOf('f(x) = x^2', {})).toBeNull();
    expect(problemOf(over('f(x) = |sin(x)|/x^2', { from: '1', to: '∞' }))).toMatch(
      /^This integral could not be worked out to enough digits, but it lies between 0\.772\d and 0\.776\d \(proved\)\.$/,
    );
  });

  test('has fractions as ends', () => {
    expect(linesOf(over('f(x) = x^2', { from: '1/7', to: '2/7' }))[0]).toContain('= 1/147 ≈ 0.007');
  });

  test('is shaded over and under the axis', () => {
    const areas = ofKind(marksOf(sceneOf(over('f(x) = x^2 - 4x + 3', {}))), 'area');
    expect(areas.map(({ tone, hatch, outlines }) => [tone, hatch, outlines.length])).toEqual([
      ['f', 'up', 2],
      ['minus', 'down', 1],
    ]);
  });

  test('says why there is none', () => {
    expect(problemOf(over('f(x) = 1/x', {}))).toBe(
      'This integral diverges: the area under f has no finite value.',
    );
    expect(problemOf(over('f(x) = sqrt(x - 1)', {}))).toContain('f has no value from 0.000 to 1.000');
  });

  // Stewart, Calculus (8th ed.), section 7.8: the introduction, examples 1 to 3; from memory.
  test.each<[text: string, from: string, to: string, heading: string, line: string]>([
    ['1/x^2', '1', '∞', '[1, ∞)', '\\int_{1}^{\\infty} f(x)\\,dx = 1.000'],
    ['x e^x', '-inf', '0', '(−∞, 0]', '\\int_{-\\infty}^{0} f(x)\\,dx = −1.000'],
    ['1/(1 + x^2)', '−infinity', 'Infinity', '(−∞, ∞)', '\\int_{-\\infty}^{\\infty} f(x)\\,dx = π ≈ 3.142'],
  ])('of %s from %s to %s has a value where it converges', (text, from, to, heading, line) => {
    const document = over(`f(x) = ${text}`, { from, to });
    expect(linesOf(document)[0]).toBe(line);
    expect(resultOf<Said>(document, 'study').certainty?.text).toBe('exact');
    const resolved = resolve(document, emptyStage, undefined, answersNow()).entries.get('study');
    expect(resolved && headOfEntry(resolved).heading).toBe(`Area under f on ${heading}`);
  });

  test('without an end says what its value is, or that there is none', () => {
    for (const [from, to] of [
      ['1', '∞'],
      ['-∞', '-1'],
    ] as const)
      expect(sentenceOf(over('f(x) = 1/x^2', { from, to }))).toMatch(
        /^It converges: the integrals over longer and longer intervals approach this number\. Areas/,
      );
    expect(sentenceOf(over('f(x) = 1/x^2', { from: '1', to: '2' }))).toMatch(/^Areas/);
    for (const text of ['1/x', 'cos x', '1 + x^2'])
      expect(problemOf(over(`f(x) = ${text}`, { from: '1', to: '∞' }))).toBe(
        'This integral diverges: the area under f has no finite value.',
      );
    expect(problemOf(over('f(x) = √(x - 1)', { from: '-∞', to: '4' }))).toContain('no value from −∞ to');
    expect(problemOf(over('f(x) = 1/x^2', { from: '∞', to: '1' }))).toBe(
      'An interval goes from a smaller to a larger number; ∞ is not smaller than 1.',
    );
  });

  test('without an end is shaded to the edge of the window, and has a grip at its other end', () => {
    const scene = sceneOf(over('f(x) = 1/x^2', { from: '1', to: '∞' }));
    const [tier] = scene.tiers;
    const right = (tier?.view.frame.left ?? 0) + (tier?.view.frame.width ?? 0);
    const [area] = ofKind(marksOf(scene), 'area');
    const xs = [...(area?.outlines[0] ?? [])].filter((_, i) => i % 2 === 0);
    expect(Math.max(...xs)).toBeCloseTo(right, 0);
    expect(Math.min(...xs)).toBeCloseTo(tier?.view.toX(1) ?? NaN, 0);
    expect(scene.bounds.map(({ end, isVisible }) => [end, isVisible])).toEqual([
      ['from', true],
      ['to', false],
    ]);
    const dragged = withValue(emptyStage, 'study', stagedInterval('2', '∞'));
    const moved = toldIn(
      resolve(over('f(x) = 1/x^2', { from: '1', to: '∞' }), dragged, undefined, answersNow()),
      'study',
    );
    expect(moved?.ok && plainText((moved.result as Said).lines[0] ?? [])).toContain('= 0.500');
  });

  test('only an integral goes on without an end', () => {
    const entry = makeEntry('averageValue', { order: 2, on: 'f', from: '1', to: '∞' });
    const document = withStudy('f(x) = 1/x^2', entry);
    expect(problemOf(document)).toBe('The ends of this interval are numbers; ∞ is none.');
  });
});

test('a total area in a Greek variable is typeset with both its bars', () => {
  const entry = makeEntry('integral', { order: 2, on: 'f', from: '0', to: '1', isTotal: true });
  expect(linesOf(withStudy('f(θ) = θ', entry))[0]).toContain('\\bigl|f(\\theta)\\bigr|\\,d\\theta');
});

describe('the area between two curves', () => {
  test('is split where they cross', () => {
    const document = withStudy(
      'f(x) = x^3',
      makeEntry('areaBetween', { order: 3, on: 'f', with: 'g', from: '-1', to: '1' }),
      { g: given(2, 'g(x) = x') },
    );
    expect(linesOf(document)[0]).toContain('= 0.500');
    expect(sentenceOf(document)).toBe(
      'f lies over g from −1.000 to 0.000 (0.250); g lies over f from 0.000 to 1.000 (0.250).',
    );
    expect(ofKind(marksOf(sceneOf(document)), 'area').map(({ hatch }) => hatch)).toEqual(['up', 'down']);
  });

  test('needs two curves', () => {
    const document = withStudy(
      'f(x) = x',
      makeEntry('areaBetween', { order: 3, on: 'f', with: 'f', from: '0', to: '1' }),
    );
    expect(problemOf(document)).toBe('An area between two curves needs two different ones.');
  });
});

describe('the average value', () => {
  const entry = makeEntry('averageValue', { order: 2, on: 'f', from: '0', to: '12' });
  test('is the height of a rectangle of the same area', () => {
    const document = withStudy('f(x) = x(12 - x)/5', entry);
    const result = resultOf<AverageValueResult>(document, 'study');
    expect(result.average.exact).toEqual({ numerator: 24n, denominator: 5n });
    expect(sentenceOf(document)).toContain('has the same area as f');
    expect(ofKind(marksOf(sceneOf(document)), 'level')).toHaveLength(1);
  });

  // By hand; the last is the mean of a sine's half wave, Stewart, section 6.5, from memory.
  test.each([
    ['x', '0', '2/3', '= 1/3 ≈ 0.333'],
    ['1', '0', '2/3', '= 1.000'],
    ['x^2', '1/7', '2/7', '= 1/21 ≈ 0.048'],
    ['sin x', '0', 'π', '= 2/π ≈ 0.637'],
  ])('of %s on [%s, %s] is exact', (text, from, to, tail) => {
    const study = makeEntry('averageValue', { order: 2, on: 'f', from, to });
    expect(linesOf(withStudy(`f(x) = ${text}`, study))[0]).toContain(tail);
  });

  test('can be tried at other heights', () => {
    const document = withStudy('f(x) = x(12 - x)/5', { ...entry, height: '5' } as Entry);
    expect(sentenceOf(document)).toBe(
      'This rectangle has 2.400 more than f; at the average value both are the same.',
    );
    expect(settledEdits(document, 'study', '4.5')[0]).toMatchObject({ field: 'height', new: '4.5' });
  });
});
