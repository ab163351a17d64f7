import { emptyDocument, makeEntry, newTier, type Document, type Entry } from '@yperkine/demonstration';
import { opening } from './slope.ts';

/** Three sliders and the slopes at whole places: which rule gives the slope from a, b and the place? */
export function ruleDemonstration(): Document {
  const coefficient = (order: number, name: string, value: string): Entry =>
    makeEntry('parameter', { order, name, value, from: '-4', to: '4', step: '0.5' });
  return {
    ...emptyDocument('Guess the rule'),
    x: { from: -4, to: 4 },
    entries: {
      note: opening(
        "Move $a$, $b$ and $c$ one at a time and read the slopes in the table. Which of the three does the slope not care about? Say a rule for $f'(x)$ before you turn on the rule.",
      ),
      given: makeEntry('function', { order: 1, text: 'f(x) = a x^2 + b x + c', tier: 'tier-f' }),
      a: coefficient(2, 'a', '1'),
      b: coefficient(3, 'b', '-1'),
      c: coefficient(4, 'c', '-2'),
      table: makeEntry('valueTable', {
        order: 5,
        on: 'given',
        from: '-3',
        to: '3',
        step: '1',
        columns: "f(x); f'(x)",
      }),
      question1: makeEntry('reveal', { order: 6, name: 'question_1', title: 'A hint' }),
      question2: makeEntry('reveal', { order: 7, name: 'question_2', title: 'The rule' }),
      first: makeEntry('value', { order: 8, text: "f'(0)", shownWhen: 'question_1' }),
      second: makeEntry('value', { order: 9, text: "f'(1) - f'(0)", shownWhen: 'question_1' }),
      slope: makeEntry('derivative', { order: 10, of: 'given', tier: 'tier-slope', shownWhen: 'question_2' }),
      check: makeEntry('valueTable', {
        order: 11,
        on: 'given',
        from: '-3',
        to: '3',
        step: '1',
        columns: "f'(x) - b; 2 a x",
        shownWhen: 'question_2',
      }),
    },
    tiers: {
      'tier-f': newTier(1, { from: -5, to: 12 }),
      'tier-slope': newTier(2, { from: -10, to: 8 }),
    },
  };
}
