import type { KnownNumber } from '@yperkine/core';
import type { Line } from '../numbers/line.ts';
import type { Tone } from '../scene/tone.ts';

/** A table of a study: numbers as they are written. */
export interface StudyTable {
  /** The tone of the row that the others lead to; the study's own unless given. */
  readonly goalTone?: Tone;
  /** What it shows, for screen readers. */
  readonly caption: string;
  readonly head: readonly string[];
  readonly rows: readonly {
    readonly cells: readonly string[];
    /** The numbers behind the cells, where they can be opened; null for a cell that is none. */
    readonly numbers?: readonly (KnownNumber | null)[];
    /** The row that the others lead to. */
    readonly isGoal?: boolean;
    /** A row whose digits cannot be trusted. */
    readonly isDoubtful?: boolean;
  }[];
  /** What there is to see in it, in a sentence. */
  readonly note?: string;
}

/** What every study says: typeset lines, one plain sentence, and a table where it has one. */
export interface StudyResult {
  readonly lines: readonly Line[];
  readonly sentence: string;
  readonly table?: StudyTable;
}
