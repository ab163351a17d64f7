import { isInteger, parseDecimal, toNumber, toText, type Rational } from '../numbers/rational.ts';
import { distanceFormula } from '../algebra/canonical.ts';
import { derivativeOf } from '../algebra/differentiate.ts';
import { awayFromJumps } from '../algebra/jumps.ts';
import { TooLarge } from '../budget/tooLarge.ts';
import { mostFactors, writtenOut } from '../algebra/products.ts';
import type { Table } from '../language/table.ts';
import {
  constantValues,
  type ApplyNode,
  type BinderNode,
  type Condition,
  type ConstantName,
  type Expression,
  type PiecewiseNode,
  type ProductNode,
  type Relation,
  type Side,
  type SummationNode,
} from '../language/tree.ts';
import { spend } from '../budget/effort.ts';
import { literalRational, rationalExponent } from '../algebra/exponent.ts';

/**
 * One step of a straight-line program. Operands are indices of earlier steps, so a program is
 * evaluated in one pass from first to last; equal steps are shared.
 */
export type Step =
  | ConstantStep
  | { readonly op: 'variable' }
  | { readonly op: 'parameter'; readonly index: number }
  | { readonly op: 'negate'; readonly a: number }
  | {
      readonly op: 'add' | 'subtract' | 'multiply' | 'divide' | 'power';
      readonly a: number;
      readonly b: number;
    }
  | { readonly op: 'integerPower'; readonly a: number; readonly n: number }
  /** The real a^(p/q), p/q in lowest terms with q > 1. */
  | { readonly op: 'rationalPower'; readonly a: number; readonly p: number; readonly q: number }
  | { readonly op: 'call'; readonly name: string; readonly operands: readonly number[] }
  | { readonly op: 'spline'; readonly spline: Table; readonly a: number }
  /** The value of a where b is defined, undefined elsewhere. */
  | { readonly op: 'guard'; readonly a: number; readonly b: number }
  /** A truth is 1 or 0, and NaN where it cannot be told. */
  | { readonly op: 'compare'; readonly relation: Relation; readonly a: number; readonly b: number }
  | { readonly op: 'and' | 'or'; readonly a: number; readonly b: number }
  | { readonly op: 'not'; readonly a: number }
  /** The value of a where the truth is 1, of b where it is 0. */
  | { readonly op: 'choose'; readonly truth: number; readonly a: number; readonly b: number }
  | NestedStep;

export interface ConstantStep {
  readonly op: 'constant';
  /** The nearest double. */
  readonly value: number;
  /** Whether the double is the number itself. */
  readonly isExact: boolean;
  /** The number itself where the double is not. */
  readonly exact?: Rational | 'pi' | 'e';
}

/** A program of its own with the bound variable as its variable; `inputs` are the steps that give its parameters. */
export type NestedStep =
  | {
      readonly op: 'sum' | 'integral';
      readonly body: Program;
      readonly from: number;
      readonly to: number;
      readonly inputs: readonly number[];
    }
  | {
      readonly op: 'limit';
      readonly body: Program;
      readonly target: number;
      readonly side: Side;
      readonly inputs: readonly number[];
    };

/** The steps that a step is made of. */
export function operandsOf(step: Step): readonly number[] {
  switch (step.op) {
    case 'constant':
    case 'variable':
    case 'parameter':
      return [];
    case 'negate':
    case 'not':
    case 'integerPower':
    case 'rationalPower':
    case 'spline':
      return [step.a];
    case 'call':
      return step.operands;
    case 'choose':
      return [step.truth, step.a, step.b];
    case 'sum':
    case 'integral':
      return [step.from, step.to, ...step.inputs];
    case 'limit':
      return [step.target, ...step.inputs];
    default:
      return [step.a, step.b];
  }
}

export const isNested = (step: Step): step is NestedStep =>
  step.op === 'sum' || step.op === 'integral' || step.op === 'limit';

/** A function of one variable, ready to be evaluated. Parameters are inputs, never folded in. */
export interface Program {
  readonly steps: readonly Step[];
  /** Names of the parameters, in the order in which their values are given. */
  readonly parameters: readonly string[];
}

/** The table that a program does nothing but look up at its variable. */
export function splineOf({ steps }: Program): Table | undefined {
  const last = steps.at(-1);
  return last?.op === 'spline' && steps[last.a]?.op === 'variable' ? last.spline : undefined;
}

/** A function that a formula may mention: its variables and what it is. */
export interface FunctionBody {
  readonly variables: readonly string[];
  readonly body: Expression;
}
export type Functions = ReadonlyMap<string, FunctionBody>;

export const noFunctions: Functions = new Map();

