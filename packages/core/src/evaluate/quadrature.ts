/**
 * Adaptive quadrature by the 7-point Gauss and 15-point Kronrod rules.
 * Source: Piessens et al., QUADPACK (1983), nodes and weights of qk15.
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

/** Parts that one integral may be split into. */
const mostParts = 500;
const relativeTolerance = 1e-12;
/** What rounding alone leaves of the integral of |f|. */
const roundingFloor = 50 * Number.EPSILON;

interface Part {
  readonly from: number;
  readonly to: number;
  readonly value: number;
  readonly error: number;
  readonly magnitude: number;
}

/**
 * ∫ f from a to b to about 12 digits; NaN where f is undefined at a point that is looked at or the bounds
 * are not finite. The ends themselves are never looked at.
 */
export function integralOf(f: (x: number) => number, a: number, b: number): Estimate {
  if (!Number.isFinite(a) || !Number.isFinite(b)) return { value: NaN, error: NaN, magnitude: NaN };
  if (a === b) return { value: 0, error: 0, magnitude: 0 };
  let parts = [part(f, a, b)];
  while (parts.length < mostParts) {
    const value = total(parts, 'value');
    const error = total(parts, 'error');
    const tolerance = Math.max(
      Math.abs(value) * relativeTolerance,
      total(parts, 'magnitude') * roundingFloor,
    );
    if (!(error > tolerance)) break;
    const worst = parts.reduce((most, next) => (next.error > most.error ? next : most));
    const middle = (worst.from + worst.to) / 2;
    if (middle === worst.from || middle === worst.to) break;
    parts = [
      ...parts.filter((other) => other !== worst),
      part(f, worst.from, middle),
      part(f, middle, worst.to),
    ];
  }
  return {
    value: total(parts, 'value'),
    error: total(parts, 'error'),
    magnitude: total(parts, 'magnitude'),
  };
}

const total = (parts: readonly Part[], field: 'value' | 'error' | 'magnitude'): number =>
  parts.reduce((sum, one) => sum + one[field], 0);

function part(f: (x: number) => number, from: number, to: number): Part {
  const centre = (from + to) / 2;
  const half = (to - from) / 2;
  let kronrod = 0;
  let gauss = 0;
  let magnitude = 0;
  nodes.forEach((node, i) => {
    const pair = node === 0 ? [f(centre)] : [f(centre - half * node), f(centre + half * node)];
    for (const y of pair) {
      kronrod += y * (kronrodWeights[i] as number);
      magnitude += Math.abs(y) * (kronrodWeights[i] as number);
      if (i % 2 === 1) gauss += y * (gaussWeights[(i - 1) / 2] as number);
    }
  });
  return {
    from,
    to,
    value: kronrod * half,
    error: Math.abs((kronrod - gauss) * half),
    magnitude: magnitude * Math.abs(half),
  };
}
