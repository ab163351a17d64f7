import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { compile, evaluateAt, readExpression } from '@yperkine/core';
import {
  answersNow,
  makeEntry,
  nearestCurve,
  newTier,
  resolve,
  unanswered,
  withValue,
  type Document,
  type Resolution,
} from '../../index.ts';
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
  toldIn,
} from '../../../test/sample.ts';
import { emptyStage } from '../../stage/stage.ts';
import type { LinearApproximationEntry } from './linearApproximation.ts';
import type { LinearApproximationResult } from './result.ts';

interface Settings extends Partial<LinearApproximationEntry> {
  readonly a?: string;
  readonly p?: string;
}

/** f with its linear approximation L at a, compared at p, the difference in the tier of slopes. */
function approximated(text: string, { a = '1', p = '1.5', ...fields }: Settings = {}): Document {
  return documentWith({
    f: given(1, text),
    a: slider(2, 'a', a),
    p: slider(3, 'p', p),
    study: makeEntry('linearApproximation', {
      order: 4,
      on: 'f',
      parameter: 'a',
      beside: 'p',
      name: 'L',
      from: '-5',
      to: '5',
      tier: 'slope',
      ...fields,
    }),
    later: makeEntry('value', { order: 5, text: '2L(3)' }),
  });
}
const resultIn = (document: Document): LinearApproximationResult =>
  resultOf<LinearApproximationResult>(document, 'study');

