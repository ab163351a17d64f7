import type { Migration } from './migration.ts';
import { each } from './toVersion3.ts';

/** From version 8: angles are in radians or degrees, and were radians; key points may show why they are all. */
export const toVersion9: Migration = (document) => ({
  ...document,
  angles: 'radians',
  entries: each(document.entries, ({ kind }) => (kind === 'keyPoints' ? { proof: null } : {})),
});
