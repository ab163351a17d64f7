import type { Migration } from './migration.ts';

/** From version 6: a demonstration has steps; older ones have none. */
export const toVersion7: Migration = (document) => ({ ...document, steps: {} });
