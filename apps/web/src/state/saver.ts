import { accept, applyAll, currentVersion, type Change, type Document } from '@yperkine/demonstration';
import { saveLimits, type Save, type Saved, type Stale } from '@yperkine/protocol';
import { Refusal } from '../api/http.ts';
import type { Pending } from './pending.ts';

export type SaveState =
  | 'saved'
  | 'saving'
  /** The server or its database cannot be reached. */
  | 'away'
  /** The server has a fault of its own. */
  | 'fault'
  | 'signedOut'
  | 'asking'
  /** The server is of another version than this page. */
  | 'otherVersion'
  | 'gone';

export interface SaverOptions {
  readonly send: (save: Save) => Promise<{ saved: Saved } | { stale: Stale }>;
  /** Called when others changed the document since; ends in `rebased` being called. */
  readonly onStale: (saver: Saver, theirs: readonly Change[]) => void;
  readonly onState: (state: SaveState) => void;
  /** Called when a change was refused for good: `document` is what the others lead to, `why` the server's sentence. */
  readonly onSetApart: (change: Change, document: Document, why: string) => void;
  readonly keep: {
    append(change: Change): unknown;
    replace(pending: Pending | null): unknown;
  };
  readonly schedule: (callback: () => void, milliseconds: number) => unknown;
}

/** Time for a few changes to gather before they are sent, and waits between tries when the server is away. */
const gather = 200;
const firstWait = 1000;
const longestWait = 8000;

/** As many changes from the beginning as one save may carry: at least one, however large. */
export function sliceOf(changes: readonly Change[]): readonly Change[] {
  let characters = 0;
  let count = 0;
  for (const change of changes) {
    characters += JSON.stringify(change).length;
    if (count > 0 && (count === saveLimits.changes || characters > saveLimits.characters)) break;
    count++;
  }
  return changes.slice(0, count);
}

/** Sends changes in order, one request at a time, and keeps them until the server has acknowledged them. */
export class Saver {
  private isSending = false;
  private isScheduled = false;
  private wait = firstWait;
  private state: SaveState = 'saved';
  /** Changes are sent one by one until those that were refused together are through. */
  private careful = 0;

  constructor(
    private readonly options: SaverOptions,
    private version: number,
    /** The document as the server has it at `version`. */
    private document: Document,
    private unsent: readonly Change[] = [],
  ) {
    if (unsent.length > 0) this.changed('saving', 0);
  }

  get serverDocument(): Document {
    return this.document;
  }
  get serverVersion(): number {
    return this.version;
  }
  get waiting(): readonly Change[] {
    return this.unsent;
  }
  /** Nothing waits and nothing is on its way or being asked. */
  get isIdle(): boolean {
    return !this.isSending && this.unsent.length === 0 && this.state === 'saved';
  }

  add(change: Change): void {
    this.unsent = [...this.unsent, change];
    if (this.unsent.length === 1) this.keep();
    else this.options.keep.append(change);
    if (this.state === 'asking' || this.isSettled) return;
    this.changed(this.isTrouble ? this.state : 'saving', gather);
  }

  private get isTrouble(): boolean {
    return this.state === 'away' || this.state === 'fault';
  }
  /** Trying again would not help. */
  private get isSettled(): boolean {
    return this.state === 'gone' || this.state === 'otherVersion';
  }

  /** Tries again at once, as when the network is back. */
  retry(): void {
    if (this.unsent.length > 0 && this.state !== 'asking' && !this.isSettled) void this.flush();
  }

  /** Goes on after others' changes were taken in: `mine` now follows `document`. */
  rebased(version: number, document: Document, mine: readonly Change[]): void {
    this.version = version;
    this.document = document;
    this.unsent = mine;
    this.keep();
    this.changed(mine.length > 0 ? 'saving' : 'saved', 0);
  }

  /** Takes in what others saved since, as far as nothing of one's own waits. */
  hear({ version, since }: Stale): void {
    if (this.isIdle && version > this.version) this.stale({ version, format: currentVersion, since });
  }

  private keep(): void {
    const { version: base, document: baseDocument, unsent: changes } = this;
    this.options.keep.replace(changes.length > 0 ? { base, baseDocument, changes } : null);
  }

  private changed(state: SaveState, after: number): void {
    this.state = state;
    this.options.onState(state);
    if (this.unsent.length === 0 || this.isScheduled) return;
    this.isScheduled = true;
    this.options.schedule(() => {
      this.isScheduled = false;
      void this.flush();
    }, after);
  }

  private async flush(): Promise<void> {
    if (this.isSending || this.unsent.length === 0 || this.state === 'asking' || this.isSettled) return;
    this.isSending = true;
    const changes = this.careful > 0 ? this.unsent.slice(0, 1) : sliceOf(this.unsent);
    try {
      const answer = await this.options.send({
        base: this.version,
        format: currentVersion,
        changes: [...changes],
      });
      this.isSending = false;
      this.wait = firstWait;
      if ('saved' in answer) this.acknowledged(changes, answer.saved.version);
      else this.stale(answer.stale);
    } catch (error) {
      this.isSending = false;
      this.failed(error, changes);
    }
  }

  private acknowledged(changes: readonly Change[], version: number): void {
    this.version = version;
    this.document = applyAll(this.document, changes);
    this.unsent = this.unsent.slice(changes.length);
    this.careful = Math.max(0, this.careful - changes.length);
    this.keep();
    this.changed(this.unsent.length > 0 ? 'saving' : 'saved', 0);
  }

  private stale({ version, since }: Stale): void {
    const known = new Set(since.map(({ id }) => id));
    this.unsent = this.unsent.filter(({ id }) => !known.has(id));
    this.staleVersion = version;
    this.state = 'asking';
    this.options.onState('asking');
    this.options.onStale(this, since);
  }

  /** The server's version that a rebase leads to. */
  staleVersion = 0;

  private failed(error: unknown, changes: readonly Change[]): void {
    if (!(error instanceof Refusal)) return this.tryLater('away');
    const { status, code } = error;
    if (status === 401) return this.changed('signedOut', longestWait);
    if (status === 404) return this.settle('gone');
    if (code === 'newerVersion') return this.settle('otherVersion');
    if (status >= 500) return this.tryLater('fault');
    // Asked to be slower, or to go on later.
    if (status === 429 || status === 408) return this.tryLater('away');
    this.refused(changes, error.message);
  }

  private tryLater(state: 'away' | 'fault'): void {
    this.changed(state, this.wait);
    this.wait = Math.min(longestWait, this.wait * 2);
  }

  /** A refusal that trying again does not cure: what is refused is found and set apart, and everything after it is saved. */
  private refused(changes: readonly Change[], why: string): void {
    if (changes.length > 1) {
      this.careful = changes.length;
      return this.changed('saving', 0);
    }
    const [change] = changes;
    if (!change) return;
    this.careful = Math.max(0, this.careful - 1);
    // What comes after it may have stood on it: what the document would not take alone goes with it.
    const taken: Change[] = [];
    let document = this.document;
    for (const later of this.unsent.slice(1)) {
      const accepted = accept(document, later);
      if (!accepted.ok) continue;
      ({ document } = accepted);
      taken.push(later);
    }
    this.unsent = taken;
    this.keep();
    this.options.onSetApart(change, document, why);
    this.changed(taken.length > 0 ? 'saving' : 'saved', 0);
  }

  /** A refusal after which nothing can be saved; the changes stay kept on this machine. */
  private settle(state: 'gone' | 'otherVersion'): void {
    this.state = state;
    this.options.onState(state);
  }
}
