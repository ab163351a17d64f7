import { parseDecimal, toNumber, type Rational } from '../algebra/rational.ts';
import { derivativeOf } from '../algebra/differentiate.ts';
import { TooLarge } from '../algebra/limits.ts';
import { constantValues, type Expression } from '../language/tree.ts';
import { rationalExponent } from './exponent.ts';

/**
 * One step of a straight-line program. Operands are indices of earlier steps, so a program is
 * evaluated in one pass from first to last; equal steps are shared.
 */
export type Step =
  /** `value` is the nearest double; `isExact` says whether the double is the number itself. */
  | { readonly op: 'constant'; readonly value: number; readonly isExact: boolean }
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
  /** The value of a where b is defined, undefined elsewhere. */
  | { readonly op: 'guard'; readonly a: number; readonly b: number };

/** A function of one variable, ready to be evaluated. Parameters are inputs, never folded in. */
export interface Program {
  readonly steps: readonly Step[];
  /** Names of the parameters, in the order in which their values are given. */
  readonly parameters: readonly string[];
}

/** A function that a formula may mention: its variable and what it is. */
export interface FunctionBody {
  readonly variable: string;
  readonly body: Expression;
}
export type Functions = ReadonlyMap<string, FunctionBody>;

export const noFunctions: Functions = new Map();

/** Steps that a program may have; reached only by formulas that mention one another many times over. */
export const longestProgram = 20_000;
const deepestMention = 50;

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
  builder.guarded(body, variable, order, bindings);
  return { steps: builder.steps, parameters: builder.parameters };
}

type Bindings = ReadonlyMap<string, number>;

class Builder {
  readonly steps: Step[] = [];
  readonly parameters: string[] = [];
  private readonly known = new Map<string, number>();
  private depth = 0;

  constructor(private readonly functions: Functions) {}

  push(step: Step): number {
    const key = stepKey(step);
    const found = this.known.get(key);
    if (found !== undefined) return found;
    if (this.steps.length >= longestProgram) throw new TooLarge('too many steps');
    this.known.set(key, this.steps.length);
    return this.steps.push(step) - 1;
  }

  /** The derivative of `body`, undefined where the lower ones are, as the last step. */
  guarded(body: Expression, variable: string, order: number, bindings: Bindings): number {
    if (order === 0) return this.last(this.build(body, bindings));
    const derivative = derivativeOf(body, variable, order);
    return this.last(
      this.push({ op: 'guard', a: this.build(derivative, bindings), b: this.build(body, bindings) }),
    );
  }

  /** Makes sure that the given step stands last, where the result is looked for. */
  private last(index: number): number {
    if (index === this.steps.length - 1) return index;
    return this.steps.push({ op: 'guard', a: index, b: index }) - 1;
  }

  private build(node: Expression, bindings: Bindings): number {
    switch (node.kind) {
      case 'number':
        return this.push(literal(node.text));
      case 'constant':
        return this.push({ op: 'constant', value: constantValues[node.name], isExact: false });
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
        return this.application(node.name, node.order, this.build(node.argument, bindings));
    }
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

  private application(name: string, order: number, argument: number): number {
    const target = this.functions.get(name);
    if (!target || ++this.depth > deepestMention) throw new TooLarge(`cannot work out ${name}`);
    const bindings: Bindings = new Map([[target.variable, argument]]);
    const value = this.build(target.body, bindings);
    const result =
      order === 0
        ? value
        : this.push({
            op: 'guard',
            a: this.build(derivativeOf(target.body, target.variable, order), bindings),
            b: value,
          });
    this.depth--;
    return result;
  }
}

function literal(text: string): Step {
  const exact = parseDecimal(text);
  const value = exact ? toNumber(exact) : Number(text);
  return { op: 'constant', value, isExact: exact !== null && isDouble(exact) };
}

/** Whether a decimal is exactly a double: few enough digits over a power of two. */
function isDouble(r: Rational): boolean {
  const isPowerOfTwo = (r.denominator & (r.denominator - 1n)) === 0n;
  return isPowerOfTwo && r.numerator < 2n ** 53n && r.numerator > -(2n ** 53n) && r.denominator < 2n ** 500n;
}

function stepKey(step: Step): string {
  switch (step.op) {
    case 'constant':
      return `c${step.value}${step.isExact ? '' : '~'}`;
    case 'variable':
      return 'x';
    case 'parameter':
      return `p${step.index}`;
    case 'negate':
      return `-${step.a}`;
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
      return `${step.op}${step.a},${step.b}`;
  }
}
