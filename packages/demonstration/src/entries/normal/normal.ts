import { latexName, normalTo, tangentAt, type Tangent } from '@yperkine/core';
import { z } from 'zod';
import { formatTidily, type RoundingRule } from '../../numbers/format.ts';
import { countedIn, latex, lineEquation, live, liveRelation, type Line } from '../../numbers/line.ts';
import { lineMark, verticalMark } from '../../marks/lineMark.ts';
import { toneOf } from '../../fields/tone.ts';
import { atPlace } from '../../fields/fields.ts';
import { primed } from '../curve.ts';
import type { EntryKind, Wording } from '../kind.ts';
import { waiting, worked } from '../outcome.ts';
import { lineResults } from '../lineResults.ts';
import { shownValue } from '../parameter/result.ts';
import { placeOn, placeWords, type Place } from '../point/point.ts';

const normalSchema = z.strictObject({ ...atPlace, kind: z.literal('normal') });
export type NormalEntry = z.infer<typeof normalSchema>;

export interface NormalResult extends Place {
  /** Undefined where there is no tangent. */
  readonly normal: Tangent | undefined;
}

/** The line that is perpendicular to the tangent, through the same point. */
export const normalKind: EntryKind<NormalEntry, NormalResult> = {
  schema: normalSchema,
  defaults: {},
  standsOn: (entry) => [entry.on, entry.parameter],
  head: (_entry, result) => ({ heading: result ? `Normal to ${placeWords(result)}` : 'Normal', tone: 'ink' }),

  workOut(entry, context) {
    const place = placeOn(entry, context);
    if (typeof place === 'string') return waiting(place);
    const { curve, at } = place;
    const normal = normalTo(tangentAt(curve, at.value, curve.parameters, curve.exactParameters));
    return worked({ ...place, normal });
  },

  say: (result, _entry, wording) => ({
    lines: linesOf(result, wording),
    sentence: sentenceOf(result, wording.rule),
  }),

  results: ({ normal, curve }, xUnit) => (normal ? lineResults(normal, curve, xUnit) : []),

  places: ({ normal, curve }) =>
    normal && normal.kind !== 'undefined'
      ? [{ key: 'point', label: 'its foot', x: normal.x.value, y: normal.y.value, tier: curve.tier }]
      : [],

  marks(id, entry, { curve, normal }, tier) {
    if (curve.tier !== tier.id || !normal || normal.kind === 'undefined') return [];
    const touch = {
      kind: 'point' as const,
      entry: id,
      x: tier.toX(normal.x.value),
      y: tier.toY(normal.y.value),
      tone: toneOf(curve.order, curve.family),
      parameter: entry.parameter,
    };
    if (normal.kind === 'vertical') return [verticalMark(id, normal.x.value, tier, 'ink'), touch];
    if (normal.kind !== 'line') return [];
    const through = { x: normal.x.value, y: normal.y.value };
    return [{ ...lineMark(id, through, normal.slope.value, tier, 'ink'), weight: 1.5 }, touch];
  },
};

function linesOf({ normal, curve }: NormalResult, { rule, xUnit }: Wording): Line[] {
  if (!normal) return [];
  if (normal.kind === 'vertical') {
    const x = formatTidily(normal.x, rule);
    return [[latex(latexName(curve.variable)), liveRelation(x.isExact), live(x.text)]];
  }
  if (normal.kind !== 'line') return [];
  const { line } = lineEquation(normal.slope, normal.intercept, curve.variable, rule);
  return [[...line, ...countedIn(curve.unit, curve.variable, xUnit)]];
}

function sentenceOf({ normal, curve, at }: NormalResult, rule: RoundingRule): string {
  const place = `${curve.variable} = ${shownValue(at, rule)}`;
  if (!normal)
    return `${primed(curve.name, curve.order)} has no tangent at ${place}, so it has no normal there.`;
  if (normal.kind === 'vertical') return `At ${place} the tangent is level, so the normal is vertical.`;
  return `At ${place} the normal is perpendicular to the tangent: the two slopes multiply to −1.`;
}
