import type { AnswerOutcome, Question } from '@yperkine/core';

/** A question on its way to a worker, with the number by which its answer is known. */
export interface QuestionMessage {
  readonly number: number;
  readonly question: Question;
}

export interface AnswerMessage {
  readonly number: number;
  readonly outcome: AnswerOutcome;
}
