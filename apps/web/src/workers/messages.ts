import type { AnswerStage, Question } from '@yperkine/core';

/** A question on its way to a worker, with the number by which its answer is known. */
export interface QuestionMessage {
  readonly number: number;
  readonly question: Question;
}

/** What is known of a question by now. */
export interface AnswerMessage {
  readonly number: number;
  readonly outcome: AnswerStage['outcome'] | { readonly ok: false; readonly reason: 'notLoaded' };
  readonly isLast: boolean;
}
