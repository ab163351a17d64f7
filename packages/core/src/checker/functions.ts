import * as n from './numbers.ts';
import type { Float, Range } from './numbers.ts';

/**
 * Enclosures of the functions of analysis by their series, every remainder bounded (Abramowitz and Stegun, 4.1, 4.2,
 * 4.3, 4.4; from memory). Rising and falling functions are taken at the ends.
 */

const unit = n.whole(1);
const most: Range = n.between(-1, 1);

/** Binary digits after the point with which series are added up, beside those that a small argument begins with. */
const digits = 224;
/** Arguments below 2^−400 are told from their functions by no digit that is kept. */
const mostLeading = 400;

/** A number in units of 2^−bits, and how many units it may be off. */
interface Fixed {
  readonly value: bigint;
  readonly slack: bigint;
}

const shifted = (m: bigint, by: number): bigint => (by >= 0 ? m << BigInt(by) : m >> BigInt(-by));

/** The size of a narrow range in units of 2^−bits. */
function sizeOf({ low, high }: Range, bits: number): Fixed {
  const [a, b] = [shifted(low.m, low.e + bits), shifted(high.m, high.e + bits)];
  return { value: a < 0n ? -a : a, slack: b - a + 1n };
}

/** How many zeros stand behind the point before the first digit of anything in a range. */
function leadingZeros({ low, high }: Range): number {
  const zeros = ({ m, e }: Float): number => (m === 0n ? Infinity : -(e + n.bitsOf(m)));
  return Math.max(0, Math.min(zeros(low), zeros(high)));
}

/**
 * Σ ±terms of a series, in units: each power is made from the one before, off by less than two units, and so is each term;
 * together those behind the first power that is 0 make less than eight.
 */
function summed(
  first: bigint,
  next: (power: bigint, k: number) => bigint,
  alternates: boolean,
  termOf: (power: bigint, k: number) => bigint = (power) => power,
): Fixed {
  let [value, power, k] = [first, first, 0];
  while (power > 0n) {
    power = next(power, ++k);
    const term = termOf(power, k);
    value += alternates && k % 2 === 1 ? -term : term;
  }
  return { value, slack: BigInt(2 * k + 8) };
}

/** t + s·t³/3 + s²·t⁵/5 + … for |t| ≤ ½ in a narrow range: artanh t where s is 1, arctan t where it is −1. */
function oddSeries(t: Range, s: 1 | -1): Range {
  const zeros = leadingZeros(t);
  if (zeros > mostLeading) return besideItself(t);
  const bits = digits + zeros;
  const size = sizeOf(t, bits);
  const square = shifted(size.value * size.value, -bits);
  const { value, slack } = summed(
    size.value,
    (power) => shifted(power * square, -bits),
    s < 0,
    (power, k) => power / BigInt(2 * k + 1),
  );
  // Neither slope is above 4/3.
  return n.around(t.low.m < 0n ? -value : value, slack + 2n * size.slack, -bits);
}

/** What differs from t by less than t³: sin, arctan and artanh near 0. */
function besideItself(t: Range): Range {
  const cube = n.power(t, 3);
  return n.add(t, n.hull(cube, n.negate(cube)));
}

const smallArctan = (t: Range): Range => oddSeries(t, -1);
const smallArtanh = (t: Range): Range => oddSeries(t, 1);

/** Machin (1706): π = 16 arctan 1/5 − 4 arctan 1/239. */
export const pi: Range = n.subtract(
  n.multiply(n.whole(16), smallArctan(n.fraction(1n, 5n))),
  n.multiply(n.whole(4), smallArctan(n.fraction(1n, 239n))),
);
const quarter = n.scaled(pi, -1);

/** ln 2 = 2 artanh ⅓. */
const ln2: Range = n.multiply(n.whole(2), smallArtanh(n.fraction(1n, 3n)));

const monotone =
  (at: (x: Float) => Range) =>
  ({ low, high }: Range): Range => ({ low: at(low).low, high: at(high).high });

export const exp = monotone((x) => {
  if (x.e === Infinity) return x.m > 0n ? { low: x, high: x } : n.point(n.zero);
  const double = n.toDouble(x);
  if (double > 1e12) return { low: { m: 1n, e: 1_000_000_000 }, high: n.everything.high };
  if (double < -1e12) return { low: n.zero, high: { m: 1n, e: -1_000_000_000 } };
  const k = Math.round(double / Math.LN2);
  const rest = n.subtract(n.point(x), n.multiply(n.whole(k), ln2));
  const size = sizeOf(rest, digits);
  const { value, slack } = summed(
    1n << BigInt(digits),
    (term, i) => shifted(term * size.value, -digits) / BigInt(i),
    rest.low.m < 0n,
  );
  // |rest| < ½, where the slope is below 2.
  return n.scaled(n.around(value, slack + 2n * size.slack, -digits), k);
});

