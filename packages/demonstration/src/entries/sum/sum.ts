import {
  Effort,
  evaluatorFor,
  evenPartition,
  exactSum,
  extremeSum,
  ifInTime,
  knownNumber,
  integralOfProgram,
  OutOfEffort,
  rational,
  sumOver,
  type ExactRule,
  type ExtremeHeights,
  type KnownNumber,
  type Rational,
  type RiemannSum,
  type SumRule,
  type Values,
} from '@yperkine/core';
import { toneOf } from '../../fields/tone.ts';
import { areaUnit, bracketed, errorOf } from '../areas.ts';
import { idsInInterval, studied, type Studied, type TypedInterval } from '../asking.ts';
import { primed, type CurveResult } from '../curve.ts';
import { idsInText, typedValue } from '../formulaValue.ts';
import type { EntryKind, WorkContext } from '../kind.ts';
import { failed, waiting, worked, type Outcome } from '../outcome.ts';
import type { ParameterResult } from '../parameter/result.ts';
import { sumSchema, type SumEntry, type SumResult, type ToldOfSum } from './result.ts';
import { sumLines, sumSentence } from './inWords.ts';
import { sumMarks } from './marks.ts';
import { pointRule, type SumRuleName } from './rules.ts';
import { inThousands } from '../../numbers/inThousands.ts';

/** Parts up to which every rectangle is worked out between two frames, as long as its heights take no more than this. */
const mostWritten = 10_000;
const mostOperations = 3_000_000;
/** Parts up to which a sum is worked out at all. */
const mostParts = 1_000_000;

/** A Riemann sum over a partition of an interval, part by part. */
export const sumKind: EntryKind<SumEntry, SumResult> = {
  schema: sumSchema,
  defaults: {
    rule: 'left',
    against: 'none',
    fraction: '0.25',
    seed: 1,
    cuts: '',
    picks: '',
    showsPoints: true,
    showsTable: true,
  },
  standsOn: ({ on, parts }) => [on, parts],
  dependsOn: (entry, directory) => [
    entry.on,
    entry.parts,
    ...idsInInterval(entry, directory),
    ...idsInText(entry.fraction, directory),
  ],
  head: (_entry, result) => ({
    heading: result
      ? `${strips(result.rule)} under ${primed(result.curve.name, result.curve.order)} on ${bracketed(result.interval.texts)}`
      : 'Rectangle sum',
    tone: result ? toneOf(result.curve.order, result.curve.family) : 'quiet',
  }),

  workOut: (entry, context, previous) =>
    studied(entry, context, (parts) => {
      const n = context.parameter(entry.parts);
      if (!n) return waiting('This waits for its slider, which cannot be worked out yet.');
      return sumOf(entry, context, parts, n, previous);
    }),

  say: (result, _entry, { rule }) => ({
    lines: sumLines(result, rule),
    sentence: sumSentence(result, rule),
  }),

  results: ({ total, unit, told }) => [
    { key: 'total', label: 'total', number: total, unit },
    ...(told ? [{ key: 'error', label: 'error', number: errorOf(total, told.integral), unit }] : []),
  ],

  marks: sumMarks,
};

const strips = (rule: SumRuleName): string =>
  rule === 'trapezoid' ? 'Trapezoids' : rule === 'simpson' ? 'Parabolas' : 'Rectangles';

/** Parts up to which a sum is worked out in exact arithmetic. */
const mostExact = 60;

/** The total as it is shown: exact where all its terms are rational. */
function totalOf(
  total: number,
  entry: SumEntry,
  { interval, asked }: Studied,
  { isEven, count }: Partition,
  fraction: Rational | null,
): KnownNumber {
  const [a, b] = interval.exact;
  const rule = exactRule(entry.rule, fraction);
  if (!a || !b || !rule || !isEven || count > mostExact || entry.picks.trim() !== '')
    return knownNumber(total);
  const exact = exactSum(asked.body, asked.variable, [a, b], count, rule);
  return knownNumber(exact ? rational.toNumber(exact) : total, exact);
}

