import { applyAll, type Change, type Document } from '@yperkine/demonstration';
import type { Save, Saved, Stale } from '@yperkine/protocol';
import { Refusal } from '../api/http.ts';
import type { Pending } from './pending.ts';

export type SaveState = 'saved' | 'saving' | 'away' | 'signedOut' | 'asking' | 'refused' | 'gone';

export interface SaverOptions {
  readonly send: (save: Save) => Promise<{ saved: Saved } | { stale: Stale }>;
  /** Called when others changed the document since; ends in `rebased` being called. */
  readonly onStale: (saver: Saver, theirs: readonly Change[]) => void;
  readonly onState: (state: SaveState) => void;
  readonly keep: (pending: Pending | null) => void;
  readonly schedule: (callback: () => void, milliseconds: number) => unknown;
}

/** Time for a few changes to gather before they are sent, and waits between tries when the server is away. */
const gather = 200;
const firstWait = 1000;
const longestWait = 8000;

/** Sends changes in order, one request at a time, and keeps them until the server has acknowledged them. */
export class Saver {
  private isSending = false;
  private isScheduled = false;
  private wait = firstWait;
  private state: SaveState = 'saved';

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
  get waiting(): readonly Change[] {
    return this.unsent;
  }

  add(change: Change): void {
    this.unsent = [...this.unsent, change];
    this.keep();
    if (this.state !== 'asking') this.changed(this.state === 'away' ? 'away' : 'saving', gather);
  }

  /** Tries again at once, as when the network is back. */
  retry(): void {
    if (this.unsent.length > 0 && this.state !== 'asking') void this.flush();
  }

  /** Goes on after others' changes were taken in: `mine` now follows `document`. */
  rebased(version: number, document: Document, mine: readonly Change[]): void {
    this.version = version;
    this.document = document;
    this.unsent = mine;
    this.keep();
    this.changed(mine.length > 0 ? 'saving' : 'saved', 0);
  }

  private keep(): void {
    const { version: base, document: baseDocument, unsent: changes } = this;
    this.options.keep(changes.length > 0 ? { base, baseDocument, changes } : null);
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
    if (this.isSending || this.unsent.length === 0 || this.state === 'asking') return;
    this.isSending = true;
    const changes = this.unsent;
    try {
      const answer = await this.options.send({ base: this.version, changes: [...changes] });
      this.isSending = false;
      this.wait = firstWait;
      if ('saved' in answer) this.acknowledged(changes, answer.saved.version);
      else this.stale(answer.stale);
    } catch (error) {
      this.isSending = false;
      this.failed(error);
    }
  }

  private acknowledged(changes: readonly Change[], version: number): void {
    this.version = version;
    this.document = applyAll(this.document, changes);
    this.unsent = this.unsent.slice(changes.length);
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

  private failed(error: unknown): void {
    if (error instanceof Refusal && error.status === 401) return this.changed('signedOut', longestWait);
    if (error instanceof Refusal && error.status === 404) return this.settle('gone');
    if (error instanceof Refusal && error.status < 500) return this.settle('refused');
    this.changed('away', this.wait);
    this.wait = Math.min(longestWait, this.wait * 2);
  }

  /** A refusal that trying again does not cure; the changes stay kept on this machine. */
  private settle(state: SaveState): void {
    this.state = state;
    this.options.onState(state);
  }
}
