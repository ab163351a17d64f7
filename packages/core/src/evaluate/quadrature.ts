import { doubleExponential } from './doubleExponential.ts';

/**
 * Adaptive quadrature by the 7-point Gauss and 15-point Kronrod rules, with double exponential quadrature for parts at
 * which halving gains little.
 * Source: Piessens et al., QUADPACK (1983): nodes, weights and estimate of the error of qk15.
 */
const nodes = [
  0.9914553711208126, 0.9491079123427585, 0.8648644233597691, 0.7415311855993945, 0.5860872354676911,
  0.4058451513773972, 0.20778495500789848, 0,
];
const kronrodWeights = [
  0.022935322010529224, 0.06309209262997856, 0.10479001032225019, 0.14065325971552592, 0.1690047266392679,
  0.19035057806478542, 0.20443294007529889, 0.20948214108472782,
];
/** Of the nodes with odd index. */
const gaussWeights = [0.1294849661688697, 0.27970539148927664, 0.3818300505051189, 0.4179591836734694];

export interface Estimate {
  readonly value: number;
  /** An estimate of the error, not a bound. */
  readonly error: number;
  /** ∫ |f|, against which an error is measured. */
  readonly magnitude: number;
}

const nothing: Estimate = { value: NaN, error: NaN, magnitude: NaN };

/** Parts that one integral may be split into. */
const mostParts = 500;
const relativeTolerance = 1e-12;
/** What rounding alone leaves of the integral of |f|. */
const roundingFloor = 50 * Number.EPSILON;
/** Halvings after which a part is taken to end at a singularity. */
const stubborn = 6;
/** Halvings after which a part is left as it is. */
const deepest = 45;
/** Share of a part's size that an error has beside a pole, which nothing makes smaller. */
const hopeless = 0.1;

interface Part extends Estimate {
  readonly from: number;
  readonly to: number;
  /** How often it was halved. */
  readonly depth: number;
  /** Whether nothing is gained from looking at it again. */
  readonly isSettled: boolean;
}

/**
 * ∫ f from a to b to about 12 digits, infinite bounds included; NaN where f is undefined at a point that is looked at.
 * Finite ends themselves are never looked at.
 */
export function integralOf(f: (x: number) => number, a: number, b: number): Estimate {
  if (Number.isNaN(a) || Number.isNaN(b)) return nothing;
  if (a === b) return { value: 0, error: 0, magnitude: 0 };
  if (a > b) {
    const turned = integralOf(f, b, a);
    return { ...turned, value: -turned.value };
  }
  if (Number.isFinite(a) && Number.isFinite(b)) return integralThrough(f, [a, b]);
  if (!Number.isFinite(a) && !Number.isFinite(b)) return joined(integralOf(f, a, 0), integralOf(f, 0, b));
  return integralThrough(Number.isFinite(a) ? fromFar(f, a, 1) : fromFar(f, b, -1), [0, 1]);
}

/**
 * What is to be integrated from 0 to 1 for ∫ f from `start` to ±∞: x = start ± t/(1 − t), written from the far end, so that
 * no digits are lost there.
 */
export const fromFar =
  (f: (x: number) => number, start: number, side: 1 | -1) =>
  (s: number): number => {
    const y = f(start + (side * (1 - s)) / s);
    // So far out that s² is 0, too.
    return y === 0 ? 0 : y / (s * s);
  };

/** Over two parts. */
export const joined = (one: Estimate, other: Estimate): Estimate => ({
  value: one.value + other.value,
  error: one.error + other.error,
  magnitude: one.magnitude + other.magnitude,
});

/**
 * ∫ f from the first to the last of some places, which are ends of parts from the beginning.
 * @param places finite, in ascending order
 */
export function integralThrough(f: (x: number) => number, places: readonly number[]): Estimate {
  const parts = places.slice(1).map((to, i) => gaussKronrod(f, places[i] as number, to, 0));
  const most = mostParts + parts.length;
  for (;;) {
    const whole = parts.reduce<Estimate>(joined, { value: 0, error: 0, magnitude: 0 });
    const tolerance = Math.max(Math.abs(whole.value) * relativeTolerance, whole.magnitude * roundingFloor);
    if (!(whole.error > tolerance) || parts.length >= most) return whole;
    const worst = parts.reduce((most, next) => (next.error > most.error ? next : most));
    if (worst.isSettled) return whole;
    const better = worst.depth === stubborn ? throughSingularity(f, worst, tolerance) : null;
    parts.splice(parts.indexOf(worst), 1, ...(better ? [better] : halves(f, worst)));
  }
}

function halves(f: (x: number) => number, part: Part): readonly Part[] {
  const { from, to, depth } = part;
  const middle = (from + to) / 2;
  if (middle === from || middle === to || depth >= deepest) return [{ ...part, isSettled: true }];
  return [gaussKronrod(f, from, middle, depth + 1), gaussKronrod(f, middle, to, depth + 1)];
}

/** A part by double exponential quadrature; null where halving may do better. */
function throughSingularity(f: (x: number) => number, part: Part, tolerance: number): Part | null {
  const { value, error } = doubleExponential(f, part.from, part.to, () => tolerance / 4);
  const isReached = error <= tolerance;
  if (!isReached && error < hopeless * Math.max(part.magnitude, Math.abs(value))) return null;
  return { ...part, value, error, isSettled: true };
}

function gaussKronrod(f: (x: number) => number, from: number, to: number, depth: number): Part {
  const centre = (from + to) / 2;
  const half = (to - from) / 2;
  const values: number[] = [];
  const weights: number[] = [];
  let [kronrod, gauss, magnitude] = [0, 0, 0];
  nodes.forEach((node, i) => {
    const weight = kronrodWeights[i] as number;
    for (const y of node === 0 ? [f(centre)] : [f(centre - half * node), f(centre + half * node)]) {
      values.push(y);
      weights.push(weight);
      kronrod += y * weight;
      magnitude += Math.abs(y) * weight;
      if (i % 2 === 1) gauss += y * (gaussWeights[(i - 1) / 2] as number);
    }
  });
  const mean = kronrod / 2;
  const swing = values.reduce((sum, y, i) => sum + Math.abs(y - mean) * (weights[i] as number), 0);
  const change = Math.abs(kronrod - gauss);
  // Where the two rules almost agree, the finer one is far better than their difference.
  const error = swing > 0 && change > 0 ? swing * Math.min(1, ((200 * change) / swing) ** 1.5) : change;
  return {
    from,
    to,
    depth,
    isSettled: false,
    value: kronrod * half,
    error: Math.abs(error * half),
    magnitude: magnitude * Math.abs(half),
  };
}
