import type { Answers } from '../entries/answers.ts';
import type { Directory } from '../entries/names.ts';
import type { Outcome } from '../entries/outcome.ts';
import type { RoundingRule } from '../numbers/format.ts';
import type { Document, Entry, Id } from '../schema/document.ts';
import type { Unit } from '../units/unit.ts';
import type { Visibilities } from './visibility.ts';

/** An entry with what came out of it. The same object comes back while nothing it depends on changed. */
export interface Resolved {
  readonly id: Id;
  readonly entry: Entry;
  readonly outcome: Outcome<unknown>;
  /** What it was worked out from beside its own content, to tell whether anything changed. */
  readonly inputs: readonly unknown[];
  /** The rounding rule, where it was looked at. */
  readonly rule: RoundingRule | null;
  /** Ids of the entries whose results it needs. */
  readonly dependencies: readonly Id[];
}

export interface Resolution {
  /** The document that was worked out. */
  readonly document: Document;
  /** In the order of the working. */
  readonly entries: ReadonlyMap<Id, Resolved>;
  readonly directory: Directory;
  /** Which entries are shown just now. */
  readonly visibilities: Visibilities;
  readonly rule: RoundingRule;
  /** The unit along the x-axis, and as it is typed. */
  readonly xUnit: Unit;
  readonly xUnitText: string;
  /** Ids of the entries that were worked out again this time. */
  readonly workedOut: readonly Id[];
  /** Where its entries got the answers to long questions from. */
  readonly answers: Answers;
}
