import { answersInStages, withoutItsClaim } from '@yperkine/core';
import type { AnswerMessage, QuestionMessage } from './messages.ts';

const tell = (message: AnswerMessage): void => self.postMessage(message);

async function answer({ number, question, found }: QuestionMessage): Promise<void> {
  if (!found) {
    for (const stage of answersInStages(question)) tell({ number, ...stage });
    return;
  }
  // What checks proofs comes when it is first asked for; where it cannot be had, nothing is claimed.
  const checker = await import('@yperkine/core/certificate').catch(() => null);
  const outcome = checker?.certified(question, found) ?? withoutItsClaim(question, found) ?? found;
  tell({ number, outcome, isLast: true });
}

/** Answers one question after another; what goes wrong breaks the worker down, which is then replaced. */
self.onmessage = ({ data }: MessageEvent<QuestionMessage>) => void answer(data).catch(reportError);