function exactRule(rule: SumRuleName, fraction: Rational | null): ExactRule | null {
  switch (rule) {
    case 'fraction':
      return fraction && { fraction };
    case 'random':
    case 'lower':
    case 'upper':
      return null;
    default:
      return rule;
  }
}

function sumOf(
  entry: SumEntry,
  context: WorkContext,
  parts: Studied,
  n: ParameterResult,
  previous: SumResult | undefined,
): Outcome<SumResult> {
  const { curve, interval, asked } = parts;
  const partition = partitionOf(entry, context, parts, n);
  if (!partition.ok) return partition;
  const { ends, count, isEven } = partition.result;
  const fraction = typedValue(entry.fraction, context);
  if (entry.rule === 'fraction' || entry.against === 'fraction') {
    if (!fraction.ok) return fraction;
    const share = fraction.result.value.value;
    if (!(share >= 0 && share <= 1))
      return failed('The place in each part is a number from 0, the left end, to 1, the right end.');
  }
  const share = fraction.ok ? fraction.result.value.value : 0.5;
  const needsPairs = [entry.rule, entry.against].includes('simpson');
  if (needsPairs && count % 2 !== 0)
    return failed(`Parabolas take the parts in pairs: ${n.name} has to be even, and ${count} is odd.`);
  if (needsPairs && !isEven) return failed('Parabolas need equal parts; even them out first.');
  const picks = picksOf(entry, ends);
  const many = ends === null ? { n: count, rule: coreRule(entry.rule, share, entry.seed) } : null;
  const answered = context.ask({ ask: 'sum', many, ...asked });
  const isCurrent = answered.state === 'answered' && answered.of !== 'before';
  const told = answered.state === 'answered' ? answered.answer : null;
  const values: Values = (xs, ys) => evaluatorFor(curve.program).evaluate(xs, ys, curve.parameters);
  const sumBy = (rule: SumRuleName): RiemannSum | null =>
    ends && sumWith(values, ends, rule, share, entry.seed, told?.extremes ?? null);
  const sum = picks && ends ? sumOver(values, ends, { points: picks }) : sumBy(entry.rule);
  const second = entry.against === 'none' ? null : sumBy(entry.against);
  const total = sum?.total ?? (many && isCurrent ? told?.total : null) ?? NaN;
  const isToldWithoutValue = many !== null && isCurrent;
  if (!sum && Number.isNaN(total) && !isToldWithoutValue) {
    if (answered.state === 'unanswerable')
      return failed('This sum could not be worked out; fewer parts may help.');
    return previous?.sum === null && previous.rule === entry.rule
      ? { ok: true, result: previous, progress: { isPending: true } }
      : waiting(
          many ? `A sum of ${count} parts is being worked out …` : 'The heights are being looked for …',
        );
  }
  const isUnsettled =
    (entry.rule === 'lower' || entry.rule === 'upper') && told?.extremes?.isProved === false;
  if (Number.isNaN(total) && isUnsettled)
    return failed(
      `Where ${primed(curve.name, curve.order)} is least and greatest could not all be found; a shorter interval may help.`,
    );
  if (Number.isNaN(total))
    return failed(`${primed(curve.name, curve.order)} has no value at a sample point, so the sum has none.`);
  const unit = areaUnit(curve, context.xUnit);
  return worked({
    curve,
    interval,
    count,
    countName: n.name,
    rule: entry.rule,
    sum,
    total: totalOf(total, entry, parts, partition.result, fraction.ok ? fraction.result.value.exact : null),
    unit,
    isEven,
    hasPicks: picks !== null,
    fraction: share,
    against: second && entry.against !== 'none' ? { rule: entry.against, sum: second } : null,
    told: isCurrent ? told : quicklyTold(curve, interval, told),
    isQuick: !isCurrent,
    chosen:
      typeof context.staged === 'number' && sum && context.staged < sum.xs.length ? context.staged : null,
  });
}

