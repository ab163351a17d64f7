import { derivativeOf } from '../algebra/differentiate.ts';
import { TooLarge } from '../algebra/limits.ts';
import { programOf } from '../analysis/programs.ts';
import { endedEarly, stepsAllowed } from '../analysis/thoroughness.ts';
import { enclose } from '../evaluate/enclosures.ts';
import * as intervals from '../evaluate/interval.ts';
import type { Interval } from '../evaluate/interval.ts';
import type { Program } from '../evaluate/program.ts';
import * as tree from '../language/tree.ts';
import type { Expression } from '../language/tree.ts';

export interface Enclosed {
  readonly low: number;
  readonly high: number;
  /** How many times the function or a derivative was enclosed. */
  readonly evaluations: number;
}

/** Parts that one integral may be split into. */
const mostParts = 4000;
/** Highest derivative that is used, and nodes beyond which none is made. */
const highestOrder = 6;
const longestDerivative = 1500;

/**
 * Bounds between which ∫ f from a to b is proved to lie. On each part the middle's Taylor polynomial is integrated with
 * its remainder enclosed by interval arithmetic; where the function or a derivative is not shown to be continuous, its
 * range times the width is taken instead. Parts with the widest bounds are halved until the whole is narrow enough.
 * Source: Moore, Methods and Applications of Interval Analysis (1979), chapter 8.
 * @param body a formula in the variable alone
 * @param tolerance the width of the bounds that is asked for, relative to the integral of |f|
 * @returns null where the function is not bounded, or not shown to be defined throughout
 */
export function enclosedIntegral(
  body: Expression,
  variable: string,
  [a, b]: readonly [number, number],
  tolerance = 1e-10,
): Enclosed | null {
  const work = new Enclosing(body, variable);
  let parts = [work.part(a, b)];
  for (;;) {
    const width = parts.reduce((total, part) => total + part.width, 0);
    const size = parts.reduce((total, part) => total + Math.abs(part.value.low + part.value.high) / 2, 0);
    const isDone = width <= tolerance * Math.max(size, Number.MIN_VALUE);
    if (isDone) break;
    if (parts.length >= stepsAllowed(mostParts)) {
      endedEarly();
      break;
    }
    // All parts of more than their share at once, so that the list is gone through a few times only.
    const share = Math.max(...parts.map((part) => part.width)) / 8;
    const next = parts.flatMap((part) => (part.width >= share ? work.halves(part) : [part]));
    if (next.length === parts.length) break;
    parts = next;
  }
  const total = parts.reduce((sum, part) => intervals.add(sum, part.value), intervals.exactly(0));
  const isBounded = Number.isFinite(total.low) && Number.isFinite(total.high);
  return isBounded && total.sure ? { low: total.low, high: total.high, evaluations: work.evaluations } : null;
}

interface Part {
  readonly from: number;
  readonly to: number;
  readonly value: Interval;
  readonly width: number;
}

class Enclosing {
  evaluations = 0;
  /** The function and its derivatives by order. */
  private readonly programs: readonly Program[];

  constructor(body: Expression, variable: string) {
    this.programs = derivativePrograms(body, variable);
  }

  part(from: number, to: number): Part {
    const value = this.integralOver(from, to);
    const width = value.high - value.low;
    return { from, to, value, width: Number.isNaN(width) ? Infinity : width };
  }

  halves(part: Part): Part[] {
    const middle = part.from + (part.to - part.from) / 2;
    if (middle <= part.from || middle >= part.to) return [part];
    return [this.part(part.from, middle), this.part(middle, part.to)];
  }

  private enclosed(order: number, from: number, to: number): Interval {
    this.evaluations++;
    return enclose(this.programs[order] as Program, from, to);
  }

  private integralOver(from: number, to: number): Interval {
    const range = this.enclosed(0, from, to);
    const width = intervals.subtract(intervals.exactly(to), intervals.exactly(from));
    const rough = intervals.multiply(range, width);
    if (!range.sure) return rough;
    const fine = this.byTaylor(from, to, range, width);
    if (!fine) return rough;
    return { low: Math.max(rough.low, fine.low), high: Math.min(rough.high, fine.high), sure: true };
  }

  /** Σ 2 f⁽ᵏ⁾(m)·hᵏ⁺¹/(k + 1)! over even k, the last with f⁽ᵏ⁾ over the whole part; null where one is not continuous. */
  private byTaylor(from: number, to: number, range: Interval, width: Interval): Interval | null {
    const highest = this.programs.length - 1 - ((this.programs.length - 1) % 2);
    if (highest < 2) return null;
    let last = intervals.nothing;
    for (let order = 1; order <= highest; order++) {
      last = this.enclosed(order, from, to);
      if (!last.sure || !Number.isFinite(last.low) || !Number.isFinite(last.high)) return null;
    }
    const middle = from + (to - from) / 2;
    // The middle is rounded: the polynomial serves as much as lies on both sides of it.
    const reach = Math.min(
      intervals.subtract(intervals.exactly(to), intervals.exactly(middle)).low,
      intervals.subtract(intervals.exactly(middle), intervals.exactly(from)).low,
    );
    const half = intervals.exactly(reach);
    let total = intervals.exactly(0);
    let power = half;
    let factorial = 1;
    for (let order = 0; order <= highest; order++) {
      factorial *= order + 1;
      if (order % 2 === 0) {
        const value = order === highest ? last : this.enclosed(order, middle, middle);
        const term = intervals.divide(intervals.multiply(value, power), intervals.exactly(factorial));
        total = intervals.add(total, intervals.multiply(intervals.exactly(2), term));
      }
      power = intervals.multiply(power, half);
    }
    const sliver = intervals.subtract(width, intervals.exactly(2 * reach));
    return intervals.add(total, intervals.multiply(range, sliver));
  }
}

function derivativePrograms(body: Expression, variable: string): Program[] {
  const programs = [programOf(body, variable)];
  let formula = body;
  try {
    for (let order = 1; order <= highestOrder; order++) {
      formula = derivativeOf(formula, variable);
      if (tree.size(formula) > longestDerivative) break;
      programs.push(programOf(formula, variable));
    }
  } catch (error) {
    if (!(error instanceof TooLarge)) throw error;
  }
  return programs;
}
