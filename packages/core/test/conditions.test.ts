import { describe, expect, test } from '@jest/globals';
import { printCondition, readCondition, sentence, truthOf, type Scope } from '../src/index.ts';

const truths = new Set(['question_1', 'question_2']);
const scope: Scope = { names: new Set(['t', ...truths]), functions: new Set(), truths };

const printed = (text: string): string => {
  const reading = readCondition(text, scope);
  return reading.ok ? printCondition(reading.value, truths) : sentence(reading.problem);
};

describe('a name that is 1 or 0 in a condition', () => {
  test.each([
    ['question1', 'question1'],
    ['(question1)', 'question1'],
    ['question1 = 1', 'question1'],
    ['not question1', 'not question1'],
    ['2 < t < 5 and question2', '2 < t < 5 and question2'],
    ['question1 or question2', 'question1 or question2'],
    ['(question1 or t > 2) and question2', '(question1 or t > 2) and question2'],
    ['question1 = 0', 'question_1 = 0'],
    ['t = 1', 't = 1'],
  ])('%s says %s, and says it again when it is read back', (text, meaning) => {
    expect(printed(text)).toBe(meaning);
    expect(printed(meaning)).toBe(meaning);
  });

  test('any other name, and a sum of such names, is no condition by itself', () => {
    expect(printed('t')).toMatch('A condition is expected here');
    expect(printed('question1 + question2')).toMatch('A condition is expected here');
  });
});

// The truth tables of Kleene's strong three-valued logic: S. C. Kleene, Introduction to Metamathematics (1952), §64.
describe('what holds when something cannot be told', () => {
  const values = { '1': true, '2': null, '3': false } as const;
  const truth = (text: string): boolean | null => {
    const reading = readCondition(text, scope);
    if (!reading.ok) throw new Error(sentence(reading.problem));
    return truthOf(reading.value, ({ operands: [, side] }) =>
      side?.kind === 'number' ? values[side.text as keyof typeof values] : null,
    );
  };
  const [yes, unknown, no] = ['t = 1', 't = 2', 't = 3'];
  test.each([
    [yes, yes, true, true],
    [yes, unknown, null, true],
    [yes, no, false, true],
    [unknown, unknown, null, null],
    [unknown, no, false, null],
    [no, no, false, false],
  ])('%s with %s: both are %s, either is %s', (left, right, both, either) => {
    for (const [a, b] of [
      [left, right],
      [right, left],
    ]) {
      expect(truth(`${a ?? ''} and ${b ?? ''}`)).toBe(both);
      expect(truth(`${a ?? ''} or ${b ?? ''}`)).toBe(either);
    }
  });
  test.each([
    [yes, false],
    [unknown, null],
    [no, true],
  ])('not %s is %s', (text, opposite) => {
    expect(truth(`not ${text}`)).toBe(opposite);
  });
});
