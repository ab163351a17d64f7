import {
  derivativeOf,
  latexFunction,
  latexName,
  tangentAt,
  TooLarge,
  writtenNumber,
  type Tangent,
} from '@yperkine/core';
import { exactTextOf } from '../../numbers/exactText.ts';
import { equalsResult, latex, lineEquation, live, liveRelation, type Line } from '../../numbers/line.ts';
import { format, formatTidily, type RoundingRule } from '../../numbers/format.ts';
import type { Mark } from '../../scene/mark.ts';
import { toneOf, type Tone } from '../../scene/tone.ts';
import type { TierView } from '../../scene/view.ts';
import type { EntryKind } from '../kind.ts';
import { waiting, worked } from '../outcome.ts';
import { exactValues, placeOn, type Place } from '../point/point.ts';
import type { TangentResult } from '../results.ts';

/** The tangent to a curve at a parameter: its slope, its equation, its rise-over-run triangle of base 1. */
export const tangentKind: EntryKind<'tangent'> = {
  dependsOn: (entry) => [entry.on, entry.parameter],

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
      lines: linesOf(tangent, place, rule),
      sentence: sentenceOf(tangent, place, rule),
      slopeText: tangent.kind === 'line' ? format(tangent.slope, rule).text : '',
    });
  },

  marks(id, entry, result, tier) {
    if (result.curve.tier !== tier.id) return [];
    const { tangent } = result;
    const tone = toneOf(result.curve.order + 1);
    if (tangent.kind === 'undefined') return [];
    const touch: Mark = {
      kind: 'point',
      entry: id,
      x: tier.toX(tangent.x.value),
      y: tier.toY(tangent.y.value),
      tone: toneOf(result.curve.order),
      parameter: entry.parameter,
    };
    if (tangent.kind === 'noSlope') return [touch];
    if (tangent.kind === 'vertical') {
      const x = tier.toX(tangent.x.value);
      const { top, height } = tier.frame;
      return [{ kind: 'line', entry: id, x0: x, y0: top, x1: x, y1: top + height, tone, weight: 2 }, touch];
    }
    const triangle = entry.triangle ? triangleMarks(id, tangent, result, tier) : [];
    return [tangentLine(id, tangent, tier, tone), ...triangle, touch];
  },
};

/** Height in pixels below which a slope triangle counts as flat. */
const flat = 22;

type SlopedTangent = Extract<Tangent, { kind: 'line' }>;

function tangentLine(id: string, { x, y, slope }: SlopedTangent, tier: TierView, tone: Tone): Mark {
  // From the point outward, so that a steep or distant line keeps its digits near the touching point.
  const heightAt = (at: number) => tier.toY(y.value + slope.value * (at - x.value));
  const { from, to } = tier.x;
  return {
    kind: 'line',
    entry: id,
    x0: tier.toX(from),
    y0: heightAt(from),
    x1: tier.toX(to),
    y1: heightAt(to),
    tone,
    weight: 2,
  };
}

function triangleMarks(id: string, tangent: SlopedTangent, result: TangentResult, tier: TierView): Mark[] {
  const [x0, y0] = [tier.toX(tangent.x.value), tier.toY(tangent.y.value)];
  const x1 = tier.toX(tangent.x.value + 1);
  const y1 = tier.toY(tangent.y.value + tangent.slope.value);
  const tone = toneOf(result.curve.order + 1);
  const isTooSmall = x1 - x0 < 14;
  const marks: Mark[] = [{ kind: 'polygon', entry: id, points: [x0, y0, x1, y0, x1, y1], tone }];
  if (isTooSmall) return marks;
  const below = y1 > y0;
  // Beside a flat triangle the slope would lie on the tangent itself.
  const slopeY = Math.abs(y1 - y0) < flat ? y0 + (below ? 18 : -8) : (y0 + y1) / 2 + 4;
  return [
    ...marks,
    { kind: 'note', x: (x0 + x1) / 2, y: y0 + (below ? -6 : 15), tone, text: '1', anchor: 'middle' },
    { kind: 'note', x: x1 + 6, y: slopeY, tone, text: result.slopeText, anchor: 'start' },
  ];
}

function linesOf(tangent: Tangent, { curve, at }: Place, rule: RoundingRule): Line[] {
  const derivative = latexFunction(curve.name, curve.order + 1);
  const slopeHead = [latex(`${derivative}(`), live(at.text), latex(')')];
  switch (tangent.kind) {
    case 'line': {
      const { line } = lineEquation(tangent.slope, tangent.intercept, curve.variable, rule);
      return [[...slopeHead, ...equalsResult(tangent.slope, rule, slopeForm(tangent, curve))], line];
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

function sentenceOf(tangent: Tangent, { curve, at }: Place, rule: RoundingRule): string {
  const place = `${curve.variable} = ${at.text}`;
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
      return `At ${place}, ${name} is ${way} by ${text.replace('−', '')} for each unit of ${curve.variable}.`;
    }
  }
}
