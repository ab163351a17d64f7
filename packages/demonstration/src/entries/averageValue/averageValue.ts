import {
  exactForm,
  exactValue,
  knownNumber,
  latexFunction,
  latexName,
  literal,
  numberFormula,
  tree,
  type Expression,
  type KnownNumber,
  type ToldIntegral,
} from '@yperkine/core';
import { z } from 'zod';
import { exactText } from '../../numbers/exactText.ts';
import { format, type RoundingRule } from '../../numbers/format.ts';
import { equalsResult, latex, unitPart, words, type Line } from '../../numbers/line.ts';
import type { Mark } from '../../marks/mark.ts';
import { dashes, toneOf } from '../../fields/tone.ts';
import { decimalSchema } from '../../fields/fields.ts';
import { withUnit, type Unit } from '../../units/unit.ts';
import {
  areaMarks,
  areaUnit,
  baseOf,
  baseSpan,
  boundLatex,
  bracketed,
  integralCertainty,
  integralLatex,
  integralParts,
  missingIntegral,
  numberOf,
} from '../areas.ts';
import { intervalStudy, onInterval, studied, withAnswer, type TypedInterval } from '../asking.ts';
import { primed, type CurveResult } from '../curve.ts';
import type { EntryKind } from '../kind.ts';
import { worked } from '../outcome.ts';

const averageValueSchema = z.strictObject({
  ...onInterval,
  kind: z.literal('averageValue'),
  /** The height of the rectangle that is tried; null for the average value itself. */
  height: decimalSchema.nullable(),
});
export type AverageValueEntry = z.infer<typeof averageValueSchema>;

export interface AverageValueResult {
  readonly curve: CurveResult;
  readonly interval: TypedInterval;
  readonly average: KnownNumber;
  /** The height of the rectangle as it is shown. */
  readonly height: number;
  readonly isAverage: boolean;
  readonly unit: Unit;
  readonly told: ToldIntegral;
  /** The exact form of the average value, where it has one. */
  readonly form: Expression | null;
  /** Its definition as LaTeX. */
  readonly statement: string;
}

/** The average value as the height of a rectangle of the same area; the rectangle can be tried at other heights. */
export const averageValueKind: EntryKind<AverageValueEntry, AverageValueResult> = {
  schema: averageValueSchema,
  defaults: { height: null },
  ...intervalStudy,
  head: (_entry, result) => ({
    heading: result
      ? `Average value of ${primed(result.curve.name, result.curve.order)} on ${bracketed(result.interval.texts)}`
      : 'Average value',
    tone: result ? toneOf(result.curve.order, result.curve.family) : 'quiet',
  }),

  workOut: (entry, context) =>
    studied(entry, context, ({ curve, interval, asked }) =>
      withAnswer(context, { ask: 'integral', isTotal: false, ...asked }, (told) => {
        const f = primed(curve.name, curve.order);
        const missing = missingIntegral(told, f, context);
        if (missing) return missing;
        const { average, form } = averageOf(told, interval);
        const isInterval = typeof context.staged === 'string' && context.staged.includes(' ; ');
        const tried = typeof context.staged === 'string' && !isInterval ? context.staged : entry.height;
        const height = tried === null ? average.value : Number(tried);
        const [a, b] = [boundLatex(interval.texts.from, context), boundLatex(interval.texts.to, context)];
        const quotient = `\\frac{1}{${b} - ${isSigned(a) ? `(${a})` : a}}`;
        const statement = `\\overline{${latexFunction(curve.name, curve.order)}} = ${quotient} ${integralLatex(curve, interval, context)}`;
        return worked({
          curve,
          interval,
          average,
          height,
          isAverage: tried === null,
          unit: curve.unit,
          told,
          form,
          statement,
        });
      }),
    ),

  say(result, _entry, { rule, xUnit }) {
    const { curve, told, average, form, statement, isAverage } = result;
    const x = latexName(curve.variable);
    const unit = areaUnit(curve, xUnit);
    return {
      lines: [
        [latex(statement), ...equalsResult(average, rule, form && exactText(form)), ...unitPart(curve.unit)],
        [
          latex(`\\int ${latexFunction(curve.name, curve.order)}(${x})\\,d${x}`),
          ...integralParts(told, unit, rule),
        ],
        ...(isAverage ? [] : [triedLine(result, unit, rule)]),
      ],
      sentence: sentenceOf(result, unit, rule),
      certainty: integralCertainty(told, rule),
    };
  },

  results: ({ average, unit }) => [{ key: 'average', label: 'average value', number: average, unit }],

  marks(id, _entry, { curve, interval, height }, tier) {
    if (curve.tier !== tier.id) return [];
    const tone = toneOf(curve.order, curve.family);
    const ends = [interval.from, interval.to] as const;
    const [x0, x1, y] = [tier.toX(interval.from), tier.toX(interval.to), tier.toY(height)];
    const level: Mark[] = [
      {
        kind: 'bars',
        entry: id,
        bars: Float64Array.of(x0, x1, y),
        base: baseOf(tier),
        tone: 'ink',
        hatch: 'none',
        isOutline: true,
        hasEdges: true,
        dash: dashes.dashed,
      },
      { kind: 'level', entry: id, x: (x0 + x1) / 2, y, tone },
    ];
    return [...areaMarks(id, curve, ends, tone, tier), ...level, baseSpan(id, ends, tone, tier)];
  },
};

const isSigned = (text: string): boolean => /[-+]/.test(text);

/** An end of the interval as a formula. */
const endFormula = ({ from, to, exact }: TypedInterval, which: 0 | 1): Expression => {
  const fraction = exact[which];
  return fraction ? literal(fraction) : numberFormula([from, to][which] as number);
};

/** The integral over the width, with its exact form where the integral has one. */
function averageOf(
  { value, exact }: ToldIntegral,
  interval: TypedInterval,
): { average: KnownNumber; form: Expression | null } {
  const width = tree.subtract(endFormula(interval, 1), endFormula(interval, 0));
  const form = exact && exactForm(tree.divide(exact, width), new Map());
  const quotient = value / (interval.to - interval.from);
  return { average: knownNumber(quotient, form && exactValue(form, new Map())), form };
}

function triedLine(
  { height, interval: { from, to } }: AverageValueResult,
  unit: Unit,
  rule: RoundingRule,
): Line {
  return [
    words('this rectangle '),
    ...equalsResult(knownNumber(height * (to - from)), rule),
    ...unitPart(unit),
  ];
}

function sentenceOf(
  { height, average, told, interval: { from, to }, curve }: AverageValueResult,
  unit: Unit,
  rule: RoundingRule,
): string {
  const f = primed(curve.name, curve.order);
  const difference = height * (to - from) - numberOf(told).value;
  const text = withUnit(format(knownNumber(Math.abs(difference)), rule).text, unit);
  if (Math.abs(height - average.value) <= 1e-12 * Math.max(1, Math.abs(height)))
    return `The rectangle of this height has the same area as ${f} over the interval.`;
  return `This rectangle has ${text} ${difference < 0 ? 'less' : 'more'} than ${f}; at the average value both are the same.`;
}
