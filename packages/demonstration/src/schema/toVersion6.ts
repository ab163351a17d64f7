import type { Migration } from './migration.ts';
import { each } from './toVersion3.ts';

/** From version 5: a slider says how its numbers are spread; there are studies of areas that it did not know. */
export const toVersion6: Migration = (document) => ({
  ...document,
  entries: each(document.entries, ({ kind }) => (kind === 'parameter' ? { spread: 'even' } : {})),
});
