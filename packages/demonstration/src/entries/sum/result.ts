import type { AnswerTo, KnownNumber, RiemannSum } from '@yperkine/core';
import { z } from 'zod';
import { idSchema, typedSchema } from '../../fields/fields.ts';
import type { Unit } from '../../units/unit.ts';
import { onInterval, type TypedInterval } from '../asking.ts';
import type { CurveResult } from '../curve.ts';
import { sumRuleSchema, type SumRuleName } from './rules.ts';

export const sumSchema = z.strictObject({
  ...onInterval,
  kind: z.literal('sum'),
  /** The parameter that is the number of parts. */
  parts: idSchema,
  rule: sumRuleSchema,
  /** A second rule that is laid over the first. */
  against: sumRuleSchema.or(z.literal('none')),
  /** Where in each part, from 0 to 1, the rule "in between" looks: a number or a formula of parameters. */
  fraction: typedSchema,
  /** Which random points. */
  seed: z.int().min(0).max(1_000_000),
  /** The inner ends of the parts, separated by semicolons; empty for equal parts. */
  cuts: typedSchema,
  /** The sample points of one's own, separated by semicolons; empty for those of the rule. */
  picks: typedSchema,
  /** Whether the points at which the heights are taken are drawn. */
  showsPoints: z.boolean(),
  /** Whether the table of all rectangles is open. */
  showsTable: z.boolean(),
});
export type SumEntry = z.infer<typeof sumSchema>;

/** What the worker tells beside the sum itself. */
export type ToldOfSum = AnswerTo['sum'];

export interface SumResult {
  readonly curve: CurveResult;
  readonly interval: TypedInterval;
  readonly count: number;
  readonly countName: string;
  readonly rule: SumRuleName;
  /** The sum with all its parts; null where there are more than are worked out one by one. */
  readonly sum: RiemannSum | null;
  readonly total: KnownNumber;
  readonly unit: Unit;
  readonly isEven: boolean;
  readonly hasPicks: boolean;
  readonly fraction: number;
  readonly against: { readonly rule: SumRuleName; readonly sum: RiemannSum } | null;
  /** What it is compared with; null where nothing is known. */
  readonly told: ToldOfSum | null;
  /** Whether that is an estimate of this moment, while the answer is worked out. */
  readonly isQuick: boolean;
  /** The rectangle that is looked at. */
  readonly chosen: number | null;
}
