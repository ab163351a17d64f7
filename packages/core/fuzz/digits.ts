import { evaluate } from '../src/checker/evaluate.ts';
import * as jets from '../src/checker/jets.ts';
import type { Jet } from '../src/checker/jets.ts';
import { NoRule } from '../src/checker/literals.ts';
import * as n from '../src/checker/numbers.ts';
import type { Range } from '../src/checker/numbers.ts';
import type { Expression } from '../src/index.ts';

/**
 * What a function is at single numbers and on short parts, in three times the digits of a double and with bounds: the
 * judge of what the engine claims, with which it shares the shape of a formula only.
 */

const along = (body: Expression, part: Range, length: number): { jets: Jet[]; isWhole: boolean } => {
  try {
    const courses = evaluate(body, 'x', part, length);
    return {
      jets: courses.map(({ above, below }) => (below ? jets.divide(above, below) : above)),
      isWhole: courses.length > 0 && courses.every(({ isWhole }) => isWhole),
    };
  } catch (error) {
    if (error instanceof NoRule) return { jets: [], isWhole: false };
    throw error;
  }
};

export type { Jet, Range };

/** Value and derivatives (over their factorials) at a double; null where there is none, or more ways than one. */
export function jetAt(body: Expression, x: number, length = 3): Jet | null {
  const { jets: found, isWhole } = along(body, n.point(n.fromDouble(x)), length);
  return found.length === 1 && isWhole ? (found[0] as Jet) : null;
}

/** The sign that bounds show; null where they do not. */
export function signOf({ low, high }: Range): -1 | 0 | 1 | null {
  const [below, above] = [n.signOf(low), n.signOf(high)];
  return below === above ? below : null;
}

/** Bounds of the values between two doubles, with those of both ends; null where f is not defined throughout. */
export function valuesBetween(body: Expression, a: number, b: number): Range | null {
  const { jets: found, isWhole } = along(body, n.between(a, b), 1);
  const ranges = found.map((jet) => jet[0] as Range);
  if (!isWhole) return null;
  return ranges.reduce((all, range) => ({
    low: n.compare(range.low, all.low) < 0 ? range.low : all.low,
    high: n.compare(range.high, all.high) > 0 ? range.high : all.high,
  }));
}

/** Bounds of the integral, from those of f on so many parts; null where f is not bounded and defined throughout. */
export function integralBetween(body: Expression, a: number, b: number, parts: number): Range | null {
  let sum = n.whole(0);
  for (let i = 0; i < parts; i++) {
    const [from, to] = [i, i + 1].map((k) => (k === parts ? b : a + ((b - a) * k) / parts)) as [
      number,
      number,
    ];
    const values = valuesBetween(body, from, to);
    if (!values) return null;
    const width = n.subtract(n.point(n.fromDouble(to)), n.point(n.fromDouble(from)));
    sum = n.add(sum, n.multiply(values, width));
  }
  return Number.isFinite(n.toDouble(sum.low)) && Number.isFinite(n.toDouble(sum.high)) ? sum : null;
}

/** A double and all that lies within an error of it. */
export const about = (value: number, error: number): Range => ({
  low: n.subtract(n.point(n.fromDouble(value)), n.point(n.fromDouble(error))).low,
  high: n.add(n.point(n.fromDouble(value)), n.point(n.fromDouble(error))).high,
});

/** Whether two bounds have nothing in common. */
export const areApart = (a: Range, b: Range): boolean =>
  n.compare(a.high, b.low) < 0 || n.compare(b.high, a.low) < 0;

/** Whether all of the first lies above all of the second. */
export const isAbove = (a: Range, b: Range): boolean => n.compare(a.low, b.high) > 0;

export const middleOf = ({ low, high }: Range): number => (n.toDouble(low) + n.toDouble(high)) / 2;
