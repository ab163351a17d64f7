import type { Certificate } from './claims.ts';
import { evaluate, type Course } from './evaluate.ts';
import * as exact from './exact.ts';
import { exactJet, exactVariable, isZero, type ExactJet } from './exact.ts';
import type { Jet } from './jets.ts';
import { withinRules } from './literals.ts';
import * as n from './numbers.ts';
import type { Range } from './numbers.ts';
import * as tree from '../language/tree.ts';
import type { Expression } from '../language/tree.ts';
import type { Quotient } from './quotients.ts';

/** Highest order of a zero that dividend and divisor may share. */
const highestOrder = 6;

/**
 * A quotient beside a place P at which dividend and divisor are exactly 0: both without the factor (x − P)ᵏ. Over a part
 * that begins or ends at P the coefficient k + j of a function holds the coefficient j of the function without that factor,
 * which is a mean of its derivatives. Any other course is left as it is.
 */
export function withoutCommonZero(
  course: Course,
  variable: string,
  place: Expression,
  part: Range,
  length: number,
): Course {
  const { above: dividend, below: divisor } = together(course.body);
  if (!divisor) return course;
  const order = withinRules(() => commonOrder(dividend, divisor, variable, place));
  const at = order && withinRules(() => evaluate(place, '', n.whole(0), 1)[0]?.above[0] ?? null);
  if (!order || !at) return course;
  const lowered = (over: Range, count: number): Quotient | null =>
    withinRules(() => {
      const [above, below] = [dividend, divisor].map((one) =>
        jetOf(one, variable, n.hull(over, at), count + order),
      );
      return above && below ? { above: above.slice(order), below: below.slice(order) } : null;
    });
  const whole = lowered(part, length);
  if (!whole) return course;
  return {
    ...course,
    ...whole,
    at: (x, count) => (n.common(x, at) ? lowered(x, count) : course.at(x, count)),
  };
}

/** A formula as one quotient. */
interface Fraction {
  readonly above: Expression;
  /** Null where nothing is divided by. */
  readonly below: Expression | null;
}

const fractions = new WeakMap<Expression, Fraction>();

/** Sums, products and quotients of quotients over one divisor: sin x/x + x is (sin x + x x)/x. */
function together(node: Expression): Fraction {
  const known = fractions.get(node) ?? brought(node);
  fractions.set(node, known);
  return known;
}

const times = (u: Expression, v: Expression | null): Expression => (v ? tree.multiply(u, v) : u);

function brought(node: Expression): Fraction {
  switch (node.kind) {
    case 'negate': {
      const { above, below } = together(node.operand);
      return { above: tree.negate(above), below };
    }
    case 'add':
    case 'subtract': {
      const [u, v] = [together(node.left), together(node.right)];
      if (!u.below && !v.below) return { above: node, below: null };
      const above = tree.binary(node.kind, times(u.above, v.below), times(v.above, u.below));
      return { above, below: u.below ? times(u.below, v.below) : v.below };
    }
    case 'multiply': {
      const [u, v] = [together(node.left), together(node.right)];
      return { above: times(u.above, v.above), below: u.below ? times(u.below, v.below) : v.below };
    }
    case 'divide': {
      const [u, v] = [together(node.left), together(node.right)];
      // 1/(1/x) has no value at 0.
      if (v.below) return { above: u.above, below: times(node.right, u.below) };
      return { above: u.above, below: times(v.above, u.below) };
    }
    default:
      return { above: node, below: null };
  }
}

/** The exact Taylor coefficients at a place; of a quotient of two that are 0 there those to which it is continued. */
export function exactJetAt(
  formula: Expression,
  variable: string,
  place: Expression,
  length: number,
): ExactJet {
  const { above, below } = together(formula);
  const names = (count: number): Map<string, ExactJet> => new Map([[variable, exactVariable(place, count)]]);
  const order = below ? commonOrder(above, below, variable, place) : 0;
  if (!below || order === 0) return exactJet(formula, names(length), length);
  const count = length + order;
  const lowered = (one: Expression): ExactJet => exactJet(one, names(count), count).slice(order);
  return exact.times(lowered(above), exact.inverse(lowered(below)));
}

/** How often both are exactly 0 at a place; 0 where one of them is not. */
function commonOrder(above: Expression, below: Expression, variable: string, place: Expression): number {
  const length = highestOrder + 1;
  const names = new Map([[variable, exactVariable(place, length)]]);
  const orders = [above, below].map((one) => {
    const first = exactJet(one, names, length).findIndex((coefficient) => !isZero(coefficient));
    return first < 0 ? 0 : first;
  });
  return Math.min(...orders);
}

/** The one jet of a formula over a part; null where it has pieces or divides. */
function jetOf(formula: Expression, variable: string, part: Range, length: number): Jet | null {
  const [only, ...others] = evaluate(formula, variable, part, length);
  return only && others.length === 0 && !only.below && only.isWhole ? only.above : null;
}

/** The same beside whichever of some joints with a known number the part begins or ends at. */
export function withoutZeroBeside(
  course: Course,
  variable: string,
  joints: Certificate['joints'],
  [from, to]: readonly [number, number],
  length: number,
): Course {
  for (const { low, high, at } of joints) {
    if (!at || (high !== from && low !== to)) continue;
    const lowered = withoutCommonZero(course, variable, at, n.between(from, to), length);
    if (lowered !== course) return lowered;
  }
  return course;
}
