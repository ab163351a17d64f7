import { emptyDocument, makeEntry, newTier, type Document } from '@yperkine/demonstration';
import { opening } from './slope.ts';

/** The smallest distance from a shore to the lamp on the jetty, with the distance as a function under it. */
export function jettyDemonstration(): Document {
  const shore = { from: '0', to: '6' };
  return {
    ...emptyDocument('Nearest point of the jetty'),
    x: { from: -0.5, to: 6.5 },
    startX: { from: -0.5, to: 6.5 },
    xTyped: true,
    xUnit: 'm',
    entries: {
      note: opening(
        'The lamp stands at the end of the jetty, at P. Let the rope run along the shore and back: where is it shortest, and how short is it? Watch the distance under the shore: its low tells both. Which of the two numbers is the point, and which is the distance?',
      ),
      shore: makeEntry('function', {
        order: 1,
        text: 's(x) = x^2/4 for 0 <= x <= 6',
        tier: 'tier-f',
        unit: 'm',
      }),
      a: makeEntry('parameter', {
        order: 2,
        name: 'a',
        value: '4.5',
        from: '0',
        to: '6',
        step: '0.01',
        seconds: '8',
        repeat: 'thereAndBack',
        unit: 'm',
      }),
      question1: makeEntry('reveal', {
        order: 3,
        name: 'question_1',
        title: 'Where is it shortest?',
        switchedOn: false,
      }),
      nearest: makeEntry('nearest', {
        order: 4,
        on: 'shore',
        parameter: 'a',
        points: '(0, 3)',
        ...shore,
      }),
      rope: makeEntry('distance', { order: 5, of: 'nearest', name: 'D', tier: 'tier-rope' }),
      low: makeEntry('keyPoints', {
        order: 6,
        on: 'rope',
        ...shore,
        shows: ['minima'],
        shownWhen: 'question_1',
      }),
    },
    tiers: {
      'tier-f': newTier(1, { from: -0.5, to: 9.5 }),
      'tier-rope': newTier(2, { from: 0, to: 9 }),
    },
  };
}
