import { sendable, withoutItsClaim, type AnswerOutcome, type Question } from '@yperkine/core';
import { answeredBy, keyOfQuestion, type Answers, type Id, type WhyGivenUp } from '@yperkine/demonstration';
import type { AnswerMessage, QuestionMessage } from '../workers/messages.ts';

/** A worker that answers questions, as far as the desk knows it. */
interface Answerer {
  ask(message: QuestionMessage): void;
  end(): void;
}

export interface AnswerDeskSettings {
  /** Starts a worker; it calls back with each answer, and once where it breaks down or cannot be had. */
  readonly hire: (
    onAnswer: (message: AnswerMessage) => void,
    onBreakdown: (why: 'fault' | 'notLoaded') => void,
  ) => Answerer;
  readonly schedule: (callback: () => void, milliseconds: number) => unknown;
  readonly cancel: (timer: unknown) => void;
  /**
   * Hard questions at most that are in hand at a time. One worker more is there for those that are soon answered.
   */
  readonly mostHard: number;
  /** Told whenever an answer has come in. */
  readonly onNews: () => void;
}

type Kept = AnswerOutcome | { readonly ok: false; readonly reason: WhyGivenUp };

interface Asked {
  readonly key: string;
  readonly question: Question;
  /** How often it has had its turn and was set back for others, to be begun anew with more time. */
  readonly turns: number;
  /** The answer, where only what it claims is still to be checked. */
  readonly found: Found | null;
}

/** An answer, and what may be told of it before it was checked. */
interface Found {
  readonly outcome: AnswerOutcome;
  readonly unclaimed: AnswerOutcome;
}

/**
 * How long a question may take before it is given up, in milliseconds: what a quick machine proves in three seconds a slow
 * phone has in twelve, and one that computes for others besides not before twice that. What is known is told meanwhile.
 */
export const patience = 30_000;
/** How long an entry rests after a question: what moves is asked about often enough, and leaves the machine to the picture. */
export const rest = 50;
/** How long a question has to stand before what its answer claims is checked: while a slider moves nothing is. */
export const calm = 150;
/** How long a question is in hand at first before it is a hard one, which no other waits for any longer. */
export const firstTurn = 100;
/** How long its next turn is, after so many: a question that is begun anew has most of its time in its last turn. */
export const turnAfter = (turns: number): number => firstTurn * 4 ** turns;
/** After so long it is given up at once where nobody needs its answer any more. */
export const lost = 500;
const mostKept = 300;

interface Hand extends Asked {
  readonly number: number;
  /** Who asked it first of those that still need its answer. */
  by: Id;
  readonly timers: readonly unknown[];
  /** As much of the answer as is known. */
  soFar: Kept | null;
  hasHadTurn: boolean;
  isLost: boolean;
}

/** Those that have had fewer turns come first, and what has no answer yet before what is only to be checked. */
const placeInLine = ({ turns, found }: Asked): number => turns + (found ? 0.5 : 0);

/** What is known to take long holds nobody else up. */
const isHard = (hand: Hand | null): boolean => hand !== null && (hand.hasHadTurn || hand.turns > 0);

interface Desk {
  readonly worker: Answerer;
  hand: Hand | null;
}

/**
 * Hands the questions of entries to workers. Of each entry only the newest question counts: while a slider moves, those
 * in between are never asked, and the others at a bounded pace. Until a new answer is there an entry keeps its last one.
 * One worker answers one question after another; while it is held up by a hard one, another takes the next. Questions take
 * turns: however many hard ones there are, one worker is there for those that have had none yet, and the hard ones go
 * round, each with more time at every turn.
 */
