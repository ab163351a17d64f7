import { spend } from '../budget/effort.ts';
import { operandsOf, type Program, type Step } from '../evaluate/program.ts';
import {
  binaryRow,
  callOfCubicRow,
  callRow,
  chooseRow,
  compareRow,
  integerPowerRow,
  mapRow,
  isHot,
  polynomialRow,
  quotientOfCubicsRow,
  rationalPowerRow,
  type Row,
} from './rows.ts';
import { evaluateAt, nestedValue } from './values.ts';

/** Points worked out together: small enough that the rows of a program stay in the processor's cache. */
const block = 1024;
/** Powers up to this are gathered into one polynomial. */
const highestDegree = 12;

/** A step as a polynomial in another one: coefficients by ascending power; a number alone has degree 0. */
interface Fused {
  readonly base: number;
  readonly coefficients: readonly number[];
}

/**
 * Evaluates a program over arrays, a block of points at a time. Sums of powers of one step are gathered into one
 * polynomial and worked out in one loop (Horner); everything else is one loop a step.
 */
export class ArrayEvaluator {
  private readonly rows = new Map<number, Row>();

  constructor(private readonly program: Program) {}

  /**
   * Writes f(x) for every x of `xs` to `ys`, NaN where f is undefined.
   * @param parameters values in the order of `program.parameters`
   */
  evaluate(xs: Float64Array, ys: Float64Array, parameters: readonly number[] = []): void {
    spend(xs.length * this.program.steps.length);
    const { steps } = this.program;
    const plan = new Plan(steps, parameters);
    const last = steps.length - 1;
    for (let start = 0; start < xs.length; start += block) {
      const count = Math.min(block, xs.length - start);
      this.set(plan.variable, xs.subarray(start, start + count));
      for (const index of plan.needed) this.run(plan, index, count);
      ys.set(this.row(last).subarray(0, count), start);
    }
  }

  private set(index: number, values: Float64Array): void {
    if (index >= 0) this.row(index).set(values);
  }

  private row(index: number): Row {
    const found = this.rows.get(index) ?? new Float64Array(block);
    this.rows.set(index, found);
    return found;
  }

  private runCubics(step: Step, { base, first, second }: Cubics, out: Row, count: number): void {
    const x = this.row(base);
    if (step.op === 'call') callOfCubicRow(step.name, first, x, out, count);
    else quotientOfCubicsRow(first, second, x, out, count);
  }

  private run(plan: Plan, index: number, count: number): void {
    const out = this.row(index);
    const fused = plan.fused[index] as Fused;
    if (fused.base !== index) return polynomialRow(fused.coefficients, this.row(fused.base), out, count);
    const step = this.program.steps[index] as Step;
    const cubics = plan.cubics(step);
    if (cubics) return this.runCubics(step, cubics, out, count);
    switch (step.op) {
      case 'variable':
        return;
      case 'call':
        return callRow(
          step.name,
          step.operands.map((operand) => this.row(operand)),
          out,
          count,
        );
      case 'integerPower':
        return integerPowerRow(this.row(step.a), step.n, out, count);
      case 'rationalPower':
        return rationalPowerRow(this.row(step.a), step.p, step.q, out, count);
      case 'spline':
        return mapRow((x) => step.spline.value(x), this.row(step.a), out, count);
      case 'choose':
        return chooseRow(this.row(step.truth), this.row(step.a), this.row(step.b), out, count);
      case 'compare':
        return compareRow(step.relation, this.row(step.a), this.row(step.b), out, count);
      case 'sum':
      case 'integral':
      case 'limit':
        for (let i = 0; i < count; i++) out[i] = nestedValue(step, (input) => this.row(input)[i] as number);
        return;
      case 'constant':
      case 'parameter':
      case 'negate':
      case 'not':
        throw new TypeError('these are always polynomials');
      default:
        binaryRow(step.op, this.row(step.a), this.row(step.b), out, count);
    }
  }
}

/** Operands that are polynomials of the third degree at most of one step, worked out together with the operation. */
interface Cubics {
  readonly base: number;
  readonly first: readonly number[];
  readonly second: readonly number[];
}

/** Which steps become polynomials of which, with their coefficients for given parameters, and which are worked out. */
class Plan {
  readonly fused: readonly Fused[];
  /** Steps with a row of their own, in order. */
  readonly needed: readonly number[];
  readonly variable: number;

  constructor(
    private readonly steps: readonly Step[],
    parameters: readonly number[],
  ) {
    const fused: Fused[] = [];
    steps.forEach((step, i) => fused.push(fuse(step, i, fused, parameters)));
    this.fused = fused;
    this.variable = steps.findIndex((step) => step.op === 'variable');
    this.needed = this.neededSteps();
  }

  /** The operands of a quotient or of a common function as cubics of one step; undefined where they are none. */
  cubics(step: Step): Cubics | undefined {
    const [a, b] =
      step.op === 'divide' ? [step.a, step.b] : step.op === 'call' && isHot(step.name) ? step.operands : [];
    if (a === undefined) return undefined;
    const first = this.fused[a] as Fused;
    const second = b === undefined ? first : (this.fused[b] as Fused);
    const base = isNumber(first) ? second.base : first.base;
    const isOne = (isNumber(first) || first.base === base) && (isNumber(second) || second.base === base);
    const isSmall = first.coefficients.length <= 4 && second.coefficients.length <= 4;
    const isPlain = first.base === a && second.base === (b ?? a);
    return isOne && isSmall && !isPlain && base !== noBase
      ? { base, first: first.coefficients, second: second.coefficients }
      : undefined;
  }

