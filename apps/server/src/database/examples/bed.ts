import { makeEntry, type Document } from '@yperkine/demonstration';
import { slider, slopeDemonstration } from './slope.ts';

/** Value, slope, tangent, normal, and where the slope is a given number. */
export function bedDemonstration(): Document {
  const base = slopeDemonstration(
    'How steep is the millstream bed?',
    'h(x) = 3x^2 - 5x - 2',
    slider(2, 'a', '1.5', '-2', '3.5', '0.01'),
    { x: { from: -2, to: 3.5 }, y: { from: -6, to: 8 }, slopeY: { from: -20, to: 20 } },
    { x: 'm', y: 'dm' },
    "The bed of the millstream, measured from the mill wheel. Drag the point: at {a} m the bed is {h(a)} dm high and has the slope {h'(a)}. Where does it rise by just 1 dm a metre?",
  );
  return {
    ...base,
    entries: {
      ...base.entries,
      normal: makeEntry('normal', { order: 4.5, on: 'given', parameter: 'a', hidden: true }),
      question1: makeEntry('reveal', { order: 5.5, name: 'question_1', title: 'Where is the slope 1?' }),
      level: makeEntry('slopeEquals', {
        order: 6,
        on: 'given',
        level: '1',
        from: '-2',
        to: '3.5',
        shownWhen: 'question_1',
      }),
    },
  };
}
