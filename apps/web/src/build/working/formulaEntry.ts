import type { Entry, EntryOf } from '@yperkine/demonstration';

/** Entries that are a formula which is typed in their card. */
export type FormulaEntry = EntryOf<'function' | 'value' | 'givenDerivative'>;

export const isFormula = (entry: Entry): entry is FormulaEntry =>
  entry.kind === 'function' || entry.kind === 'value' || entry.kind === 'givenDerivative';
