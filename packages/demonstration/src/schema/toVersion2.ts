import type { Migration } from './migration.ts';

type Stored = Record<string, unknown>;

/** What version 2 added to the entries of version 1: every entry can be hidden, a function has a colour family, a
 * tangent may be a short piece. */
const added: Readonly<Record<string, Stored>> = {
  function: { family: 0 },
  tangent: { reach: 'line', pointSlope: false, base: '1' },
};

/** From version 1. */
export const toVersion2: Migration = (document) => ({
  ...document,
  entries: Object.fromEntries(
    Object.entries(document.entries as Record<string, Stored>).map(([id, entry]) => [
      id,
      { ...entry, hidden: false, ...added[String(entry.kind)] },
    ]),
  ),
});
