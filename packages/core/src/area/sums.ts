import { Arcs } from '../analysis/arcs.ts';
import { compile } from '../evaluate/program.ts';
import { evaluateAt } from '../evaluate/values.ts';
import type { Expression } from '../language/tree.ts';
import * as big from '../limit/bigFloat.ts';

/** Where in each part the height is taken, or how it is made of several. */
export type SumRule =
  | 'left'
  | 'right'
  | 'midpoint'
  | 'trapezoid'
  | 'simpson'
  | 'lower'
  | 'upper'
  /** 0 is the left end of each part, 1 the right one. */
  | { readonly fraction: number };

/** One term of a sum. */
export interface SumPart {
  readonly from: number;
  readonly to: number;
  /** The sample point; of trapezoids and parabolas the middle of the part. */
  readonly x: number;
  /** The height there, or the mean height of a part with more than one. */
  readonly height: number;
  readonly area: number;
}

export interface RiemannSum {
  readonly total: number;
  readonly parts: readonly SumPart[];
  /** Whether the heights of a lower or upper sum are proved to be the least and greatest; true for other rules. */
  readonly isProved: boolean;
}

/** The ends of n equal parts of [a, b]: n + 1 of them, the last exactly b. */
export const evenPartition = (a: number, b: number, n: number): Float64Array =>
  Float64Array.from({ length: n + 1 }, (_, i) => (i === n ? b : a + ((b - a) * i) / n));

/**
 * The sum of a function over a partition by a rule. Parabolas (Simpson's rule) take the parts in pairs, which have to
 * be equally wide, and so an even number of them.
 * @param body a formula in the variable alone
 * @param ends the ends of the parts, in ascending order
 * @returns NaN as a height, and so as the total, where the function has no value
 * @throws RangeError for parabolas over an odd number of parts
 */
export function riemannSum(
  body: Expression,
  variable: string,
  ends: ArrayLike<number>,
  rule: SumRule,
): RiemannSum {
  if (rule === 'lower' || rule === 'upper') return extremeSum(body, variable, ends, rule);
  const program = compile(body, variable);
  const f = (x: number): number => evaluateAt(program, x);
  return { ...summed(partsOf(f, ends, rule)), isProved: true };
}

function partsOf(
  f: (x: number) => number,
  ends: ArrayLike<number>,
  rule: Exclude<SumRule, 'lower' | 'upper'>,
): SumPart[] {
  const count = ends.length - 1;
  const end = (i: number): number => ends[i] as number;
  if (rule === 'simpson') {
    if (count % 2 !== 0) throw new RangeError('parabolas need an even number of parts');
    return Array.from({ length: count / 2 }, (_, k) => {
      const [from, middle, to] = [end(2 * k), end(2 * k + 1), end(2 * k + 2)];
      return partWith(from, to, middle, (f(from) + 4 * f(middle) + f(to)) / 6);
    });
  }
  return Array.from({ length: count }, (_, i) => {
    const [from, to] = [end(i), end(i + 1)];
    if (rule === 'trapezoid') return partWith(from, to, (from + to) / 2, (f(from) + f(to)) / 2);
    const x = samplePoint(from, to, rule);
    return partWith(from, to, x, f(x));
  });
}

function samplePoint(
  from: number,
  to: number,
  rule: 'left' | 'right' | 'midpoint' | { readonly fraction: number },
): number {
  if (rule === 'left') return from;
  if (rule === 'right') return to;
  const share = rule === 'midpoint' ? 0.5 : rule.fraction;
  // The right end itself, not what rounding makes of it.
  return share === 1 ? to : from + (to - from) * share;
}

const partWith = (from: number, to: number, x: number, height: number): SumPart => ({
  from,
  to,
  x,
  height,
  area: height * (to - from),
});

/** Neumaier's compensated summation (1974), so that a million terms lose no digits. */
function summed(parts: readonly SumPart[]): { total: number; parts: readonly SumPart[] } {
  let [sum, lost] = [0, 0];
  for (const { area } of parts) {
    const next = sum + area;
    lost += Math.abs(sum) >= Math.abs(area) ? sum - next + area : area - next + sum;
    sum = next;
  }
  return { total: Number.isFinite(sum) ? sum + lost : sum, parts };
}

/** A height that a function has or comes near to at a place: its value there, and its limits from either side. */
interface Heights {
  readonly x: number;
  readonly value: number;
  readonly left: number;
  readonly right: number;
}

/**
 * The lower or upper sum: in each part the greatest lower (least upper) bound of the function, by its extrema and, where
 * it jumps, its limits.
 */
function extremeSum(
  body: Expression,
  variable: string,
  ends: ArrayLike<number>,
  rule: 'lower' | 'upper',
): RiemannSum {
  const [a, b] = [ends[0] as number, ends[ends.length - 1] as number];
  const arcs = new Arcs(body, variable, [a, b], 1);
  const places = arcs.eventsUpTo(1).map((place) => heightsAt(arcs, place));
  const program = compile(body, variable);
  const better = rule === 'lower' ? Math.min : Math.max;
  const parts: SumPart[] = [];
  let next = 0;
  for (let i = 0; i + 1 < ends.length; i++) {
    const [from, to] = [ends[i] as number, ends[i + 1] as number];
    while (next < places.length && (places[next] as Heights).x < from) next++;
    const inside: Candidate[] = [];
    let behind = next;
    while (behind < places.length && (places[behind] as Heights).x <= to) behind++;
    const around = places.slice(next, behind);
    for (const place of around) inside.push(...candidatesAt(place, from, to));
    for (const x of [from, to]) {
      if (!around.some((place) => place.x === x)) inside.push({ x, height: evaluateAt(program, x) });
    }
    const height = better(...inside.map((one) => one.height));
    const at = inside.find((one) => one.height === height);
    parts.push(partWith(from, to, at?.x ?? from, height));
  }
  return { ...summed(parts), isProved: arcs.undecided.length === 0 };
}

interface Candidate {
  readonly x: number;
  readonly height: number;
}

/** The heights at a place that count for a part; NaN among them where the function is not defined all through it. */
function candidatesAt({ x, value, left, right }: Heights, from: number, to: number): Candidate[] {
  const limits = [...(x > from ? [left] : []), ...(x < to ? [right] : [])];
  const heights = Number.isNaN(value) ? limits : [value, ...limits];
  return heights.map((height) => ({ x, height }));
}

function heightsAt(arcs: Arcs, place: Parameters<Arcs['valueAt']>[0]): Heights {
  const value = arcs.valueAt(place);
  const double = value ? big.toDouble(value) : NaN;
  if (!arcs.joints.includes(place)) return { x: place.value, value: double, left: double, right: double };
  const sides = arcs.arcsAt(place);
  const along = (side: 'left' | 'right'): number => {
    const limit = arcs.limitAlong(sides[side], place, 0);
    if (limit.kind === 'infinite') return limit.sign * Infinity;
    return limit.kind === 'finite' ? big.toDouble(limit.value) : NaN;
  };
  return { x: place.value, value: double, left: along('left'), right: along('right') };
}
