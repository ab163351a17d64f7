import type { Migration } from './migration.ts';

/** From version 9: linear approximations, which no older program knows. */
export const toVersion10: Migration = (document) => document;
