import { emptyDocument, makeEntry, newTier, type Document } from '@yperkine/demonstration';
import { opening, slider } from './slope.ts';

/** What the gauge behind the sluice showed, every two minutes: invented, with the small unrest of real water. */
function gaugeTable(): string {
  const rows = Array.from({ length: 61 }, (_, i) => {
    const level = 41 + 9 * Math.sin(i / 11) + 3 * Math.sin(i / 4.3) + ((i * 7) % 5) * 0.1;
    return `${i * 2},${i === 23 ? 'gauge cleaned' : level.toFixed(1)}`;
  });
  return ['time (min),level (cm)', ...rows].join('\n');
}

/** Measured levels as a function, its slope, and a slope over ten minutes beside it. */
export function gaugeDemonstration(): Document {
  return {
    ...emptyDocument('The gauge behind the sluice'),
    x: { from: 0, to: 120 },
    xUnit: 'min',
    xTitle: 'time since the gate opened',
    entries: {
      note: opening(
        'The gauge was read every two minutes; once it was being cleaned. A smooth curve goes through all readings. Compare its slope with the average change over {2h} min, from {h} min before to {h} min after: what does a longer step smooth away, and what does it miss?',
      ),
      given: makeEntry('data', {
        order: 1,
        name: 'L',
        variable: 't',
        table: gaugeTable(),
        shape: 'smooth',
        tier: 'tier-f',
        unit: 'cm',
      }),
      a: slider(2, 'a', '77', '0', '120', '0.1'),
      point: makeEntry('point', { order: 3, on: 'given', parameter: 'a' }),
      tangent: makeEntry('tangent', { order: 4, on: 'given', parameter: 'a', triangle: true, base: '10' }),
      slope: makeEntry('derivative', { order: 5, of: 'given', tier: 'tier-slope' }),
      h: makeEntry('parameter', { order: 6, name: 'h', value: '5', from: '0.1', to: '10', step: '0.1' }),
      quotient: makeEntry('differenceQuotient', {
        order: 7,
        of: 'given',
        step: 'h',
        name: 'q',
        tier: 'tier-slope',
      }),
    },
    tiers: {
      'tier-f': newTier(1, { from: 24, to: 56 }),
      'tier-slope': newTier(2, { from: -1, to: 1 }),
    },
  };
}
