import type { KnownNumber } from '@yperkine/core';
import type { Line } from '../numbers/line.ts';
import type { Tone } from '../fields/tone.ts';

/** A table of a study: numbers as they are written. */
export interface StudyTable {
  /** The tone of the row that the others lead to; the study's own unless given. */
  readonly goalTone?: Tone;
  /** What it shows, for screen readers. */
  readonly caption: string;
  readonly head: readonly string[];
  /** Columns that hold words, not numbers. */
  readonly wordColumns?: readonly number[];
  readonly rows: readonly {
    readonly cells: readonly string[];
    /** The numbers behind the cells, where they can be opened; null for a cell that is none. */
    readonly numbers?: readonly (KnownNumber | null)[];
    /** The row that the others lead to. */
    readonly isGoal?: boolean;
    /** The place that it speaks of, which the window can jump to. */
    readonly place?: { readonly x: number; readonly y: number | null };
    /** A row whose digits cannot be trusted. */
    readonly isDoubtful?: boolean;
  }[];
  /** What there is to see in it, in a sentence. */
  readonly note?: string;
}

/** What an entry says: typeset lines, one plain sentence, and a table where it has one. */
export interface Said {
  readonly lines: readonly Line[];
  readonly sentence: string;
  readonly table?: StudyTable;
  /** Whether it answers what was asked a moment ago, while the new answer is worked out. */
  readonly isPending?: boolean;
  /** While more is being found out: the share of the interval that is decided, where that is known. */
  readonly decided?: number | null;
  /** A word about how sure it is, beside the heading. */
  readonly certainty?: { readonly text: string; readonly isProved: boolean };
}
