import type { Migration } from './migration.ts';

/** From version 4: there are kinds of entries that it did not know; what it knew stays as it is. */
export const toVersion5: Migration = (document) => document;
