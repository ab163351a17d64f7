import * as tree from '../language/tree.ts';
import type { Expression } from '../language/tree.ts';

/** What was decided on one way through a formula: of pieces which, of sizes and the like on which side of 0. */
export class Decisions {
  private readonly made = new Map<Expression, bigint | null>();

  /** Of a part that is gone through twice with different ends nothing is known. */
  note(node: Expression, decision: bigint): bigint {
    const known = this.made.get(node);
    this.made.set(node, known === undefined || known === decision ? decision : null);
    return decision;
  }

  of(node: Expression): bigint | null {
    return this.made.get(node) ?? null;
  }

  /** Those by which pieces were taken. */
  get ofPieces(): Decisions {
    const pieces = new Decisions();
    for (const [node, decision] of this.made) if (node.kind === 'piecewise') pieces.made.set(node, decision);
    return pieces;
  }

  get size(): number {
    return this.made.size;
  }

  /** The same for all ways on which the same was decided. */
  get key(): string {
    return [...this.made].map(([node, decision]) => `${numberOf(node)}:${decision}`).join();
  }
}

const numbers = new WeakMap<Expression, number>();
let count = 0;

function numberOf(node: Expression): number {
  const number = numbers.get(node) ?? ++count;
  numbers.set(node, number);
  return number;
}

const known = new WeakMap<Expression, Map<string, Expression>>();

/** What is left of a formula once its pieces, sizes, least and largest numbers and steps are decided. */
export function leftOf(formula: Expression, decisions: Decisions): Expression {
  if (decisions.size === 0) return formula;
  const found = known.get(formula) ?? new Map<string, Expression>();
  known.set(formula, found);
  const { key } = decisions;
  const left = found.get(key) ?? decided(formula, decisions);
  found.set(key, left);
  return left;
}

function decided(node: Expression, decisions: Decisions): Expression {
  const inner = (part: Expression): Expression => decided(part, decisions);
  const decision = decisions.of(node);
  if (decision === null) return tree.mapChildren(node, inner);
  if (node.kind === 'piecewise') {
    const taken = node.pieces[Number(decision)]?.value ?? node.otherwise;
    return taken ? inner(taken) : node;
  }
  if (node.kind !== 'call') return node;
  const [first, second] = node.arguments.map(inner);
  if (!first) return node;
  switch (node.name) {
    case 'abs':
      return decision > 0n ? first : tree.negate(first);
    case 'min':
    case 'max':
      return second ? (decision > 0n === (node.name === 'max') ? first : second) : node;
    case 'mod':
      return second ? tree.subtract(first, tree.multiply(written(decision), second)) : node;
    default:
      return written(decision);
  }
}

/** A whole number as a formula. */
export const written = (n: bigint): Expression =>
  n < 0n ? tree.negate(tree.number(String(-n))) : tree.number(String(n));
