import { describe, expect, test } from '@jest/globals';
import { makeEntry, plainText, type AgreementResult } from '../src/index.ts';
import { documentWith, given, outcomeOf, resultOf, sceneOf } from './sample.ts';

describe('where two functions agree', () => {
  const compare = (f: string, byHand: string, from = '-5', to = '5') => {
    const document = documentWith({
      f: given(1, f),
      d: makeEntry('derivative', { order: 2, of: 'f', tier: 'slope' }),
      g: given(3, byHand, 'slope'),
      agree: makeEntry('agreement', { order: 4, on: 'd', with: 'g', from, to }),
    });
    const { sentence, lines, found } = resultOf<AgreementResult>(document, 'agree');
    return {
      document,
      sentence,
      lines: lines.map(plainText),
      places: found.solutions.map(({ value }) => value),
    };
  };

  // Stewart, Calculus (8th ed.), section 3.2, product rule, from memory: (x eˣ)′ = (x + 1)eˣ.
  test.each([
    ['f(x) = x e^x', 'g(x) = (x+1)e^x'],
    ['f(x) = x^3 - 2x', 'g(x) = 3x^2 - 2'],
    ['f(x) = (sin(x))^2', 'g(x) = 2sin(x)cos(x)'],
    ['f(x) = 1/(x^2+1)', 'g(x) = -2x/(x^2+1)^2'],
    ['f(x) = sqrt(x^2+1)', 'g(x) = x/sqrt(x^2+1)'],
  ])('the derivative of %s worked out by hand as %s agrees everywhere', (f, g) => {
    const { sentence, lines } = compare(f, g);
    expect(sentence).toBe('For x from −5 to 5, f′ and g agree everywhere (proved).');
    expect(lines).toHaveLength(1);
  });

  test('a slip agrees at single places only, which are found, exact and marked', () => {
    const { document, sentence, lines, places } = compare('f(x) = x^3', 'g(x) = 2x^2 + 1');
    expect(places).toEqual([-1, 1]);
    expect(lines.slice(1)).toEqual(['x = −1', 'x = 1']);
    expect(sentence).toBe('For x from −5 to 5, f′ and g agree at 2 places, and nowhere else (proved).');
    const dots = sceneOf(document).tiers[1]?.marks.filter(({ kind }) => kind === 'dot');
    expect(dots).toHaveLength(2);
  });

  test('agreement on a part is told with its ends', () => {
    expect(compare('f(x) = x^2/2', 'g(x) = |x|').sentence).toBe(
      'For x from −5 to 5, f′ and g agree on [0, 5], and nowhere else (proved).',
    );
  });

  test('no place, a wrong interval and unlike variables get a sentence each', () => {
    expect(compare('f(x) = x', 'g(x) = 2').sentence).toBe(
      'For x from −5 to 5, f′ and g agree nowhere (proved).',
    );
    const document = documentWith({
      f: given(1, 'f(x) = x'),
      g: given(2, 'g(t) = t'),
      agree: makeEntry('agreement', { order: 3, on: 'f', with: 'g', from: '1', to: '0' }),
      other: makeEntry('agreement', { order: 4, on: 'f', with: 'g', from: '0', to: '1' }),
    });
    expect(outcomeOf(document, 'agree')).toMatchObject({
      ok: false,
      problem: { message: 'The interval goes from a smaller to a larger number.' },
    });
    expect(outcomeOf(document, 'other')).toMatchObject({
      ok: false,
      problem: { message: 'f and g have different variables, x and t.' },
    });
  });
});
