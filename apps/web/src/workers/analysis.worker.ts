import { answersInStages } from '@yperkine/core';
import type { AnswerMessage, QuestionMessage } from './messages.ts';

/** Answers one question after another; what cannot be answered ends the worker, which is then replaced. */
self.onmessage = ({ data: { number, question } }: MessageEvent<QuestionMessage>) => {
  for (const stage of answersInStages(question)) {
    const message: AnswerMessage = { number, ...stage };
    self.postMessage(message);
  }
};
