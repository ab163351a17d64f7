import {
  emptyDocument,
  makeEntry,
  newTier,
  usualLook,
  usualLooks,
  type Document,
} from '@yperkine/demonstration';
import { opening } from './slope.ts';

/** The smallest distance from a shore to the lamp on the jetty, with the distance as a function under it. */
export function jettyDemonstration(): Document {
  const shore = { from: '0', to: '4.5' };
  return {
    ...emptyDocument('Nearest point of the jetty'),
    x: { from: -4.5, to: 10.5 },
    startX: { from: -4.5, to: 10.5 },
    xTyped: true,
    xUnit: 'm',
    looks: { ...usualLooks, sameScale: true },
    entries: {
      note: opening(
        'The lamp stands at the end of the jetty, at P. A rope goes from it to the shore: let its end run along the shore and back. Where is the rope shortest, and how short is it? Watch its length, the curve under the shore: its low tells both. Which of the two numbers is the place, and which is the length?',
      ),
      shore: makeEntry('function', {
        order: 1,
        text: 's(x) = x^2/4 for 0 <= x <= 4.5',
        tier: 'tier-f',
        unit: 'm',
      }),
      a: makeEntry('parameter', {
        order: 2,
        name: 'a',
        value: '4',
        from: '0.1',
        to: '4.5',
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
        shownWhen: 'question_1',
      }),
      lamp: makeEntry('marker', {
        order: 4.2,
        x: '0',
        y: '3',
        tier: 'tier-f',
        look: { ...usualLook, tone: 'ink', label: 'text', text: 'P' },
        shownWhen: 'not question_1',
      }),
      line: makeEntry('function', {
        order: 4.4,
        text: 'r(x) = 3 + x (s(a) - 3)/a for 0 <= x <= a',
        tier: 'tier-f',
        unit: 'm',
        shownWhen: 'not question_1',
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
      'tier-f': newTier(1, { from: -0.5, to: 5.5 }),
      'tier-rope': newTier(2, { from: 2, to: 6 }),
    },
  };
}
