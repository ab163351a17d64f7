import { emptyDocument, makeEntry, newTier, usualLook, type Document } from '@yperkine/demonstration';
import { opening } from './slope.ts';

const minutes = { from: '0', to: '8' };

/** What a sluice let through: rectangles that add up, how exact they are, and the total so far. */
export function sluiceDemonstration(): Document {
  return {
    ...emptyDocument('What the sluice let through'),
    x: { from: 0, to: 8 },
    startX: { from: 0, to: 8 },
    xTyped: true,
    xTicks: 1,
    xUnit: 'min',
    xTitle: 'time since the sluice was opened',
    entries: {
      note: opening(
        'For eight minutes the sluice of the millstream was open. Its gauge shows how many cubic metres ran through each minute; where the curve is negative, the tail water pushed back. How many cubic metres came through in all? Guess first. Then take ten rectangles, and let n double.',
      ),
      flow: makeEntry('function', {
        order: 1,
        text: 'Q(t) = 16/5 e^(-0.09t) sin(0.9t + 0.35) + 1/4 for 0 <= t <= 8',
        tier: 'tier-f',
        unit: 'm³/min',
      }),
      n: makeEntry('parameter', {
        order: 2,
        name: 'n',
        value: '10',
        from: '1',
        to: '1000',
        step: '1',
        spread: 'doubling',
        whole: true,
        repeat: 'once',
        motion: 'steps',
        pause: '1.5',
      }),
      strips: makeEntry('sum', { order: 3, on: 'flow', ...minutes, parts: 'n', rule: 'left' }),
      question1: makeEntry('reveal', { order: 4, name: 'question_1', title: 'How exact is it?' }),
      question2: makeEntry('reveal', { order: 5, name: 'question_2', title: 'How much so far?' }),
      truth: makeEntry('integral', {
        order: 6,
        on: 'flow',
        ...minutes,
        shownWhen: 'question_1',
        look: { ...usualLook, layer: -1 },
      }),
      errors: makeEntry('sumErrors', {
        order: 7,
        of: 'strips',
        rules: ['left', 'midpoint', 'trapezoid', 'simpson'],
        shownWhen: 'question_1',
      }),
      ask: makeEntry('note', {
        order: 8,
        text: 'Let n double again and again. Once n is large, each doubling about halves the error of the left rectangles; with rectangles taken in the middle it becomes about a quarter. Why does it help so much to look at the middle?',
        shownWhen: 'question_1',
      }),
      b: makeEntry('parameter', {
        order: 9,
        name: 'b',
        value: '3',
        from: '0',
        to: '8',
        step: '0.01',
        seconds: '10',
        repeat: 'once',
        unit: 'min',
        shownWhen: 'question_2',
      }),
      soFar: makeEntry('runningTotal', {
        order: 10,
        on: 'flow',
        from: '0',
        parameter: 'b',
        name: 'V',
        tier: 'tier-total',
        shownWhen: 'question_2',
      }),
      high: makeEntry('note', {
        order: 11,
        text: 'The total is highest where the flow changes from positive to negative: nothing more comes through, and what ran back has not begun. Move b there.',
        shownWhen: 'question_2',
      }),
    },
    tiers: {
      'tier-f': newTier(1, { from: -2.5, to: 3.5 }),
      'tier-total': newTier(2, { from: 0, to: 8 }),
    },
  };
}
