import {
  derivativeOf,
  latexFunction,
  knownNumber,
  latexName,
  rational,
  tangentAt,
  TooLarge,
  writtenNumber,
  type KnownNumber,
  type tree,
  type Tangent,
} from '@yperkine/core';
import { exactTextOf } from '../../numbers/exactText.ts';
import {
  countedIn,
  equalsResult,
  latex,
  lineEquation,
  live,
  liveRelation,
  unitPart,
  type Line,
  type Part,
} from '../../numbers/line.ts';
import {
  format,
  formatSetting,
  formatTidily,
  type FormattedNumber,
  type RoundingRule,
} from '../../numbers/format.ts';
import { halfLineMark, lineMark, verticalMark } from '../../marks/lineMark.ts';
import type { Mark, MarkOf } from '../../marks/mark.ts';
import { toneOf } from '../../fields/tone.ts';
import type { TierView } from '../../marks/view.ts';
import { atPlace, decimalSchema } from '../../fields/fields.ts';
import { z } from 'zod';
import { per, rateWords, withUnit } from '../../units/unit.ts';
import type { EntryKind, Wording } from '../kind.ts';
import { waiting, worked } from '../outcome.ts';
import { lineResults } from '../lineResults.ts';
import { exactValues, placeOn, placeWords, type Place } from '../point/point.ts';
import { shownValue } from '../parameter/result.ts';

const tangentSchema = z.strictObject({
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

export interface TangentResult extends Place {
  readonly tangent: Tangent;
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
    return worked({ curve, at, tangent });
  },

  say: (result, { pointSlope }, wording) => ({
    lines: linesOf(result, pointSlope, wording),
    sentence: sentenceOf(result, wording),
  }),

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
    if (tangent.kind === 'noSlope') {
      const halves = halvesOf(tangent).map(({ side, slope }) =>
        reaching(
          halfLineMark(id, pointOf(tangent), slope.value, side, tier, tone),
          entry.reach,
          tangent,
          tier,
        ),
      );
      return [...halves, touch];
    }
    if (tangent.kind === 'vertical') {
      return [verticalMark(id, tangent.x.value, tier, tone), touch];
    }
    const triangle = entry.triangle ? triangleMarks(id, tangent, result, entry.base, tier) : [];
    const line = lineMark(id, pointOf(tangent), tangent.slope.value, tier, tone);
    return [reaching(line, entry.reach, tangent, tier), ...triangle, touch];
  },
};

/** Height in pixels below which a slope triangle counts as flat. */
const flat = 22;

type SlopedTangent = Extract<Tangent, { kind: 'line' }>;
type Corner = Extract<Tangent, { kind: 'noSlope' }>;

const pointOf = ({ x, y }: Corner | SlopedTangent): { x: number; y: number } => ({
  x: x.value,
  y: y.value,
});

interface Half {
  readonly side: 'left' | 'right';
  readonly slope: KnownNumber;
}

/** The half tangents at a corner: each side that has a slope. */
const halvesOf = ({ left, right }: Corner): Half[] => [
  ...(left ? [{ side: 'left' as const, slope: left }] : []),
  ...(right ? [{ side: 'right' as const, slope: right }] : []),
];

/** Pixels of a short piece of tangent on either side of its point. */
const shortReach = 110;

/** A tangent, or a half of one, as far as it reaches from its point. */
function reaching(
  line: MarkOf<'line'>,
  reach: TangentEntry['reach'],
  { x, y }: { readonly x: KnownNumber; readonly y: KnownNumber },
  tier: TierView,
): MarkOf<'line'> {
  if (reach === 'line') return line;
  const [px, py] = [tier.toX(x.value), tier.toY(y.value)];
  const cut = (toX: number, toY: number): [number, number] => {
    const share = Math.min(1, shortReach / Math.hypot(toX - px, toY - py));
    return Number.isNaN(share) ? [px, py] : [px + (toX - px) * share, py + (toY - py) * share];
  };
  const [[x0, y0], [x1, y1]] = [cut(line.x0, line.y0), cut(line.x1, line.y1)];
  return { ...line, x0, y0, x1, y1 };
}

function triangleMarks(
  id: string,
  tangent: SlopedTangent,
  result: TangentResult,
  baseText: string,
  tier: TierView,
): Mark[] {
  const base = Number(baseText);
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
      text: formatSetting(baseText, tier.rule),
      anchor: 'middle',
    },
    {
      kind: 'note',
      x: x1 + 6,
      y: slopeY,
      tone,
      text: riseText(tangent, baseText, tier.rule),
      anchor: 'start',
    },
  ];
}