export const e: Range = exp(unit);

/** ln of numbers above 0; −∞ at 0. */
export const ln = monotone((x) => {
  if (x.m <= 0n) return n.point(n.everything.low);
  if (x.e === Infinity) return n.point(x);
  const bits = x.m.toString(2).length;
  // Between ½ and 1, or between 1 and 2 where it is near 1 from above.
  const half = n.scaled(n.point(x), -(bits + x.e));
  const isLow = n.compare(half.low, { m: 3n, e: -2 }) < 0;
  const [near, k] = isLow ? [n.scaled(half, 1), bits + x.e - 1] : [half, bits + x.e];
  const t = n.divide(n.subtract(near, unit), n.add(near, unit));
  return n.add(n.multiply(n.whole(2), smallArtanh(t)), n.multiply(n.whole(k), ln2));
});

export const arctan = monotone((x) => {
  if (x.e === Infinity) return x.m > 0n ? quarter : n.negate(quarter);
  if (x.m < 0n) return n.negate(arctan(n.point(n.opposite(x))));
  const isLarge = n.compare(x, { m: 1n, e: 0 }) > 0;
  let t = isLarge ? n.reciprocal(n.point(x)) : n.point(x);
  // arctan t = 2 arctan t/(1 + √(1 + t²)), twice.
  for (let i = 0; i < 2; i++) {
    t = n.divide(t, n.add(unit, n.squareRoot(n.add(unit, n.power(t, 2)))));
  }
  const angle = n.scaled(smallArctan(t), 2);
  return isLarge ? n.subtract(quarter, angle) : angle;
});

const wavesKnown = new WeakMap<Float, { sin: Range; cos: Range }>();

/** sin and cos at one number. */
function wavesAt(x: Float): { sin: Range; cos: Range } {
  const known = wavesKnown.get(x) ?? turned(x);
  wavesKnown.set(x, known);
  return known;
}

function turned(x: Float): { sin: Range; cos: Range } {
  const turns = n.divide(n.point(x), quarter);
  const k = n.floor(n.add(turns, n.fraction(1n, 2n)).low);
  const rest = n.subtract(n.point(x), n.multiply(n.whole(k), quarter));
  // So far out that π is not known well enough.
  if (!n.contains(most, rest)) return { sin: most, cos: most };
  const { sin: s, cos: c } = wavesNear(rest);
  switch (Number(((k % 4n) + 4n) % 4n)) {
    case 0:
      return { sin: s, cos: c };
    case 1:
      return { sin: c, cos: n.negate(s) };
    case 2:
      return { sin: n.negate(s), cos: n.negate(c) };
    default:
      return { sin: n.negate(c), cos: s };
  }
}

/** sin and cos of a narrow range that is no further from 0 than about π/4. */
function wavesNear(t: Range): { sin: Range; cos: Range } {
  if (n.signOfRange(t) === 0) return { sin: t, cos: unit };
  const zeros = leadingZeros(t);
  const bits = digits + Math.min(zeros, mostLeading);
  const size = sizeOf(t, bits);
  const square = shifted(size.value * size.value, -bits);
  const series = (first: bigint, from: number): Fixed =>
    summed(
      first,
      (term, i) => shifted(term * square, -bits) / BigInt((2 * i + from - 1) * (2 * i + from)),
      true,
    );
  const [s, c] = [series(size.value, 1), series(1n << BigInt(bits), 0)];
  return {
    sin:
      zeros > mostLeading
        ? besideItself(t)
        : n.around(t.low.m < 0n ? -s.value : s.value, s.slack + size.slack, -bits),
    cos: n.around(c.value, c.slack + size.slack, -bits),
  };
}

/** sin (shift 0) or cos (shift 1): the ends, and ±1 where the wave turns between them, at π/2 + kπ − shift·π/2. */
function wave(x: Range, shift: 0 | 1): Range {
  if (!n.isBounded(x)) return most;
  const name = shift === 0 ? 'sin' : 'cos';
  let values = n.hull(wavesAt(x.low)[name], wavesAt(x.high)[name]);
  const turns = n.subtract(n.divide(x, pi), n.fraction(BigInt(1 - shift), 2n));
  const [first, last] = [n.floor(turns.low), n.floor(turns.high)];
  if (last - first > 2n) return most;
  for (let k = first; k <= last + 1n; k++) {
    const at = n.add(n.whole(k), n.fraction(BigInt(1 - shift), 2n));
    const turn = n.multiply(at, pi);
    if (n.common(turn, x)) values = n.hull(values, n.whole(k % 2n === 0n ? 1 : -1));
  }
  return n.common(values, most) ?? values;
}

export const sin = (x: Range): Range => wave(x, 0);
export const cos = (x: Range): Range => wave(x, 1);
