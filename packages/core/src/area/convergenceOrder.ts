/** What a rule makes of n parts, and by how much it misses the integral. */
export interface SumError {
  readonly n: number;
  readonly total: number;
  /** Total minus integral. */
  readonly error: number;
}

/** Share of the largest total at which an error is nothing but rounding. */
const roundingShare = 1e-13;
/** Spread of single orders that still counts as one order. */
const agreement = 0.25;

/**
 * The power of 1/n with which the error falls, by least squares through the logarithms of the last errors; null where
 * there are fewer than three that are more than rounding, or where they do not lie near a line.
 */
export function orderOfConvergence(errors: readonly SumError[]): number | null {
  const size = errors.reduce((most, { total }) => Math.max(most, Math.abs(total)), 0);
  const points = errors
    .filter(({ error }) => Math.abs(error) > roundingShare * size)
    .map(({ n, error }) => [Math.log(n), Math.log(Math.abs(error))] as const)
    .slice(-4);
  if (points.length < 3) return null;
  const orders = points.slice(1).map(([x, y], i) => {
    const [x0, y0] = points[i] as readonly [number, number];
    return -(y - y0) / (x - x0);
  });
  if (Math.max(...orders) - Math.min(...orders) > agreement) return null;
  const mean = (k: 0 | 1): number => points.reduce((sum, point) => sum + point[k], 0) / points.length;
  const [mx, my] = [mean(0), mean(1)];
  const above = points.reduce((sum, [x, y]) => sum + (x - mx) * (y - my), 0);
  const below = points.reduce((sum, [x]) => sum + (x - mx) ** 2, 0);
  return -above / below;
}
