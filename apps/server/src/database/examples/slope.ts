import { emptyDocument, makeEntry, newTier, type Document, type Entry } from '@yperkine/demonstration';

/** A slider of a place, and how far it goes. */
export const slider = (
  order: number,
  name: string,
  value: string,
  from: string,
  to: string,
  step: string,
): Entry => makeEntry('parameter', { order, name, value, from, to, step, seconds: '10' });

/** A note in the teacher's voice at the head of the working. */
export const opening = (text: string): Entry => makeEntry('note', { order: 0.5, text });

interface Windows extends Pick<Document, 'x'> {
  readonly y: Document['x'];
  readonly slopeY: Document['x'];
}
interface Units {
  readonly x: string;
  readonly y: string;
}

/** A function with a point, its tangent and its slope in a tier of its own. */
export function slopeDemonstration(
  title: string,
  text: string,
  parameter: Entry,
  windows: Windows,
  units: Units,
  note: string,
): Document {
  const on = 'given';
  return {
    ...emptyDocument(title),
    x: windows.x,
    xUnit: units.x,
    entries: {
      note: opening(note),
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
