import { rememberDerivative, type DerivativeOutOfEffort } from '../algebra/differentiate.ts';
import { isTooLarge } from '../budget/tooLarge.ts';
import { packed, unpacked } from '../interpolation/packed.ts';
import type { Expression } from '../language/tree.ts';
import { answerTo, type Answer, type AnswerTo, type Question, type QuestionOf } from './answers.ts';
import { SingleValues } from '../analysis/singleValues.ts';
import { searchedInPart } from '../budget/thoroughness.ts';

/** Questions on their way to a worker and answers on their way back. */

/** What came of a question: its answer, or that it is out of reach. */
export type Outcome =
  | { readonly ok: true; readonly answer: Answer }
  | { readonly ok: false; readonly reason: 'tooLarge' | 'singleValues' };

/** The answer to a question as it arrives in a worker, with what is out of reach as plain data, too. */
export function answerSent(question: Question): Outcome {
  try {
    return { ok: true, answer: answerTo(withFormulas(question, unpacked) as QuestionOf<'keyPoints'>) };
  } catch (error) {
    if (isTooLarge(error)) return { ok: false, reason: 'tooLarge' };
    if (error instanceof SingleValues) return { ok: false, reason: 'singleValues' };
    throw error;
  }
}

/** Remembers a derivative that was worked out elsewhere. */
export function keepDerivative(
  { node, variable, order }: DerivativeOutOfEffort,
  { formula }: AnswerTo['derivative'],
): void {
  rememberDerivative(node, variable, order, unpacked(formula));
}

/** What is known of a question at a stage of the work on it. */
export interface AnswerStage {
  readonly outcome: Outcome;
  /** Whether nothing more will be known. */
  readonly isLast: boolean;
}

/** The part of its steps that every search may take for a first answer. */
const partOfFirst = 1 / 15;

/** Answers a question as soon as something is known of it, and then fully: the last answer is that of `answerSent`. */
export function* answersInStages(question: Question): Generator<AnswerStage> {
  const { result, isAll } = searchedInPart(partOfFirst, () => answerSent(question));
  const isLast = isAll || !result.ok;
  yield { outcome: result, isLast };
  if (!isLast) yield { outcome: answerSent(question), isLast: true };
}

/** A question that can be copied. */
export const sendable = (question: Question): Question => withFormulas(question, packed);

/** A question with every formula in it replaced. */
export function withFormulas(question: Question, change: (formula: Expression) => Expression): Question {
  const body = change(question.body);
  if (question.ask === 'solve') return { ...question, body, equals: change(question.equals) };
  if (question.ask === 'joins' && question.mend)
    return { ...question, body, mend: { ...question.mend, body: change(question.mend.body) } };
  return { ...question, body };
}
