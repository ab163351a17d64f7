import { ownNames } from '../language/ownNames.ts';
import { spend } from '../budget/effort.ts';
import { builtIn } from '../functions/table.ts';
import { rationalPowerValue } from '../numbers/jet.ts';
import { isNested, type Program, type Step } from '../evaluate/program.ts';
import { generalPower } from './values.ts';
import { moduleBytes, op } from './wasmBytes.ts';
import type { Relation } from '../language/tree.ts';

/** Points worked out in one call; its memory is one page of 64 kB. */
const block = 4096;
const bytesPerNumber = 8;
/** Whole exponents up to this are multiplied out. */
const largestMultipliedOut = 64;
/** Programs longer than this stay with the array evaluator, which needs no compiling. */
const longestCompiled = 2000;

/** What compiling a step costs beside running it at a point. */
const compileCost = 400;

type Imported = (...args: number[]) => number;

/**
 * Compiles a program to WebAssembly: one loop over the points, the whole formula inside it, working in
 * place in the module's memory. Parameters are globals of the module, so a moving slider compiles nothing.
 */
export class WasmEvaluator {
  private readonly memory: Float64Array;
  private readonly run: (count: number) => void;
  private readonly globals: WebAssembly.Global[];
  private readonly costOfPoint: number;

  /** @throws whatever the platform throws where WebAssembly is missing or forbidden */
  constructor(program: Program) {
    spend(compileCost * program.steps.length);
    const { bytes, imports } = new Emitter(program).finish();
    const instance = new WebAssembly.Instance(new WebAssembly.Module(bytes), { f: imports });
    const { exports } = instance;
    this.costOfPoint = program.steps.length / 3;
    this.memory = new Float64Array((exports.memory as WebAssembly.Memory).buffer);
    this.run = exports.run as (count: number) => void;
    this.globals = program.parameters.map((_, i) => exports[`p${i}`] as WebAssembly.Global);
  }

  /** Writes f(x) for every x of `xs` to `ys`, NaN where f is undefined. */
  evaluate(xs: Float64Array, ys: Float64Array, parameters: readonly number[] = []): void {
    spend(xs.length * this.costOfPoint);
    this.globals.forEach((global, i) => (global.value = parameters[i] ?? NaN));
    for (let start = 0; start < xs.length; start += block) {
      const count = Math.min(block, xs.length - start);
      this.memory.set(xs.subarray(start, start + count));
      this.run(count * bytesPerNumber);
      ys.set(this.memory.subarray(0, count), start);
    }
  }
}

export const isCompilable = ({ steps }: Program): boolean =>
  steps.length <= longestCompiled && !steps.some(isNested);

/** Parameter and locals of the emitted function: end of the data, place in it, then one local a step. */
const endLocal = 0;
const placeLocal = 1;
const firstStepLocal = 2;

class Emitter {
  private readonly body: number[] = [];
  private readonly imports = new Map<string, { index: number; argumentCount: 1 | 2; call: Imported }>();

  constructor(private readonly program: Program) {}

  finish() {
    const { steps, parameters } = this.program;
    this.emit(op.block, op.loop);
    this.emit(op.localGet(placeLocal), op.localGet(endLocal), op.i32GreaterOrEqualUnsigned, op.branchIf(1));
    steps.forEach((step, i) => {
      this.step(step, i);
      this.emit(op.localSet(i + firstStepLocal));
    });
    this.emit(op.localGet(placeLocal), op.localGet(steps.length - 1 + firstStepLocal), op.f64Store);
    this.emit(op.localGet(placeLocal), op.i32Const(bytesPerNumber), op.i32Add, op.localSet(placeLocal));
    this.emit(op.branch(0), op.end, op.end);
    const imports = [...this.imports].map(([name, { argumentCount }]) => ({ name, argumentCount }));
    const bytes = moduleBytes({
      imports,
      globals: parameters.length,
      pages: 1,
      locals: steps.length,
      body: this.body,
    });
    return { bytes, imports: Object.fromEntries([...this.imports].map(([name, { call }]) => [name, call])) };
  }

  private emit(...codes: (readonly number[])[]): void {
    for (const code of codes) this.body.push(...code);
  }

  private get(step: number): readonly number[] {
    return op.localGet(step + firstStepLocal);
  }

  private step(step: Step, i: number): void {
    switch (step.op) {
      case 'constant':
        return this.emit(op.f64Const(step.value));
      case 'variable':
        return this.emit(op.localGet(placeLocal), op.f64Load);
      case 'parameter':
        return this.emit(op.globalGet(step.index));
      case 'negate':
        return this.emit(this.get(step.a), op.f64Negate);
      case 'add':
        return this.emit(this.get(step.a), this.get(step.b), op.f64Add);
      case 'subtract':
        return this.emit(this.get(step.a), this.get(step.b), op.f64Subtract);
      case 'multiply':
        return this.emit(this.get(step.a), this.get(step.b), op.f64Multiply);
      case 'divide':
        return this.quotient([this.get(step.a)], this.get(step.b));
      case 'power':
        return this.call('power', generalPower, [step.a, step.b]);
      case 'integerPower':
        return this.integerPower(step.a, step.n);
      case 'rationalPower':
        return this.rationalPower(step.a, step.p, step.q);
      case 'call':
        return this.builtIn(step.name, step.operands);
      case 'spline':
        return this.call(`spline${i}`, (x) => step.spline.value(x), [step.a]);
      case 'guard':
        return this.emit(
          this.get(step.a),
          op.f64Const(NaN),
          this.get(step.b),
          this.get(step.b),
          op.f64Equal,
          op.select,
        );
      case 'compare':
        return this.compare(step);
      case 'and':
        return this.junction(step, 0, op.f64Multiply);
      case 'or':
        return this.junction(step, 1, op.f64Add);
      case 'not':
        return this.emit(op.f64Const(1), this.get(step.a), op.f64Subtract);
      case 'choose':
        return this.choose(step);
      case 'sum':
      case 'integral':
      case 'limit':
        throw new TypeError('isCompilable leaves nested programs to the array evaluator');
    }
  }

