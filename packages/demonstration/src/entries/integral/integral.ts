import { knownNumber, type ToldIntegral } from '@yperkine/core';
import { z } from 'zod';
import { format, type RoundingRule } from '../../numbers/format.ts';
import { latex } from '../../numbers/line.ts';
import { toneOf } from '../../fields/tone.ts';
import { withUnit, type Unit } from '../../units/unit.ts';
import {
  areaMarks,
  areaUnit,
  baseSpan,
  bracketed,
  curveLatex,
  integralCertainty,
  integralLatex,
  integralParts,
  missingIntegral,
  numberOf,
} from '../areas.ts';
import {
  intervalStudy,
  onInterval,
  studied,
  withAnswer,
  type Studied,
  type TypedInterval,
} from '../asking.ts';
import { primed, type CurveResult } from '../curve.ts';
import type { EntryKind } from '../kind.ts';
import { worked } from '../outcome.ts';

const integralSchema = z.strictObject({
  ...onInterval,
  kind: z.literal('integral'),
  /** Whether areas under the axis count like those over it. */
  isTotal: z.boolean(),
});
export type IntegralEntry = z.infer<typeof integralSchema>;

export interface IntegralResult {
  readonly curve: CurveResult;
  readonly interval: TypedInterval;
  readonly told: ToldIntegral;
  readonly unit: Unit;
  /** The integral as LaTeX. */
  readonly statement: string;
}

/** The definite integral as a shaded area: with signs, or the total area between curve and axis. */
export const integralKind: EntryKind<IntegralEntry, IntegralResult> = {
  schema: integralSchema,
  defaults: { isTotal: false },
  ...intervalStudy,
  head: ({ isTotal }, result) => ({
    heading: result
      ? `${isTotal ? 'Total area' : 'Area'} under ${primed(result.curve.name, result.curve.order)} on ${bracketed(result.interval.texts)}`
      : 'Definite integral',
    tone: result ? toneOf(result.curve.order, result.curve.family) : 'quiet',
  }),

  workOut(entry, context) {
    const work = ({ curve, interval, asked }: Studied) =>
      withAnswer(context, { ask: 'integral', isTotal: entry.isTotal, ...asked }, (told) => {
        const missing = missingIntegral(told, primed(curve.name, curve.order), context);
        if (missing) return missing;
        const unit = areaUnit(curve, context.xUnit);
        const integrand = entry.isTotal ? `\\bigl|${curveLatex(curve)}\\bigr|` : curveLatex(curve);
        const statement = integralLatex(curve, interval, context, integrand);
        return worked({ curve, interval, told, unit, statement });
      });
    return studied(entry, context, work, { mayBeInfinite: true });
  },

  say: (result, { isTotal }, { rule }) => ({
    lines: [[latex(result.statement), ...integralParts(result.told, result.unit, rule)]],
    sentence: `${convergenceOf(result.interval)}${sentenceOf(result, isTotal, rule)}`,
    certainty: integralCertainty(result.told, rule),
  }),

  results: ({ told, unit }) => [{ key: 'area', label: 'area', number: numberOf(told), unit }],

  marks(id, _entry, { curve, interval }, tier) {
    if (curve.tier !== tier.id) return [];
    const tone = toneOf(curve.order, curve.family);
    const ends = [interval.from, interval.to] as const;
    return [...areaMarks(id, curve, ends, tone, tier), baseSpan(id, ends, tone, tier)];
  },
};

/** What the value of an integral without an end is, in words that clash with no letter of the document. */
const convergenceOf = ({ from, to }: TypedInterval): string =>
  Number.isFinite(from) && Number.isFinite(to)
    ? ''
    : 'It converges: the integrals over longer and longer intervals approach this number. ';

/** The areas over and under the axis, where there are both. */
function sentenceOf({ told, curve, unit }: IntegralResult, isTotal: boolean, rule: RoundingRule): string {
  const { parts } = told;
  const f = primed(curve.name, curve.order);
  if (!isTotal) return `Areas where ${f} lies under the axis count as negative.`;
  const sum = (sign: 1 | -1): number =>
    parts.reduce((total, part) => (part.sign === sign ? total + Math.abs(part.value) : total), 0);
  const text = (value: number): string => withUnit(format(knownNumber(value), rule).text, unit);
  const [over, under] = [sum(1), sum(-1)];
  if (over === 0 || under === 0)
    return `${f} lies on one side of the axis, so this is the size of the integral.`;
  return `${text(over)} over the axis and ${text(under)} under it, counted together.`;
}
