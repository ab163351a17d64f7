import { makeEntry, type Document } from '@yperkine/demonstration';
import { slider, slopeDemonstration } from './slope.ts';

/** Secant becomes tangent: the step h shrinks, and the lens keeps it in sight. */
export function chordDemonstration(): Document {
  const base = slopeDemonstration(
    'From secant to tangent',
    'L(t) = 2 + 7/5 sin(0.7t) + 0.15t',
    slider(2, 'a', '3.4', '0', '12', '0.01'),
    { x: { from: 0, to: 12 }, y: { from: -0.5, to: 6 }, slopeY: { from: -1.2, to: 1.4 } },
    { x: 'h', y: 'm' },
    "The tide gauge at the jetty, through half a day. Let the step $h$ shrink: the secant turns into the tangent, and under the lens the curve goes straight. Watch {h} come down, and the quotient settle on the slope {L'(a)}.",
  );
  const { point: _point, ...entries } = base.entries;
  const place = { on: 'given', parameter: 'a' };
  return {
    ...base,
    entries: {
      ...entries,
      h: makeEntry('parameter', {
        order: 2.5,
        name: 'h',
        value: '2.6',
        from: '0',
        to: '6',
        step: '0.001',
        repeat: 'once',
      }),
      secant: makeEntry('secant', { order: 3, ...place, step: 'h' }),
      lens: makeEntry('lens', { order: 4.5, ...place, follows: 'h' }),
    },
  };
}
