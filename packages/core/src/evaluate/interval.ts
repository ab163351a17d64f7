/**
 * Interval arithmetic with outward rounding. A result encloses every value that the operation takes
 * for arguments in the given intervals. Method: Moore, Kearfott & Cloud, Introduction to Interval
 * Analysis (2009); the `sure` flag is the `dac`/`trv` decoration of IEEE 1788-2015.
 */
export interface Interval {
  readonly low: number;
  readonly high: number;
  /** Whether the operation is defined and continuous for every argument in the box. */
  readonly sure: boolean;
}

/** Nowhere defined: no value at all. */
export const nothing: Interval = { low: NaN, high: NaN, sure: false };
export const everything: Interval = { low: -Infinity, high: Infinity, sure: false };

export const isNothing = (x: Interval): boolean => Number.isNaN(x.low);

const smallest = 5e-324;
const relative = 2 ** -52;

/** A float below x by at least one unit in the last place. */
export const below = (x: number): number => x - (Math.abs(x) * relative + smallest);
/** A float above x by at least one unit in the last place. */
export const above = (x: number): number => x + (Math.abs(x) * relative + smallest);

export function interval(low: number, high: number, sure = true): Interval {
  return Number.isNaN(low) || Number.isNaN(high) ? { ...everything } : { low, high, sure };
}
export const exactly = (x: number): Interval => ({ low: x, high: x, sure: true });
/** Widened by one unit in the last place on both sides. */
export const outward = (low: number, high: number, sure = true): Interval =>
  interval(below(low), above(high), sure);

/**
 * Widened by 4 units in the last place: the elementary functions of the platform stay within 1 ulp
 * in V8's fdlibm port, but the language promises nothing, so the margin is stated and generous.
 */
export function outwardElementary(low: number, high: number, sure = true): Interval {
  const margin = (x: number) => Math.abs(x) * 4 * relative + smallest;
  return interval(low - margin(low), high + margin(high), sure);
}

export function add(a: Interval, b: Interval): Interval {
  if (isNothing(a) || isNothing(b)) return nothing;
  return outward(a.low + b.low, a.high + b.high, a.sure && b.sure);
}

export function subtract(a: Interval, b: Interval): Interval {
  if (isNothing(a) || isNothing(b)) return nothing;
  return outward(a.low - b.high, a.high - b.low, a.sure && b.sure);
}

export function negate(a: Interval): Interval {
  return isNothing(a) ? nothing : { low: -a.high, high: -a.low, sure: a.sure };
}

/** 0·∞ counts as 0: the bound is a limit of finite products. */
const times = (x: number, y: number): number => (x === 0 || y === 0 ? 0 : x * y);

export function multiply(a: Interval, b: Interval): Interval {
  if (isNothing(a) || isNothing(b)) return nothing;
  const p = times(a.low, b.low);
  const q = times(a.low, b.high);
  const r = times(a.high, b.low);
  const s = times(a.high, b.high);
  return outward(Math.min(p, q, r, s), Math.max(p, q, r, s), a.sure && b.sure);
}

export function reciprocal(b: Interval): Interval {
  if (isNothing(b) || (b.low === 0 && b.high === 0)) return nothing;
  if (b.low > 0 || b.high < 0) return outward(1 / b.high, 1 / b.low, b.sure);
  if (b.low === 0) return interval(below(1 / b.high), Infinity, false);
  if (b.high === 0) return interval(-Infinity, above(1 / b.low), false);
  return everything;
}

export function divide(a: Interval, b: Interval): Interval {
  if (isNothing(a) || isNothing(b)) return nothing;
  if (b.low > 0 || b.high < 0) {
    const quotients = [a.low / b.low, a.low / b.high, a.high / b.low, a.high / b.high].map((q) =>
      Number.isNaN(q) ? 0 : q,
    );
    return outward(Math.min(...quotients), Math.max(...quotients), a.sure && b.sure);
  }
  return multiply(a, reciprocal(b));
}

/** xⁿ for a whole number n. */
export function integerPower(x: Interval, n: number): Interval {
  if (isNothing(x)) return nothing;
  if (n < 0) return reciprocal(integerPower(x, -n));
  if (n === 0) return { low: 1, high: 1, sure: x.sure };
  const a = x.low ** n;
  const b = x.high ** n;
  if (n % 2 === 1) return outwardElementary(a, b, x.sure);
  if (x.low >= 0) return floorAtZero(outwardElementary(a, b, x.sure));
  if (x.high <= 0) return floorAtZero(outwardElementary(b, a, x.sure));
  return floorAtZero(outwardElementary(0, Math.max(a, b), x.sure));
}

const floorAtZero = (x: Interval): Interval => ({ low: Math.max(0, x.low), high: x.high, sure: x.sure });

