import { builtIn } from '../functions/table.ts';
import * as intervals from '../numbers/interval.ts';
import type { Interval } from '../numbers/interval.ts';
import { spend } from '../budget/effort.ts';
import { isRelated } from '../algebra/exact.ts';
import type { NestedStep, Program, Step } from './program.ts';
import { indices } from './summation.ts';
import type { Relation } from '../language/tree.ts';

/** An enclosure of f over every x in [low, high], and whether f is defined and continuous there. */
export function enclose(
  program: Program,
  low: number,
  high: number,
  parameters: readonly number[] = [],
): Interval {
  return run(program, { low, high, sure: true }, parameters.map(parameterInterval)).at(-1) as Interval;
}

/** What an enclosure costs beside a point of arrays, and a step of it. */
const callCost = 60;
const stepCost = 20;

/** The enclosures of all steps. `limit` may cut a step's enclosure by what is known about it. */
export function run(
  program: Program,
  x: Interval,
  parameters: readonly Interval[],
  limit: (value: Interval, index: number) => Interval = (value) => value,
): Interval[] {
  spend(callCost + stepCost * program.steps.length);
  const values: Interval[] = [];
  const of = (index: number): Interval => values[index] as Interval;
  program.steps.forEach((step, i) => values.push(limit(stepInterval(step, of, x, parameters), i)));
  return values;
}

/** The enclosure of one step from those of the steps before it. */
export function stepInterval(
  step: Step,
  of: (index: number) => Interval,
  x: Interval,
  parameters: readonly Interval[],
): Interval {
  switch (step.op) {
    case 'constant':
      return constantInterval(step.value, step.isExact);
    case 'variable':
      return x;
    case 'parameter':
      return parameters[step.index] ?? intervals.nothing;
    case 'negate':
      return intervals.negate(of(step.a));
    case 'add':
      return intervals.add(of(step.a), of(step.b));
    case 'subtract':
      return intervals.subtract(of(step.a), of(step.b));
    case 'multiply':
      return step.a === step.b
        ? intervals.integerPower(of(step.a), 2)
        : intervals.multiply(of(step.a), of(step.b));
    case 'divide':
      return intervals.divide(of(step.a), of(step.b));
    case 'power':
      return intervals.generalPower(of(step.a), of(step.b));
    case 'integerPower':
      return intervals.integerPower(of(step.a), step.n);
    case 'rationalPower':
      return intervals.rationalPower(of(step.a), step.p, step.q);
    case 'call':
      return builtIn(step.name).range(...step.operands.map(of));
    case 'spline':
      return step.spline.enclose(of(step.a));
    case 'guard':
      return guard(of(step.a), of(step.b));
    case 'compare':
      return compare(step.relation, of(step.a), of(step.b));
    case 'and':
      return junction(of(step.a), of(step.b), 0);
    case 'or':
      return junction(of(step.a), of(step.b), 1);
    case 'not':
      return intervals.subtract(intervals.exactly(1), of(step.a));
    case 'choose':
      return choose(of(step.truth), of(step.a), of(step.b));
    case 'sum':
      return sum(step, of);
    case 'integral':
      return integral(step, of);
    case 'limit':
      return intervals.everything;
  }
}

function constantInterval(value: number, isExact: boolean): Interval {
  if (Number.isNaN(value)) return intervals.nothing;
  return isExact ? intervals.exactly(value) : intervals.outward(value, value);
}

const unknownTruth = (sure: boolean): Interval => ({ low: 0, high: 1, sure });

function compare(relation: Relation, a: Interval, b: Interval): Interval {
  if (intervals.isNothing(a) || intervals.isNothing(b)) return intervals.nothing;
  const sure = a.sure && b.sure;
  const signs = a.high < b.low ? [-1] : a.low > b.high ? [1] : overlap(a, b);
  const truths = signs.map((sign) => isRelated(sign, relation));
  if (truths.every(Boolean)) return { low: 1, high: 1, sure };
  return truths.some(Boolean) ? unknownTruth(false) : { low: 0, high: 0, sure };
}

