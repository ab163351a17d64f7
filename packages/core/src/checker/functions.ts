import * as n from './numbers.ts';
import type { Float, Range } from './numbers.ts';

/**
 * Enclosures of the functions of analysis by their series, every remainder bounded (Abramowitz and Stegun, 4.1, 4.2,
 * 4.3, 4.4; from memory). Rising and falling functions are taken at the ends.
 */

const symmetric = (size: Float): Range => ({ low: n.opposite(size), high: size });
const unit = n.whole(1);

/** Terms of a series until they are below every digit that is kept. */
const mostTerms = 400;

/** Σ terms, and a bound of what is left out: each term is at most half of the one before in size. */
function sumOf(first: Range, next: (term: Range, k: number) => Range): Range {
  let [sum, term] = [first, first];
  for (let k = 1; k < mostTerms; k++) {
    term = next(term, k);
    sum = n.add(sum, term);
    const size = n.hull(term, n.negate(term)).high;
    if (n.compare(size, { m: 1n, e: -200 }) < 0) return n.add(sum, symmetric({ m: size.m, e: size.e + 1 }));
  }
  return n.everything;
}

/** t + s·t³/3 + s²·t⁵/5 + … for |t| ≤ ½: artanh t where s is 1, arctan t where it is −1. */
function oddSeries(t: Range, s: 1 | -1): Range {
  const square = n.multiply(n.whole(s), n.multiply(t, t));
  let [power, sum] = [t, t];
  for (let k = 3; k < mostTerms; k += 2) {
    power = n.multiply(power, square);
    const term = n.divide(power, n.whole(k));
    sum = n.add(sum, term);
    const size = n.hull(term, n.negate(term)).high;
    if (n.compare(size, { m: 1n, e: -200 }) < 0) return n.add(sum, symmetric({ m: size.m, e: size.e + 1 }));
  }
  return n.everything;
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
  if (double > 1e12) return { low: n.fromDouble(1), high: n.everything.high };
  if (double < -1e12) return { low: n.zero, high: { m: 1n, e: -1_000_000_000 } };
  const k = Math.round(double / Math.LN2);
  const rest = n.subtract(n.point(x), n.multiply(n.whole(k), ln2));
  const small = n.scaled(rest, -6);
  let value = sumOf(unit, (term, i) => n.divide(n.multiply(term, small), n.whole(i)));
  for (let i = 0; i < 6; i++) value = n.multiply(value, value);
  return n.scaled(value, k);
});

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

/** sin and cos at one number. */
function wavesAt(x: Float): { sin: Range; cos: Range } {
  const turns = n.divide(n.point(x), quarter);
  const k = n.floor(n.add(turns, n.fraction(1n, 2n)).low);
  const rest = n.subtract(n.point(x), n.multiply(n.whole(k), quarter));
  const square = n.negate(n.multiply(rest, rest));
  const series = (first: Range, from: number): Range =>
    sumOf(first, (term, i) =>
      n.divide(n.multiply(term, square), n.whole((2 * i + from - 1) * (2 * i + from))),
    );
  const [s, c] = [series(rest, 1), series(unit, 0)];
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

const most: Range = n.between(-1, 1);

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