/** The part of x inside [low, high], as the argument of a function defined only there. */
export function within(x: Interval, low: number, high: number): Interval {
  if (isNothing(x) || x.high < low || x.low > high) return nothing;
  const inside = x.low >= low && x.high <= high;
  return { low: Math.max(x.low, low), high: Math.min(x.high, high), sure: x.sure && inside };
}

/** The range of a function that only rises (or only falls) on its domain. */
export function monotone(f: (x: number) => number, x: Interval, falling = false): Interval {
  if (isNothing(x)) return nothing;
  return falling
    ? outwardElementary(f(x.high), f(x.low), x.sure)
    : outwardElementary(f(x.low), f(x.high), x.sure);
}

export function exp(x: Interval): Interval {
  return isNothing(x) ? nothing : floorAtZero(monotone(Math.exp, x));
}

export function ln(x: Interval): Interval {
  const positive = within(x, 0, Infinity);
  if (isNothing(positive) || positive.high === 0) return nothing;
  const result = monotone(Math.log, positive);
  return x.low > 0 ? result : { ...result, sure: false };
}

/** base^exponent for a positive base, through exp and ln. */
export function generalPower(base: Interval, exponent: Interval): Interval {
  if (exponent.low === exponent.high && Number.isInteger(exponent.low) && Math.abs(exponent.low) < 1e6) {
    return integerPower(base, exponent.low);
  }
  if (isNothing(base) || isNothing(exponent)) return nothing;
  const positive = exp(multiply(exponent, ln(base)));
  if (base.low > 0) return positive;
  // A base of 0 or a negative base with a whole exponent inside the interval has values too.
  const magnitude = Math.max(Math.abs(base.low), Math.abs(base.high));
  const bound = Math.max(magnitude ** exponent.high, magnitude ** exponent.low, 1);
  return {
    low: base.low < 0 ? -above(bound) : 0,
    high: exponent.low < 0 ? Infinity : above(bound),
    sure: false,
  };
}

/** The real x^(p/q) with p/q in lowest terms: for odd q defined for negative x too. */
export function rationalPower(x: Interval, p: number, q: number): Interval {
  if (p < 0) return reciprocal(rationalPower(x, -p, q));
  const root = q % 2 === 0 ? monotone((v) => v ** (1 / q), within(x, 0, Infinity)) : oddRoot(x, q);
  const rooted = q % 2 === 0 && !isNothing(root) ? floorAtZero(root) : root;
  return p === 1 ? rooted : integerPower(rooted, p);
}

function oddRoot(x: Interval, q: number): Interval {
  return monotone((v) => Math.sign(v) * Math.abs(v) ** (1 / q), x);
}

/** cos over an interval; whether a multiple of π lies inside is decided with a margin on the safe side. */
export function cos(x: Interval): Interval {
  if (isNothing(x)) return nothing;
  if (!Number.isFinite(x.low) || !Number.isFinite(x.high) || x.high - x.low >= 6.28) {
    return { low: -1, high: 1, sure: x.sure && Number.isFinite(x.low) && Number.isFinite(x.high) };
  }
  const margin = Math.max(Math.abs(x.low), Math.abs(x.high)) * 1e-15;
  const first = Math.ceil((x.low - margin) / Math.PI - 1e-15);
  const last = Math.floor((x.high + margin) / Math.PI + 1e-15);
  const hasEven = containsParity(first, last, 0);
  const hasOdd = containsParity(first, last, 1);
  const a = Math.cos(x.low);
  const b = Math.cos(x.high);
  const wide = outwardElementary(Math.min(a, b), Math.max(a, b), x.sure);
  return {
    low: hasOdd ? -1 : Math.max(-1, wide.low),
    high: hasEven ? 1 : Math.min(1, wide.high),
    sure: x.sure,
  };
}

function containsParity(first: number, last: number, parity: 0 | 1): boolean {
  if (last < first) return false;
  return last > first || Math.abs(first % 2) === parity;
}

const quarterTurn = outwardElementary(Math.PI / 2, Math.PI / 2);
export function sin(x: Interval): Interval {
  return cos(subtract(x, quarterTurn));
}

export function absolute(x: Interval): Interval {
  if (isNothing(x) || x.low >= 0) return x;
  if (x.high <= 0) return negate(x);
  return { low: 0, high: Math.max(-x.low, x.high), sure: x.sure };
}

/** A function constant between jumps, such as floor or sign. */
export function stepwise(f: (x: number) => number, x: Interval): Interval {
  if (isNothing(x)) return nothing;
  const low = f(x.low);
  const high = f(x.high);
  return { low, high, sure: x.sure && low === high };
}
