import { builtIn } from '../functions/table.ts';
import * as intervals from './interval.ts';
import type { Interval } from './interval.ts';
import type { Program, Step } from './program.ts';

/** An enclosure of f over every x in [low, high], and whether f is defined and continuous there. */
export function enclose(
  program: Program,
  low: number,
  high: number,
  parameters: readonly number[] = [],
): Interval {
  const x: Interval = { low, high, sure: true };
  const values: Interval[] = [];
  const of = (index: number): Interval => values[index] as Interval;
  for (const step of program.steps) values.push(stepInterval(step, of, x, parameters));
  return values.at(-1) as Interval;
}

function stepInterval(
  step: Step,
  of: (index: number) => Interval,
  x: Interval,
  parameters: readonly number[],
): Interval {
  switch (step.op) {
    case 'constant':
      return step.isExact ? intervals.exactly(step.value) : intervals.outward(step.value, step.value);
    case 'variable':
      return x;
    case 'parameter':
      return parameterInterval(parameters[step.index]);
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
    case 'guard':
      return guard(of(step.a), of(step.b));
  }
}

const parameterInterval = (value: number | undefined): Interval =>
  value === undefined || Number.isNaN(value) ? intervals.nothing : intervals.exactly(value);

function guard(value: Interval, condition: Interval): Interval {
  if (intervals.isNothing(condition)) return intervals.nothing;
  return condition.sure ? value : { ...value, sure: false };
}
