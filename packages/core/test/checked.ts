import {
  certificateOf,
  check,
  keyPoints as found,
  printText,
  type Expression,
  type KeyPoints,
} from '../src/index.ts';

/** Complete lists that the checker of certificates was asked about, and those of which it showed everything. */
export const tally = { asked: 0, accepted: 0 };

const asked = new Set<string>();

/**
 * Key points as they are found. What is called complete goes through the second program: it need not be able to show
 * everything, but it may contradict nothing.
 */
export function keyPoints(
  body: Expression,
  variable: string,
  on: readonly [number, number],
  order = 0,
): KeyPoints {
  const question = JSON.stringify([printText(body), variable, on, order]);
  const answer = found(body, variable, on, order);
  if (!answer.complete || asked.has(question)) return answer;
  asked.add(question);
  const { isAccepted, contradicted, contradictedJoints, gaps } = check(
    certificateOf(body, variable, on, order),
    answer.points,
  );
  tally.asked++;
  if (isAccepted) tally.accepted++;
  if (contradicted.length + contradictedJoints.length + gaps.length > 0)
    throw new Error(
      `${printText(body)}: ${JSON.stringify({ contradicted, contradictedJoints, gaps, points: answer.points })}`,
    );
  return answer;
}
