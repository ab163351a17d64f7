import { makeEntry, type Document } from '@yperkine/demonstration';
import { slider, slopeDemonstration } from './slope.ts';

/** A swing that dies away: where it is fastest is where its slope has an extremum, a little before its rest. */
export function gateDemonstration(): Document {
  const base = slopeDemonstration(
    'The sluice gate swings to rest',
    's(t) = 4e^(-0.3t) cos 2t',
    slider(2, 'a', '1.2', '0', '10', '0.01'),
    { x: { from: -0.5, to: 10.5 }, y: { from: -4, to: 5 }, slopeY: { from: -9, to: 7 } },
    { x: 's', y: 'cm' },
    "The gate was pushed and let go. At {a} s it stands {s(a)} cm from its rest and moves by {s'(a)} cm a second. Play the lane: where is the gate when it is fastest?",
  );
  const shownWhen = 'question_1';
  return {
    ...base,
    entries: {
      ...base.entries,
      question1: makeEntry('reveal', { order: 6, name: shownWhen, title: 'Where is it fastest?' }),
      fastest: makeEntry('keyPoints', {
        order: 7,
        on: 'slope',
        from: '0',
        to: '10',
        shows: ['minima'],
        shownWhen,
      }),
      answer: makeEntry('note', {
        order: 8,
        text: "It is fastest at 0.64 s, on its first way back: there its rate $s'$ is lowest, {s'(0.64)} cm a second. It still stands {s(0.64)} cm before its rest: the water slows it down all the way, so the greatest speed comes a little early.",
        shownWhen,
      }),
    },
  };
}
