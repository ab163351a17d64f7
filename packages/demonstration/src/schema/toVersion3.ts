import type { Migration } from './migration.ts';

export type Stored = Record<string, unknown>;

/** What version 3 added to the entries of version 2: units; sliders of whole numbers, or without a lane; windows that
 * follow; and to every entry names for its results. */
const added: Readonly<Record<string, Stored>> = {
  parameter: { unit: '', whole: false, moves: 'slider' },
  function: { unit: '' },
  throughPoints: { unit: '' },
  givenDerivative: { unit: '' },
  secant: { windowFollows: false },
};

/** Each value of a map with what a function says of it put in. */
export const each = (map: unknown, change: (stored: Stored) => Stored): Stored =>
  Object.fromEntries(
    Object.entries(map as Record<string, Stored>).map(([id, stored]) => [
      id,
      { ...stored, ...change(stored) },
    ]),
  );

/** From version 2. */
export const toVersion3: Migration = (document) => ({
  ...document,
  xTitle: '',
  xUnit: '',
  tiers: each(document.tiers, () => ({ title: '' })),
  entries: each(document.entries, ({ kind }) => ({ names: {}, ...added[String(kind)] })),
});
