import * as tree from '../language/tree.ts';
import type { Expression } from '../language/tree.ts';
import { NoRule, ratioOf } from './literals.ts';

/** A fraction in lowest terms with q > 0. */
export interface Ratio {
  readonly p: number;
  readonly q: number;
}

/** @throws NoRule where p or q is beyond whole doubles */
export const ratio = (p: number, q: number): Ratio => {
  let [a, b] = [Math.abs(p), q];
  while (b > 0) [a, b] = [b, a % b];
  if (Math.max(Math.abs(p), q) > Number.MAX_SAFE_INTEGER) throw new NoRule('power');
  return { p: p / (a || 1), q: q / (a || 1) };
};
export const plus = (a: Ratio, b: Ratio): Ratio => ratio(a.p * b.q + b.p * a.q, a.q * b.q);
export const times = (a: Ratio, b: Ratio): Ratio => ratio(a.p * b.p, a.q * b.q);
export const minus = (a: Ratio): Ratio => ({ p: -a.p, q: a.q });

/** The u of a factor e^u; null for a factor of 1. */
export type Exponent = Expression | null;

/** k·u. */
export function multiple(u: Exponent, k: Ratio): Exponent {
  if (!u || k.p === 0) return null;
  const { of, by } = asMultiple(u);
  return written(of, times(by, k));
}

/** u + v, so that what is multiplied by e^u as often as divided by it is without. */
export function together(u: Exponent, v: Exponent): Exponent {
  if (!u || !v) return u ?? v;
  const [one, other] = [asMultiple(u), asMultiple(v)];
  return JSON.stringify(one.of) === JSON.stringify(other.of)
    ? written(one.of, plus(one.by, other.by))
    : tree.add(u, v);
}

function asMultiple(u: Expression): { readonly of: Expression; readonly by: Ratio } {
  if (u.kind === 'negate') {
    const { of, by } = asMultiple(u.operand);
    return { of, by: minus(by) };
  }
  const by = u.kind === 'multiply' ? ratioOf(u.left) : null;
  return u.kind === 'multiply' && by ? { of: u.right, by } : { of: u, by: ratio(1, 1) };
}

function written(of: Expression, { p, q }: Ratio): Exponent {
  if (p === 0) return null;
  if (p === q) return of;
  const size = tree.divide(tree.number(Math.abs(p)), tree.number(q));
  return tree.multiply(p < 0 ? tree.negate(size) : size, of);
}
