import {
  emptyDocument,
  makeEntry,
  newTier,
  openDocument,
  type Document,
  type Entry,
} from '@yperkine/demonstration';
import { AccountRow, DemonstrationRow } from './models.ts';

/** The demo teacher of Tarn Valley, who signs in without a password, in demo mode only. */
export const demoAccount = {
  id: '00000000-0000-4000-8000-000000000001',
  name: 'Demo teacher',
  email: 'demo@tarn-valley.example',
} as const;

interface Example {
  readonly id: string;
  readonly document: Document;
}

const slider = (order: number, name: string, value: string, from: string, to: string, step: string): Entry =>
  makeEntry('parameter', { order, name, value, from, to, step, seconds: '10' });

interface Windows extends Pick<Document, 'x'> {
  readonly y: Document['x'];
  readonly slopeY: Document['x'];
}
interface Units {
  readonly x: string;
  readonly y: string;
}

/** A function with a point, its tangent and its slope in a tier of its own. */
function slopeDemonstration(
  title: string,
  text: string,
  parameter: Entry,
  windows: Windows,
  units: Units,
): Document {
  const on = 'given';
  return {
    ...emptyDocument(title),
    x: windows.x,
    xUnit: units.x,
    entries: {
      [on]: makeEntry('function', { order: 1, text, tier: 'tier-f', unit: units.y }),
      a: parameter,
      point: makeEntry('point', { order: 3, on, parameter: 'a' }),
      tangent: makeEntry('tangent', { order: 4, on, parameter: 'a' }),
      slope: makeEntry('derivative', { order: 5, of: on, tier: 'tier-slope' }),
    },
    tiers: {
      'tier-f': newTier(1, windows.y),
      'tier-slope': newTier(2, windows.slopeY),
    },
  };
}

/** Secant becomes tangent: the step h shrinks, and the lens keeps it in sight. */
function chordDemonstration(): Document {
  const base = slopeDemonstration(
    'From chord to touch',
    'L(t) = 2 + 7/5 sin(0.7t) + 0.15t',
    slider(2, 'a', '3.4', '0', '12', '0.01'),
    { x: { from: 0, to: 12 }, y: { from: -0.5, to: 6 }, slopeY: { from: -1.2, to: 1.4 } },
    { x: 'hr', y: 'm' },
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

/** Three sliders and the slopes at whole places: which rule gives the slope from a, b and the place? */
function ruleDemonstration(): Document {
  const coefficient = (order: number, name: string, value: string): Entry =>
    makeEntry('parameter', { order, name, value, from: '-4', to: '4', step: '0.5' });
  const value = (order: number, text: string): Entry => makeEntry('value', { order, text });
  return {
    ...emptyDocument('Guess the rule'),
    x: { from: -4, to: 4 },
    entries: {
      given: makeEntry('function', { order: 1, text: 'f(x) = a x^2 + b x + c', tier: 'tier-f' }),
      a: coefficient(2, 'a', '1'),
      b: coefficient(3, 'b', '-1'),
      c: coefficient(4, 'c', '-2'),
      table: makeEntry('valueTable', {
        order: 5,
        on: 'given',
        from: '-3',
        to: '3',
        step: '1',
        columns: "f(x); f'(x); f'(x) - b",
      }),
      first: value(6, "f'(0)"),
      second: value(7, "f'(1) - f'(0)"),
      slope: makeEntry('derivative', { order: 8, of: 'given', tier: 'tier-slope' }),
    },
    tiers: {
      'tier-f': newTier(1, { from: -5, to: 12 }),
      'tier-slope': newTier(2, { from: -10, to: 8 }),
    },
  };
}

/** Value, slope, tangent, normal, and where the slope is a given number. */
function bedDemonstration(): Document {
  const base = slopeDemonstration(
    'How steep is the millstream bed?',
    'h(x) = 3x^2 - 5x - 2',
    slider(2, 'a', '1.5', '-2', '3.5', '0.01'),
    { x: { from: -2, to: 3.5 }, y: { from: -6, to: 8 }, slopeY: { from: -20, to: 20 } },
    { x: 'm', y: 'dm' },
  );
  return {
    ...base,
    entries: {
      ...base.entries,
      normal: makeEntry('normal', { order: 4.5, on: 'given', parameter: 'a', hidden: true }),
      level: makeEntry('slopeEquals', { order: 6, on: 'given', level: '1', from: '-2', to: '3.5' }),
    },
  };
}

/** What the gauge behind the sluice showed, every two minutes: invented, with the small unrest of real water. */
function gaugeTable(): string {
  const rows = Array.from({ length: 61 }, (_, i) => {
    const level = 41 + 9 * Math.sin(i / 11) + 3 * Math.sin(i / 4.3) + ((i * 7) % 5) * 0.1;
    return `${i * 2},${i === 23 ? 'gauge cleaned' : level.toFixed(1)}`;
  });
  return ['time (min),level (cm)', ...rows].join('\n');
}

/** Measured levels as a function, its slope, and a slope over ten minutes beside it. */
function gaugeDemonstration(): Document {
  return {
    ...emptyDocument('The gauge behind the sluice'),
    x: { from: 0, to: 120 },
    xUnit: 'min',
    xTitle: 'time since the gate opened',
    entries: {
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
      h: makeEntry('parameter', { order: 6, name: 'h', value: '10', from: '0.1', to: '20', step: '0.1' }),
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

/** The examples that ship, all from Tarn Valley. */
export const examples: readonly Example[] = [
  { id: '00000000-0000-4000-8000-000000000101', document: bedDemonstration() },
  { id: '00000000-0000-4000-8000-000000000104', document: chordDemonstration() },
  { id: '00000000-0000-4000-8000-000000000105', document: ruleDemonstration() },
  { id: '00000000-0000-4000-8000-000000000106', document: gaugeDemonstration() },
  {
    id: '00000000-0000-4000-8000-000000000103',
    document: slopeDemonstration(
      'The sluice gate swings to rest',
      's(t) = 4e^(-0.3t) cos 2t',
      slider(2, 'a', '1.2', '0', '10', '0.01'),
      { x: { from: -0.5, to: 10.5 }, y: { from: -4, to: 5 }, slopeY: { from: -9, to: 7 } },
      { x: 's', y: 'cm' },
    ),
  },
];

/** Puts the demo teacher and the examples in where they are missing; what the teacher changed stays. */
export async function putInDemo(): Promise<void> {
  await AccountRow.findOrCreate({
    where: { id: demoAccount.id },
    defaults: { ...demoAccount, passwordHash: null },
  });
  for (const [i, { id, document }] of examples.entries()) {
    const opened = openDocument(document);
    if (!opened.ok) throw new Error(`the example ${document.title} is not a valid document`);
    await DemonstrationRow.findOrCreate({
      where: { id },
      defaults: {
        id,
        accountId: demoAccount.id,
        title: document.title,
        document,
        changedAt: new Date(Date.now() - i * 60_000),
      },
    });
  }
}
