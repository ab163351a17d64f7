import { describe, expect, test } from '@jest/globals';
import {
  answersNow,
  emptyStage,
  makeEntry,
  resolve,
  resultsOf,
  unitText,
  withValue,
  type Document,
  type Said,
  type Unit,
} from '../src/index.ts';
import { documentWith, given, outcomeOf, resultOf, slider } from './sample.ts';

/** x² with studies at a = 3; every result has a name, and a value uses it. */
const named = (value: string, more: Document['entries'] = {}): Document => ({
  ...documentWith({
    f: makeEntry('function', { order: 1, text: 'f(x) = x^2', tier: 'tier-f', unit: 'm' }),
    a: slider(2, 'a', '3'),
    h: slider(3, 'h', '1'),
    point: makeEntry('point', { order: 4, on: 'f', parameter: 'a', names: { height: 'p' } }),
    tangent: makeEntry('tangent', {
      order: 5,
      on: 'f',
      parameter: 'a',
      names: { slope: 'm', intercept: 'c' },
    }),
    normal: makeEntry('normal', { order: 6, on: 'f', parameter: 'a', names: { slope: 'n' } }),
    secant: makeEntry('secant', { order: 7, on: 'f', parameter: 'a', step: 'h', names: { slope: 's' } }),
    where: makeEntry('slopeEquals', {
      order: 8,
      on: 'f',
      level: '5',
      from: '-9',
      to: '9',
      names: { place1: 'w' },
    }),
    value: makeEntry('value', { order: 9, text: value }),
    ...more,
  }),
  xUnit: 's',
});
type Value = Said & { value: { value: number; exact: unknown }; unit: Unit };

describe('a result of an entry that was given a name', () => {
  test.each([
    ['p', 9, 'm'],
    ['m', 6, 'm/s'],
    ['c', -9, 'm'],
    ['6n', -1, 'm/s'],
    ['s', 7, 'm/s'],
    ['w', 2.5, 's'],
    ['m a + c', 9, 'm'],
    ['f(w)', 6.25, 'm'],
  ])('%s is %s in %s', (formula, expected, unit) => {
    const { value, unit: found } = resultOf<Value>(named(formula), 'value');
    expect(value.value).toBeCloseTo(expected, 12);
    expect(unitText(found)).toBe(unit);
  });

  test('follows what it is a result of, exact where that is, and only what uses it is worked out again', () => {
    const document = named('2m', { other: given(10, 'g(x) = x + 1') });
    const before = resolve(document, emptyStage);
    const after = resolve(document, withValue(emptyStage, 'a', '0.5'), before);
    const outcome = after.entries.get('value')?.outcome;
    expect(outcome?.ok && (outcome.result as Value).value).toMatchObject({ value: 2 });
    expect(outcome?.ok && (outcome.result as Value).value.exact).not.toBeNull();
    expect(after.workedOut).toEqual(['a', 'point', 'tangent', 'normal', 'secant', 'value']);
  });

  test('a result that is not there has no value; a name that is taken is told at the later entry', () => {
    const corner = { ...named('m'), entries: { ...named('m').entries, f: given(1, 'f(x) = |x - 3|') } };
    expect(resultOf<Value>(corner, 'value').sentence).toBe('This has no value.');
    const taken = named('m', { late: makeEntry('value', { order: 12, text: 'm = 4' }) });
    expect(outcomeOf(taken, 'late')).toMatchObject({
      ok: false,
      problem: { message: 'This name is already taken by an earlier entry; please choose another.' },
    });
  });

  test('a name that leads back to itself is a circle, and everything else works on', () => {
    const circle = named('1', {
      f: makeEntry('function', { order: 1, text: 'f(x) = m x^2', tier: 'tier-f' }),
    });
    expect(outcomeOf(circle, 'tangent')).toMatchObject({
      ok: false,
      problem: { message: 'This goes in a circle: it depends on itself through its own names.' },
    });
    expect(outcomeOf(circle, 'where')).toMatchObject({
      ok: false,
      problem: { message: 'This waits for a number that has no value at present.', isWaiting: true },
    });
    expect(outcomeOf(circle, 'value')).toMatchObject({ ok: true });
  });

  test('the numbers that can be named are told with what they are called', () => {
    const resolution = resolve(named('1'), emptyStage, undefined, answersNow());
    const labels = (id: string) => resultsOf(resolution, id).map(({ label }) => label);
    expect(labels('tangent')).toEqual(['slope', 'intercept']);
    expect(labels('point')).toEqual(['height']);
    expect(labels('where')).toEqual(['place']);
    expect(labels('f')).toEqual([]);
  });
});
