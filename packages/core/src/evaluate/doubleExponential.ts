/** Levels of halving, the first with nodes half a unit apart. */
const mostLevels = 6;
/** Terms in a row that must be negligible before the tail is left off. */
const quietTerms = 3;
const negligible = 1e-18;
/** Where the distance from an end leaves the doubles. */
const farthest = 6.1;

export interface DoubleExponential {
  readonly value: number;
  /** The last change from halving, and what the ends may hide; infinite where the terms do not die away. */
  readonly error: number;
}

/**
 * ∫ f from a to b by the substitution x = tanh(π/2 sinh t), which dies away at both ends so fast that singularities
 * there do no harm. Source: Takahasi and Mori, Double exponential formulas for numerical integration (1974).
 * @param tolerance an error that is good enough
 */
export function doubleExponential(
  f: (x: number) => number,
  from: number,
  to: number,
  tolerance: (value: number) => number,
): DoubleExponential {
  let [sum, before] = [0, NaN];
  let tail = 0;
  for (let level = 0; level < mostLevels; level++) {
    const step = 2 ** -level / 2;
    const first = level === 0 ? 0 : step;
    const stride = level === 0 ? step : 2 * step;
    const [left, right] = [-1, 1].map((side) => {
      const start = side < 0 && level === 0 ? stride : first;
      return termsTowards(f, from, to, side as -1 | 1, start, stride, sum);
    }) as [Terms, Terms];
    sum += left.sum + right.sum;
    tail = level === 0 ? left.last + right.last : Math.min(tail, left.last + right.last);
    const value = sum * step;
    const error = Math.abs(value - before) + tail;
    if (level > 1 && error <= tolerance(value)) return { value, error };
    before = level + 1 < mostLevels ? value : before;
  }
  const value = sum * 2 ** -mostLevels;
  return { value, error: Math.abs(value - before) + tail };
}

interface Terms {
  readonly sum: number;
  /** The size of the outermost term: what may be missing. */
  readonly last: number;
}

/** The weighted values from the middle towards one end. */
function termsTowards(
  f: (x: number) => number,
  from: number,
  to: number,
  side: -1 | 1,
  start: number,
  stride: number,
  known: number,
): Terms {
  const width = to - from;
  let [sum, last, quiet] = [0, 0, 0];
  for (let t = start; t < farthest && quiet < quietTerms; t += stride) {
    const q = Math.exp(-Math.PI * Math.sinh(t));
    const distance = (width * q) / (1 + q);
    const x = side < 0 ? from + distance : to - distance;
    const weight = (width * Math.PI * Math.cosh(t) * q) / (1 + q) ** 2;
    const isAtEnd = x === from || x === to;
    const term = weight * f(x);
    // Rounding has met the end: the rest is what the last term shows, and the function may have no value there.
    if (isAtEnd && !Number.isFinite(term)) break;
    sum += term;
    last = Math.abs(term);
    quiet = last <= negligible * Math.abs(known + sum) ? quiet + 1 : 0;
  }
  return { sum, last };
}
