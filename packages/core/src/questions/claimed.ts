import type { Answer, AnswerTo, MayBeComplete, Question, QuestionKind, QuestionOf } from './answers.ts';
import type { IntegralFound } from '../area/parts.ts';
import type { Outcome } from './sentAnswers.ts';

/** What is left of an answer without its claim to be complete or proved; null where it claims neither. */
type WithoutClaim = {
  readonly [K in QuestionKind]?: (answer: AnswerTo[K], question: QuestionOf<K>) => AnswerTo[K] | null;
};

const unconfirmed = <A extends MayBeComplete>(answer: A): A | null =>
  answer.complete ? { ...answer, complete: false, isUnconfirmed: true } : null;

const isWithoutValue = ({ diverges, undefinedOn }: IntegralFound): boolean =>
  diverges || undefinedOn.length > 0;

const withoutClaim: WithoutClaim = {
  keyPoints: unconfirmed,
  signs: unconfirmed,
  solve: unconfirmed,
  holds: unconfirmed,
  reading: unconfirmed,
  meanValue: (answer) => {
    const points = answer && unconfirmed(answer.points);
    return points && { ...answer, points };
  },
  nearest: (answer) => (answer.isProved ? { ...answer, isProved: false } : null),
  // What is called exact is shown by algebra; of what is estimated, or has no value, the checker may show more.
  integral: (answer) =>
    answer.certainty === 'exact' || isWithoutValue(answer) ? null : { ...answer, certainty: 'estimated' },
  // Its digits claim nothing; bounds of it are for the checker to tell.
  value: (answer) => (answer.integral && !isWithoutValue(answer.integral) ? answer : null),
};

/**
 * An answer as it may be told before the checker has looked at it, or once it has refused it: without the claim to be
 * complete or proved. Null where it makes no such claim.
 */
export function withoutItsClaim(question: Question, outcome: Outcome): Outcome | null {
  const change = withoutClaim[question.ask] as
    ((answer: Answer, question: Question) => Answer | null) | undefined;
  const answer = outcome.ok && change ? change(outcome.answer, question) : null;
  return answer && { ok: true, answer };
}
