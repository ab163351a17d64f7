import * as tree from '../language/tree.ts';
import type { CallNode, Expression } from '../language/tree.ts';
import { written } from './decisions.ts';
import { isIdenticallyZero } from './identities.ts';
import { NoRule } from './literals.ts';
import * as n from './numbers.ts';
import type { Float, Range } from './numbers.ts';
import { hasNoPole, signOfRational } from './polynomials.ts';
import { whole, type Quotient } from './quotients.ts';

/** What the names in a formula stand for. */
export type Names = ReadonlyMap<string, Quotient>;

/** A number as a formula, and the variable that stands for it. */
export interface ExactPlace {
  readonly name: string;
  readonly at: Expression;
}

/** What algebra tells of a formula, on whose side of 0 or whose steps a function depends, where bounds do not. */
export interface Algebra {
  /** Its sign inside the part. */
  readonly counted: () => -1 | 0 | 1 | null;
  /** Whether it may be a whole number inside the part. */
  readonly reaches: (k: bigint) => boolean;
  /** Whether it is a whole number at the place that is looked at. */
  readonly equals: (k: bigint) => boolean;
}

export function algebraOf(formula: Expression, names: Names, place: ExactPlace | null): Algebra {
  const without = (k: bigint): Expression => (k === 0n ? formula : tree.subtract(formula, written(k)));
  return {
    counted: () => signOver(formula, names),
    reaches: (k) => !signOver(without(k), names),
    equals: (k) => place !== null && isIdenticallyZero(tree.substitute(without(k), place.name, place.at)),
  };
}

const half = tree.divide(tree.number(1), tree.number(2));

/** The formula whose sign, or whose largest whole number below it, decides what a function is. */
export function comparedIn({ name, arguments: [first, second] }: CallNode): Expression {
  if (!first) throw new NoRule(name);
  switch (name) {
    case 'min':
    case 'max':
      return second ? tree.subtract(first, second) : first;
    case 'mod':
      return second ? tree.divide(first, second) : first;
    case 'ceil':
      return tree.negate(first);
    case 'round':
      return tree.add(first, half);
    default:
      return first;
  }
}

/** Binary digits of a number at which a formula is looked at by algebra. */
const mostDigits = 64;

/** Whether algebra shows a formula to be 0 at a number m·2^e. */
export function isZeroAt(formula: Expression, variable: string, { m, e }: Float): boolean {
  if (n.bitsOf(m) > mostDigits || Math.abs(e) > mostDigits) return false;
  const place = e < 0 ? tree.divide(written(m), written(2n ** BigInt(-e))) : written(m << BigInt(e));
  return isIdenticallyZero(tree.substitute(formula, variable, place));
}

/** The variable and the part, where there is no other name. */
export function partOf(names: Names): { variable: string; part: Range } | null {
  const [[variable, { above, below }] = ['', whole([])], ...others] = [...names];
  const part = above[0];
  return !part || below || others.length > 0 || !n.isBounded(part) ? null : { variable, part };
}

/** The sign inside the part by counting zeros; null where that tells none. */
export function signOver(formula: Expression, names: Names): -1 | 0 | 1 | null {
  const known = partOf(names);
  return known && signOfRational(formula, known.variable, known.part);
}

/** Whether counting zeros shows that there is no pole inside the part. */
export function isWithoutPole(formula: Expression, names: Names): boolean {
  const known = partOf(names);
  return known !== null && hasNoPole(formula, known.variable, known.part);
}
