import {
  answerSent,
  Effort,
  type AnswerOutcome,
  type AnswerTo,
  type Question,
  type QuestionKind,
  type QuestionOf,
} from '@yperkine/core';
import type { Id } from '../fields/fields.ts';

/**
 * What an answer answers: the question as it stands, that as far as is known yet (all is found where only the second check
 * of it is still to come), or what the entry asked before (found, where that was never checked).
 */
export type AnsweredOf = 'now' | 'soFar' | 'found' | 'before' | 'foundBefore';

/** What a worker cannot tell: it took longer than anybody waits, broke down, or its program is not there. */
export type WhyGivenUp = 'tooLong' | 'fault' | 'notLoaded';

/** It grew too large, is asked of what has values at single numbers only, or was given up. */
export type WhyUnanswerable = 'tooLarge' | 'singleValues' | WhyGivenUp;

/** What is known about a question at this moment. */
export type Answered<A> =
  | { readonly state: 'answered'; readonly answer: A; readonly of: AnsweredOf }
  | { readonly state: 'waiting' }
  | { readonly state: 'unanswerable'; readonly reason: WhyUnanswerable };

/** Where the answers to long questions come from: at once, or some frames later. */
export interface Answers {
  ask<K extends QuestionKind>(by: Id, question: QuestionOf<K>): Answered<AnswerTo[K]>;
  /** Changes whenever there is something new for an entry. */
  version(by: Id): number;
  /** The entry is gone: its question needs no answer. */
  forget?(by: Id): void;
}

/** Nobody answers: what waits for an answer is left out. */
export const unanswered: Answers = { ask: () => ({ state: 'waiting' }), version: () => 0 };

const splineNumbers = new WeakMap<object, number>();
let splineCount = 0;

/** A table is told from another by being the same object: its thousands of rows are not written out. */
function tableKey(spline: object): number {
  const known = splineNumbers.get(spline) ?? ++splineCount;
  splineNumbers.set(spline, known);
  return known;
}

/** The same for questions that ask the same. */
export const keyOfQuestion = (question: Question): string =>
  JSON.stringify(question, (name, value: unknown) =>
    name === 'spline' && typeof value === 'object' && value !== null ? tableKey(value) : value,
  );

/** What an entry is told of an outcome. */
export const answeredBy = <K extends QuestionKind>(
  outcome: AnswerOutcome | { readonly ok: false; readonly reason: WhyGivenUp },
  of: AnsweredOf = 'now',
): Answered<AnswerTo[K]> =>
  outcome.ok
    ? { state: 'answered', answer: outcome.answer as AnswerTo[K], of }
    : { state: 'unanswerable', reason: outcome.reason };

const mostKept = 200;

/**
 * Answers on the spot, each question once.
 * @param finished what is done with an answer before it is told, such as putting in its certificate
 */
export function answersNow(
  finished: (question: Question, outcome: AnswerOutcome) => AnswerOutcome = (_, outcome) => outcome,
): Answers {
  const known = new Map<string, AnswerOutcome>();
  return {
    ask(_by, question) {
      const key = keyOfQuestion(question);
      // What is asked in the middle of something is none of its effort.
      const outcome =
        known.get(key) ?? new Effort(Infinity).spendOn(() => finished(question, answerSent(question)));
      if (known.size >= mostKept) known.clear();
      known.set(key, outcome);
      return answeredBy(outcome);
    },
    version: () => 0,
  };
}
