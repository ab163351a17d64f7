import { emptyDocument, makeEntry, newTier, usualLooks, type Document } from '@yperkine/demonstration';
import { opening } from './slope.ts';

/** A path of which the second derivative alone is given: what it says about slope and path, in sentences. */
export function bendDemonstration(): Document {
  const walk = { from: '0', to: '3π' };
  const windowed = { from: 0, to: 9.5 };
  return {
    ...emptyDocument('Reading the path from its bend'),
    x: windowed,
    startX: windowed,
    xTyped: true,
    looks: { ...usualLooks, piScale: true },
    entries: {
      note: opening(
        'Somebody measured only how the path bends, not how high it lies. What can still be said about its slope and about the path itself? Read the graph of the bend first; say where the slope is least, and why. Then compare with the path that has the start values of the hut.',
      ),
      bend: makeEntry('givenDerivative', {
        order: 1,
        text: "h''(x) = x cos(x)/4",
        startAt: '0',
        startValues: '2; 1/2',
        tier: 'tier-f',
      }),
      question1: makeEntry('reveal', { order: 2, name: 'question_1', title: 'Where is the slope least?' }),
      question2: makeEntry('reveal', { order: 3, name: 'question_2', title: 'Where does the path bend up?' }),
      question3: makeEntry('reveal', { order: 4, name: 'question_3', title: 'The path itself' }),
      slopes: makeEntry('reading', {
        order: 5,
        on: 'bend',
        ...walk,
        about: 'slope',
        shownWhen: 'question_1',
      }),
      path: makeEntry('reading', {
        order: 6,
        on: 'bend',
        ...walk,
        about: 'function',
        shownWhen: 'question_2',
      }),
      signs: makeEntry('signStrip', { order: 7, on: 'bend', ...walk, degree: 0 }),
      itself: makeEntry('original', { order: 8, of: 'bend', tier: 'tier-path', shownWhen: 'question_3' }),
    },
    tiers: {
      'tier-f': newTier(1, { from: -2.5, to: 2.5 }),
      'tier-path': newTier(2, { from: 0, to: 8 }),
    },
  };
}
