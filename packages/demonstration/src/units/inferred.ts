import { exactValue, rational, type Expression, type tree } from '@yperkine/core';
import { isSameUnit, per, times, unitText, type Unit } from './unit.ts';

/**
 * What the unit of a part of a formula is: a unit; a bare number, which may stand for a quantity of any unit where it is
 * added and changes none where it is multiplied; or unknown.
 */
type Known = Unit | 'number' | 'unknown';

export interface InferredUnit {
  /** Null where it cannot be told. */
  readonly unit: Unit | null;
  /** Two quantities of different units that the formula adds or compares, in words. */
  readonly clash: string | null;
}

/** What a formula's names have as units; undefined for those without one. */
export interface UnitsOfNames {
  readonly of: (name: string) => Unit | undefined;
  readonly x: Unit;
}

/** The unit of a formula's value from those of the functions and parameters that it mentions. */
export function inferredUnit(body: Expression, names: UnitsOfNames): InferredUnit {
  const inference = new Inference(names);
  const known = inference.visit(body);
  return { unit: typeof known === 'string' ? null : known, clash: inference.clash };
}

/** Functions of a number whose value has the unit of their argument. */
const keeping = new Set(['abs', 'min', 'max']);

class Inference {
  clash: string | null = null;

  constructor(private readonly names: UnitsOfNames) {}

  visit(node: Expression): Known {
    switch (node.kind) {
      case 'number':
      case 'constant':
        return 'number';
      case 'name':
        return this.names.of(node.name) ?? 'unknown';
      case 'apply':
        return this.differentiated(
          this.names.of(node.name) ?? 'unknown',
          node.orders.reduce((a, b) => a + b, 0),
        );
      case 'negate':
        return this.visit(node.operand);
      case 'add':
      case 'subtract':
        return this.added([node.left, node.right]);
      case 'multiply':
        return multiplied(this.visit(node.left), this.visit(node.right), times);
      case 'divide':
        return multiplied(this.visit(node.left), this.visit(node.right), per);
      case 'power':
        return this.raised(node);
      case 'call':
        return keeping.has(node.name) ? this.added(node.arguments) : this.throughCall(node.arguments);
      case 'piecewise':
        return this.added([
          ...node.pieces.map(({ value }) => value),
          ...(node.otherwise ? [node.otherwise] : []),
        ]);
      case 'derivative':
        return this.differentiated(this.visit(node.body), node.order);
      case 'integral':
        return multiplied(this.visit(node.body), this.names.x, times);
      case 'summation':
      case 'limit':
        return this.visit(node.body);
      case 'product':
      case 'distance':
      case 'spline':
        return 'unknown';
    }
  }

  /** Looked through for what is added in the argument. */
  private throughCall(args: readonly Expression[]): Known {
    return args.map((argument) => this.visit(argument)).every((known) => known === 'number')
      ? 'number'
      : 'unknown';
  }

  private added(parts: readonly Expression[]): Known {
    return parts.map((part) => this.visit(part)).reduce((a, b) => this.sum(a, b));
  }

  private sum(a: Known, b: Known): Known {
    if (typeof a === 'string' || typeof b === 'string') {
      return typeof a !== 'string' ? a : typeof b !== 'string' ? b : a === b ? a : 'unknown';
    }
    if (!isSameUnit(a, b)) {
      this.clash ??= `${unitText(a) || 'a bare number'} and ${unitText(b) || 'a bare number'}`;
    }
    return a;
  }

  private differentiated(known: Known, order: number): Known {
    return typeof known === 'string' ? known : per(known, this.names.x, order);
  }

  private raised({ base, exponent }: tree.PowerNode): Known {
    const known = this.visit(base);
    const exact = exactValue(exponent, new Map());
    if (typeof known === 'string') return known;
    if (!exact || !rational.isInteger(exact)) return 'unknown';
    const n = Number(exact.numerator);
    return new Map([...known].flatMap(([symbol, k]) => (n === 0 ? [] : [[symbol, n * k] as const])));
  }
}

function multiplied(a: Known, b: Known, operation: (a: Unit, b: Unit) => Unit): Known {
  if (a === 'unknown' || b === 'unknown') return 'unknown';
  if (a === 'number' && b === 'number') return 'number';
  return operation(a === 'number' ? new Map() : a, b === 'number' ? new Map() : b);
}
