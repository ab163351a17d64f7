import { closedFormula, TooLarge, type QuestionOf } from '@yperkine/core';
import { gridOf, keepCurve, type Answers, type Scene, type WantedCurve } from '@yperkine/demonstration';

/** Formulas are told apart by number: of each, the newest window and numbers count. */
const numbers = new WeakMap<object, number>();
let count = 0;

function askerOf({ curve: { program }, tier }: WantedCurve): string {
  const number = numbers.get(program) ?? ++count;
  numbers.set(program, number);
  return `curve ${number} ${tier.id}`;
}

type CurveQuestion = QuestionOf<'curve'> | null;

/** The last question about each curve: as long as nothing changes it is the same in every frame. */
const asked = new WeakMap<
  WantedCurve['curve'],
  { readonly tier: WantedCurve['tier']; readonly question: CurveQuestion }
>();

/** Questions that are written out in one frame: each takes some tens of milliseconds where functions stand on many others. */
const newInOneFrame = 1;

const knownQuestion = ({ curve, tier }: WantedCurve): CurveQuestion | undefined => {
  const known = asked.get(curve);
  return known?.tier === tier ? known.question : undefined;
};

function writtenOut({ curve, tier }: WantedCurve): CurveQuestion {
  const { program, parameters, body, variable, functions } = curve;
  const values = new Map(program.parameters.map((name, i) => [name, parameters[i] ?? NaN]));
  const grid = gridOf(tier);
  try {
    const closed = closedFormula(body, values, functions);
    return { ask: 'curve', body: closed, variable, interval: [grid.xFrom, grid.xTo], grid };
  } catch (error) {
    // Written out it would be too large to be sent: the rough curve stays.
    if (error instanceof TooLarge) return null;
    throw error;
  }
}

/**
 * Has the curves of a scene for which a frame had no time worked out beside the page.
 * @returns whether one of them is there now, so that the scene should be made again, and whether some have not been
 *   asked for yet, for which the next frame has time
 */
export function askForCurves({ wanted }: Scene, answers: Answers): { isThere: boolean; isBehind: boolean } {
  let isThere = false;
  let written = 0;
  for (const one of wanted) {
    let question = knownQuestion(one);
    if (question === undefined) {
      if (written++ >= newInOneFrame) continue;
      question = writtenOut(one);
      asked.set(one.curve, { tier: one.tier, question });
    }
    const answered = question ? answers.ask(askerOf(one), question) : null;
    if (answered?.state === 'waiting') continue;
    if (answered?.state === 'answered' && answered.of === 'before') continue;
    keepCurve(one, answered?.state === 'answered' ? answered.answer : null);
    isThere = true;
  }
  return { isThere, isBehind: written > newInOneFrame };
}
