import { builtIn } from '../functions/table.ts';
import { rationalPowerValue } from '../numbers/jet.ts';
import { isRelated } from '../algebra/exact.ts';
import { limitBy } from '../limit/limit.ts';
import { spend } from '../budget/effort.ts';
import { integralBy } from './integral.ts';
import { sumOf } from '../evaluate/summation.ts';
import type { NestedStep, Program, Step } from '../evaluate/program.ts';
import type { Relation } from '../language/tree.ts';

/** a/b, undefined for b = 0: a pole has no value, so that 1/(1/x) has none at 0 either. */
export const quotient = (a: number, b: number): number => (b === 0 ? NaN : a / b);

/** aⁿ, undefined for 0 to a negative power. */
const integerPower = (a: number, n: number): number => (a === 0 && n < 0 ? NaN : a ** n);

/** base^exponent, undefined for a negative base unless the exponent is whole. */
export function generalPower(base: number, exponent: number): number {
  const isUndefined = base < 0 ? !Number.isInteger(exponent) : base === 0 && exponent < 0;
  return isUndefined ? NaN : base ** exponent;
}

/** 1 where the relation holds, 0 where not, NaN where a side is undefined. */
export function compare(relation: Relation, a: number, b: number): number {
  if (Number.isNaN(a) || Number.isNaN(b)) return NaN;
  return isRelated(a < b ? -1 : a > b ? 1 : 0, relation) ? 1 : 0;
}

/** Both hold; one that does not decides even where the other cannot be told (Kleene's logic). */
export const and = (a: number, b: number): number => (a === 0 || b === 0 ? 0 : a * b);
export const or = (a: number, b: number): number => (a === 1 || b === 1 ? 1 : a + b);
export const choose = (truth: number, a: number, b: number): number =>
  Number.isNaN(truth) ? NaN : truth === 1 ? a : b;

/** A sum, integral or limit whose bounds and inputs are known. */
export function nestedValue(step: NestedStep, of: (index: number) => number): number {
  const inputs = step.inputs.map(of);
  const at = (x: number): number => evaluateAt(step.body, x, inputs);
  const body = { program: step.body, parameters: inputs, at };
  switch (step.op) {
    case 'sum':
      return sumOf(at, of(step.from), of(step.to));
    case 'integral':
      return integralBy(body, of(step.from), of(step.to));
    case 'limit': {
      const limit = limitBy(body, of(step.target), step.side);
      return limit.kind === 'finite' ? limit.value : NaN;
    }
  }
}

/** What a single point costs beside one of many in arrays, and a step of it. */
const callCost = 30;
const stepCost = 5;

/** f at a single point. */
export function evaluateAt(program: Program, x: number, parameters: readonly number[] = []): number {
  spend(callCost + stepCost * program.steps.length);
  const values: number[] = [];
  const of = (index: number): number => values[index] as number;
  for (const step of program.steps) values.push(stepValue(step, of, x, parameters));
  return values.at(-1) as number;
}

function stepValue(
  step: Step,
  of: (index: number) => number,
  x: number,
  parameters: readonly number[],
): number {
  switch (step.op) {
    case 'constant':
      return step.value;
    case 'variable':
      return x;
    case 'parameter':
      return parameters[step.index] ?? NaN;
    case 'negate':
      return -of(step.a);
    case 'add':
      return of(step.a) + of(step.b);
    case 'subtract':
      return of(step.a) - of(step.b);
    case 'multiply':
      return of(step.a) * of(step.b);
    case 'divide':
      return quotient(of(step.a), of(step.b));
    case 'power':
      return generalPower(of(step.a), of(step.b));
    case 'integerPower':
      return integerPower(of(step.a), step.n);
    case 'rationalPower':
      return rationalPowerValue(of(step.a), step.p, step.q);
    case 'call':
      return builtIn(step.name).value(...step.operands.map(of));
    case 'spline':
      return step.spline.value(of(step.a));
    case 'guard':
      return Number.isNaN(of(step.b)) ? NaN : of(step.a);
    case 'compare':
      return compare(step.relation, of(step.a), of(step.b));
    case 'and':
      return and(of(step.a), of(step.b));
    case 'or':
      return or(of(step.a), of(step.b));
    case 'not':
      return 1 - of(step.a);
    case 'choose':
      return choose(of(step.truth), of(step.a), of(step.b));
    case 'sum':
    case 'integral':
    case 'limit':
      return nestedValue(step, of);
  }
}
