import type { EntryKindName, EntryOf, Id } from '../schema/document.ts';
import type { RoundingRule } from '../numbers/format.ts';
import type { Directory } from '../resolve/directory.ts';
import type { Mark } from '../scene/mark.ts';
import type { TierView } from '../scene/view.ts';
import type { Outcome } from './outcome.ts';
import type { Results } from './results.ts';

export type ResultOf<K extends EntryKindName> = Results[K];

/** What an entry may look at while it is worked out: everything else is none of its business. */
export interface WorkContext {
  readonly id: Id;
  readonly directory: Directory;
  readonly rule: RoundingRule;
  /** The value of a parameter that is shown just now, where it differs from the document. */
  readonly staged: string | number | undefined;
  /** The result of an entry that this one depends on. */
  result<K extends EntryKindName>(id: Id, kind: K): ResultOf<K> | undefined;
  /** The curve of a function or derivative that this one depends on. */
  curve(id: Id): Results['function'] | undefined;
}

/** Everything the product knows about one kind of entry. */
export interface EntryKind<K extends EntryKindName> {
  /** Ids of the entries whose results this one needs. */
  dependsOn(entry: EntryOf<K>, directory: Directory): readonly Id[];
  /**
   * Works the entry out. `previous` is its last result, of which unchanged parts may be kept.
   * Bad input is a problem, never an exception.
   */
  workOut(entry: EntryOf<K>, context: WorkContext, previous: ResultOf<K> | undefined): Outcome<ResultOf<K>>;
  /** What there is to draw in a tier, in pixels. */
  marks(id: Id, entry: EntryOf<K>, result: ResultOf<K>, tier: TierView): readonly Mark[];
}
