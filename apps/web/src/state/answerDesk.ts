import { sendable, type AnswerOutcome, type Question } from '@yperkine/core';
import { answeredBy, keyOfQuestion, type Answers, type Id } from '@yperkine/demonstration';
import type { AnswerMessage, QuestionMessage } from '../workers/messages.ts';

/** A worker that answers questions, as far as the desk knows it. */
export interface Answerer {
  ask(message: QuestionMessage): void;
  end(): void;
}

export interface AnswerDeskSettings {
  /** Starts a worker; it calls back with each answer, and once where it breaks down. */
  readonly hire: (onAnswer: (message: AnswerMessage) => void, onBreakdown: () => void) => Answerer;
  readonly schedule: (callback: () => void, milliseconds: number) => unknown;
  readonly cancel: (timer: unknown) => void;
  /** Told whenever an answer has come in. */
  readonly onNews: () => void;
}

type Kept = AnswerOutcome | { readonly ok: false; readonly reason: 'tooLong' };

interface Asked {
  readonly key: string;
  readonly question: Question;
}

/** How long a question may take before it is given up, in milliseconds. */
export const patience = 10_000;
/** How long an entry rests after a question: what moves is asked about often enough, and leaves the machine to the picture. */
export const rest = 50;
const mostKept = 300;

/**
 * Hands the questions of entries to a worker, one at a time. Of each entry only the newest question counts: while a
 * slider moves, those in between are never asked, and the others at a bounded pace. Until a new answer is there an entry
 * keeps its last one.
 */
export class AnswerDesk implements Answers {
  private worker: Answerer | null = null;
  private readonly known = new Map<string, Kept>();
  private readonly wanted = new Map<Id, Asked>();
  private readonly last = new Map<Id, { readonly ask: Question['ask']; readonly outcome: Kept }>();
  private readonly versions = new Map<Id, number>();
  private inHand: (Asked & { readonly number: number; readonly by: Id; readonly timer: unknown }) | null =
    null;
  private count = 0;
  /** Entries that have just asked, with what ends their rest. */
  private readonly resting = new Map<Id, unknown>();

  constructor(private readonly settings: AnswerDeskSettings) {}

  readonly ask: Answers['ask'] = (by, question) => {
    const key = keyOfQuestion(question);
    const known = this.known.get(key);
    if (known) {
      this.wanted.delete(by);
      this.last.set(by, { ask: question.ask, outcome: known });
      return answeredBy(known, true);
    }
    this.wanted.set(by, { key, question });
    this.next();
    const last = this.last.get(by);
    return last?.ask === question.ask && last.outcome.ok
      ? answeredBy(last.outcome, false)
      : { state: 'waiting' };
  };

  version(by: Id): number {
    return this.versions.get(by) ?? 0;
  }

  /** Ends the worker; questions that are asked later start another. */
  close(): void {
    this.worker?.end();
    this.worker = null;
    if (this.inHand) this.settings.cancel(this.inHand.timer);
    this.inHand = null;
    for (const timer of this.resting.values()) this.settings.cancel(timer);
    this.resting.clear();
    this.wanted.clear();
  }

  private next(): void {
    const first = [...this.wanted].find(([by]) => !this.resting.has(by));
    if (this.inHand || !first) return;
    const [by, asked] = first;
    this.resting.set(
      by,
      this.settings.schedule(() => {
        this.resting.delete(by);
        this.next();
      }, rest),
    );
    const number = ++this.count;
    this.worker ??= this.settings.hire(
      (message) => this.arrived(message),
      () => this.giveUp(),
    );
    const timer = this.settings.schedule(() => this.giveUp(), patience);
    this.inHand = { ...asked, by, number, timer };
    this.worker.ask({ number, question: sendable(asked.question) });
  }

  private arrived({ number, outcome }: AnswerMessage): void {
    if (this.inHand?.number === number) this.settle(outcome);
  }

  /** Replaces a worker that takes too long or broke down. */
  private giveUp(): void {
    this.worker?.end();
    this.worker = null;
    this.settle({ ok: false, reason: 'tooLong' });
  }

  private settle(outcome: Kept): void {
    if (!this.inHand) return;
    const { by, key, question, timer } = this.inHand;
    this.settings.cancel(timer);
    this.inHand = null;
    if (this.known.size >= mostKept) this.known.clear();
    this.known.set(key, outcome);
    if (outcome.ok) this.last.set(by, { ask: question.ask, outcome });
    const newer = this.wanted.get(by);
    for (const [other, asked] of this.wanted) {
      if (other !== by && asked.key !== key) continue;
      this.wanted.delete(other);
      this.versions.set(other, this.version(other) + 1);
    }
    // A slider that has moved on since: its newest question waits behind those of other entries.
    if (newer && newer.key !== key) this.wanted.set(by, newer);
    this.next();
    this.settings.onNews();
  }
}