describe('the linear approximation', () => {
  // By hand: f(1) = 1, f′(1) = 2, so L(x) = 1 + 2(x − 1) = 2x − 1; f − L = (x − 1)², which is 0.25 at 1.5 and at most
  // 0.1 for |x − 1| ≤ √0.1 = 0.3162…
  test('says its formula, its equation, the difference and where that is small enough, exactly', () => {
    const document = approximated('f(x) = x^2');
    expect(linesOf(document)).toEqual([
      "L(x) = f(a) + f'(a)(x - a)",
      'L(x) = 2x − 1',
      'f(p) - L(p) = 0.250',
      '\\bigl|f(x) - L(x)\\bigr| \\le 0.1 for x \\in [1 − √10/10, √10/10 + 1]',
    ]);
    expect(sentenceOf(document)).toBe(
      'At x = 1.5 L is below f. From x = 0.684 to 1.316 L is off by at most 0.1 (proved).',
    );
    const { good, isProved } = resultIn(document);
    expect(isProved).toBe(true);
    expect(good?.from.value).toBeCloseTo(1 - Math.sqrt(0.1), 12);
    expect(good?.to.value).toBeCloseTo(1 + Math.sqrt(0.1), 12);
  });

  // Stewart, Calculus (8th ed.), section 2.9, example 1, from memory: √(x + 3) at 1 is about 7/4 + x/4, so that √3.98,
  // which is at x = 0.98, is about 1.995.
  test('of √(x + 3) at 1 is 7/4 + x/4', () => {
    const document = approximated('f(x) = sqrt(x + 3)', { p: '0.98', from: '-3' });
    expect(linesOf(document)[1]).toBe('L(x) = 0.25x + 1.75');
    const value = resultOf<{ value: { value: number } }>(
      { ...document, entries: { ...document.entries, v: makeEntry('value', { order: 9, text: 'L(0.98)' }) } },
      'v',
    );
    expect(value.value.value).toBeCloseTo(1.995, 12);
  });

  // The same book, section 2.9, example 2, from memory: √(x + 3) is within 0.5 of it for −2.66 < x < 8.66.
  test('is good to 0.5 where the textbook says so', () => {
    const { good, isProved } = resultIn(
      approximated('f(x) = sqrt(x + 3)', { tolerance: '0.5', from: '-3', to: '12' }),
    );
    expect([good?.from.value.toFixed(2), good?.to.value.toFixed(2), isProved]).toEqual([
      '-2.66',
      '8.66',
      true,
    ]);
  });

  // ⌊x⌋ is 0 on [0, 1) and 1 at 1: the end is not part of it.
  test('an end that does not belong to the good part is neither written nor claimed', () => {
    const document = approximated('f(x) = floor(x)', { a: '0.5' });
    expect(linesOf(document)[3]).toContain('[0, 1)');
    expect(sentenceOf(document)).toContain('From x = 0 to 0.999 L is off by at most 0.1 (proved).');
  });

  // By hand: e^(−u²) falls to 0.9 at u = √(−ln 0.9) = 0.32459…
  test('a very narrow part is written with the places that it takes, and a far one by its distance', () => {
    const narrow = approximated('f(x) = e^(-((x - 3)/0.001)^2)', { a: '3', p: '3.0005' });
    expect(sentenceOf(narrow)).toContain('From x = 2.9997 to 3.0003 L is off by at most 0.1 (proved).');
    const far = approximated('f(x) = (x - 10^12)^2', { a: '1000000000000', from: '0', to: '2·10^12' });
    expect(sentenceOf(far)).toContain('ithin 0.316 of a L is off by at most 0.1');
  });

  test('a place outside the interval is told as that', () => {
    expect(sentenceOf(approximated('f(x) = x^2', { a: '9' }))).toContain(
      'Where L is off by at most 0.1 is looked for from −5 to 5 alone, and a does not lie there.',
    );
  });

  test('is a function that later formulas use', () => {
    expect(linesOf(approximated('f(x) = x^2'), 'later')[0]).toContain('= 10');
  });

  test('is there before the part on which it is good is known, and claims nothing of it', () => {
    const resolution = resolve(approximated('f(x) = x^2'), emptyStage, undefined, unanswered);
    const outcome = toldIn(resolution, 'study');
    expect(outcome?.ok && outcome.result).toMatchObject({
      good: null,
      sentence: 'The stretches are being worked out …',
      lines: { length: 4 },
    });
    expect(outcome?.ok && outcome.result.certainty).toBeUndefined();
    expect(toldIn(resolution, 'later')?.ok).toBe(true);
  });

  test('while the tangent moves nothing is told or drawn of the part on which the last one was good', () => {
    const answers = answersNow();
    const stale = {
      ...answers,
      ask: (by: string, question: never) => ({ ...answers.ask(by, question), of: 'before' }),
    } as typeof answers;
    const document = approximated('f(x) = x^2');
    const resolution = resolve(document, emptyStage, undefined, stale);
    const outcome = toldIn(resolution, 'study');
    expect(outcome?.ok && outcome.result).toMatchObject({ good: null, isPending: true });
    expect(outcome?.ok && outcome.result.sentence).toBe(
      'At x = 1.5 L is below f. Where L is off by at most 0.1 is being worked out …',
    );
    expect(outcome?.ok && outcome.result.certainty).toBeUndefined();
  });

  test('follows the place while it moves, and makes no formula anew', () => {
    const document = approximated('f(x) = x^3 - x');
    const answers = answersNow();
    const first = resolve(document, emptyStage, undefined, answers);
    const moved = resolve(document, withValue(emptyStage, 'a', '2'), first, answers);
    const resultsOf = (resolution: Resolution) => {
      const outcome = toldIn<LinearApproximationResult>(resolution, 'study');
      if (!outcome?.ok) throw new Error(outcome?.problem.message);
      return outcome.result;
    };
    const [before, after] = [resultsOf(first), resultsOf(moved)];
    expect(after.program).toBe(before.program);
    expect(after.difference.program).toBe(before.difference.program);
    // By hand: f(2) = 6, f′(2) = 11; at 0 the line is at −16.
    expect(evaluateAt(after.program, 0, after.parameters)).toBe(-16);
  });

  test('what is rounding alone is told as no difference, and no side', () => {
    const document = approximated('f(x) = sin x', { a: '1', p: '1.0000000001' });
    expect(sentenceOf(document)).toMatch(/^At x = 1\.0000000001 they differ by less than can be told\./);
    expect(linesOf(document)[2]).toBe('f(p) - L(p) ≈ 0.000');
  });

  test.each([
    ['1/3', '1/3'],
    ['0.0004', '0.0004'],
    ['p/10', 'p/10'],
  ])('a tolerance of %s is told as it was typed, not as a rounded number', (tolerance, written) => {
    expect(sentenceOf(approximated('f(x) = sin x', { tolerance }))).toContain(
      `by at most ${written} (proved)`,
    );
  });

  test('a click on the difference means no place of the line, and the key tells them apart', () => {
    const document = approximated('f(x) = x^2');
    const scene = sceneOf({ ...document, looks: { ...document.looks, key: 'topRight' } });
    const [, below] = scene.tiers;
    if (!below) throw new Error('a second tier was expected');
    const [x, y] = [below.view.toX(0), below.view.toY(1)];
    expect(nearestCurve(scene, x, y, 5)).toBeNull();
    expect(below.key.map(({ latex }) => latex)).toEqual(['f(x) - L(x)']);
    expect(scene.tiers[0]?.key.map(({ latex }) => latex)).toEqual(['f(x)', 'L(x)']);
  });

  test('tells the difference in the unit of the heights', () => {
    const document = approximated('f(x) = x^2');
    const f = makeEntry('function', { order: 1, text: 'f(x) = x^2', tier: 'tier-f', family: 0, unit: 'm' });
    expect(linesOf({ ...document, entries: { ...document.entries, f } })[2]).toContain('0.250 m');
  });

  test.each([
    ['a corner', 'f(x) = |x - 1|', {}, 'f has no single slope at x = a.'],
    ['a pole', 'f(x) = 1/(x - 1)', {}, 'f has no value at x = a.'],
    ['an end', 'f(x) = x sqrt(x)', { a: '0' }, 'x = a is an end of f: it has a one-sided slope only.'],
    ['a vertical tangent', 'f(x) = cbrt(x)', { a: '0' }, 'At x = a the tangent to f is vertical.'],
  ])(
    'at %s a sentence says why there is none, L has no value, and both places keep their grips',
    (_, text, settings, why) => {
      const document = approximated(text, { p: '0.5', ...settings });
      expect(sentenceOf(document)).toBe(`${why} There is no linear approximation there.`);
      expect(linesOf(document)).toHaveLength(1);
      expect(linesOf(document, 'later')[0]).not.toContain('=');
      const grips = ofKind(marksOf(sceneOf(document)), 'point').map(({ parameter }) => parameter);
      expect(grips).toEqual(text.includes('1/(x') ? ['p'] : ['p', 'a']);
      expect(ofKind(marksOf(sceneOf(document)), 'track')).toEqual([]);
    },
  );

  test.each([
    [
      'no tolerance',
      'f(x) = x^2',
      { tolerance: '0' },
      'The tolerance is a number larger than 0: how much the approximation may be off.',
    ],
    [
      'a name that means something',
      'f(x) = x^2',
      { name: 'sin' },
      '“sin” already has a meaning; please choose another name.',
    ],
  ])('with %s a sentence says what is wrong', (_, text, settings, message) => {
    expect(problemOf(approximated(text, settings))).toBe(message);
  });

  test('of a line is the line: they never differ, and what lies beyond the interval is left open', () => {
    const document = approximated('f(x) = 3x - 2');
    expect(linesOf(document)[2]).toBe('f(p) - L(p) = 0.000');
    expect(sentenceOf(document)).toBe(
      'At x = 1.5 both have the same value. At least from x = −5 to 5 L is off by at most 0.1 (proved); what lies beyond was not looked at.',
    );
  });

  test('where a slider is called like the variable it is the line of this moment all the same', () => {
    const document = approximated('f(t) = t^2');
    const entries = { ...document.entries, f: given(1, 'f(a) = a^2') };
    const { program, parameters } = resultIn({ ...document, entries });
    // By hand: 2a − 1 at 3.
    expect(evaluateAt(program, 3, parameters)).toBe(5);
  });

  // x² sin(1/x), 0 at 0, has the slope 0 there by the definition's limit, which no rule of differentiation gives.
  test('of a function whose slope only the definition gives is that line', () => {
    const { program, parameters } = resultIn(
      approximated('f(x) = x^2 sin(1/x) if x ≠ 0; 0 if x = 0', { a: '0' }),
    );
    expect([0, 1, -2].map((x) => evaluateAt(program, x, parameters))).toEqual([0, 0, 0]);
  });

  test('where f has no value at the second place there is no difference, and nothing is drawn of it', () => {
    const document = approximated('f(x) = ln x', { p: '-1' });
    expect(sentenceOf(document)).toContain('f has no value at x = −1, so there is no difference there.');
    expect(ofKind(marksOf(sceneOf(document)), 'line').filter(({ tone }) => tone === 'ink')).toEqual([]);
  });

  test('draws the line, the good part, the segment and its grips, and the difference between the tolerances', () => {
    const document = approximated('f(x) = x^2');
    const scene = sceneOf(document);
    const [own, below] = scene.tiers.map(({ marks }) =>
      marks.filter((mark) => 'entry' in mark && mark.entry === 'study').map(({ kind }) => kind),
    );
    expect(own).toEqual(['curve', 'track', 'line', 'dot', 'point', 'point']);
    expect(below).toEqual(['curve', 'line', 'line', 'line', 'point']);
    expect(scene.tiers[1]?.title?.names.map(({ latex }) => latex)).toEqual(['f(x) - L(x)']);
    const grips = ofKind(marksOf(scene), 'point').map(({ parameter }) => parameter);
    expect(grips).toEqual(['p', 'a', 'p']);
  });

  // What is written of the good part has to hold for the written digits, however they are rounded.
  test('within the written part it is off by no more than the tolerance, of random functions', () => {
    const formulas = fc.constantFrom(
      'x^2',
      'sin x',
      'e^x',
      'x^3 - 2x',
      'ln(x + 6)',
      '1/(x^2 + 1)',
      'x cos x',
    );
    const numbers = fc.record({
      text: formulas,
      a: fc.integer({ min: -20, max: 20 }),
      tolerance: fc.constantFrom('0.1', '0.01', '0.5', '1/3'),
      decimals: fc.integer({ min: 1, max: 4 }),
    });
    fc.assert(
      fc.property(numbers, ({ text, a, tolerance, decimals }) => {
        const document = {
          ...approximated(`f(x) = ${text}`, { a: String(a / 10), tolerance }),
          decimals,
          tiers: { 'tier-f': newTier(1, { from: -5, to: 5 }), slope: newTier(2, { from: -1, to: 1 }) },
        };
        const { isProved } = resultIn(document);
        const written = /rom x = (\S+) to (\S+) L is off/.exec(sentenceOf(document));
        if (!isProved || !written) return;
        const [from, to] = written.slice(1).map(readWritten) as [number, number];
        const limit = readWritten(tolerance);
        const { of, program, parameters } = resultIn(document);
        for (let i = 0; i <= 40; i++) {
          const x = from + ((to - from) * i) / 40;
          const off = evaluateAt(of.program, x, of.parameters) - evaluateAt(program, x, parameters);
          expect(Math.abs(off)).toBeLessThanOrEqual(limit * (1 + 1e-12));
        }
      }),
      { seed: 20261202, numRuns: 25 },
    );
  });
});

/** A number as it is written: −0.684, 2.1·10⁻⁵, 1/3 or √2. */
function readWritten(text: string): number {
  const plain = text.replaceAll('−', '-').replace(/·10([⁻⁰¹²³⁴⁵⁶⁷⁸⁹]+)/, (_, raised: string) => {
    const digits = [...raised].map((digit) => (digit === '⁻' ? '-' : String('⁰¹²³⁴⁵⁶⁷⁸⁹'.indexOf(digit))));
    return `*10^(${digits.join('')})`;
  });
  const reading = readExpression(plain, { names: new Set(), functions: new Set() });
  if (!reading.ok) throw new Error(`${text} cannot be read`);
  return evaluateAt(compile(reading.value, ''), 0);
}