/** An estimate by quadrature that stands in for an answer while something is dragged; null where there is none. */
function quicklyTold(
  { program, parameters }: CurveResult,
  { from, to }: TypedInterval,
  last: ToldOfSum | null,
): ToldOfSum | null {
  const value = ifInTime(mostOperations, () => integralOfProgram(program, parameters, from, to));
  if (value === null || Number.isNaN(value)) return null;
  return {
    integral: {
      value,
      exact: null,
      bound: Math.abs(value) * quickShare,
      certainty: 'estimated',
      bounds: null,
      diverges: false,
      undefinedOn: [],
      parts: [],
    },
    extremes: last?.extremes ?? null,
    slope: null,
    bend: null,
    total: null,
  };
}
const quickShare = 1e-9;

interface Partition {
  /** The ends of all parts; null where there are too many to be worked out one by one. */
  readonly ends: Float64Array | null;
  readonly count: number;
  readonly isEven: boolean;
}

function partitionOf(
  { cuts }: SumEntry,
  context: WorkContext,
  { curve, interval: { from, to } }: Studied,
  n: ParameterResult,
): Outcome<Partition> {
  const text = typeof context.staged === 'string' && !context.staged.includes(' ; ') ? context.staged : cuts;
  const inner = readNumbers(text);
  if (inner.some(Number.isNaN)) return failed('The ends of the parts are numbers, separated by semicolons.');
  if (inner.length > 0) {
    const kept = inner.filter((x) => x > from && x < to).sort((p, q) => p - q);
    return worked({ ends: Float64Array.from([from, ...kept, to]), count: kept.length + 1, isEven: false });
  }
  const count = n.value.value;
  if (!Number.isInteger(count) || count < 1)
    return failed(`A sum has at least one part: ${n.name} is a whole number from 1 up.`);
  if (count > mostParts)
    return failed(`That is more than ${inThousands(mostParts, ' ')} parts; please take a smaller ${n.name}.`);
  const isForWorker = count > mostWritten || count * costOf(curve, from) > mostOperations;
  return worked({ ends: isForWorker ? null : evenPartition(from, to, count), count, isEven: true });
}

/** Operations that a value of a curve takes with the numbers that it has. */
function costOf({ program, parameters }: CurveResult, x: number): number {
  const evaluator = evaluatorFor(program);
  const effort = new Effort(mostOperations);
  try {
    effort.spendOn(() => evaluator.evaluate(Float64Array.of(x), new Float64Array(1), parameters));
  } catch (error) {
    if (!(error instanceof OutOfEffort)) throw error;
  }
  return mostOperations - effort.left;
}

/** Numbers of a list as it is stored; NaN for one that cannot be read. */
const readNumbers = (text: string): number[] =>
  text.trim() === ''
    ? []
    : text.split(';').map((part) => {
        const exact = rational.parseDecimal(part.trim().replace('−', '-'));
        return exact ? rational.toNumber(exact) : NaN;
      });

/** The sample points of one's own, one a part; each stays in its part when the parts move. Null where there are none. */
function picksOf({ picks }: SumEntry, ends: Float64Array | null): number[] | null {
  const points = readNumbers(picks);
  if (!ends || points.length !== ends.length - 1 || points.some(Number.isNaN)) return null;
  return points.map((x, i) => Math.min(ends[i + 1] as number, Math.max(ends[i] as number, x)));
}

const coreRule = (rule: SumRuleName, fraction: number, seed: number): SumRule =>
  rule === 'lower' || rule === 'upper' || rule === 'trapezoid' || rule === 'simpson'
    ? rule
    : pointRule(rule, fraction, seed);

/** A sum by one of the rules; null for a lower or upper one while the extrema are looked for. */
function sumWith(
  values: Values,
  ends: Float64Array,
  name: SumRuleName,
  fraction: number,
  seed: number,
  extremes: ExtremeHeights | null,
): RiemannSum | null {
  const rule = coreRule(name, fraction, seed);
  if (rule !== 'lower' && rule !== 'upper') return sumOver(values, ends, rule);
  return extremes && extremeSum(values, extremes, ends, rule);
}
