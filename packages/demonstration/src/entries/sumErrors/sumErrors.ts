import {
  evaluatorFor,
  evenPartition,
  extremeSum,
  knownNumber,
  orderOfConvergence,
  polynomialDegree,
  sumOver,
  type SumError,
} from '@yperkine/core';
import { z } from 'zod';
import { format, type RoundingRule } from '../../numbers/format.ts';
import { toneOf } from '../../fields/tone.ts';
import { common, idSchema } from '../../fields/fields.ts';
import { isMissing, numberOf } from '../areas.ts';
import { closedCurve } from '../asking.ts';
import type { CurveResult } from '../curve.ts';
import type { EntryKind, WorkContext } from '../kind.ts';
import { failed, waiting, worked } from '../outcome.ts';
import type { StudyTable } from '../study.ts';
import { exactDegrees, pointRule, ruleNames, sumRuleSchema, type SumRuleName } from '../sum/rules.ts';
import type { SumResult } from '../sum/result.ts';

const sumErrorsSchema = z.strictObject({
  ...common,
  kind: z.literal('sumErrors'),
  /** The sum whose function and interval it is about. */
  of: idSchema,
  rules: z.array(sumRuleSchema).min(1).max(9),
});
export type SumErrorsEntry = z.infer<typeof sumErrorsSchema>;

/** How the error of one rule falls as n doubles. */
export interface RuleErrors {
  readonly rule: SumRuleName;
  readonly errors: readonly SumError[];
  readonly order: number | null;
}

export interface SumErrorsResult {
  readonly series: readonly RuleErrors[];
  /** The degree of the function, where it is a polynomial. */
  readonly degree: number | null;
  /** About the area without signs. */
  readonly size: number;
}

/** 1, 2, 4, … parts, up to this power of two. */
const doublings = 12;
const counts = Array.from({ length: doublings + 1 }, (_, k) => 2 ** k);

/** Estimates of an area for growing n, with change and error, and the order in which the error falls. */
export const sumErrorsKind: EntryKind<SumErrorsEntry, SumErrorsResult> = {
  schema: sumErrorsSchema,
  defaults: { rules: ['left', 'trapezoid', 'midpoint', 'simpson'] },
  standsOn: ({ of }) => [of],
  head: () => ({ heading: 'Error against n', tone: toneOf(0) }),

  workOut(entry, context) {
    const sum = context.result<SumResult>(entry.of);
    if (!sum) return waiting('This waits for its sum, which cannot be worked out yet.');
    if (!sum.told) return waiting('The true area is being worked out …');
    const { curve, interval, told } = sum;
    if (isMissing(told.integral)) return failed('Without a true area there are no errors to compare.');
    const truth = numberOf(told.integral).value;
    const values = (xs: Float64Array, ys: Float64Array) =>
      evaluatorFor(curve.program).evaluate(xs, ys, curve.parameters);
    const series = entry.rules.map((rule): RuleErrors => {
      const errors = counts.flatMap((n): SumError[] => {
        const total = totalOf(rule, evenPartition(interval.from, interval.to, n), values, sum);
        return total === null || Number.isNaN(total) ? [] : [{ n, total, error: total - truth }];
      });
      return { rule, errors, order: orderOfConvergence(errors) };
    });
    const degree = degreeOf(curve, context);
    const size = Math.max(
      Math.abs(truth),
      sum.sum?.areas.reduce((total, area) => total + Math.abs(area), 0) ?? 0,
    );
    return worked({ series, degree, size });
  },

  say: ({ series, degree, size }, _entry, { rule }) => ({
    lines: [],
    sentence: series.map((one) => orderSentence(one, degree, size)).join(' '),
    table: tableOf(series, rule),
  }),

  marks: () => [],
};

function totalOf(
  rule: SumRuleName,
  ends: Float64Array,
  values: (xs: Float64Array, ys: Float64Array) => void,
  { told, fraction }: SumResult,
): number | null {
  if (rule === 'lower' || rule === 'upper')
    return told?.extremes ? extremeSum(values, told.extremes, ends, rule).total : null;
  if (rule === 'simpson') return ends.length % 2 === 1 ? sumOver(values, ends, rule).total : null;
  if (rule === 'trapezoid') return sumOver(values, ends, rule).total;
  return sumOver(values, ends, pointRule(rule, fraction, 1)).total;
}

/** Share of an area that is nothing but rounding. */
const rounding = 1e-12;

/** The degree of a function that is a polynomial; null for any other. */
function degreeOf(curve: CurveResult, context: WorkContext): number | null {
  const closed = closedCurve(curve, context);
  return closed.ok ? polynomialDegree(closed.result.body, curve.variable) : null;
}

/**
 * What an order says, in words.
 * @param degree of the function, where it is a polynomial
 * @param size about the area without signs
 */
function orderSentence({ rule, errors, order }: RuleErrors, degree: number | null, size: number): string {
  const name = ruleNames[rule];
  if (degree !== null && degree <= exactDegrees[rule]) return `${name}: exact for every n.`;
  if (errors.every(({ error }) => Math.abs(error) <= rounding * size))
    return `${name}: no error that can be told from rounding.`;
  if (order === null) return `${name}: no steady order.`;
  const rounded = Math.round(order * 10) / 10;
  const factor = 2 ** order;
  const times =
    factor > 1.9
      ? `doubling n divides the error by about ${factor < 10 ? factor.toFixed(1).replace(/\.0$/, '') : Math.round(factor)}`
      : 'the error falls slowly';
  return `${name}: order ${rounded}; ${times}.`;
}

interface Column {
  readonly head: string;
  readonly at: (n: number) => number | null;
}

/** The totals of all rules side by side, then how the only one changes, then the errors. */
function tableOf(series: readonly RuleErrors[], rounding: RoundingRule): StudyTable {
  const isAlone = series.length === 1;
  const head = (what: 'total' | 'error', { rule }: RuleErrors): string =>
    isAlone ? what : what === 'total' ? ruleNames[rule] : `error, ${ruleNames[rule]}`;
  const found = ({ errors }: RuleErrors, n: number): SumError | undefined =>
    errors.find((one) => one.n === n);
  const changeOf = (one: RuleErrors, n: number): number | null => {
    const [before, now] = [found(one, n / 2), found(one, n)];
    return before && now ? now.total - before.total : null;
  };
  const columns: Column[] = [
    ...series.map((one) => ({ head: head('total', one), at: (n: number) => found(one, n)?.total ?? null })),
    ...(isAlone ? series : []).map((one) => ({ head: 'change', at: (n: number) => changeOf(one, n) })),
    ...series.map((one) => ({ head: head('error', one), at: (n: number) => found(one, n)?.error ?? null })),
  ];
  const names = series.map(({ rule }) => ruleNames[rule]);
  const last = isAlone ? [] : names.splice(-1);
  return {
    caption: `Estimates by ${[names.join(', '), ...last].join(' and ')} sums for growing n`,
    head: ['n', ...columns.map((column) => column.head)],
    rows: counts
      .filter((n) => series.some((one) => found(one, n)))
      .map((n) => {
        const values = columns.map(({ at }) => at(n));
        const numbers = values.map((value) => (value === null ? null : knownNumber(value)));
        const texts = numbers.map((number) => (number ? format(number, rounding).text : ''));
        return { cells: [String(n), ...texts], numbers: [null, ...numbers] };
      }),
  };
}
