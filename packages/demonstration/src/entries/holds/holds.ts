import { evaluateAt, latexName, type AnswerTo } from '@yperkine/core';
import { z } from 'zod';
import type { RoundingRule } from '../../numbers/format.ts';
import { latex, live, words, type Line } from '../../numbers/line.ts';
import { curveMark } from '../curveMark.ts';
import type { Mark } from '../../marks/mark.ts';
import { partOfRuns } from '../partOfCurve.ts';
import { toneOf } from '../../fields/tone.ts';
import { typedSchema } from '../../fields/fields.ts';
import {
  asWritten,
  closedInVariable,
  idsInVariableText,
  intervalStudy,
  onInterval,
  overTyped,
  studied,
  withAnswer,
  type TypedInterval,
} from '../asking.ts';
import { primed, type CurveResult } from '../curve.ts';
import type { EntryKind } from '../kind.ts';
import { worked } from '../outcome.ts';
import { intervalText } from '../provedPlaces.ts';

const holdsSchema = z.strictObject({
  ...onInterval,
  kind: z.literal('holds'),
  /** A condition on the curve's variable: f'(x) > 0 and x < 4. */
  condition: typedSchema,
});
export type HoldsEntry = z.infer<typeof holdsSchema>;

type Stretch = AnswerTo['holds']['stretches'][number];

export interface HoldsResult {
  readonly curve: CurveResult;
  readonly stretches: readonly Stretch[];
  readonly isComplete: boolean;
  readonly interval: TypedInterval;
}

/** The part of a curve on which a condition holds, made to stand out. */
export const holdsKind: EntryKind<HoldsEntry, HoldsResult> = {
  schema: holdsSchema,
  defaults: { condition: '' },
  standsOn: intervalStudy.standsOn,
  dependsOn: (entry, directory) => [
    ...intervalStudy.dependsOn(entry, directory),
    ...idsInVariableText(entry.condition, directory, 'condition'),
  ],
  head: ({ condition }, result) => ({
    heading: result
      ? `Where ${asWritten(condition)} on ${primed(result.curve.name, result.curve.order)}`
      : 'Where a condition holds',
    tone: result ? toneOf(result.curve.order, result.curve.family) : 'quiet',
  }),

  workOut: (entry, context) =>
    studied(entry, context, ({ curve, interval, asked }) => {
      const condition = closedInVariable(entry.condition, curve, context, 'condition');
      if (!condition.ok) return condition;
      return withAnswer(context, { ask: 'holds', ...asked, body: condition.result.closed }, (told) =>
        worked({ curve, interval, stretches: told.stretches, isComplete: told.complete }),
      );
    }),

  say: (result, _entry, { rule }) => ({
    lines: [lineOf(result, rule)],
    sentence: sentenceOf(result),
  }),

  marks(id, _entry, { curve, stretches }, tier) {
    if (curve.tier !== tier.id) return [];
    const { runs } = curveMark(id, curve, tier);
    const tone = toneOf(curve.order, curve.family);
    return stretches.flatMap(({ from, to }): Mark[] => {
      const [x0, x1] = [tier.toX(from.value), tier.toX(to.value)];
      if (x1 > x0) {
        const part = partOfRuns(runs, x0, x1);
        return [{ kind: 'track', entry: id, runs: part, tone, dash: [], weight: 7 }];
      }
      const y = evaluateAt(curve.program, from.value, curve.parameters);
      return Number.isFinite(y) ? [{ kind: 'dot', entry: id, x: x0, y: tier.toY(y), tone }] : [];
    });
  },
};

/** x ∈ [0, 1) ∪ {3}. */
function lineOf({ stretches, curve: { variable } }: HoldsResult, rule: RoundingRule): Line {
  const texts = stretches.map((stretch) => intervalText(stretch, rule));
  if (texts.length === 0) return [words('It holds nowhere.')];
  return [latex(`${latexName(variable)} \\in`), live(` ${texts.join(' ∪ ')}`)];
}

function sentenceOf({ stretches, isComplete, curve, interval }: HoldsResult): string {
  const where = overTyped(curve.variable, interval);
  if (!isComplete) return `${where}: it could not be proved that this is all.`;
  return stretches.length === 0
    ? `${where} it holds nowhere (proved).`
    : `${where} it holds there and nowhere else (proved).`;
}
