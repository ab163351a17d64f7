/** What keeps an entry from being worked out, as a sentence for its card. */
export interface EntryProblem {
  readonly message: string;
  /** The fault lies in another entry, which says so itself. */
  readonly isWaiting?: boolean;
  /** The range of the entry's text that is meant, where there is one. */
  readonly range?: { readonly from: number; readonly to: number };
  /** What the range could be replaced by. */
  readonly correction?: string;
  /** A name that could be made a parameter. */
  readonly missingName?: string;
}

/** What is told beside a result while more is being found out. */
export interface Progress {
  /** Whether it answers what was asked a moment ago, while the new answer is worked out. */
  readonly isPending?: boolean;
  /** The share of the interval that is decided, where that is known. */
  readonly decided?: number | null;
  /** What is being done, in place of what the result says. */
  readonly sentence?: string;
}

export type Outcome<R> =
  | { readonly ok: true; readonly result: R; readonly progress?: Progress }
  | { readonly ok: false; readonly problem: EntryProblem };

export const worked = <R>(result: R): Outcome<R> => ({ ok: true, result });
export const failed = (message: string, more: Omit<EntryProblem, 'message'> = {}): Outcome<never> => ({
  ok: false,
  problem: { message, ...more },
});
export const waiting = (message: string): Outcome<never> => failed(message, { isWaiting: true });
