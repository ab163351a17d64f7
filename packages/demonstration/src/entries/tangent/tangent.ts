import {
  derivativeOf,
  latexFunction,
  knownNumber,
  latexName,
  rational,
  tangentAt,
  TooLarge,
  writtenNumber,
  type Tangent,
} from '@yperkine/core';
import { exactTextOf } from '../../numbers/exactText.ts';
import {
  equalsResult,
  latex,
  lineEquation,
  live,
  liveRelation,
  unitPart,
  type Line,
} from '../../numbers/line.ts';
import { format, formatSetting, formatTidily, type RoundingRule } from '../../numbers/format.ts';
import { lineMark, verticalMark } from '../../scene/lineMark.ts';
import type { Mark } from '../../scene/mark.ts';
import { toneOf, type Tone } from '../../scene/tone.ts';
import type { TierView } from '../../scene/view.ts';
import { atPlace, decimalSchema } from '../../schema/fields.ts';
import { z } from 'zod';
import { eachUnit, per, withUnit } from '../../units/unit.ts';
import type { EntryKind, WorkContext } from '../kind.ts';
import { waiting, worked } from '../outcome.ts';
import { lineResults } from '../lineResults.ts';
import { exactValues, placeOn, placeWords, type Place } from '../point/point.ts';
import type { StudyResult } from '../study.ts';

export const tangentSchema = z.strictObject({
  ...atPlace,
  kind: z.literal('tangent'),
  /** Whether the rise-over-run triangle is drawn. */
  triangle: z.boolean(),
  /** Whether the whole line is drawn, or a short piece about the point. */
  reach: z.enum(['line', 'piece']),
  /** Whether the equation is given as y − f(a) = f′(a)(x − a), too. */
  pointSlope: z.boolean(),
  /** Length of the base of the triangle. */
  base: decimalSchema,
});
export type TangentEntry = z.infer<typeof tangentSchema>;

export interface TangentResult extends Place, StudyResult {
  readonly tangent: Tangent;
  /** Height of the triangle as it is written beside it, and its base. */
  readonly slopeText: string;
  readonly baseText: string;
}

/** The tangent to a curve at a parameter: its slope, its equation, its rise-over-run triangle of base 1. */
export const tangentKind: EntryKind<TangentEntry, TangentResult> = {
  schema: tangentSchema,
  defaults: { triangle: true, reach: 'line', pointSlope: false, base: '1' },
  standsOn: (entry) => [entry.on, entry.parameter],
  head: (_entry, result) => ({
    heading: result ? `Tangent to ${placeWords(result)}` : 'Tangent',
    tone: result ? toneOf(result.curve.order + 1, result.curve.family) : 'quiet',
  }),

  workOut(entry, context) {
    const place = placeOn(entry, context);
    if (typeof place === 'string') return waiting(place);
    const { curve, at } = place;
    const tangent = tangentAt(curve, at.value, curve.parameters, curve.exactParameters);
    const { rule } = context;
    return worked({
      curve,
      at,
      tangent,
      lines: linesOf(tangent, place, entry.pointSlope, context),
      baseText: formatSetting(entry.base, rule),
      sentence: sentenceOf(tangent, place, context),
      slopeText: tangent.kind === 'line' ? riseText(tangent, entry.base, rule) : '',
    });
  },

  results: ({ tangent, curve }, xUnit) => lineResults(tangent, curve, xUnit),

  places: ({ tangent, curve }) =>
    tangent.kind === 'undefined'
      ? []
      : [
          {
            key: 'point',
            label: 'the point of contact',
            x: tangent.x.value,
            y: tangent.y.value,
            tier: curve.tier,
          },
        ],

  marks(id, entry, result, tier) {
    if (result.curve.tier !== tier.id) return [];
    const { tangent } = result;
    const tone = toneOf(result.curve.order + 1, result.curve.family);
    if (tangent.kind === 'undefined') return [];
    const touch: Mark = {
      kind: 'point',
      entry: id,
      x: tier.toX(tangent.x.value),
      y: tier.toY(tangent.y.value),
      tone: toneOf(result.curve.order, result.curve.family),
      parameter: entry.parameter,
    };
    if (tangent.kind === 'noSlope') return [touch];
    if (tangent.kind === 'vertical') {
      return [verticalMark(id, tangent.x.value, tier, tone), touch];
    }
    const triangle = entry.triangle ? triangleMarks(id, tangent, result, Number(entry.base), tier) : [];
    return [tangentLine(id, tangent, entry.reach, tier, tone), ...triangle, touch];
  },
};

/** Height in pixels below which a slope triangle counts as flat. */
const flat = 22;

type SlopedTangent = Extract<Tangent, { kind: 'line' }>;

/** Pixels of a short piece of tangent on either side of its point. */
const shortReach = 110;

function tangentLine(
  id: string,
  { x, y, slope }: SlopedTangent,
  reach: TangentEntry['reach'],
  tier: TierView,
  tone: Tone,
): Mark {
  const line = lineMark(id, { x: x.value, y: y.value }, slope.value, tier, tone);
  if (reach === 'line') return line;
  const [dx, dy] = [line.x1 - line.x0, line.y1 - line.y0];
  const length = Math.hypot(dx, dy);
  const [px, py] = [tier.toX(x.value), tier.toY(y.value)];
  const [ux, uy] = [(dx / length) * shortReach, (dy / length) * shortReach];
  return { ...line, x0: px - ux, y0: py - uy, x1: px + ux, y1: py + uy };
}

