import { describe, expect, test } from '@jest/globals';
import {
  emptyStage,
  isShown,
  makeEntry,
  resolve,
  revealUse,
  withRevealRenamed,
  withRevealUse,
  type Document,
  type Entry,
  type Stage,
} from '../src/index.ts';
import { documentWith, given, sceneOf, slider } from './sample.ts';

const reveal = (order: number, name: string, switchedOn = false): Entry =>
  makeEntry('reveal', { order, name, switchedOn });

/** A point on f at a that is shown when a condition over t and two reveals holds. */
const withCondition = (shownWhen: string, reveals: readonly [boolean, boolean] = [false, false]): Document =>
  documentWith({
    f: given(1, 'f(x) = x^2'),
    a: slider(2, 'a', '1'),
    t: slider(3, 't', '3', { from: '0', to: '10' }),
    q1: reveal(4, 'question_1', reveals[0]),
    q2: reveal(5, 'question_2', reveals[1]),
    p: makeEntry('point', { order: 6, on: 'f', parameter: 'a', shownWhen }),
  });

const at = (t: string | number): Stage => ({ ...emptyStage, values: { t } });
const visibility = (document: Document, stage = emptyStage) => resolve(document, stage).visibilities.get('p');

describe('an entry with a condition', () => {
  test.each([
    ['1.999', false],
    ['2', false],
    ['2.001', true],
    ['4.999', true],
    ['5', false],
  ])('2 < t < 5 at t = %s: shown is %s', (t, isThere) => {
    expect(visibility(withCondition('2 < t < 5'), at(t))?.isShown).toBe(isThere);
  });

  test.each([
    [false, false, false, false],
    [true, false, false, true],
    [false, true, true, true],
    [true, true, true, true],
  ])('reveals %s and %s: joined with a parameter %s, joined by or %s', (one, two, both, either) => {
    expect(visibility(withCondition('2 < t < 5 and question2', [one, two]))?.isShown).toBe(both);
    expect(visibility(withCondition('question1 or question2', [one, two]))?.isShown).toBe(either);
    expect(visibility(withCondition('not question1', [one, two]))?.isShown).toBe(!one);
    expect(visibility(withCondition('(question1) and (question2)', [one, two]))?.isShown).toBe(one && two);
  });

  test('exact numbers are compared exactly: a tenth and two tenths are three tenths', () => {
    expect(visibility(withCondition('t - 0.2 = 0.1'), at('0.3'))?.isShown).toBe(true);
    expect(visibility(withCondition('t - 0.2 = 0.1'), at(0.3))?.isShown).toBe(false);
  });

  test('functions and slopes may stand in it', () => {
    expect(visibility(withCondition("f'(t) > f(2)"), at('2.5'))?.isShown).toBe(true);
    expect(visibility(withCondition("f'(t) > f(2)"), at('1.5'))?.isShown).toBe(false);
  });

  test('a side without a value makes neither a condition nor its opposite hold; the rest may decide', () => {
    const undefinedRoot = 'sqrt(-1 - t) > 0';
    expect(visibility(withCondition(undefinedRoot))?.isShown).toBe(false);
    expect(visibility(withCondition(`not ${undefinedRoot}`))?.isShown).toBe(false);
    expect(visibility(withCondition(`${undefinedRoot} or t > 2`))?.isShown).toBe(true);
  });

  test('its marks are drawn exactly while it holds', () => {
    const points = (document: Document) =>
      sceneOf(document).tiers[0]?.marks.filter(({ kind }) => kind === 'point').length;
    expect(points(withCondition('t = 3'))).toBe(1);
    expect(points(withCondition('t > 3'))).toBe(0);
  });

  test('one that cannot be read is told, and the entry stays shown', () => {
    const seen = visibility(withCondition('2 < t and'));
    expect(seen?.isShown).toBe(true);
    expect(seen?.problem?.message).toMatch(/\.$/);
    expect(visibility(withCondition('t'))?.problem?.message).toContain('A condition is expected here');
  });

  test('it tells the moment that is over from the reveal that is off', () => {
    const over = visibility(withCondition('2 < t < 5 and question2', [false, true]), at('7'));
    expect(over).toMatchObject({ isShown: false, isRevealed: true });
    const off = visibility(withCondition('2 < t < 5 and question2', [false, false]), at('3'));
    expect(off).toMatchObject({ isShown: false, isRevealed: false });
  });

  test('while nothing changed the same map comes back', () => {
    const document = withCondition('2 < t < 5');
    const first = resolve(document, at('3'));
    expect(resolve(document, at('4'), first).visibilities).toBe(first.visibilities);
    expect(resolve(document, at('6'), first).visibilities).not.toBe(first.visibilities);
  });
});

describe('a heading', () => {
  const grouped = (more: Partial<Entry>): Document =>
    documentWith({
      f: given(1, 'f(x) = x^2'),
      part: makeEntry('heading', { order: 2, title: 'Part (b)', ...(more as object) }),
      g: given(3, 'g(x) = x'),
      last: makeEntry('heading', { order: 4, title: 'Part (c)' }),
      h: given(5, 'h(x) = 1'),
    });
  const shown = (document: Document) => {
    const resolution = resolve(document, emptyStage);
    return ['f', 'g', 'h'].filter((id) => isShown(resolution, id));
  };

  test('folded, it hides nothing on the graph; hidden, it hides all under it up to the next one', () => {
    expect(shown(grouped({ folded: true } as Partial<Entry>))).toEqual(['f', 'g', 'h']);
    expect(shown(grouped({ hidden: true }))).toEqual(['f', 'h']);
  });

  test('its condition holds for all under it', () => {
    expect(shown(grouped({ shownWhen: '1 > 2' }))).toEqual(['f', 'h']);
  });
});

describe('the table of which reveal shows what', () => {
  const { directory } = resolve(withCondition(''), emptyStage);
  const put = (text: string, name: string) => withRevealUse(text, name, true, directory);
  const take = (text: string, name: string) => withRevealUse(text, name, false, directory);

  test.each([
    ['', 'none'],
    ['question1', 'shows'],
    ['question2 or question1', 'shows'],
    ['2 < t and question1', 'shows'],
    ['not question1', 'inside'],
    ['2 < t and (question1 or question2)', 'inside'],
    ['question2', 'none'],
  ])('in “%s” the reveal question1 is %s', (text, use) => {
    expect(revealUse(text, 'question_1', directory)).toBe(use);
  });

  test('a tick more is one reveal more; beside another condition it has to be on as well', () => {
    expect(put('', 'question_1')).toBe('question1');
    expect(put('question1', 'question_2')).toBe('question1 or question2');
    expect(put('2 < t < 5', 'question_2')).toBe('2 < t < 5 and question2');
    expect(put('t < 1 or t > 2', 'question_1')).toBe('(t < 1 or t > 2) and question1');
  });

  test('a tick less leaves the rest', () => {
    expect(take('question1', 'question_1')).toBe('');
    expect(take('question1 or question2', 'question_1')).toBe('question2');
    expect(take('2 < t < 5 and question2', 'question_2')).toBe('2 < t < 5');
  });

  test('what cannot be read is not touched', () => {
    expect(put('2 <', 'question_1')).toBeNull();
  });

  test('a reveal that is renamed keeps its name in all conditions', () => {
    expect(withRevealRenamed('t > 2 and question1', 'question_1', 'slope', directory)).toBe(
      't > 2 and slope',
    );
    expect(withRevealRenamed('t > 2', 'question_1', 'slope', directory)).toBe('t > 2');
  });
});
