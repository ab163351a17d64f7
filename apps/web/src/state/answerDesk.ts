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
/** After so long in hand a question is a hard one: no other waits for it any longer. */
export const hard = 100;
/** After so long it is given up at once where nobody needs its answer any more. */
export const lost = 500;
/** Workers at most: hard questions beyond these wait for one another. */
export const mostWorkers = 4;
const mostKept = 300;

interface Hand extends Asked {
  readonly number: number;
  readonly by: Id;
  readonly timers: readonly unknown[];
  isHard: boolean;
  isLost: boolean;
}

interface Desk {
  readonly worker: Answerer;
  hand: Hand | null;
}

/**
 * Hands the questions of entries to workers. Of each entry only the newest question counts: while a slider moves, those
 * in between are never asked, and the others at a bounded pace. Until a new answer is there an entry keeps its last one.
 * One worker answers one question after another; while it is held up by a hard one, another takes the next.
 */
export class AnswerDesk implements Answers {
  private desks: Desk[] = [];
  private readonly known = new Map<string, Kept>();
  private readonly wanted = new Map<Id, Asked>();
  private readonly last = new Map<Id, { readonly ask: Question['ask']; readonly outcome: Kept }>();
  private readonly versions = new Map<Id, number>();
  private count = 0;
  /** Entries that have just asked, with what ends their rest. */
  private readonly resting = new Map<Id, unknown>();

  constructor(private readonly settings: AnswerDeskSettings) {}

  readonly ask: Answers['ask'] = (by, question) => {
    const key = keyOfQuestion(question);
    const known = this.known.get(key);
    if (known) {
      this.wanted.delete(by);
      this.giveUpLost(by, key);
      this.last.set(by, { ask: question.ask, outcome: known });
      return answeredBy(known, true);
    }
    this.wanted.set(by, { key, question });
    this.giveUpLost(by, key);
    this.next();
    const last = this.last.get(by);
    return last?.ask === question.ask && last.outcome.ok
      ? answeredBy(last.outcome, false)
      : { state: 'waiting' };
  };

  version(by: Id): number {
    return this.versions.get(by) ?? 0;
  }

  /** An entry is gone: nobody needs what it asked. */
  forget(by: Id): void {
    this.wanted.delete(by);
    this.last.delete(by);
    this.giveUpLost(by, null, true);
  }

  /** Ends the workers; questions that are asked later start others. */
  close(): void {
    for (const desk of this.desks) this.clear(desk);
    for (const { worker } of this.desks) worker.end();
    this.desks = [];
    for (const timer of this.resting.values()) this.settings.cancel(timer);
    this.resting.clear();
    this.wanted.clear();
  }

  /** Ends a question that has long been in hand once its entry asks another. */
  private giveUpLost(by: Id, key: string | null, isGone = false): void {
    const desk = this.desks.find(({ hand }) => hand?.by === by && hand.key !== key);
    if (desk?.hand && (desk.hand.isLost || isGone)) this.dismiss(desk);
  }

  private dismiss(desk: Desk): void {
    this.clear(desk);
    desk.worker.end();
    this.desks = this.desks.filter((other) => other !== desk);
    this.next();
  }

  private clear(desk: Desk): void {
    for (const timer of desk.hand?.timers ?? []) this.settings.cancel(timer);
    desk.hand = null;
  }

  private next(): void {
    const isInHand = (by: Id): boolean => this.desks.some(({ hand }) => hand?.by === by);
    const first = [...this.wanted].find(([by]) => !this.resting.has(by) && !isInHand(by));
    const desk = first && this.freeDesk();
    if (!first || !desk) return;
    const [by, asked] = first;
    this.resting.set(
      by,
      this.settings.schedule(() => {
        this.resting.delete(by);
        this.next();
      }, rest),
    );
    const number = ++this.count;
    const after = (milliseconds: number, then: (hand: Hand) => void): unknown =>
      this.settings.schedule(() => desk.hand?.number === number && then(desk.hand), milliseconds);
    const timers = [
      after(hard, (hand) => {
        hand.isHard = true;
        this.next();
      }),
      after(lost, (hand) => {
        hand.isLost = true;
        const newest = this.wanted.get(by);
        if (newest && newest.key !== hand.key) this.dismiss(desk);
      }),
      after(patience, () => this.giveUp(desk)),
    ];
    desk.hand = { ...asked, by, number, timers, isHard: false, isLost: false };
    desk.worker.ask({ number, question: sendable(asked.question) });
    this.next();
  }

  /** A worker without a question; a new one where there is none, or where all are held up by hard questions. */
  private freeDesk(): Desk | undefined {
    const free = this.desks.find(({ hand }) => hand === null);
    if (free) return free;
    const isHeldUp = this.desks.every(({ hand }) => hand?.isHard);
    if (!isHeldUp || this.desks.length >= mostWorkers) return undefined;
    const desk: Desk = {
      worker: this.settings.hire(
        (message) => this.arrived(desk, message),
        () => this.giveUp(desk),
      ),
      hand: null,
    };
    this.desks.push(desk);
    return desk;
  }

  private arrived(desk: Desk, { number, outcome }: AnswerMessage): void {
    if (desk.hand?.number === number) this.settle(desk, outcome);
  }

  /** Replaces a worker that takes too long or broke down. */
  private giveUp(desk: Desk): void {
    if (!this.desks.includes(desk)) return;
    desk.worker.end();
    this.desks = this.desks.filter((other) => other !== desk);
    this.settle(desk, { ok: false, reason: 'tooLong' });
  }

  private settle(desk: Desk, outcome: Kept): void {
    if (!desk.hand) return;
    const { by, key, question } = desk.hand;
    this.clear(desk);
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
