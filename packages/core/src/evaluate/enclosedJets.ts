import { builtIn } from '../functions/table.ts';
import type { Table } from '../language/table.ts';
import { spend } from '../budget/effort.ts';
import { mostEnclosedTerms, stepInterval } from './enclosures.ts';
import * as intervals from '../numbers/interval.ts';
import type { Interval } from '../numbers/interval.ts';
import * as jets from '../numbers/intervalJet.ts';
import type { IntervalJet } from '../numbers/intervalJet.ts';
import type { NestedStep, Program, Step } from './program.ts';
import { indices } from './summation.ts';

/** A coefficient of a step's jet beside its value at a point. */
const coefficientCost = 150;

/**
 * Enclosures of the Taylor coefficients of f, f⁽ᵏ⁾(x)/k! at index k, for every x of a part of the axis.
 * @param x where the variable is: a jet, so that f may be asked for along another function
 * @param parameters values in the order of `program.parameters`
 */
export function enclosedJet(
  program: Program,
  x: IntervalJet,
  parameters: readonly Interval[] = [],
): IntervalJet {
  return run(
    program,
    x,
    parameters.map((value) => jets.constant(value, jets.lengthOf(x))),
  );
}

function run(program: Program, x: IntervalJet, parameters: readonly IntervalJet[]): IntervalJet {
  spend(coefficientCost * jets.lengthOf(x) * program.steps.length);
  const values: IntervalJet[] = [];
  const of = (index: number): IntervalJet => values[index] as IntervalJet;
  for (const step of program.steps) values.push(stepJet(step, of, x, parameters));
  return values.at(-1) as IntervalJet;
}

function stepJet(
  step: Step,
  of: (index: number) => IntervalJet,
  x: IntervalJet,
  parameters: readonly IntervalJet[],
): IntervalJet {
  const length = jets.lengthOf(x);
  switch (step.op) {
    case 'variable':
      return x;
    case 'parameter':
      return parameters[step.index] ?? jets.rough(intervals.nothing, length);
    case 'negate':
      return jets.negate(of(step.a));
    case 'add':
      return jets.add(of(step.a), of(step.b));
    case 'subtract':
      return jets.subtract(of(step.a), of(step.b));
    case 'multiply':
      return step.a === step.b ? jets.integerPower(of(step.a), 2) : jets.multiply(of(step.a), of(step.b));
    case 'divide':
      return jets.divide(of(step.a), of(step.b));
    case 'power':
      return generalPower(of(step.a), of(step.b));
    case 'integerPower':
      return jets.integerPower(of(step.a), step.n);
    case 'rationalPower':
      return jets.rationalPower(of(step.a), step.p, step.q);
    case 'call':
      return builtIn(step.name).rangeJet(...step.operands.map(of));
    case 'spline':
      return ofSpline(step.spline, of(step.a));
    case 'guard':
      return jets.valuesOf(of(step.b)).sure ? of(step.a) : jets.rough(ofValues(step, of), length);
    case 'choose':
      return chosen(step, of, length);
    case 'sum':
      return sum(step, of, length);
    case 'integral':
      return integral(step, of, length);
    case 'constant':
      return jets.constant(ofValues(step, of), length);
    case 'compare':
    case 'and':
    case 'or':
    case 'not':
    case 'limit':
      return jets.rough(ofValues(step, of), length);
  }
}

/** A step over the values alone. */
const ofValues = (step: Step, of: (index: number) => IntervalJet): Interval =>
  stepInterval(step, (index) => jets.valuesOf(of(index)), intervals.nothing, []);

/** u^v = e^(v ln u), and a whole constant power as such. */
function generalPower(u: IntervalJet, v: IntervalJet): IntervalJet {
  const { low, high } = jets.valuesOf(v);
  const isWhole = low === high && Number.isInteger(low) && Math.abs(low) < 1e4;
  if (isWhole && jets.standsStill(v)) return jets.integerPower(u, low);
  return jets.withValues(
    jets.exp(jets.multiply(v, jets.ln(u))),
    intervals.generalPower(jets.valuesOf(u), jets.valuesOf(v)),
  );
}

/** A table along u: its slope is a table, too, down to the one that is 0. */
function ofSpline(spline: Table, u: IntervalJet): IntervalJet {
  return jets.along(
    u,
    (shorter) => ofSpline(spline.derivative, shorter),
    (x) => spline.enclose(x),
  );
}

function chosen(
  step: Step & { op: 'choose' },
  of: (index: number) => IntervalJet,
  length: number,
): IntervalJet {
  const { low, high, sure } = jets.valuesOf(of(step.truth));
  if (low === high && sure) return of(low === 1 ? step.a : step.b);
  return jets.rough(ofValues(step, of), length);
}

function sum(
  step: NestedStep & { op: 'sum' | 'integral' },
  of: (index: number) => IntervalJet,
  length: number,
): IntervalJet {
  const [from, to] = [jets.valuesOf(of(step.from)), jets.valuesOf(of(step.to))];
  const range = from.low === from.high && to.low === to.high ? indices(from.low, to.low) : null;
  const isFixed = jets.standsStill(of(step.from)) && jets.standsStill(of(step.to));
  if (!range || !isFixed || range.count > mostEnclosedTerms) return jets.rough(ofValues(step, of), length);
  const inputs = step.inputs.map(of);
  let total = jets.constant(intervals.exactly(0), length);
  for (let i = 0; i < range.count; i++) {
    const index = jets.constant(intervals.exactly(range.first + i), length);
    total = jets.add(total, run(step.body, index, inputs));
  }
  return total;
}

/** d/dx ∫ from u to v of f = f(v) v′ − f(u) u′, where nothing moves but the ends. */
function integral(
  step: NestedStep & { op: 'sum' | 'integral' },
  of: (index: number) => IntervalJet,
  length: number,
): IntervalJet {
  const value = ofValues(step, of);
  if (!step.inputs.map(of).every(jets.standsStill)) return jets.rough(value, length);
  const along = (end: IntervalJet, values: Interval): IntervalJet =>
    jets.standsStill(end)
      ? jets.constant(values, length)
      : jets.along(
          end,
          (x) =>
            run(
              step.body,
              x,
              step.inputs.map((index) => jets.cut(of(index), jets.lengthOf(x))),
            ),
          () => values,
        );
  return jets.subtract(along(of(step.to), value), along(of(step.from), intervals.exactly(0)));
}