/** Steps that a program may have; reached only by formulas that mention one another many times over. */
const longestProgram = 20_000;
const deepestMention = 50;
/** Nodes that are looked at while one program is made, those of nested ones included. */
const mostVisits = 400_000;
/** What a node costs beside a step at a point of arrays. */
const nodeCost = 100;
/** Terms of a sum that are written out into the program. */
const mostWrittenOut = 64;

/**
 * Compiles a function of `variable`.
 * @param order compiles the derivative of this order, defined only where the function itself is
 * @throws TooLarge when more than 20,000 steps would be needed, or definitions go in a circle
 */
export function compile(
  body: Expression,
  variable: string,
  functions: Functions = noFunctions,
  order = 0,
): Program {
  const builder = new Builder(functions);
  const bindings: Bindings = new Map([[variable, builder.push({ op: 'variable' })]]);
  builder.last(builder.derivative(body, variable, order, bindings));
  return builder.program;
}

/** Several functions of one variable in one program, their common steps shared. */
export interface Bundle extends Program {
  /** The step of each function. */
  readonly outputs: readonly number[];
}

/** Compiles several functions together. @throws TooLarge as `compile` does */
export function compileTogether(
  bodies: readonly Expression[],
  variable: string,
  functions: Functions = noFunctions,
): Bundle {
  const builder = new Builder(functions);
  const bindings: Bindings = new Map([[variable, builder.push({ op: 'variable' })]]);
  const outputs = bodies.map((body) => builder.derivative(body, variable, 0, bindings));
  return { ...builder.program, outputs };
}

type Bindings = ReadonlyMap<string, number>;

class Builder {
  readonly steps: Step[] = [];
  readonly parameters: string[] = [];
  private readonly known = new Map<string, number>();
  /** The step of each function at each of its arguments, and of each node where its names mean the same. */
  private readonly applied = new Map<string, number>();
  private readonly built = new WeakMap<Bindings, Map<Expression, number>>();

  constructor(
    private readonly functions: Functions,
    private depth = 0,
    private readonly visits = { left: mostVisits },
  ) {}

  push(step: Step): number {
    const key = stepKey(step);
    const found = this.known.get(key);
    if (found !== undefined) return found;
    if (this.steps.length >= longestProgram) throw new TooLarge('too many steps');
    this.known.set(key, this.steps.length);
    return this.steps.push(step) - 1;
  }

  get program(): Program {
    return { steps: this.steps, parameters: this.parameters };
  }

  /** The derivative of `body`, undefined where the lower ones are. */
  derivative(body: Expression, variable: string, order: number, bindings: Bindings): number {
    if (order === 0) return this.build(body, bindings);
    const derived = derivativeOf(body, variable, order);
    return this.guarded(awayFromJumps(derived, body, [variable]), body, bindings);
  }

  /** Makes sure that the given step stands last, where the result is looked for. */
  last(index: number): void {
    if (index !== this.steps.length - 1) this.steps.push({ op: 'guard', a: index, b: index });
  }

  /** Formulas that stand on one another share their parts, so a part is built once, however often it is reached. */
  private build(node: Expression, bindings: Bindings): number {
    const built = this.built.get(bindings) ?? new Map<Expression, number>();
    this.built.set(bindings, built);
    const known = built.get(node);
    if (known !== undefined) return known;
    if (--this.visits.left < 0) throw new TooLarge('too many nodes');
    spend(nodeCost);
    const index = this.buildNode(node, bindings);
    built.set(node, index);
    return index;
  }

  private buildNode(node: Expression, bindings: Bindings): number {
    switch (node.kind) {
      case 'number':
        return this.push(literal(node.text));
      case 'constant':
        return this.push(namedConstant(node.name));
      case 'name':
        return bindings.get(node.name) ?? this.parameter(node.name);
      case 'negate':
        return this.push({ op: 'negate', a: this.build(node.operand, bindings) });
      case 'add':
      case 'subtract':
      case 'multiply':
      case 'divide':
        return this.push({
          op: node.kind,
          a: this.build(node.left, bindings),
          b: this.build(node.right, bindings),
        });
      case 'power':
        return this.power(node.base, node.exponent, bindings);
      case 'call': {
        const operands = node.arguments.map((argument) => this.build(argument, bindings));
        return this.push({ op: 'call', name: node.name, operands });
      }
      case 'apply':
        return this.application(
          node,
          node.arguments.map((argument) => this.build(argument, bindings)),
        );
      case 'distance':
        return this.build(distanceFormula(node), bindings);
      case 'spline':
        return this.push({ op: 'spline', spline: node.spline, a: this.build(node.argument, bindings) });
      case 'piecewise':
        return this.pieces(node, bindings);
      case 'summation':
        return this.summation(node, bindings);
      case 'product':
        return this.product(node, bindings);
      case 'integral':
      case 'limit':
        return this.nested(node, bindings);
      case 'derivative': {
        const inner = new Map([...bindings, [node.variable, this.build(node.at, bindings)]]);
        return this.derivative(node.body, node.variable, node.order, inner);
      }
    }
  }

