import { emptyDocument, makeEntry, newTier, type Document, type Entry } from '@yperkine/demonstration';
import { opening } from './slope.ts';

/** Three sliders and the slopes at whole places: which rule gives the slope from a, b and the place? */
export function ruleDemonstration(): Document {
  const coefficient = (order: number, name: string, value: string): Entry =>
    makeEntry('parameter', { order, name, value, from: '-4', to: '4', step: '0.5' });
  const value = (order: number, text: string): Entry => makeEntry('value', { order, text });
  return {
    ...emptyDocument('Guess the rule'),
    x: { from: -4, to: 4 },
    entries: {
      note: opening(
        "Move $a$, $b$ and $c$ one at a time and read the slopes in the table. Which of the three does the slope not care about? Say a rule for $f'(x)$ before you look at the curve of the slope.",
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
        columns: "f(x); f'(x); f'(x) - b",
      }),
      first: value(6, "f'(0)"),
      second: value(7, "f'(1) - f'(0)"),
      slope: makeEntry('derivative', { order: 8, of: 'given', tier: 'tier-slope' }),
    },
    tiers: {
      'tier-f': newTier(1, { from: -5, to: 12 }),
      'tier-slope': newTier(2, { from: -10, to: 8 }),
    },
  };
}
