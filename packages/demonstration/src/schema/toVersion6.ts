import type { Migration } from './migrate.ts';

/** From version 5: there are studies of areas that it did not know; what it knew stays as it is. */
export const toVersion6: Migration = (document) => document;