  private pieces({ pieces, otherwise }: PiecewiseNode, bindings: Bindings): number {
    const last = otherwise
      ? this.build(otherwise, bindings)
      : this.push({ op: 'constant', value: NaN, isExact: true });
    return pieces.reduceRight(
      (rest, { value, condition }) =>
        this.push({
          op: 'choose',
          truth: this.truth(condition, bindings),
          a: this.build(value, bindings),
          b: rest,
        }),
      last,
    );
  }

  private truth(condition: Condition, bindings: Bindings): number {
    switch (condition.kind) {
      case 'not':
        return this.push({ op: 'not', a: this.truth(condition.operand, bindings) });
      case 'and':
      case 'or':
        return this.push({
          op: condition.kind,
          a: this.truth(condition.left, bindings),
          b: this.truth(condition.right, bindings),
        });
      case 'comparison': {
        const operands = condition.operands.map((operand) => this.build(operand, bindings));
        return condition.relations
          .map((relation, i) =>
            this.push({
              op: 'compare',
              relation,
              a: operands[i] as number,
              b: operands[i + 1] as number,
            }),
          )
          .reduce((a, b) => this.push({ op: 'and', a, b }));
      }
    }
  }

  /** A short sum between numbers is written out; any other is a program of its own. */
  private summation(node: SummationNode, bindings: Bindings): number {
    const [from, to] = [literalRational(node.from), literalRational(node.to)];
    const isWhole = from && to && isInteger(from) && isInteger(to);
    const count = isWhole ? Number(to.numerator - from.numerator) + 1 : Infinity;
    if (!isWhole || count > mostWrittenOut) return this.nested(node, bindings);
    const zero = this.push({ op: 'constant', value: 0, isExact: true });
    return Array.from({ length: Math.max(0, count) }, (_, i) => {
      const index = this.push({ op: 'constant', value: Number(from.numerator) + i, isExact: true });
      return this.build(node.body, new Map([...bindings, [node.variable, index]]));
    }).reduce((a, b) => this.push({ op: 'add', a, b }), zero);
  }

  /** A product up to a bound that is not known yet has all factors that it may have, those above the bound as 1. */
  private product(node: ProductNode, bindings: Bindings): number {
    const factors = writtenOut(node);
    if (factors) return this.build(factors, bindings);
    const first = literalRational(node.from);
    if (!first || !isInteger(first) || literalRational(node.to)) throw new TooLarge('too many factors');
    const whole = (value: number): number => this.push({ op: 'constant', value, isExact: true });
    const [to, one] = [this.build(node.to, bindings), whole(1)];
    const within = this.push({
      op: 'compare',
      relation: '≤',
      a: to,
      b: whole(toNumber(first) + mostFactors - 1),
    });
    const below = this.push({ op: 'call', name: 'floor', operands: [to] });
    const isWhole = this.push({ op: 'compare', relation: '=', a: below, b: to });
    const all = Array.from({ length: mostFactors }, (_, i) => {
      const index = whole(toNumber(first) + i);
      const factor = this.build(node.body, new Map([...bindings, [node.variable, index]]));
      const isFactor = this.push({ op: 'compare', relation: '≤', a: index, b: to });
      return this.push({ op: 'choose', truth: isFactor, a: factor, b: one });
    }).reduce((a, b) => this.push({ op: 'multiply', a, b }));
    const truth = this.push({ op: 'and', a: within, b: isWhole });
    return this.push({ op: 'choose', truth, a: all, b: whole(NaN) });
  }

  private nested(node: Exclude<BinderNode, ProductNode>, bindings: Bindings): number {
    const inner = new Builder(this.functions, this.depth + 1, this.visits);
    if (this.depth + 1 > deepestMention) throw new TooLarge('too many constructs inside one another');
    inner.last(inner.build(node.body, new Map([[node.variable, inner.push({ op: 'variable' })]])));
    const body = inner.program;
    const inputs = body.parameters.map((name) => this.build({ kind: 'name', name }, bindings));
    if (node.kind === 'limit') {
      const target = this.build(node.target, bindings);
      return this.push({ op: 'limit', body, target, side: node.side, inputs });
    }
    const [from, to] = [this.build(node.from, bindings), this.build(node.to, bindings)];
    return this.push({ op: node.kind === 'integral' ? 'integral' : 'sum', body, from, to, inputs });
  }

  private parameter(name: string): number {
    const known = this.parameters.indexOf(name);
    return this.push({ op: 'parameter', index: known >= 0 ? known : this.parameters.push(name) - 1 });
  }