function linesOf(
  { tangent, curve, at }: TangentResult,
  hasPointSlope: boolean,
  { rule, xUnit }: Wording,
): Line[] {
  const derivative = latexFunction(curve.name, curve.order + 1);
  const headFrom = (side: tree.Side): Part[] => [
    latex(`${derivative}${sideSigns[side]}(`),
    live(shownValue(at, rule)),
    latex(')'),
  ];
  const unit = unitPart(per(curve.unit, xUnit));
  switch (tangent.kind) {
    case 'line': {
      const { line } = lineEquation(tangent.slope, tangent.intercept, curve.variable, rule);
      const slopeLine = [
        ...headFrom(tangent.side),
        ...equalsResult(tangent.slope, rule, slopeForm(tangent, curve)),
        ...unit,
      ];
      const pointSlope = hasPointSlope ? [pointSlopeLine(tangent, curve.variable, rule)] : [];
      return [slopeLine, ...pointSlope, [...line, ...countedIn(curve.unit, curve.variable, xUnit)]];
    }
    case 'vertical': {
      const x = formatTidily(tangent.x, rule);
      return [[latex(latexName(curve.variable)), liveRelation(x.isExact), live(x.text)]];
    }
    case 'noSlope':
      return halvesOf(tangent).map(({ side, slope }) => [
        ...headFrom(side),
        ...(Number.isFinite(slope.value)
          ? [...equalsResult(slope, rule), ...unit]
          : [latex(slope.value > 0 ? '=\\infty' : '=-\\infty')]),
      ]);
    case 'undefined':
      return [];
  }
}

/** The marks of a one-sided derivative: f′₋ from the left, f′₊ from the right. */
const sideSigns: Readonly<Record<tree.Side, string>> = { left: '_{-}', right: '_{+}', both: '' };

/** The general form over the numbers put in: y − 3.476 = −0.559(t − 3.4), without a 0 that is taken away. */
function pointSlopeLine({ x, y, slope }: SlopedTangent, variable: string, rule: RoundingRule): Line {
  const [px, py, m] = [formatTidily(x, rule), formatTidily(y, rule), formatTidily(slope, rule)];
  const isZero = ({ text, isExact }: FormattedNumber): boolean => isExact && text === '0';
  const less = (number: FormattedNumber): string => {
    if (isZero(number)) return '';
    return number.text.startsWith('−') ? ` + ${number.text.slice(1)}` : ` − ${number.text}`;
  };
  const isExact = px.isExact && py.isExact && m.isExact;
  const left = [latex('y'), live(`${less(py)} ${isExact ? '=' : '≈'} `)];
  if (isZero(m)) return [...left, live('0')];
  const [open, close] = isZero(px) ? ['', ''] : ['(', ')'];
  const factor = m.isExact && /^−?1$/.test(m.text) ? m.text.replace('1', '') : m.text;
  return [...left, live(`${factor}${open}`), latex(latexName(variable)), live(`${less(px)}${close}`)];
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

function sentenceOf({ tangent, curve, at }: TangentResult, wording: Wording): string {
  const place = `${curve.variable} = ${withUnit(shownValue(at, wording.rule), wording.xUnit)}`;
  const name = curve.name + '′'.repeat(curve.order);
  switch (tangent.kind) {
    case 'undefined':
      return `${name} has no value at ${place}, so there is no tangent there.`;
    case 'noSlope':
      return cornerSentence(tangent, name, place, wording.rule);
    case 'vertical':
      return tangent.side === 'both'
        ? `At ${place} the tangent is vertical.`
        : `${place} is an end of ${name}: there is only a one-sided tangent, and it is vertical.`;
    case 'line': {
      const way = wayOf(tangent.slope, name, curve, wording);
      if (tangent.side !== 'both')
        return `${place} is an end of ${name}: there is only a one-sided slope. Seen from the ${tangent.side}, ${way}.`;
      return tangent.slope.value === 0
        ? `At ${place} the tangent is level: ${way} there.`
        : `At ${place}, ${way}.`;
    }
  }
}

function wayOf(slope: KnownNumber, name: string, curve: Place['curve'], { rule, xUnit }: Wording): string {
  if (slope.value === 0) return `${name} neither rises nor falls`;
  const text = format(slope, rule).text.replace('−', '');
  const way = slope.value > 0 ? 'rising' : 'falling';
  return `${name} is ${way} ${rateWords(text, per(curve.unit, xUnit), curve.variable)}`;
}

/** Both one-sided slopes, as far as there are any. */
function cornerSentence(corner: Corner, name: string, place: string, rule: RoundingRule): string {
  const [first, second] = halvesOf(corner).map(({ side, slope }) => {
    const text = Number.isFinite(slope.value) ? formatTidily(slope, rule).text : 'vertical';
    return { side, text };
  });
  if (!first) return `${name} has no single slope at ${place}, so there is no tangent there.`;
  if (second)
    return `${name} has a corner at ${place}: its slope is ${first.text} from the left and ${second.text} from the right, so ${name}′ does not exist there.`;
  const other = first.side === 'left' ? 'right' : 'left';
  return `${name} has no single slope at ${place}: from the ${first.side} it is ${first.text}, from the ${other} there is none.`;
}
