import { naturalLogarithm } from '../functions/exponential.ts';
import { builtIn } from '../functions/table.ts';
import { rationalPowerValue } from './jet.ts';
import { isRelated } from './exact.ts';
import { limitOfProgram } from '../limit/limit.ts';
import { integralOf } from './quadrature.ts';
import { sumOf } from './summation.ts';
import type { NestedStep, Program, Step } from './program.ts';
import type { Relation } from '../language/tree.ts';

/** Points worked out together: small enough that the rows of a program stay in the processor's cache. */
const block = 512;

/** Evaluates a program over arrays, one step at a time for a block of points. Rows are kept between calls. */
export class ArrayEvaluator {
  private readonly rows: Float64Array[];

  constructor(private readonly program: Program) {
    this.rows = program.steps.map(() => new Float64Array(block));
  }

  /**
   * Writes f(x) for every x of `xs` to `ys`, NaN where f is undefined.
   * @param parameters values in the order of `program.parameters`
   */
  evaluate(xs: Float64Array, ys: Float64Array, parameters: readonly number[] = []): void {
    const { steps } = this.program;
    const result = this.rows[steps.length - 1] as Float64Array;
    for (let start = 0; start < xs.length; start += block) {
      const count = Math.min(block, xs.length - start);
      for (let i = 0; i < steps.length; i++) this.run(steps[i] as Step, i, xs, start, count, parameters);
      ys.set(count === block ? result : result.subarray(0, count), start);
    }
  }

  private run(
    step: Step,
    index: number,
    xs: Float64Array,
    start: number,
    count: number,
    parameters: readonly number[],
  ): void {
    const out = this.rows[index] as Float64Array;
    switch (step.op) {
      case 'variable':
        out.set(xs.subarray(start, start + count));
        return;
      case 'constant':
        if (start === 0) out.fill(step.value);
        return;
      case 'parameter':
        if (start === 0) out.fill(parameters[step.index] ?? NaN);
        return;
      case 'call': {
        const operands = step.operands.map((operand) => this.row(operand));
        callRow(step.name, operands, out, count);
        return;
      }
      case 'negate':
        negateRow(this.row(step.a), out, count);
        return;
      case 'integerPower':
        integerPowerRow(this.row(step.a), step.n, out, count);
        return;
      case 'rationalPower':
        rationalPowerRow(this.row(step.a), step.p, step.q, out, count);
        return;
      case 'not':
        for (let i = 0, a = this.row(step.a); i < count; i++) out[i] = 1 - at(a, i);
        return;
      case 'choose':
        chooseRow(this.row(step.truth), this.row(step.a), this.row(step.b), out, count);
        return;
      case 'sum':
      case 'integral':
      case 'limit':
        for (let i = 0; i < count; i++) out[i] = nestedValue(step, (index) => at(this.row(index), i));
        return;
      case 'compare':
        compareRow(step.relation, this.row(step.a), this.row(step.b), out, count);
        return;
      default:
        binaryRow(step.op, this.row(step.a), this.row(step.b), out, count);
    }
  }

  private row(index: number): Float64Array {
    return this.rows[index] as Float64Array;
  }
}

type Row = Float64Array;
const at = (row: Row, i: number): number => row[i] as number;

function negateRow(a: Row, out: Row, count: number): void {
  for (let i = 0; i < count; i++) out[i] = -at(a, i);
}

function binaryRow(
  op: 'add' | 'subtract' | 'multiply' | 'divide' | 'power' | 'guard' | 'and' | 'or',
  a: Row,
  b: Row,
  out: Row,
  count: number,
): void {
  switch (op) {
    case 'add':
      for (let i = 0; i < count; i++) out[i] = at(a, i) + at(b, i);
      return;
    case 'subtract':
      for (let i = 0; i < count; i++) out[i] = at(a, i) - at(b, i);
      return;
    case 'multiply':
      for (let i = 0; i < count; i++) out[i] = at(a, i) * at(b, i);
      return;
    case 'divide':
      for (let i = 0; i < count; i++) out[i] = quotient(at(a, i), at(b, i));
      return;
    case 'power':
      for (let i = 0; i < count; i++) out[i] = generalPower(at(a, i), at(b, i));
      return;
    case 'guard':
      for (let i = 0; i < count; i++) out[i] = Number.isNaN(at(b, i)) ? NaN : at(a, i);
      return;
    case 'and':
      for (let i = 0; i < count; i++) out[i] = and(at(a, i), at(b, i));
      return;
    case 'or':
      for (let i = 0; i < count; i++) out[i] = or(at(a, i), at(b, i));
  }
}