  private power(base: Expression, exponent: Expression, bindings: Bindings): number {
    const literalExponent = rationalExponent(exponent);
    if (base.kind === 'constant' && base.name === 'e') {
      return this.push({ op: 'call', name: 'exp', operands: [this.build(exponent, bindings)] });
    }
    const a = this.build(base, bindings);
    if (!literalExponent) return this.push({ op: 'power', a, b: this.build(exponent, bindings) });
    const { p, q } = literalExponent;
    return q === 1 ? this.push({ op: 'integerPower', a, n: p }) : this.push({ op: 'rationalPower', a, p, q });
  }

  private application(node: ApplyNode, args: readonly number[]): number {
    const key = `${node.name}|${node.orders.join()}|${args.join()}`;
    const known = this.applied.get(key);
    if (known !== undefined) return known;
    const index = this.applyTo(node, args);
    this.applied.set(key, index);
    return index;
  }

  private applyTo({ name, orders }: ApplyNode, args: readonly number[]): number {
    const target = this.functions.get(name);
    if (!target || ++this.depth > deepestMention) throw new TooLarge(`cannot work out ${name}`);
    const bindings: Bindings = new Map(target.variables.map((variable, i) => [variable, args[i] as number]));
    const isDerivative = orders.some((order) => order > 0);
    const result = isDerivative
      ? this.guarded(partialDerivative(target, orders), target.body, bindings)
      : this.build(target.body, bindings);
    this.depth--;
    return result;
  }

  /** A derivative, undefined where the function itself is. */
  private guarded(derivative: Expression, body: Expression, bindings: Bindings): number {
    const slope = this.build(derivative, bindings);
    // A table's derivative has no value where the table has none.
    const isTable = body.kind === 'spline' && this.steps[slope]?.op === 'spline';
    return isTable ? slope : this.push({ op: 'guard', a: slope, b: this.build(body, bindings) });
  }
}

/** The derivative of a function's formula, of the given order in each of its variables. */
export function partialDerivative({ variables, body }: FunctionBody, orders: readonly number[]): Expression {
  const derived = variables.reduce((part, variable, i) => derivativeOf(part, variable, orders[i] ?? 0), body);
  return derived === body ? body : awayFromJumps(derived, body, variables);
}

function namedConstant(name: ConstantName): ConstantStep {
  const value = constantValues[name];
  return name === 'infinity'
    ? { op: 'constant', value, isExact: true }
    : { op: 'constant', value, isExact: false, exact: name };
}

function literal(text: string): ConstantStep {
  const exact = parseDecimal(text);
  if (!exact) return { op: 'constant', value: Number(text), isExact: false };
  const value = toNumber(exact);
  return isDouble(exact)
    ? { op: 'constant', value, isExact: true }
    : { op: 'constant', value, isExact: false, exact };
}

/** Whether a decimal is exactly a double: few enough digits over a power of two. */
function isDouble(r: Rational): boolean {
  const isPowerOfTwo = (r.denominator & (r.denominator - 1n)) === 0n;
  return isPowerOfTwo && r.numerator < 2n ** 53n && r.numerator > -(2n ** 53n) && r.denominator < 2n ** 500n;
}

function stepKey(step: Step): string {
  switch (step.op) {
    case 'constant':
      return `c${step.value}${step.isExact ? '' : exactKey(step)}`;
    case 'variable':
      return 'x';
    case 'parameter':
      return `p${step.index}`;
    case 'negate':
      return `-${step.a}`;
    case 'spline':
      return `${step.spline.name}'${step.spline.order}(${step.a})`;
    case 'integerPower':
      return `${step.a}^${step.n}`;
    case 'rationalPower':
      return `${step.a}^${step.p}/${step.q}`;
    case 'call':
      return `${step.name}(${step.operands.join()})`;
    case 'add':
    case 'subtract':
    case 'multiply':
    case 'divide':
    case 'power':
    case 'guard':
    case 'and':
    case 'or':
      return `${step.op}${step.a},${step.b}`;
    case 'compare':
      return `${step.a}${step.relation}${step.b}`;
    case 'not':
      return `not${step.a}`;
    case 'choose':
      return `${step.truth}?${step.a}:${step.b}`;
    case 'sum':
    case 'integral':
      return `${step.op}${step.from},${step.to},${step.inputs.join()}:${programKey(step.body)}`;
    case 'limit':
      return `limit${step.target}${step.side},${step.inputs.join()}:${programKey(step.body)}`;
  }
}

const exactKey = ({ exact }: ConstantStep): string =>
  typeof exact === 'object' ? toText(exact) : (exact ?? '~');

const programKey = (program: Program): string => program.steps.map(stepKey).join(';');