export class AnswerDesk implements Answers {
  private desks: Desk[] = [];
  private readonly known = new Map<string, Kept>();
  /** Answers whose claims have not been checked. */
  private readonly found = new Map<string, Found>();
  private readonly wanted = new Map<Id, Asked>();
  /** What each entry was told last: an answer, or as much of one as was known then. */
  private readonly last = new Map<
    Id,
    {
      readonly ask: Question['ask'];
      readonly key: string;
      readonly outcome: Kept;
      readonly isUnchecked?: boolean;
    }
  >();
  private readonly versions = new Map<Id, number>();
  private count = 0;
  /** Entries that have just asked, with what ends their rest. */
  private readonly resting = new Map<Id, unknown>();
  /** Entries whose answers are to be checked once nothing has moved for a while. */
  private readonly settling = new Map<Id, unknown>();

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
    const found = this.found.get(key) ?? null;
    if (this.wanted.get(by)?.key !== key) this.want(by, { key, question, turns: 0, found });
    this.giveUpLost(by, key);
    this.next();
    if (found) {
      this.last.set(by, { ask: question.ask, key, outcome: found.unclaimed, isUnchecked: true });
      return answeredBy(found.unclaimed, 'found');
    }
    const inHand = this.desks.find(({ hand }) => hand?.key === key)?.hand;
    if (inHand?.soFar && isHard(inHand)) this.tell(by, inHand, inHand.soFar);
    const last = this.last.get(by);
    if (last?.ask !== question.ask || !last.outcome.ok) return { state: 'waiting' };
    const before = last.isUnchecked ? 'foundBefore' : 'before';
    return answeredBy(last.outcome, last.key === key ? 'soFar' : before);
  };

  version(by: Id): number {
    return this.versions.get(by) ?? 0;
  }

  /** An entry is gone: nobody needs what it asked. */
  forget(by: Id): void {
    this.wanted.delete(by);
    this.settings.cancel(this.settling.get(by));
    this.settling.delete(by);
    this.last.delete(by);
    this.giveUpLost(by, null, true);
  }

  /** Ends the workers; questions that are asked later start others. */
  close(): void {
    for (const desk of this.desks) this.clear(desk);
    for (const { worker } of this.desks) worker.end();
    this.desks = [];
    for (const timers of [this.resting, this.settling]) {
      for (const timer of timers.values()) this.settings.cancel(timer);
      timers.clear();
    }
    this.wanted.clear();
  }

  /** Those that wait for the answer to a question. */
  private needing(key: string): Id[] {
    return [...this.wanted].flatMap(([by, asked]) => (asked.key === key ? [by] : []));
  }

  /** Ends a question that has long been in hand once its entry asks another; where one more needs it, it is that one's. */
  private giveUpLost(by: Id, key: string | null, isGone = false): void {
    const desk = this.desks.find(({ hand }) => hand?.by === by && hand.key !== key);
    if (!desk?.hand) return;
    const [heir] = this.needing(desk.hand.key);
    if (heir !== undefined) {
      desk.hand.by = heir;
      this.next();
    } else if (desk.hand.isLost || isGone) this.dismiss(desk);
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
    const isInHand = (by: Id, key: string): boolean =>
      this.desks.some(({ hand }) => hand && (hand.by === by || hand.key === key));
    const isReady = (by: Id, key: string): boolean =>
      !this.resting.has(by) && !this.settling.has(by) && !isInHand(by, key);
    const waiting = [...this.wanted].filter(([by, { key }]) => isReady(by, key));
    const fewest = Math.min(...waiting.map(([, asked]) => placeInLine(asked)));
    const first = waiting.find(([, asked]) => placeInLine(asked) === fewest);
    if (!first) return;
    const [by, asked] = first;
    const desk = this.deskFor(asked);
    if (!desk) return;
    this.resting.set(by, this.waitFor(this.resting, by, rest));
    const number = ++this.count;
    const after = (milliseconds: number, then: (hand: Hand) => void): unknown =>
      this.settings.schedule(() => desk.hand?.number === number && then(desk.hand), milliseconds);
    const timers = [
      after(turnAfter(asked.turns), (hand) => {
        hand.hasHadTurn = true;
        this.tellSoFar(hand);
        this.next();
      }),
      after(lost, (hand) => {
        hand.isLost = true;
        const newest = this.wanted.get(hand.by);
        if (newest) this.giveUpLost(hand.by, newest.key);
      }),
      after(patience, () => this.giveUp(desk, 'tooLong')),
    ];
    desk.hand = {
      ...asked,
      by,
      number,
      timers,
      soFar: asked.found?.unclaimed ?? null,
      hasHadTurn: false,
      isLost: false,
    };
    const { question, found } = asked;
    desk.worker.ask({ number, question: sendable(question), found: found?.outcome ?? null });
    this.next();
  }

  /** Puts the newest question of an entry in line; what is only to be checked waits until nothing moves. */
  private want(by: Id, asked: Asked): void {
    this.wanted.set(by, asked);
    this.settings.cancel(this.settling.get(by));
    this.settling.delete(by);
    if (asked.found) this.settling.set(by, this.waitFor(this.settling, by, calm));
  }

  private waitFor(among: Map<Id, unknown>, by: Id, milliseconds: number): unknown {
    return this.settings.schedule(() => {
      among.delete(by);
      this.next();
    }, milliseconds);
  }

  /**
   * A worker for a question: a free one, a new one where all are held up by hard questions, or that of one that has had
   * its turn. Those that have had turns leave one worker to those that have had none.
   */
  private deskFor({ turns }: Asked): Desk | undefined {
    const { mostHard } = this.settings;
    const later = this.desks.filter(({ hand }) => hand && hand.turns > 0 && !hand.hasHadTurn);
    if (turns > 0 && later.length >= mostHard) return undefined;
    const free = this.desks.find(({ hand }) => hand === null);
    if (free) return free;
    if (!this.desks.every(({ hand }) => isHard(hand))) return undefined;
    if (this.desks.length <= mostHard) return this.hire();
    const over = this.desks.filter(({ hand }) => hand?.hasHadTurn && hand.turns + 1 >= turns);
    return over.length > 0 ? this.makeRoom(over) : undefined;
  }

  /** Sets back the question that was begun first, and hires another worker in place of its. */
  private makeRoom(among: readonly Desk[]): Desk {
    const [first] = among.toSorted((a, b) => (a.hand?.number ?? 0) - (b.hand?.number ?? 0));
    if (first?.hand) {
      const { key, turns } = first.hand;
      for (const by of this.needing(key)) {
        const asked = this.wanted.get(by) as Asked;
        // It waits behind those that were set back before.
        this.wanted.delete(by);
        this.wanted.set(by, { ...asked, turns: turns + 1 });
      }
      this.end(first);
    }
    return this.hire();
  }

  private hire(): Desk {
    const desk: Desk = {
      worker: this.settings.hire(
        (message) => this.arrived(desk, message),
        (why) => this.giveUp(desk, why),
      ),
      hand: null,
    };
    this.desks.push(desk);
    return desk;
  }

  private arrived(desk: Desk, { number, outcome, isLast }: AnswerMessage): void {
    if (desk.hand?.number !== number) return;
    const unclaimed = isLast && !desk.hand.found ? withoutItsClaim(desk.hand.question, outcome) : null;
    if (unclaimed) return this.keepFound(desk, desk.hand, { outcome, unclaimed });
    if (isLast) return this.settle(desk, outcome);
    desk.hand.soFar = outcome;
    this.tellSoFar(desk.hand);
  }

  /** Tells what was found, and has what it claims checked once its question has stood for a while. */
  private keepFound(desk: Desk, { by, key, question }: Hand, found: Found): void {
    this.clear(desk);
    if (this.found.size >= mostKept) this.found.clear();
    this.found.set(key, found);
    this.last.set(by, { ask: question.ask, key, outcome: found.unclaimed, isUnchecked: true });
    for (const [other, asked] of this.wanted) {
      if (other !== by && asked.key !== key) continue;
      if (asked.key === key) this.want(other, { ...asked, turns: 0, found });
      this.versions.set(other, this.version(other) + 1);
    }
    this.next();
    this.settings.onNews();
  }

  /** A part of an answer is told where the whole of it takes long. */
  private tellSoFar(hand: Hand): void {
    const { by, key, soFar } = hand;
    if (!soFar || !isHard(hand)) return;
    for (const one of new Set([by, ...this.needing(key)])) {
      this.tell(one, hand, soFar);
      this.versions.set(one, this.version(one) + 1);
    }
    this.settings.onNews();
  }

  private tell(by: Id, { key, question, found }: Hand, outcome: Kept): void {
    this.last.set(by, { ask: question.ask, key, outcome, isUnchecked: found !== null });
  }

  /** Replaces a worker that takes too long or broke down: what is known so far is all that there will be. */
  private giveUp(desk: Desk, reason: WhyGivenUp): void {
    if (!this.desks.includes(desk)) return;
    desk.worker.end();
    this.desks = this.desks.filter((other) => other !== desk);
    this.settle(desk, desk.hand?.soFar ?? { ok: false, reason });
  }

  private settle(desk: Desk, outcome: Kept): void {
    if (!desk.hand) return;
    const { by, key, question } = desk.hand;
    this.clear(desk);
    if (this.known.size >= mostKept) this.known.clear();
    this.known.set(key, outcome);
    this.found.delete(key);
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