  /** 1 or 0, and NaN where a side is NaN. */
  private compare({ relation, a, b }: Step & { op: 'compare' }): void {
    this.emit(this.get(a), this.get(b), relationCodes[relation], op.f64FromI32, op.f64Const(NaN));
    this.emit(this.get(a), this.get(a), op.f64Equal, this.get(b), this.get(b), op.f64Equal);
    this.emit(op.i32And, op.select);
  }

  /** The deciding truth where a side has it; otherwise what the operation makes of both. */
  private junction(
    { a, b }: Step & { op: 'and' | 'or' },
    decisive: 0 | 1,
    otherwise: readonly number[],
  ): void {
    this.emit(op.f64Const(decisive), this.get(a), this.get(b), otherwise);
    this.emit(this.get(a), op.f64Const(decisive), op.f64Equal);
    this.emit(this.get(b), op.f64Const(decisive), op.f64Equal, op.i32Or, op.select);
  }

  private choose({ truth, a, b }: Step & { op: 'choose' }): void {
    this.emit(this.get(a), this.get(b), this.get(truth), op.f64Const(1), op.f64Equal, op.select);
    this.emit(op.f64Const(NaN), this.get(truth), this.get(truth), op.f64Equal, op.select);
  }

  /** NaN where the divisor is zero: a pole has no value. */
  private quotient(dividend: readonly (readonly number[])[], divisor: readonly number[]): void {
    this.emit(op.f64Const(NaN), ...dividend, divisor, op.f64Divide);
    this.emit(divisor, op.f64Const(0), op.f64Equal, op.select);
  }

  private integerPower(a: number, n: number): void {
    if (n === 0) return this.emit(op.f64Const(1));
    if (Math.abs(n) > largestMultipliedOut) {
      return this.call(`power${n}`, (x) => generalPower(x, n), [a]);
    }
    if (n > 0) return this.emit(...this.multipliedOut(a, n));
    this.emit(op.f64Const(NaN), op.f64Const(1), ...this.multipliedOut(a, -n), op.f64Divide);
    this.emit(this.get(a), op.f64Const(0), op.f64Equal, op.select);
  }

  /** aⁿ by multiplying powers of two of a; each is made anew from a, and the compiler shares what is equal. */
  private multipliedOut(a: number, n: number): (readonly number[])[] {
    if (n === 1) return [this.get(a)];
    const half = this.multipliedOut(a, Math.floor(n / 2));
    const square = [...half, ...half, op.f64Multiply];
    return n % 2 === 0 ? square : [...square, this.get(a), op.f64Multiply];
  }

  private rationalPower(a: number, p: number, q: number): void {
    if (p === 1 && q === 2) return this.emit(this.get(a), op.f64SquareRoot);
    this.call(`power${p}/${q}`, (x) => rationalPowerValue(x, p, q), [a]);
  }

  private builtIn(name: string, operands: readonly number[]): void {
    const native = natives[name];
    if (native) return this.emit(...operands.map((operand) => this.get(operand)), native);
    const direct = directImports[name];
    if (direct) return this.call(name, direct, operands);
    if (name === 'ln') return this.logarithm(operands[0] as number);
    this.call(name, builtIn(name).value, operands);
  }

  /** ln has no value at 0, where the platform's logarithm says −∞. */
  private logarithm(a: number): void {
    this.emit(op.f64Const(NaN));
    this.call('ln', Math.log, [a]);
    this.emit(this.get(a), op.f64Const(0), op.f64Equal, op.select);
  }

  private call(name: string, imported: (...args: number[]) => number, operands: readonly number[]): void {
    const argumentCount = operands.length === 2 ? 2 : 1;
    const known = this.imports.get(name) ?? { index: this.imports.size, argumentCount, call: imported };
    this.imports.set(name, known);
    this.emit(...operands.map((operand) => this.get(operand)), op.call(known.index));
  }
}

const relationCodes: Readonly<Record<Relation, readonly number[]>> = {
  '<': op.f64Less,
  '≤': op.f64LessOrEqual,
  '>': op.f64Greater,
  '≥': op.f64GreaterOrEqual,
  '=': op.f64Equal,
  '≠': op.f64NotEqual,
};

/** Built-ins that are an instruction. */
const natives = ownNames<readonly number[]>({
  sqrt: op.f64SquareRoot,
  abs: op.f64Abs,
  floor: op.f64Floor,
  ceil: op.f64Ceil,
  min: op.f64Minimum,
  max: op.f64Maximum,
});

/** Handed over as they are, since the platform calls its own functions without a detour. */
const directImports = ownNames<(x: number) => number>({
  sin: Math.sin,
  cos: Math.cos,
  tan: Math.tan,
  exp: Math.exp,
  arcsin: Math.asin,
  arccos: Math.acos,
  arctan: Math.atan,
});
