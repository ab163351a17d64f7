import { describe, expect, test } from '@jest/globals';
import {
  applyChange,
  emptyStage,
  makeEntry,
  plainText,
  settledEdits,
  stagedInterval,
  withValue,
  type Entry,
  type Said,
} from '../src/index.ts';
import {
  documentWith,
  given,
  linesOf,
  marksOf,
  ofKind,
  outcomeOf,
  problemOf,
  resultOf,
  sceneOf,
  sentenceOf,
  slider,
  withStudy,
} from './sample.ts';

const interval = { from: '-3', to: '3' };

describe('key points', () => {
  const study = (more: Partial<Extract<Entry, { kind: 'keyPoints' }>> = {}) =>
    makeEntry('keyPoints', { order: 2, on: 'f', ...interval, ...more });

  test('a zero at an included end, or where a jump has its value, is filled: a ring would look like a gap', () => {
    const shapes = (text: string, more: Parameters<typeof study>[0]): readonly string[] =>
      ofKind(marksOf(sceneOf(withStudy(`f(x) = ${text}`, study(more)))), 'dot').map(
        ({ shape = 'disc' }) => shape,
      );
    const rise = 'x(12 - x)/5 for 0 ≤ x ≤ 12';
    expect(shapes(rise, { from: '0', to: '12' })).toEqual(['square', 'disc', 'disc', 'square', 'disc']);
    // The end itself may be hidden: what is filled there is the curve's.
    expect(shapes(rise, { from: '0', to: '12', shows: ['zeros'] })).toEqual(['disc', 'disc']);
    expect(shapes('x if x ≤ 0; 1 + x otherwise', { from: '-1', to: '1', shows: ['zeros'] })).toEqual([
      'disc',
    ]);
    expect(shapes('x', { from: '-1', to: '1', shows: ['zeros'] })).toEqual(['ring']);
  });

  test('are marked by kind, with their coordinates, and the interval along the axis', () => {
    const scene = sceneOf(withStudy('f(x) = x^3/3 - x', study()));
    const marks = marksOf(scene);
    expect(ofKind(marks, 'dot').map(({ shape = 'disc' }) => shape)).toEqual([
      'square',
      'ring',
      'disc',
      'ring',
      'diamond',
      'disc',
      'ring',
      'square',
    ]);
    expect(ofKind(marks, 'span')).toHaveLength(1);
    expect(scene.bounds.map(({ end }) => end)).toEqual(['from', 'to']);
    const texts = scene.tiers[0]?.labels.map(({ label }) => label.text);
    expect(texts).toContain('(−1.000, 0.667)');
  });

  test('a pole is an upright line, without coordinates', () => {
    const marks = marksOf(
      sceneOf(withStudy('f(x) = e^x/(x - 1)^2 if x < 3', study({ shows: ['asymptotes'] }))),
    );
    expect(ofKind(marks, 'line').map(({ x0, x1, dash }) => [x0 === x1, dash.length > 0])).toEqual([
      [false, true],
      [true, true],
    ]);
    expect(ofKind(marks, 'dot')).toEqual([]);
  });

  test.each([
    ['1/x', ['y = 0: level asymptote to both sides']],
    ['x + 1/x', ['y = x: slanting asymptote to both sides']],
    [
      'arctan(x)',
      ['y = −π/2 ≈ −1.571: level asymptote to the left', 'y = π/2 ≈ 1.571: level asymptote to the right'],
    ],
    [
      '√(4x^2 + x)',
      ['y = −2x − 0.25: slanting asymptote to the left', 'y = 2x + 0.25: slanting asymptote to the right'],
    ],
    ['x^2', []],
  ])('the asymptotes of %s', (text, expected) => {
    const document = withStudy(`f(x) = ${text}`, study());
    expect(linesOf(document)).toEqual(expected);
    const drawn = ofKind(marksOf(sceneOf(document)), 'line').filter(({ x0, x1 }) => x0 !== x1);
    expect(drawn).toHaveLength(text === 'arctan(x)' || text.startsWith('√') ? 2 : expected.length * 2);
    expect(linesOf(withStudy(`f(x) = ${text}`, study({ shows: ['ends'] })))).toEqual([]);
  });

  const rows = (text: string) =>
    resultOf<Said>(withStudy(text, study()), 'study').table?.rows.map(({ cells }) => cells);

  test('a jump shows both limits, open circles at those that are not its value, and one label', () => {
    const document = withStudy('f(x) = x if x < 1; 3 otherwise', study());
    expect(rows('f(x) = x if x < 1; 3 otherwise')).toContainEqual(['jump', '1.000', '1 to 3', '(1, 1 to 3)']);
    const tier = sceneOf(document).tiers[0];
    const shapes = ofKind(marksOf(sceneOf(document)), 'dot').map(({ shape = 'disc' }) => shape);
    expect(shapes).toEqual(['square', 'ring', 'ring', 'disc', 'square']);
    const labels = tier?.labels.map(({ label }) => label.text).filter((text) => text.startsWith('(1.000'));
    expect(labels).toEqual(['(1.000, 1 to 3)']);
  });

  test('what an inequality leaves out is an open end, what a quotient leaves out a hole', () => {
    expect(rows('f(x) = x^2 if x < 2')).toContainEqual(['open end', '2.000', '→ 4.000', '(2, 4)']);
    expect(rows('f(x) = sin(x)/x')).toContainEqual(['hole', '0.000', '→ 1.000', '(0, 1)']);
    expect(rows('f(x) = x^2 if x ≠ 2')).toContainEqual(['hole', '2.000', '→ 4.000', '(2, 4)']);
  });

  test('an end point says which extreme it is, local or absolute', () => {
    const kinds = (text: string) => rows(text)?.map(([kind]) => kind);
    expect(kinds('f(x) = x^2')).toEqual([
      'end point, absolute maximum',
      'zero',
      'absolute minimum',
      'end point, absolute maximum',
    ]);
    expect(kinds('f(x) = √(x + 1)')).toEqual([
      'end point, absolute minimum',
      'zero',
      'end point, absolute maximum',
    ]);
    expect(kinds('f(x) = x^3/3 - 2x')?.filter((kind) => kind?.startsWith('end'))).toEqual([
      'end point, absolute minimum',
      'end point, absolute maximum',
    ]);
    expect(kinds('f(x) = (x + 1)^2 (x - 2)^2')?.filter((kind) => kind?.startsWith('end'))).toEqual([
      'end point, absolute maximum',
      'end point, local maximum',
    ]);
    expect(kinds('f(x) = 5')).toEqual([
      'end point, absolute maximum and minimum',
      'end point, absolute maximum and minimum',
    ]);
  });

  test('local and absolute are told apart; an end says whether it is one', () => {
    const { table } = resultOf<Said>(withStudy('f(x) = x^3/3 - x', study()), 'study');
    expect(table?.rows.map(({ cells }) => cells[0])).toEqual([
      'end point, absolute minimum',
      'zero',
      'local maximum',
      'zero',
      'inflection point',
      'local minimum',
      'zero',
      'end point, absolute maximum',
    ]);
  });

  test('follow a parameter, and can be named and used in formulas', () => {
    const document = documentWith({
      c: slider(0.5, 'c', '1'),
      f: given(1, 'f(x) = (x - c)^2'),
      study: study({ shows: ['minima'], names: { x2: 'm' } }),
      v: makeEntry('value', { order: 3, text: 'd = 2m' }),
    });
    expect(linesOf(document, 'v')[0]).toContain('2');
    const moved = withValue(emptyStage, 'c', '1.5');
    const outcome = outcomeOf(document, 'v', moved);
    expect(outcome?.ok && plainText((outcome.result as Said).lines[0] ?? [])).toContain('3');
  });

  test.each([
    [
      'an interval that runs backwards',
      { from: '2', to: '-2' },
      'An interval goes from a smaller to a larger number; 2 is not smaller than −2.',
    ],
    ['an end that is no number', { from: '1/0', to: '2' }, 'The ends of the interval are numbers.'],
  ])('%s is answered by a sentence', (_what, ends, message) => {
    expect(problemOf(withStudy('f(x) = x', study(ends)))).toBe(message);
  });

  test('where the proof fails, only a list that is searched says so', () => {
    const wild = 'f(x) = floor(5000x) sin x';
    const ends = { from: '0.1', to: '0.9' };
    expect(sentenceOf(withStudy(wild, study(ends)))).toContain(
      'there are more jumps than can be looked at; a shorter interval may help; what is listed there was found by search.',
    );
    const strip = makeEntry('signStrip', { order: 2, on: 'f', ...ends });
    expect(sentenceOf(withStudy(wild, strip))).toMatch(/a shorter interval may help\.$/);
    const swinging = withStudy('f(x) = sin(1/x)', study({ from: '-0.1', to: '0.1', shows: ['zeros'] }));
    expect(sentenceOf(swinging)).toMatch(/nothing was missed; what is listed there was found by search\.$/);
  });

  test('where there is no function that is said', () => {
    expect(problemOf(withStudy('f(x) = ln x', study({ from: '-3', to: '-1' })))).toBe(
      'For x from −3 to −1, f has no value anywhere.',
    );
  });

  test('while an end is dragged the stage shows the interval, and settling stores both ends', () => {
    const document = withStudy('f(x) = x^2 - 1', study());
    const staged = withValue(emptyStage, 'study', stagedInterval('-3', '0'));
    const outcome = outcomeOf(document, 'study', staged);
    expect(outcome?.ok && (outcome.result as Said).table?.rows).toHaveLength(3);
    const edits = settledEdits(document, 'study', stagedInterval('-3', '0'));
    const entry = applyChange(document, { id: '1', edits }).entries.study;
    expect(entry).toMatchObject({ from: '-3', to: '0' });
  });
});
