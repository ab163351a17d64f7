import { canonical, difference, product, quotient, whole } from '../algebra/canonical.ts';
import { derivativeOf } from '../algebra/differentiate.ts';
import { literal } from '../algebra/literal.ts';
import { degree, polynomialOf } from '../algebra/polynomial.ts';
import * as rational from '../numbers/rational.ts';
import { shortest } from '../algebra/shortest.ts';
import * as tree from '../language/tree.ts';
import type { Expression } from '../language/tree.ts';
import { isExactlyZero, signOfConstant } from '../limit/constantSign.ts';
import { settled, Unsettled } from '../limit/settled.ts';
import { comparePlaces, exactPlace, type Place } from './place.ts';
import { solve } from './solve.ts';

/** The values that a constant may take for something to hold. */
export interface MendingValues {
  /** Whether every value will do. */
  readonly isEvery: boolean;
  /** Single values, where not every one will do. */
  readonly values: readonly Place[];
  /** Whether it is shown that there are no others. */
  readonly isComplete: boolean;
}

/** For which values of a constant a function is continuous at a join, and for which it has no corner there either. */
export interface Mending {
  readonly continuous: MendingValues;
  readonly smooth: MendingValues;
}

/** The range in which a constant is looked for that no algebra finds. */
const reach = 1000;

/** Numbers just beside a join, where the pieces hold that meet there. */
export interface Beside {
  readonly at: Expression;
  readonly left: rational.Rational;
  readonly right: rational.Rational;
}

/**
 * The values of a constant for which the pieces of a function meet at a join, and go on smoothly.
 * @param body a formula in the variable and the constant
 * @returns null where it depends on the constant itself which pieces meet there
 */
export function mendingAt(
  body: Expression,
  variable: string,
  place: Beside,
  constant: string,
): Mending | null {
  const [left, own, right] = [literal(place.left), place.at, literal(place.right)].map((x) =>
    pieceAt(body, variable, x),
  );
  if (!left || !right || !own) return null;
  const at = (piece: Expression, order: number): Expression =>
    tree.substitute(derivativeOf(piece, variable, order), variable, place.at);
  const continuous = both(
    valuesOf(at(left, 0), at(right, 0), constant),
    valuesOf(at(own, 0), at(right, 0), constant),
  );
  return { continuous, smooth: both(continuous, valuesOf(at(left, 1), at(right, 1), constant)) };
}

/** The formula that holds at a number, with every piece chosen; null where that is not decided. */
function pieceAt(node: Expression, variable: string, at: Expression): Expression | null {
  return chosen(node, (condition) => {
    const indicator = tree.piecewise([{ value: tree.number(1), condition }], tree.number(0));
    try {
      const told = settled(tree.substitute(indicator, variable, at), (formula) => signOfConstant(formula));
      return told.kind === 'number' && told.text === '1';
    } catch (error) {
      if (error instanceof Unsettled) return null;
      throw error;
    }
  });
}

function chosen(node: Expression, holds: (condition: tree.Condition) => boolean | null): Expression | null {
  let isTold = true;
  const visit = (part: Expression): Expression => {
    if (part.kind !== 'piecewise') return tree.mapChildren(part, visit);
    for (const { value, condition } of part.pieces) {
      const truth = holds(condition);
      if (truth === null) isTold = false;
      if (truth) return visit(value);
    }
    if (!part.otherwise) isTold = false;
    return part.otherwise ? visit(part.otherwise) : part;
  };
  const formula = visit(node);
  return isTold ? formula : null;
}

/** For which values of a constant two formulas in it are equal. */
function valuesOf(left: Expression, right: Expression, constant: string): MendingValues {
  const gap = shortest(difference(canonical(left), canonical(right)), 'fraction');
  if (!tree.dependsOn(gap, constant)) {
    const sign = signOfConstant(gap);
    return { isEvery: sign === 0, values: [], isComplete: !Number.isNaN(sign) };
  }
  const slope = derivativeOf(gap, constant);
  if (!tree.dependsOn(slope, constant) && Math.abs(signOfConstant(slope)) === 1) {
    const atZero = canonical(tree.substitute(gap, constant, tree.number(0)));
    const root = product([whole(-1), quotient(atZero, canonical(slope))]);
    const value = exactPlace(shortest(root, 'fraction'));
    if (value) return { isEvery: false, values: [value], isComplete: true };
  }
  const bound = boundOfRoots(gap, constant);
  const range = bound ?? reach;
  const { solutions, complete } = solve(left, right, constant, [-range, range]);
  return { isEvery: false, values: solutions, isComplete: complete && bound !== null };
}

/** Cauchy's bound, within which all zeros of a polynomial lie; null for anything else. */
function boundOfRoots(gap: Expression, constant: string): number | null {
  const polynomial = polynomialOf(canonical(gap), constant);
  if (!polynomial || degree(polynomial) < 1) return null;
  const leading = polynomial.at(-1) as rational.Rational;
  const sizes = polynomial.map((c) => Math.abs(rational.toNumber(rational.divide(c, leading))));
  const bound = Math.ceil(1 + Math.max(...sizes));
  return Number.isFinite(bound) ? bound : null;
}

/** The values that do for two things at once. */
function both(a: MendingValues, b: MendingValues): MendingValues {
  if (a.isEvery) return b;
  if (b.isEvery) return a;
  const isIn = (place: Place): boolean => b.values.some((other) => areSame(place, other));
  // One list that is complete is enough: what is not in it will not do.
  return { isEvery: false, values: a.values.filter(isIn), isComplete: a.isComplete || b.isComplete };
}

const areSame = (p: Place, q: Place): boolean =>
  p.exact && q.exact ? isExactlyZero(tree.subtract(p.exact, q.exact)) : comparePlaces(p, q) === 0;

/** Numbers beside a place, half way to its neighbours. */
export function besidePlace(
  place: Place,
  before: Place | undefined,
  behind: Place | undefined,
): Beside | null {
  if (!place.exact) return null;
  const half = (other: Place | undefined, direction: 1 | -1): rational.Rational => {
    const x = other ? (place.value + other.value) / 2 : place.value + direction;
    return rational.fromDouble(x);
  };
  return { at: place.exact, left: half(before, -1), right: half(behind, 1) };
}
