import { answersInStages } from '@yperkine/core';
import type { AnswerMessage, QuestionMessage } from './messages.ts';

const tell = (message: AnswerMessage): void => self.postMessage(message);

async function answer({ number, question }: QuestionMessage): Promise<void> {
  const isCertified = question.ask === 'keyPoints' && question.isCertified === true;
  // What checks proofs comes when it is first asked for.
  const checker = isCertified ? await import('@yperkine/core/certificate').catch(() => null) : undefined;
  if (checker === null) return tell({ number, outcome: { ok: false, reason: 'notLoaded' }, isLast: true });
  for (const { outcome, isLast } of answersInStages(question))
    tell({ number, outcome: checker && isLast ? checker.certified(question, outcome) : outcome, isLast });
}

/** Answers one question after another; what goes wrong breaks the worker down, which is then replaced. */
self.onmessage = ({ data }: MessageEvent<QuestionMessage>) => void answer(data).catch(reportError);
