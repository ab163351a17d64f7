import * as rational from '../numbers/rational.ts';
import { literal } from '../algebra/literal.ts';
import { isRelated } from '../algebra/exact.ts';
import { literalRational } from '../algebra/exponent.ts';
import { polynomialFrom } from '../interpolation/through.ts';
import type { ExactPoint } from '../language/table.ts';
import { truthOf } from '../algebra/truth.ts';
import { lastBy, wholePartBy } from './halving.ts';
import * as tree from '../language/tree.ts';
import type { CallNode, Expression, PiecewiseNode, SplineNode } from '../language/tree.ts';

/** Thrown where nothing shows what a formula is at a place. */
export class Unsettled extends Error {}

const zero = tree.number(0);
const kinks: ReadonlySet<string> = new Set(['abs', 'sign', 'min', 'max', 'floor', 'factorial']);

/** The parts of a formula that a place decides on: of an integral its bounds, since its variable goes all the way. */
const partsAtPlace = (node: Expression): readonly Expression[] =>
  node.kind === 'integral' ? [node.from, node.to] : tree.children(node);

/** Whether a formula has one form here and another there: which one holds at a place is settled first. */
export const hasKinks = (node: Expression): boolean =>
  node.kind === 'spline' ||
  node.kind === 'piecewise' ||
  (node.kind === 'call' && kinks.has(node.name)) ||
  partsAtPlace(node).some(hasKinks);

/** A formula without a value. */
const nothing = tree.divide(tree.number(1), zero);

/**
 * A formula as it is at one place: pieces are chosen, corners and steps resolved, and what is 0 there, or at the end of a
 * domain, is put in as that number, so that an enclosure around the place tells its value.
 * @param signOf the sign that a formula has at the place; NaN where nothing shows it
 * @throws Unsettled
 */
export function settled(node: Expression, signOf: (formula: Expression) => number): Expression {
  const sure = (formula: Expression): number => {
    const sign = signOf(formula);
    if (Number.isNaN(sign)) throw new Unsettled('a sign');
    return sign;
  };
  const orZero = (formula: Expression): Expression => (signOf(formula) === 0 ? zero : formula);

  const visit = (part: Expression): Expression => {
    if (part.kind === 'piecewise') return chosen(part);
    if (part.kind === 'integral') return { ...part, from: visit(part.from), to: visit(part.to) };
    const inner = tree.mapChildren(part, visit);
    switch (inner.kind) {
      case 'spline':
        return pieceOf(inner);
      case 'divide':
        return tree.divide(inner.left, orZero(inner.right));
      case 'power': {
        const exponent = literalRational(inner.exponent);
        const isWhole = exponent !== null && rational.isInteger(exponent) && !rational.isNegative(exponent);
        return isWhole ? inner : tree.power(orZero(inner.base), inner.exponent);
      }
      case 'call':
        return ofCall(inner);
      default:
        return inner;
    }
  };

  const chosen = ({ pieces, otherwise }: PiecewiseNode): Expression => {
    for (const { value, condition } of pieces) {
      const truth = truthOf(condition, ({ operands, relations }) =>
        relations.every((relation, i) => {
          const [left, right] = [operands[i], operands[i + 1]] as [Expression, Expression];
          const [a, b] = [tree.sizeAtInfinity(left), tree.sizeAtInfinity(right)];
          if (a !== 0 || b !== 0) return isRelated(a - b, relation);
          return isRelated(sure(tree.subtract(visit(left), visit(right))), relation);
        }),
      );
      if (truth === null) throw new Unsettled('a condition');
      if (truth) return visit(value);
    }
    return otherwise ? visit(otherwise) : nothing;
  };

  /** The polynomial of a table that holds at its argument; at a knot where it has a value, of either side. */
  const pieceOf = ({ spline, argument }: SplineNode): Expression => {
    const points = spline.points as readonly ExactPoint[];
    const side = (i: number): number => sure(tree.subtract(argument, literal((points[i] as ExactPoint).x)));
    const end = points.length - 1;
    if (side(0) < 0 || side(end) > 0) return nothing;
    const low = lastBy((i) => side(i) >= 0, 0, end);
    const knot = [low, low + 1].find((i) => side(i) === 0);
    const isOpen =
      knot !== undefined && Number.isNaN(spline.value(rational.toNumber((points[knot] as ExactPoint).x)));
    if (isOpen) return nothing;
    return polynomialFrom((points[low] as ExactPoint).x, spline.exactPiece(low), argument);
  };

  const ofCall = (call: CallNode): Expression => {
    const [u = zero, v = zero] = call.arguments;
    switch (call.name) {
      case 'abs':
        return [tree.negate(u), zero, u][sure(u) + 1] as Expression;
      case 'sign':
        return literal(rational.rational(sure(u)));
      case 'min':
        return sure(tree.subtract(u, v)) < 0 ? u : v;
      case 'max':
        return sure(tree.subtract(u, v)) > 0 ? u : v;
      case 'floor':
        return wholePart(u);
      case 'factorial': {
        const n = wholePart(u);
        return sure(tree.subtract(u, n)) === 0 ? tree.call('factorial', n) : nothing;
      }
      case 'sqrt':
      case 'cbrt':
      case 'ln':
        return tree.call(call.name, orZero(u));
      case 'root':
        return tree.call(call.name, u, orZero(v));
      case 'arcsin':
      case 'arccos':
      case 'artanh':
        return tree.call(call.name, orNumber(u, -1) ?? orNumber(u, 1) ?? u);
      case 'arcosh':
        return tree.call(call.name, orNumber(u, 1) ?? u);
      default:
        return call;
    }
  };

  const orNumber = (u: Expression, n: number): Expression | null => {
    const number = literal(rational.rational(n));
    return signOf(tree.subtract(u, number)) === 0 ? number : null;
  };

  const wholePart = (u: Expression): Expression => {
    const found = wholePartBy((n) => sure(tree.subtract(u, literal(rational.rational(n)))) >= 0);
    if (found === null) throw new Unsettled('a step too far out');
    return literal(rational.rational(found));
  };

  return visit(node);
}
