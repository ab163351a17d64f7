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
  /** It turned out hard while others waited, and is begun anew when there is a place among the hard ones. */
  readonly isSetBack: boolean;
}

/** How long a question may take before it is given up, in milliseconds. */
export const patience = 10_000;
/** How long an entry rests after a question: what moves is asked about often enough, and leaves the machine to the picture. */
export const rest = 50;
/** After so long in hand a question is a hard one: no other waits for it any longer. */
export const hard = 100;
/** After so long it is given up at once where nobody needs its answer any more. */
export const lost = 500;
/** Hard questions at most that are in hand at a time: those beyond wait for one another. */
export const mostHard = 3;
/** One worker more, so that a question that is soon answered waits for no hard one. */
export const mostWorkers = mostHard + 1;
const mostKept = 300;

interface Hand extends Asked {
  readonly number: number;
  readonly by: Id;
  readonly timers: readonly unknown[];
  /** As much of the answer as is known. */
  soFar: AnswerOutcome | null;
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
 * One worker answers one question after another; while it is held up by a hard one, another takes the next. Questions take
 * turns: however many hard ones there are, one worker is there for those that nothing is known of yet, each of which has
 * it for as long as makes a question hard.
 */
export class AnswerDesk implements Answers {
  private desks: Desk[] = [];
  private readonly known = new Map<string, Kept>();
  private readonly wanted = new Map<Id, Asked>();
  /** What each entry was told last: an answer, or as much of one as was known then. */
  private readonly last = new Map<
    Id,
    { readonly ask: Question['ask']; readonly key: string; readonly outcome: Kept }
  >();
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
      this.last.set(by, { ask: question.ask, key, outcome: known });
      return answeredBy(known);
    }
    if (this.wanted.get(by)?.key !== key) this.wanted.set(by, { key, question, isSetBack: false });
    this.giveUpLost(by, key);
    this.next();
    const last = this.last.get(by);
    return last?.ask === question.ask && last.outcome.ok
      ? answeredBy(last.outcome, last.key === key ? 'soFar' : 'before')
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
    this.end(desk);
    this.next();
  }

  private end(desk: Desk): void {
    this.clear(desk);
    desk.worker.end();
    this.desks = this.desks.filter((other) => other !== desk);
  }

  private clear(desk: Desk): void {
    for (const timer of desk.hand?.timers ?? []) this.settings.cancel(timer);
    desk.hand = null;
  }

  private next(): void {
    const isInHand = (by: Id): boolean => this.desks.some(({ hand }) => hand?.by === by);
    const waiting = [...this.wanted].filter(([by]) => !this.resting.has(by) && !isInHand(by));
    const first = waiting.find(([, { isSetBack }]) => !isSetBack) ?? waiting[0];
    if (!first) return;
    const [by, asked] = first;
    const desk = asked.isSetBack ? this.deskForHard() : this.freeDesk();
    if (!desk) return;
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
        this.tellSoFar(hand);
        this.next();
      }),
      after(lost, (hand) => {
        hand.isLost = true;
        const newest = this.wanted.get(by);
        if (newest && newest.key !== hand.key) this.dismiss(desk);
      }),
      after(patience, () => this.giveUp(desk)),
    ];
    desk.hand = { ...asked, by, number, timers, soFar: null, isHard: asked.isSetBack, isLost: false };
    desk.worker.ask({ number, question: sendable(asked.question) });
    this.next();
  }

  /** A worker without a question; a new one where there is none, or where all are held up by hard questions. */
  private freeDesk(): Desk | undefined {
    const free = this.desks.find(({ hand }) => hand === null);
    if (free) return free;
    const isHeldUp = this.desks.every(({ hand }) => hand?.isHard);
    if (!isHeldUp) return undefined;
    if (this.desks.length >= mostWorkers) this.makeRoom();
    return this.hire();
  }

  /** A worker for a question that is known to be hard, where there is a place among those. */
  private deskForHard(): Desk | undefined {
    const hard = this.desks.filter(({ hand }) => hand?.isHard).length;
    return hard < mostHard ? this.freeDesk() : undefined;
  }

  /** Sets back the hard question that was begun last. */
  private makeRoom(): void {
    const [youngest] = this.desks.toSorted((a, b) => (b.hand?.number ?? 0) - (a.hand?.number ?? 0));
    if (!youngest?.hand) return;
    const { by, key } = youngest.hand;
    const asked = this.wanted.get(by);
    if (asked?.key === key) {
      // It waits behind those that were set back before.
      this.wanted.delete(by);
      this.wanted.set(by, { ...asked, isSetBack: true });
    }
    this.end(youngest);
  }

  private hire(): Desk {
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

  private arrived(desk: Desk, { number, outcome, isLast }: AnswerMessage): void {
    if (desk.hand?.number !== number) return;
    if (isLast) return this.settle(desk, outcome);
    desk.hand.soFar = outcome;
    this.tellSoFar(desk.hand);
  }

  /** A part of an answer is told where the whole of it takes long. */
  private tellSoFar({ by, key, question, soFar, isHard }: Hand): void {
    if (!soFar || !isHard) return;
    this.last.set(by, { ask: question.ask, key, outcome: soFar });
    this.versions.set(by, this.version(by) + 1);
    this.settings.onNews();
  }

  /** Replaces a worker that takes too long or broke down: what is known so far is all that there will be. */
  private giveUp(desk: Desk): void {
    if (!this.desks.includes(desk)) return;
    desk.worker.end();
    this.desks = this.desks.filter((other) => other !== desk);
    this.settle(desk, desk.hand?.soFar ?? { ok: false, reason: 'tooLong' });
  }

  private settle(desk: Desk, outcome: Kept): void {
    if (!desk.hand) return;
    const { by, key, question } = desk.hand;
    this.clear(desk);
    if (this.known.size >= mostKept) this.known.clear();
    this.known.set(key, outcome);
    if (outcome.ok) this.last.set(by, { ask: question.ask, key, outcome });
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
