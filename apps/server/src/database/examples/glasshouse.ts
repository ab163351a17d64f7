import { emptyDocument, makeEntry, newTier, usualLook, type Document } from '@yperkine/demonstration';
import { opening } from './slope.ts';

/** The temperature of the lesson at an hour of the day, as its formula has it. */
const temperatureAt = (t: number): number =>
  14 + 8 * Math.sin((Math.PI * (t - 9)) / 12) + 17 * Math.exp(-900 * (t - 4.35) ** 2);

/** What the logger wrote down, every half hour. */
function loggedTable(): string {
  const rows = Array.from({ length: 49 }, (_, i) => `${i / 2},${temperatureAt(i / 2).toFixed(1)}`);
  return ['time (h),temperature (°C)', ...rows].join('\n');
}

/** The curve itself is seen once one has looked between the dots. */
const between = 'question_1 or question_2 or question_3';

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
        'The glasshouse of the field station through one day. The old logger wrote down the temperature every half hour; its dots are joined. When was it warmest? Say a time of day. Then look at what happened between the dots.',
      ),
      logged: makeEntry('data', {
        order: 0.8,
        name: 'L',
        variable: 't',
        table: loggedTable(),
        shape: 'broken',
        tier: 'tier-f',
        unit: '°C',
        look: { ...usualLook, tone: 'ink' },
      }),
      day: makeEntry('function', {
        order: 1,
        text: 'T(t) = 14 + 8 sin(π(t - 9)/12) + 17 e^(-900(t - 4.35)^2) for 0 <= t <= 24',
        tier: 'tier-f',
        unit: '°C',
        shownWhen: between,
      }),
      question1: makeEntry('reveal', { order: 2, name: 'question_1', title: 'What was between the dots?' }),
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
      answer: makeEntry('note', {
        order: 7.5,
        text: 'The warmest minute was at 4:21 in the morning, with {T(4.35)} °C: the heater was being tried out. The dots of 4:00 and 4:30 lie on both sides of it, and neither has seen it.',
        shownWhen: 'question_2',
      }),
      ask: makeEntry('note', {
        order: 8,
        text: 'Compare the end points with the highs inside: which of them would you have to look at to be sure of the warmest and the coldest minute of the whole day?',
        shownWhen: 'question_2 or question_3',
      }),
    },
    tiers: { 'tier-f': newTier(1, { from: 4, to: 27 }) },
  };
}
