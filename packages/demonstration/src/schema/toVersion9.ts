import type { Migration } from './migrate.ts';

/** From version 8: angles are in radians or degrees; they were radians. */
export const toVersion9: Migration = (document) => ({ ...document, angles: 'radians' });
