import { enclose, evaluateAt, evaluatorFor } from '@yperkine/core';
import type { TierView } from '../../scene/view.ts';
import type { CurveResult } from '../curve.ts';

/** Pixels of one step of the summation. */
const stepPixels = 1.5;

interface Total extends CurveResult {
  readonly of: CurveResult;
  readonly start: number;
}

const drawn = new WeakMap<object, { readonly tier: TierView; readonly runs: readonly Float64Array[] }>();

/**
 * The curve of a running total in pixels, added up from step to step across the window by Simpson's rule: the whole
 * costs as much as a few curves of the function. It ends where the function is not defined or not bounded.
 */
export function runningRuns(total: Total, tier: TierView): readonly Float64Array[] {
  const known = drawn.get(total);
  if (known?.tier === tier) return known.runs;
  const runs = summed(total, tier);
  drawn.set(total, { tier, runs });
  return runs;
}

function summed(total: Total, tier: TierView): Float64Array[] {
  const { from, to } = tier.x;
  const begin = Math.min(to, Math.max(from, total.start));
  const first = begin === total.start ? 0 : evaluateAt(total.program, begin, total.parameters);
  if (!Number.isFinite(first)) return [];
  const left = walked(total, tier, begin, from, first).reverse();
  const right = walked(total, tier, begin, to, first);
  const points = [...left.slice(0, -1), ...right];
  const run = new Float64Array(2 * points.length);
  points.forEach(([x, y], i) => {
    run[2 * i] = tier.toX(x);
    run[2 * i + 1] = tier.toY(y);
  });
  return points.length > 1 ? [run] : [];
}

/** The places of the total from one x to another, in steps of a pixel or two. */
function walked({ of }: Total, tier: TierView, from: number, to: number, first: number): [number, number][] {
  const count = Math.ceil((Math.abs(to - from) * tier.pixelsPerX) / stepPixels);
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
