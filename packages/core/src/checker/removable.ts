import type { Certificate } from './claims.ts';
import { evaluate, type Course, type Quotient } from './evaluate.ts';
import { exactJet, exactVariable, isZero } from './exact.ts';
import type { Jet } from './jets.ts';
import { withinRules } from './literals.ts';
import * as n from './numbers.ts';
import type { Range } from './numbers.ts';
import type { Expression } from '../language/tree.ts';

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
  const { body } = course;
  if (body.kind !== 'divide') return course;
  const order = withinRules(() => commonOrder(body.left, body.right, variable, place));
  const at = order && withinRules(() => evaluate(place, '', n.whole(0), 1)[0]?.above[0] ?? null);
  if (!order || !at) return course;
  const lowered = (over: Range, count: number): Quotient | null =>
    withinRules(() => {
      const [above, below] = [body.left, body.right].map((one) =>
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

/** The joint with a known number at which a part begins or ends. */
export function jointBeside(
  joints: Certificate['joints'],
  from: number,
  to: number,
): { readonly at: Expression } | null {
  for (const { low, high, at } of joints) if (at && (high === from || low === to)) return { at };
  return null;
}
