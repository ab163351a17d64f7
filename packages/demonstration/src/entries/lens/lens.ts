import { evaluateAt, tangentAt } from '@yperkine/core';
import { z } from 'zod';
import { curveMark } from '../curveMark.ts';
import { lineMark } from '../../marks/lineMark.ts';
import type { Mark, MarkOf } from '../../marks/mark.ts';
import { toneOf } from '../../fields/tone.ts';
import { TierView } from '../../marks/view.ts';
import { atPlace, idSchema } from '../../fields/fields.ts';
import { primed } from '../curve.ts';
import type { EntryKind } from '../kind.ts';
import { waiting, worked } from '../outcome.ts';
import { shownValue, type ParameterResult } from '../parameter/result.ts';
import { placeOn, placeWords, type Place } from '../point/point.ts';
import type { RoundingRule } from '../../numbers/format.ts';
import { inThousands } from '../../numbers/inThousands.ts';

const lensSchema = z.strictObject({
  ...atPlace,
  kind: z.literal('lens'),
  magnification: z.union([z.literal(10), z.literal(100), z.literal(1000), z.literal(10_000)]),
  /** A step whose length keeps its size in the lens, whatever it shrinks to; null for a fixed magnification. */
  follows: idSchema.nullable(),
});
export type LensEntry = z.infer<typeof lensSchema>;

export interface LensResult extends Place {
  /** The slope of the tangent at the place; null where there is none. */
  readonly slope: number | null;
  readonly step: ParameterResult | null;
}

/** A round magnifier on a point of a curve, in which curve and tangent become one line. */
export const lensKind: EntryKind<LensEntry, LensResult> = {
  schema: lensSchema,
  defaults: { magnification: 10, follows: null },
  standsOn: (entry) => [entry.on, entry.parameter],
  dependsOn: (entry) => [entry.on, entry.parameter, ...(entry.follows === null ? [] : [entry.follows])],
  head: (_entry, result) => ({
    heading: result ? `Lens on ${placeWords(result)}` : 'Lens',
    tone: result ? toneOf(result.curve.order, result.curve.family) : 'quiet',
  }),

  workOut(entry, context) {
    const place = placeOn(entry, context);
    if (typeof place === 'string') return waiting(place);
    const { curve, at } = place;
    const tangent = tangentAt(curve, at.value, curve.parameters, curve.exactParameters);
    const slope = tangent.kind === 'line' ? tangent.slope.value : null;
    const step = entry.follows === null ? null : (context.parameter(entry.follows) ?? null);
    return worked({ ...place, slope, step });
  },

  say: (result, entry, { rule }) => ({ lines: [], sentence: sentenceOf(entry, result, rule) }),

  marks(id, entry, result, tier) {
    const { curve, at, slope } = result;
    const x = at.value.value;
    const y = evaluateAt(curve.program, x, curve.parameters);
    if (curve.tier !== tier.id || !Number.isFinite(y)) return [];
    const times = magnificationOf(entry, result, tier);
    const circle = placeOfLens(tier, tier.toX(x));
    const view = magnified(tier, circle, x, y, times);
    const tone = toneOf(curve.order, curve.family);
    const inside: Mark[] = [curveMark(id, curve, view)];
    if (slope !== null) {
      inside.push(lineMark(id, { x, y }, slope, view, toneOf(curve.order + 1, curve.family)));
    }
    inside.push(...secantMarks(id, result, view, y));
    inside.push({ kind: 'dot', x: view.toX(x), y: view.toY(y), tone });
    const source = { x: tier.toX(x), y: tier.toY(y) };
    return [{ kind: 'lens', entry: id, ...circle, source, text: timesText(times), marks: inside, tone }];
  },
};

const radius = 76;
/** Pixels from the rim of a lens to the frame of its tier. */
const margin = 12;
/** Pixels that a step takes in a lens that follows it. */
const followed = 52;

function magnificationOf({ magnification }: LensEntry, { step }: LensResult, tier: TierView): number {
  const length = Math.abs(step?.value.value ?? 0) * tier.pixelsPerX;
  return length > 0 ? Math.min(10_000, Math.max(1, followed / length)) : magnification;
}

const timesText = (times: number): string =>
  `×${times >= 100 ? inThousands(Math.round(times), ' ') : Number(times.toPrecision(2))}`;

/** In the upper corner that is farther from the point. */
function placeOfLens({ frame }: TierView, sourceX: number): Pick<MarkOf<'lens'>, 'x' | 'y' | 'radius'> {
  const fitting = Math.max(20, Math.min(radius, frame.height / 2 - margin, frame.width / 6));
  const isRight = sourceX < frame.left + frame.width / 2;
  const x = isRight ? frame.left + frame.width - fitting - margin : frame.left + fitting + margin;
  return { x, y: frame.top + fitting + margin, radius: fitting };
}

/** A view whose frame is the box around the lens, with the point in the middle. */
function magnified(
  tier: TierView,
  { x: cx, y: cy, radius: r }: Pick<MarkOf<'lens'>, 'x' | 'y' | 'radius'>,
  x: number,
  y: number,
  times: number,
): TierView {
  const frame = { left: cx - r, top: cy - r, width: 2 * r, height: 2 * r };
  const [halfX, halfY] = [r / (tier.pixelsPerX * times), r / (tier.pixelsPerY * times)];
  const [across, up] = [
    { from: x - halfX, to: x + halfX },
    { from: y - halfY, to: y + halfY },
  ];
  return new TierView(tier.id, frame, across, up, tier.rule, tier.density);
}

/** The secant over the step that the lens follows. */
function secantMarks(id: string, { curve, at, step }: LensResult, view: TierView, y: number): Mark[] {
  const h = step?.value.value ?? 0;
  const x = at.value.value;
  const other = evaluateAt(curve.program, x + h, curve.parameters);
  if (h === 0 || !Number.isFinite(other)) return [];
  return [
    { ...lineMark(id, { x, y }, (other - y) / h, view, 'quiet'), dash: [3, 4] },
    { kind: 'dot', x: view.toX(x + h), y: view.toY(other), tone: 'quiet' },
  ];
}

function sentenceOf(
  { magnification, follows }: LensEntry,
  { curve, at, slope }: LensResult,
  rule: RoundingRule,
): string {
  const name = primed(curve.name, curve.order);
  const times = follows === null ? `Magnified ${magnification} times` : 'Magnified as the step shrinks';
  const seen =
    slope === null
      ? `${name} does not become straight: it has no tangent there`
      : `${name} looks ever more like its tangent`;
  return `${times} about ${curve.variable} = ${shownValue(at, rule)}, ${seen}.`;
}