function triangleMarks(
  id: string,
  tangent: SlopedTangent,
  result: TangentResult,
  base: number,
  tier: TierView,
): Mark[] {
  const [x0, y0] = [tier.toX(tangent.x.value), tier.toY(tangent.y.value)];
  const x1 = tier.toX(tangent.x.value + base);
  const y1 = tier.toY(tangent.y.value + tangent.slope.value * base);
  const tone = toneOf(result.curve.order + 1, result.curve.family);
  const isTooSmall = Math.abs(x1 - x0) < 14;
  const marks: Mark[] = [{ kind: 'polygon', entry: id, points: [x0, y0, x1, y0, x1, y1], tone }];
  if (isTooSmall) return marks;
  const below = y1 > y0;
  // Beside a flat triangle the slope would lie on the tangent itself.
  const slopeY = Math.abs(y1 - y0) < flat ? y0 + (below ? 18 : -8) : (y0 + y1) / 2 + 4;
  return [
    ...marks,
    {
      kind: 'note',
      x: (x0 + x1) / 2,
      y: y0 + (below ? -6 : 15),
      tone,
      text: result.baseText,
      anchor: 'middle',
    },
    { kind: 'note', x: x1 + 6, y: slopeY, tone, text: result.slopeText, anchor: 'start' },
  ];
}

function linesOf(
  tangent: Tangent,
  { curve, at }: Place,
  hasPointSlope: boolean,
  { rule, xUnit }: WorkContext,
): Line[] {
  const derivative = latexFunction(curve.name, curve.order + 1);
  const slopeHead = [latex(`${derivative}(`), live(at.text), latex(')')];
  switch (tangent.kind) {
    case 'line': {
      const { line } = lineEquation(tangent.slope, tangent.intercept, curve.variable, rule);
      const slopeLine = [
        ...slopeHead,
        ...equalsResult(tangent.slope, rule, slopeForm(tangent, curve)),
        ...unitPart(per(curve.unit, xUnit)),
      ];
      return [slopeLine, ...(hasPointSlope ? [pointSlopeLine(tangent, curve.variable, rule)] : []), line];
    }
    case 'vertical': {
      const x = formatTidily(tangent.x, rule);
      return [[latex(latexName(curve.variable)), liveRelation(x.isExact), live(x.text)]];
    }
    case 'undefined':
    case 'noSlope':
      return [];
  }
}

/** The general form over the numbers put in: y − 3.476 = −0.559(t − 3.4). */
function pointSlopeLine({ x, y, slope }: SlopedTangent, variable: string, rule: RoundingRule): Line {
  const [px, py, m] = [formatTidily(x, rule), formatTidily(y, rule), formatTidily(slope, rule)];
  const less = (text: string): string => (text.startsWith('−') ? ` + ${text.slice(1)}` : ` − ${text}`);
  const isExact = px.isExact && py.isExact && m.isExact;
  return [
    latex('y'),
    live(`${less(py.text)} ${isExact ? '=' : '≈'} ${m.text}(`),
    latex(latexName(variable)),
    live(`${less(px.text)})`),
  ];
}

/** The rise over the base of the triangle. */
function riseText({ slope }: SlopedTangent, base: string, rule: RoundingRule): string {
  const length = rational.parseDecimal(base);
  const exact = slope.exact && length ? rational.multiply(slope.exact, length) : null;
  return format(knownNumber(slope.value * Number(base), exact), rule).text;
}

/** The exact form of the slope, at a place that is exact itself. */
function slopeForm({ x, slope }: SlopedTangent, curve: Place['curve']): string | null {
  if (!x.exact || slope.exact !== null)
    return slope.exact && exactTextOf(writtenNumber(slope), new Map(), slope);
  try {
    return exactTextOf(derivativeOf(curve.body, curve.variable), exactValues(curve, x.exact), slope);
  } catch (error) {
    if (error instanceof TooLarge) return null;
    throw error;
  }
}

function sentenceOf(tangent: Tangent, { curve, at }: Place, { rule, xUnit }: WorkContext): string {
  const place = `${curve.variable} = ${withUnit(at.text, xUnit)}`;
  const name = curve.name + '′'.repeat(curve.order);
  switch (tangent.kind) {
    case 'undefined':
      return `${name} has no value at ${place}, so there is no tangent there.`;
    case 'noSlope':
      return `${name} has no single slope at ${place}, so there is no tangent there.`;
    case 'vertical':
      return `At ${place} the tangent is vertical.`;
    case 'line': {
      const { value } = tangent.slope;
      const text = format(tangent.slope, rule).text;
      if (value === 0) return `At ${place} the tangent is level: ${name} neither rises nor falls there.`;
      const way = value > 0 ? 'rising' : 'falling';
      return `At ${place}, ${name} is ${way} by ${withUnit(text.replace('−', ''), curve.unit)} for each ${eachUnit(curve.variable, xUnit)}.`;
    }
  }
}
