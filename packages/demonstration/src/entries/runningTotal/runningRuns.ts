import {
  compile,
  enclose,
  evaluateAt,
  evaluatorFor,
  rational,
  Spline,
  tree,
  type Plotted,
  type Range,
} from '@yperkine/core';
import type { TierView } from '../../marks/view.ts';
import type { CurveResult } from '../curve.ts';

/** Pixels of one step of the summation. */
const stepPixels = 1.5;

interface Total extends Omit<CurveResult, 'standIn'> {
  readonly of: CurveResult;
  readonly start: number;
}

interface Drawn {
  readonly tier: TierView;
  readonly start: number;
  readonly runs: readonly Float64Array[];
}
/** By the function that is added up: a place that moves along the total changes nothing of its curve. */
const drawn = new WeakMap<CurveResult, Drawn>();

/**
 * The curve of a running total in pixels, added up from step to step across the window by Simpson's rule: the whole
 * costs as much as a few curves of the function. It ends where the function is not defined or not bounded.
 */
export function runningRuns(total: Total, tier: TierView): readonly Float64Array[] {
  const { of, start } = total;
  const known = drawn.get(of);
  if (known?.tier === tier && known.start === start) return known.runs;
  const runs = summed(total, tier);
  drawn.set(of, { tier, start, runs });
  return runs;
}

function summed(total: Total, tier: TierView): Float64Array[] {
  const count = Math.ceil(tier.frame.width / stepPixels);
  const points = placesOf(total, tier.x, count);
  const run = new Float64Array(2 * points.length);
  points.forEach(([x, y], i) => {
    run[2 * i] = tier.toX(x);
    run[2 * i + 1] = tier.toY(y);
  });
  return points.length > 1 ? [run] : [];
}

/** Knots of a stand-in. */
const standInKnots = 300;

/** The total over a window as a broken line, for whoever looks at a curve in hundreds of places. */
export function standIn(total: Total, x: Range): Plotted | null {
  const points = placesOf(total, x, standInKnots).map(([at, y]) => ({
    x: rational.fromDouble(at),
    y: rational.fromDouble(y),
  }));
  if (points.length < 2) return null;
  const table = Spline.through(points, 'broken', total.name);
  return { program: compile(tree.spline(table, tree.name(total.variable)), total.variable), parameters: [] };
}

/** The places of the total over a window, about so many, as far as it goes without a break. */
function placesOf(total: Total, { from, to }: Range, count: number): [number, number][] {
  const begin = Math.min(to, Math.max(from, total.start));
  const first = begin === total.start ? 0 : evaluateAt(total.program, begin, total.parameters);
  if (!Number.isFinite(first)) return [];
  const step = (to - from) / count;
  const left = walked(total, begin, from, first, step).reverse();
  return [...left.slice(0, -1), ...walked(total, begin, to, first, step)];
}

/** The places of the total from one x to another. */
function walked({ of }: Total, from: number, to: number, first: number, step: number): [number, number][] {
  const count = Math.ceil(Math.abs(to - from) / step);
  const points: [number, number][] = [[from, first]];
  if (count === 0) return points;
  const xs = Float64Array.from({ length: 2 * count + 1 }, (_, i) => from + ((to - from) * i) / (2 * count));
  const ys = new Float64Array(xs.length);
  evaluatorFor(of.program).evaluate(xs, ys, of.parameters);
  let sum = first;
  for (let i = 0; i < count; i++) {
    const [a, b] = [xs[2 * i] as number, xs[2 * i + 2] as number];
    const range = enclose(of.program, Math.min(a, b), Math.max(a, b), of.parameters);
    const [p, q, r] = [ys[2 * i], ys[2 * i + 1], ys[2 * i + 2]] as [number, number, number];
    const isBounded = Number.isFinite(range.low) && Number.isFinite(range.high);
    sum += ((b - a) * (p + 4 * q + r)) / 6;
    if (!isBounded || !Number.isFinite(sum)) break;
    points.push([b, sum]);
  }
  return points;
}
