import { answersInStages } from '@yperkine/core';
import type { AnswerMessage, QuestionMessage } from './messages.ts';

/** Answers one question after another; what cannot be answered ends the worker, which is then replaced. */
self.onmessage = async ({ data: { number, question } }: MessageEvent<QuestionMessage>) => {
  const isCertified = question.ask === 'keyPoints' && question.isCertified === true;
  // What checks proofs comes when it is first asked for.
  const finished = isCertified ? (await import('@yperkine/core/certificate')).certified : null;
  for (const { outcome, isLast } of answersInStages(question)) {
    const told = finished && isLast ? finished(question, outcome) : outcome;
    const message: AnswerMessage = { number, outcome: told, isLast };
    self.postMessage(message);
  }
};
