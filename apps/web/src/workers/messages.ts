import type { AnswerOutcome, Question } from '@yperkine/core';

/** A question on its way to a worker, with the number by which its answer is known. */
export interface QuestionMessage {
  readonly number: number;
  readonly question: Question;
  /** The answer that was found, where it is to be looked at by the checker; null where it is to be found. */
  readonly found: AnswerOutcome | null;
}

/** What is known of a question by now. */
export interface AnswerMessage {
  readonly number: number;
  readonly outcome: AnswerOutcome;
  readonly isLast: boolean;
}
