/**
 * Adaptive quadrature by the 7-point Gauss and 15-point Kronrod rules.
 * Source: Piessens et al., QUADPACK (1983), nodes and weights of qk15.
 */
const nodes = [
  0.991455371120812639206854697526329, 0.949107912342758524526189684047851,
  0.864864423359769072789712788640926, 0.741531185599394439863864773280788,
  0.58608723546769113029414469165024, 0.405845151377397166906606412076961,
  0.207784955007898467600689403773245, 0,
];
const kronrodWeights = [
  0.022935322010529224963732008058970, 0.063092092629978553290700663189204,
  0.104790010322250183839876322541518, 0.140653259715525918745189590510238,
  0.16900472663926790282829544345505, 0.190350578064785409913256402421014,
  0.204432940075298892414161999234649, 0.209482141084727828012999174891714,
];
/** Of the nodes with odd index. */
const gaussWeights = [
  0.129484966168869693270611432679082, 0.27970539148927666790146777142378,
  0.381830050505118944950369775488975, 0.417959183673469387755102040816327,
];

export interface Estimate {
  readonly value: number;
  /** An estimate of the error, not a bound. */
  readonly error: number;
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
  if (!Number.isFinite(a) || !Number.isFinite(b)) return { value: NaN, error: NaN };
  if (a === b) return { value: 0, error: 0 };
  let parts = [part(f, a, b)];
  while (parts.length < mostParts) {
    const value = total(parts, 'value');
    const error = total(parts, 'error');
    const tolerance = Math.max(Math.abs(value) * relativeTolerance, total(parts, 'magnitude') * roundingFloor);
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
  return { value: total(parts, 'value'), error: total(parts, 'error') };
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
