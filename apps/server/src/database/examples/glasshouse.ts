import { emptyDocument, makeEntry, newTier, type Document } from '@yperkine/demonstration';
import { opening } from './slope.ts';

/** A day in the glasshouse: the warmest minute hides in a bump that joined dots leave out. */
export function glasshouseDemonstration(): Document {
  const day = { from: '0', to: '24' };
  return {
    ...emptyDocument('The warmest minute in the glasshouse'),
    x: { from: 0, to: 24 },
    startX: { from: 0, to: 24 },
    xTyped: true,
    xTicks: 3,
    xUnit: 'h',
    xTitle: 'time since midnight',
    entries: {
      note: opening(
        'The glasshouse of the field station through one day, in degrees over freezing. The curve seems to be highest in the afternoon. But the heater was tried out before dawn. Which minute was the warmest? Turn on the dots of the old logger first, one every half hour, then look for all key points.',
      ),
      day: makeEntry('function', {
        order: 1,
        text: 'T(t) = 14 + 8 sin(π(t - 9)/12) + 17 e^(-900(t - 4.35)^2) for 0 <= t <= 24',
        tier: 'tier-f',
        unit: '°C',
      }),
      question1: makeEntry('reveal', { order: 2, name: 'question_1', title: 'What did the logger see?' }),
      question2: makeEntry('reveal', { order: 3, name: 'question_2', title: 'Which minute?' }),
      question3: makeEntry('reveal', { order: 4, name: 'question_3', title: 'Why?' }),
      logger: makeEntry('coarse', { order: 5, on: 'day', ...day, step: '0.5', shownWhen: 'question_1' }),
      points: makeEntry('keyPoints', {
        order: 6,
        on: 'day',
        ...day,
        shows: ['ends', 'maxima', 'minima'],
        shownWhen: 'question_2',
      }),
      signs: makeEntry('signStrip', { order: 7, on: 'day', ...day, degree: 1, shownWhen: 'question_3' }),
      ask: makeEntry('note', {
        order: 8,
        text: 'Compare the end points with the highs inside: which of them would you have to look at to be sure of the warmest and the coldest minute of the whole day?',
        shownWhen: 'question_2 or question_3',
      }),
    },
    tiers: { 'tier-f': newTier(1, { from: 4, to: 27 }) },
  };
}
