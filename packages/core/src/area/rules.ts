/** Where in each part the height is taken, or how it is made of several. */
export type SumRule = PointRule | 'trapezoid' | 'simpson' | 'lower' | 'upper';

/** A rule with one sample point in each part. */
export type PointRule =
  | 'left'
  | 'right'
  | 'midpoint'
  /** 0 is the left end of each part, 1 the right one. */
  | { readonly fraction: number }
  /** Anywhere in the part, the same for the same seed. */
  | { readonly seed: number }
  /** The points themselves, one a part. */
  | { readonly points: ArrayLike<number> };

/** The ends of n equal parts of [a, b]: n + 1 of them, the last exactly b. */
export function evenPartition(a: number, b: number, n: number): Float64Array {
  const ends = new Float64Array(n + 1);
  for (let i = 0; i < n; i++) ends[i] = a + ((b - a) * i) / n;
  ends[n] = b;
  return ends;
}

/** The sample point of every part of a partition. */
export function samplePoints(ends: ArrayLike<number>, rule: PointRule): Float64Array {
  const share = shareOf(rule);
  const points = new Float64Array(Math.max(0, ends.length - 1));
  for (let i = 0; i < points.length; i++) {
    points[i] = share(i, ends[i] as number, ends[i + 1] as number);
  }
  return points;
}

type PointIn = (i: number, from: number, to: number) => number;

function shareOf(rule: PointRule): PointIn {
  if (rule === 'left') return (_, from) => from;
  if (rule === 'right') return (_, __, to) => to;
  if (rule === 'midpoint') return (_, from, to) => from + (to - from) / 2;
  if ('points' in rule) return (i) => rule.points[i] ?? NaN;
  if ('seed' in rule) return (i, from, to) => from + (to - from) * scattered(rule.seed, i);
  const { fraction } = rule;
  // The right end itself, not what rounding makes of it.
  return fraction === 1 ? (_, __, to) => to : (_, from, to) => from + (to - from) * fraction;
}

/** A number from 0 to 1 that looks random, the same for the same seed and index. Source: Mulberry32, a public-domain mixer. */
function scattered(seed: number, index: number): number {
  let t = (seed + Math.imul(index + 1, 0x6d2b79f5)) | 0;
  t = Math.imul(t ^ (t >>> 15), t | 1);
  t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
  return ((t ^ (t >>> 14)) >>> 0) / 2 ** 32;
}