function compareRow(relation: Relation, a: Row, b: Row, out: Row, count: number): void {
  for (let i = 0; i < count; i++) out[i] = compare(relation, at(a, i), at(b, i));
}

function chooseRow(truth: Row, a: Row, b: Row, out: Row, count: number): void {
  for (let i = 0; i < count; i++) out[i] = choose(at(truth, i), at(a, i), at(b, i));
}

/** By squaring from the highest binary digit of the exponent down, a whole row at a time. */
function integerPowerRow(a: Row, n: number, out: Row, count: number): void {
  const digits = Math.abs(n).toString(2);
  if (n === 0) return void out.fill(1, 0, count);
  for (let i = 0; i < count; i++) out[i] = at(a, i);
  for (const digit of digits.slice(1)) {
    for (let i = 0; i < count; i++) out[i] = at(out, i) * at(out, i);
    if (digit === '1') for (let i = 0; i < count; i++) out[i] = at(out, i) * at(a, i);
  }
  if (n < 0) for (let i = 0; i < count; i++) out[i] = quotient(1, at(out, i));
}

function rationalPowerRow(a: Row, p: number, q: number, out: Row, count: number): void {
  for (let i = 0; i < count; i++) out[i] = rationalPowerValue(at(a, i), p, q);
}

/** Hot functions have loops of their own, which the machine compiles without a call through a variable. */
function callRow(name: string, operands: readonly Row[], out: Row, count: number): void {
  const [a, b] = operands as [Row, Row | undefined];
  switch (name) {
    case 'sin':
      for (let i = 0; i < count; i++) out[i] = Math.sin(at(a, i));
      return;
    case 'cos':
      for (let i = 0; i < count; i++) out[i] = Math.cos(at(a, i));
      return;
    case 'exp':
      for (let i = 0; i < count; i++) out[i] = Math.exp(at(a, i));
      return;
    case 'ln':
      for (let i = 0; i < count; i++) out[i] = naturalLogarithm(at(a, i));
      return;
    case 'sqrt':
      for (let i = 0; i < count; i++) out[i] = Math.sqrt(at(a, i));
      return;
    case 'abs':
      for (let i = 0; i < count; i++) out[i] = Math.abs(at(a, i));
      return;
    default: {
      const { value } = builtIn(name);
      if (b) for (let i = 0; i < count; i++) out[i] = value(at(a, i), at(b, i));
      else for (let i = 0; i < count; i++) out[i] = value(at(a, i));
    }
  }
}

/** a/b, undefined for b = 0: a pole has no value, so that 1/(1/x) has none at 0 either. */
export const quotient = (a: number, b: number): number => (b === 0 ? NaN : a / b);

/** aⁿ, undefined for 0 to a negative power. */
export const integerPower = (a: number, n: number): number => (a === 0 && n < 0 ? NaN : a ** n);

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
  const body = (x: number): number => evaluateAt(step.body, x, inputs);
  switch (step.op) {
    case 'sum':
      return sumOf(body, of(step.from), of(step.to));
    case 'integral':
      return integralOf(body, of(step.from), of(step.to)).value;
    case 'limit': {
      const limit = limitOfProgram(step.body, of(step.target), step.side, inputs);
      return limit.kind === 'finite' ? limit.value : NaN;
    }
  }
}

/** f at a single point. */
export function evaluateAt(program: Program, x: number, parameters: readonly number[] = []): number {
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