  private neededSteps(): number[] {
    const needed = new Set<number>();
    const open = [this.steps.length - 1];
    for (let index = open.pop(); index !== undefined; index = open.pop()) {
      if (needed.has(index)) continue;
      needed.add(index);
      const { base } = this.fused[index] as Fused;
      if (base === index) open.push(...this.inputsOf(this.steps[index] as Step));
      else if (base !== noBase) open.push(base);
    }
    return [...needed].sort((a, b) => a - b);
  }

  private inputsOf(step: Step): readonly number[] {
    const cubics = this.cubics(step);
    return cubics ? [cubics.base] : operandsOf(step);
  }
}

/** No other step: a number. */
const noBase = -1;

function fuse(step: Step, index: number, fused: readonly Fused[], parameters: readonly number[]): Fused {
  const itself: Fused = { base: index, coefficients: [0, 1] };
  const of = (i: number): Fused => fused[i] as Fused;
  switch (step.op) {
    case 'constant':
      return { base: noBase, coefficients: [step.value] };
    case 'parameter':
      return { base: noBase, coefficients: [parameters[step.index] ?? NaN] };
    case 'negate':
      return scaled(of(step.a), -1);
    case 'not':
      return added(scaled(of(step.a), -1), { base: noBase, coefficients: [1] }) ?? itself;
    case 'add':
      return added(of(step.a), of(step.b)) ?? itself;
    case 'subtract':
      return added(of(step.a), scaled(of(step.b), -1)) ?? itself;
    case 'multiply':
      return multiplied(of(step.a), of(step.b)) ?? itself;
    case 'integerPower':
      return raised(of(step.a), step.n) ?? itself;
    case 'divide':
      return quotientBy(of(step.a), of(step.b)) ?? itself;
    case 'call':
    case 'rationalPower':
    case 'power':
      return folded(step, fused) ?? itself;
    default:
      return itself;
  }
}

const isNumber = ({ base }: Fused): boolean => base === noBase;

const scaled = ({ base, coefficients }: Fused, factor: number): Fused => ({
  base,
  coefficients: coefficients.map((coefficient) => coefficient * factor),
});

function added(a: Fused, b: Fused): Fused | undefined {
  if (!isNumber(a) && !isNumber(b) && a.base !== b.base) return undefined;
  const length = Math.max(a.coefficients.length, b.coefficients.length);
  const coefficients = Array.from({ length }, (_, k) => (a.coefficients[k] ?? 0) + (b.coefficients[k] ?? 0));
  return { base: isNumber(a) ? b.base : a.base, coefficients };
}

/** Products of one-term polynomials only: multiplying out sums would lose digits beside their zeros. */
function multiplied(a: Fused, b: Fused): Fused | undefined {
  if (isNumber(a)) return scaled(b, a.coefficients[0] as number);
  if (isNumber(b)) return scaled(a, b.coefficients[0] as number);
  const degree = a.coefficients.length + b.coefficients.length - 2;
  const isFused = a.base === b.base && isMonomial(a) && isMonomial(b) && degree <= highestDegree;
  if (!isFused) return undefined;
  return monomial(a.base, (a.coefficients.at(-1) as number) * (b.coefficients.at(-1) as number), degree);
}

function raised(a: Fused, n: number): Fused | undefined {
  const degree = (a.coefficients.length - 1) * n;
  if (isNumber(a) || !isMonomial(a) || n < 1 || degree > highestDegree) return undefined;
  return monomial(a.base, (a.coefficients.at(-1) as number) ** n, degree);
}

const isMonomial = ({ coefficients }: Fused): boolean => coefficients.slice(0, -1).every((c) => c === 0);
const monomial = (base: number, coefficient: number, degree: number): Fused => ({
  base,
  coefficients: [...Array.from({ length: degree }, () => 0), coefficient],
});

/** Division by a number, where that number is not 0. */
function quotientBy(a: Fused, b: Fused): Fused | undefined {
  const divisor = b.coefficients[0] as number;
  if (!isNumber(b) || divisor === 0) return undefined;
  return { base: a.base, coefficients: a.coefficients.map((coefficient) => coefficient / divisor) };
}

/** A function of numbers is a number. */
function folded(step: Step, fused: readonly Fused[]): Fused | undefined {
  const operands = operandsOf(step);
  if (!operands.every((operand) => isNumber(fused[operand] as Fused))) return undefined;
  const values = operands.map((operand): Step => {
    const [value = NaN] = (fused[operand] as Fused).coefficients;
    return { op: 'constant', value, isExact: true };
  });
  const program = { steps: [...values, withOperands(step)], parameters: [] };
  return { base: noBase, coefficients: [evaluateAt(program, 0)] };
}

/** The step with its operands counted from 0. */
function withOperands(step: Step): Step {
  switch (step.op) {
    case 'call':
      return { ...step, operands: step.operands.map((_, i) => i) };
    case 'rationalPower':
      return { ...step, a: 0 };
    case 'power':
      return { ...step, a: 0, b: 1 };
    default:
      throw new TypeError('only functions are folded');
  }
}