/** The signs that a difference may have whose sides overlap. */
function overlap(a: Interval, b: Interval): number[] {
  const isPoint = a.low === a.high && b.low === b.high;
  if (isPoint) return [0];
  return [...(a.low < b.high ? [-1] : []), 0, ...(a.high > b.low ? [1] : [])];
}

/** and (decisive 0), or (decisive 1): one side that decides is enough, defined or not. */
function junction(a: Interval, b: Interval, decisive: 0 | 1): Interval {
  const decides = (x: Interval): boolean => x.low === decisive && x.high === decisive && x.sure;
  if (decides(a) || decides(b)) return intervals.exactly(decisive);
  if (intervals.isNothing(a) || intervals.isNothing(b)) return unknownTruth(false);
  const pick = decisive === 0 ? Math.min : Math.max;
  return { low: pick(a.low, b.low), high: pick(a.high, b.high), sure: a.sure && b.sure };
}

function choose(truth: Interval, a: Interval, b: Interval): Interval {
  if (intervals.isNothing(truth)) return intervals.nothing;
  const isDecided = truth.low === truth.high;
  if (isDecided) {
    const chosen = truth.low === 1 ? a : b;
    return truth.sure ? chosen : { ...chosen, sure: false };
  }
  return hull(a, b);
}

function hull(a: Interval, b: Interval): Interval {
  if (intervals.isNothing(a) || intervals.isNothing(b)) {
    const defined = intervals.isNothing(a) ? b : a;
    return { ...defined, sure: false };
  }
  return { low: Math.min(a.low, b.low), high: Math.max(a.high, b.high), sure: false };
}

/** Terms of a sum that are enclosed one by one. */
export const mostEnclosedTerms = 2000;

function sum(step: NestedStep & { op: 'sum' | 'integral' }, of: (index: number) => Interval): Interval {
  const [from, to] = [of(step.from), of(step.to)];
  const range = from.low === from.high && to.low === to.high ? indices(from.low, to.low) : null;
  if (!range || range.count > mostEnclosedTerms) return intervals.everything;
  const inputs = step.inputs.map(of);
  let total = intervals.exactly(0);
  for (let i = 0; i < range.count; i++) {
    const term = run(step.body, intervals.exactly(range.first + i), inputs).at(-1) as Interval;
    total = intervals.add(total, term);
  }
  return total;
}

/** Parts of an integral's way; on each the integrand lies between its bounds. */
const enclosedParts = 64;

function integral(step: NestedStep & { op: 'sum' | 'integral' }, of: (index: number) => Interval): Interval {
  const [from, to] = [of(step.from), of(step.to)];
  if (intervals.isNothing(from) || intervals.isNothing(to)) return intervals.nothing;
  const inputs = step.inputs.map(of);
  const part = intervals.multiply(intervals.subtract(to, from), intervals.exactly(1 / enclosedParts));
  let total = intervals.exactly(0);
  for (let i = 0; i < enclosedParts; i++) {
    const start = intervals.add(from, intervals.multiply(part, intervals.exactly(i)));
    const stretch = intervals.add(start, intervals.multiply(part, { low: 0, high: 1, sure: true }));
    const height = run(step.body, { ...stretch, sure: true }, inputs).at(-1) as Interval;
    if (!height.sure) return intervals.everything;
    total = intervals.add(total, intervals.multiply(part, height));
  }
  return total;
}

const parameterInterval = (value: number | undefined): Interval =>
  value === undefined || Number.isNaN(value) ? intervals.nothing : intervals.exactly(value);

function guard(value: Interval, condition: Interval): Interval {
  if (intervals.isNothing(condition)) return intervals.nothing;
  return condition.sure ? value : { ...value, sure: false };
}
