import type { Scope } from '@yperkine/core';
import type { Id } from '../fields/fields.ts';

/** Which entry each name belongs to. The first entry in the working keeps a name; later ones are duplicates. */
export interface Directory {
  readonly idOf: ReadonlyMap<string, Id>;
  /** Of a name that was given to a result of an entry: which result. */
  readonly resultOf: ReadonlyMap<string, string>;
  readonly scope: Scope;
  /** Entries that define a name which an earlier one has already. */
  readonly duplicates: ReadonlySet<Id>;
  /** Changes exactly when a name or its kind does, or how formulas are read. */
  readonly key: string;
}
