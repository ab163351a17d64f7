import { describe, expect, test } from '@jest/globals';
import { derivativeOf, printLatex, readExpression, type AnswerTo, type Expression } from '@yperkine/core';
import {
  answeredBy,
  answersNow,
  emptyStage,
  makeEntry,
  resolve,
  unanswered,
  withValue,
  type Answers,
  type CurveResult,
  type Document,
  type ReadoutResult,
  type Said,
} from '../src/index.ts';
import { documentWith, given, problemOf, resultOf, toldIn } from './sample.ts';

/** Answers that count the questions of each kind that they are asked. */
function counted(): { answers: Answers; asked: string[] } {
  const asked: string[] = [];
  const now = answersNow();
  const ask: Answers['ask'] = (by, question) => {
    asked.push(question.ask);
    return now.ask(by, question);
  };
  return { asked, answers: { ask, version: () => 0 } };
}

const problemWithout = (document: Document, id: string) => {
  const outcome = toldIn(resolve(document, emptyStage, undefined, unanswered), id);
  return outcome?.ok === false
    ? { message: outcome.problem.message, isWaiting: outcome.problem.isWaiting }
    : null;
};

describe('a value that takes long', () => {
  const value = (text: string): Document => documentWith({ v: makeEntry('value', { order: 1, text }) });

  test('is asked for, and told as a rounded number', () => {
    const document = value('s = sum k from 1 to 1000000 of 1/k^2');
    expect(problemWithout(document, 'v')).toEqual({
      message: 'The value is being worked out …',
      isWaiting: true,
    });
    // π²/6 − 1/n + 1/(2n²) − …: Euler's summation formula (Graham, Knuth, Patashnik, Concrete Mathematics, 9.5).
    const { value: sum } = resultOf<ReadoutResult>(document, 'v');
    expect(sum.value).toBeCloseTo(Math.PI ** 2 / 6 - 1e-6 + 5e-13, 10);
    expect(sum.exact).toBeNull();
  });

  test('is not asked for where it is soon there', () => {
    const { answers, asked } = counted();
    const { entries } = resolve(value('s = sum k from 1 to 1000 of 1/k^2'), emptyStage, undefined, answers);
    expect([entries.get('v')?.outcome.ok, asked]).toEqual([true, []]);
  });

  test('of sliders is asked for with their numbers', () => {
    const document = documentWith({
      a: makeEntry('parameter', { order: 1, name: 'a', value: '2' }),
      v: makeEntry('readout', { order: 2, text: 'sum k from 1 to 200000 of a/k^2' }),
    });
    const half = resultOf<ReadoutResult>(document, 'v', withValue(emptyStage, 'a', '1')).value.value;
    expect(resultOf<ReadoutResult>(document, 'v').value.value).toBeCloseTo(2 * half, 12);
  });
});

describe('a value that is one integral and takes long', () => {
  const document = documentWith({ v: makeEntry('value', { order: 1, text: '∫[0,∞] sin(e^x) dx' }) });
  /** An answer as it arrives, with its bounds or with these still to come. */
  const told = (value: number, bounds: readonly [number, number] | null) => {
    const answer: AnswerTo['value'] = {
      value,
      exact: null,
      missing: null,
      integral: {
        value,
        exact: null,
        bound: NaN,
        certainty: 'estimated',
        diverges: false,
        undefinedOn: [],
        interval: [0, Infinity],
      },
      bounds,
    };
    const ask: Answers['ask'] = () => answeredBy({ ok: true, answer }, bounds === null ? 'found' : 'now');
    return toldIn(resolve(document, emptyStage, undefined, { ask, version: () => 0 }), 'v');
  };
  const numbersOf = (outcome: ReturnType<typeof told>) =>
    outcome?.ok
      ? (outcome.result as Said).lines.flat().flatMap((part) => (part.kind === 'number' ? [part] : []))
      : [];

  test('has its digits while its bounds are still to come', () => {
    const [found, checked] = [told(0.625, null), told(0.625, [0.62, 0.63])].map(numbersOf);
    expect(found?.map(({ text }) => text)).toContain('0.625');
    expect(found?.flatMap(({ of }) => of?.bounds ?? [])).toEqual([]);
    expect(checked?.flatMap(({ of }) => of?.bounds ?? [])).toEqual([0.62, 0.63]);
  });

  test('tells its bounds in its sentence where it has no digits', () => {
    const sentenceOf = (outcome: ReturnType<typeof told>) =>
      outcome?.ok ? (outcome.result as Said).sentence : '';
    expect(sentenceOf(told(NaN, [0.6201, 0.6299]))).toBe(
      'This integral could not be worked out to enough digits, but it lies between 0.6200 and 0.6300 (proved).',
    );
    expect(sentenceOf(told(NaN, null))).toBe('This integral could not be worked out to enough digits.');
  });
});

describe('a derivative that is long to find', () => {
  const body = '(x^2 + 1)^5/(x - 7)^3 sin(x)^4 e^(cos x) sqrt(x^2 + 1)';
  const document = documentWith({
    a: makeEntry('parameter', { order: 0, name: 'a', value: '1' }),
    f: given(1, `f(x) = ${body}`),
    d: makeEntry('derivative', { order: 2, of: 'f', degree: 3, tier: 'tier-f' }),
    t: makeEntry('tangent', { order: 3, on: 'd', parameter: 'a' }),
  });

  test('is asked for, while everything else goes on', () => {
    expect(problemWithout(document, 'd')).toEqual({
      message: 'A derivative is being worked out …',
      isWaiting: true,
    });
    expect(problemWithout(document, 'f')).toBeNull();
  });

  test('is the same as at once, and asked for once', () => {
    const { answers, asked } = counted();
    const first = resolve(document, emptyStage, undefined, answers);
    const outcome = toldIn(first, 'd');
    if (!outcome?.ok) throw new Error(outcome?.problem.message);
    const reading = readExpression(body, { names: new Set(['x']), functions: new Set() });
    if (!reading.ok) throw new Error(body);
    const atOnce: Expression = derivativeOf(reading.value, 'x', 3);
    expect(printLatex((outcome.result as CurveResult & Said).body)).toBe(printLatex(atOnce));
    const times = asked.filter((ask) => ask === 'derivative').length;
    expect(times).toBeGreaterThan(0);
    resolve(document, withValue(emptyStage, 'a', '2'), first, answers);
    expect(asked.filter((ask) => ask === 'derivative')).toHaveLength(times);
  });
});

test('what takes longer than anybody waits for a frame, and nobody can be asked for, says so', () => {
  const document = documentWith({
    f: given(1, 'f(x) = sum k from 1 to 900000 of sin(k x)/k^2'),
    a: makeEntry('parameter', { order: 2, name: 'a', value: '1' }),
    t: makeEntry('tangent', { order: 3, on: 'f', parameter: 'a' }),
  });
  expect(problemOf(document, 't')).toBe(
    'This is too large to be worked out; please split it into smaller parts.',
  );
});
