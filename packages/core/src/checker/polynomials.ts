import type { Expression } from '../language/tree.ts';
import { ratioOf } from './literals.ts';
import { compare, isBounded, type Float, type Range } from './numbers.ts';

/** Polynomials with whole coefficients, lowest power first; the last is not 0, and 0 has none. */
export type Polynomial = readonly bigint[];

/** A quotient of polynomials. */
export interface Rational {
  readonly above: Polynomial;
  readonly below: Polynomial;
}

const highestDegree = 120;

const trimmed = (p: readonly bigint[]): Polynomial => {
  let length = p.length;
  while (length > 0 && p[length - 1] === 0n) length--;
  return p.slice(0, length);
};

const add = (p: Polynomial, q: Polynomial): Polynomial =>
  trimmed(Array.from({ length: Math.max(p.length, q.length) }, (_, k) => (p[k] ?? 0n) + (q[k] ?? 0n)));
const negate = (p: Polynomial): Polynomial => p.map((c) => -c);

function multiply(p: Polynomial, q: Polynomial): Polynomial {
  if (p.length + q.length > highestDegree) throw new RangeError('degree');
  const result = Array.from({ length: Math.max(0, p.length + q.length - 1) }, () => 0n);
  p.forEach((a, i) => {
    q.forEach((b, j) => {
      result[i + j] = (result[i + j] as bigint) + a * b;
    });
  });
  return trimmed(result);
}

const slope = (p: Polynomial): Polynomial => p.slice(1).map((c, k) => c * BigInt(k + 1));

/** A formula of sums, products, quotients and whole powers of the variable and numbers; null for any other. */
export function rationalOf(node: Expression, variable: string): Rational | null {
  try {
    return read(node, variable);
  } catch (error) {
    if (error instanceof RangeError) return null;
    throw error;
  }
}

function read(node: Expression, variable: string): Rational | null {
  const inner = (part: Expression): Rational | null => read(part, variable);
  switch (node.kind) {
    case 'number': {
      const ratio = ratioOf(node);
      return ratio && { above: trimmed([BigInt(ratio.p)]), below: [BigInt(ratio.q)] };
    }
    case 'name':
      return node.name === variable ? { above: [0n, 1n], below: [1n] } : null;
    case 'negate': {
      const u = inner(node.operand);
      return u && { ...u, above: negate(u.above) };
    }
    case 'add':
    case 'subtract': {
      const [u, v] = [inner(node.left), inner(node.right)];
      if (!u || !v) return null;
      const right = multiply(v.above, u.below);
      return {
        above: add(multiply(u.above, v.below), node.kind === 'add' ? right : negate(right)),
        below: multiply(u.below, v.below),
      };
    }
    case 'multiply':
    case 'divide': {
      const [u, w] = [inner(node.left), inner(node.right)];
      if (!u || !w) return null;
      // 1/(1/x) has no value at 0.
      if (node.kind === 'divide' && w.below.length > 1) return null;
      const v = node.kind === 'multiply' ? w : { above: w.below, below: w.above };
      if (v.below.length === 0) return null;
      return { above: multiply(u.above, v.above), below: multiply(u.below, v.below) };
    }
    case 'power': {
      const [u, ratio] = [inner(node.base), ratioOf(node.exponent)];
      if (!u || !ratio || ratio.q !== 1 || Math.abs(ratio.p) > 60) return null;
      if (ratio.p < 0 && (u.above.length === 0 || u.below.length > 1)) return null;
      const base = ratio.p < 0 ? { above: u.below, below: u.above } : u;
      let result: Rational = { above: [1n], below: [1n] };
      for (let i = 0; i < Math.abs(ratio.p); i++)
        result = { above: multiply(result.above, base.above), below: multiply(result.below, base.below) };
      return result;
    }
    default:
      return null;
  }
}

/** The polynomial whose zeros are those of the derivative of the given order, where the function has values. */
export function numeratorOf({ above, below }: Rational, order: number): Polynomial | null {
  let [p, q] = [above, below];
  for (let k = 0; k < order; k++) {
    const cleared = withoutCommon(p, q);
    [p, q] = [
      add(multiply(slope(cleared.p), cleared.q), negate(multiply(cleared.p, slope(cleared.q)))),
      multiply(cleared.q, cleared.q),
    ];
  }
  return withoutCommon(p, q).p;
}

function withoutCommon(p: Polynomial, q: Polynomial): { p: Polynomial; q: Polynomial } {
  const common = greatestDivisor(p, q);
  return common.length < 2 ? { p, q } : { p: quotient(p, common), q: quotient(q, common) };
}

const size = (c: bigint): bigint => (c < 0n ? -c : c);

function primitive(p: Polynomial): Polynomial {
  let common = 0n;
  for (const c of p) {
    let [a, b] = [size(c), common];
    while (b > 0n) [a, b] = [b, a % b];
    common = a;
  }
  return common > 1n ? p.map((c) => c / common) : p;
}

/** The remainder of p by q, times a positive number. */
function remainder(p: Polynomial, q: Polynomial): Polynomial {
  let rest = p;
  const leading = q.at(-1) as bigint;
  while (rest.length >= q.length) {
    const top = rest.at(-1) as bigint;
    const shift = rest.length - q.length;
    const factor = leading < 0n ? -top : top;
    const lifted = rest.map((c) => c * size(leading));
    rest = trimmed(
      lifted.map((c, k) => c - factor * (k >= shift ? (q[k - shift] as bigint) : 0n)).slice(0, -1),
    );
  }
  return primitive(rest);
}

function greatestDivisor(p: Polynomial, q: Polynomial): Polynomial {
  let [a, b] = [primitive(p), primitive(q)];
  while (b.length > 0) [a, b] = [b, remainder(a, b)];
  return a;
}

/** p/q, times a positive number, where q divides p. */
function quotient(p: Polynomial, q: Polynomial): Polynomial {
  const leading = size(q.at(-1) as bigint);
  let rest = p.map((c) => c * leading ** BigInt(Math.max(0, p.length - q.length + 1)));
  const result: bigint[] = [];
  while (rest.length >= q.length) {
    const factor = (rest.at(-1) as bigint) / (q.at(-1) as bigint);
    const shift = rest.length - q.length;
    result[shift] = factor;
    rest = [...trimmed(rest.map((c, k) => c - factor * (k >= shift ? (q[k - shift] as bigint) : 0n)))];
  }
  return primitive(Array.from(result, (c) => c ?? 0n));
}

/** The sign of p at a number m·2^e. */
export function signAt(p: Polynomial, { m, e }: Float): -1 | 0 | 1 {
  const [top, bottom] = e < 0 ? [m, 1n << BigInt(-e)] : [m << BigInt(e), 1n];
  let [sum, scale] = [0n, 1n];
  for (const c of [...p].reverse()) {
    sum = sum * top + c * scale;
    scale *= bottom;
  }
  return sum > 0n ? 1 : sum < 0n ? -1 : 0;
}

const chains = new WeakMap<Polynomial, readonly Polynomial[]>();

/** The polynomial without its multiple zeros, its slope, and the negative remainders of each two (Sturm, 1829). */
function chainOf(p: Polynomial): readonly Polynomial[] {
  const known = chains.get(p);
  if (known) return known;
  const simple = quotient(p, greatestDivisor(p, slope(p)));
  const chain: Polynomial[] = [simple, primitive(slope(simple))];
  for (;;) {
    const rest = remainder(chain.at(-2) as Polynomial, chain.at(-1) as Polynomial);
    if (rest.length === 0) break;
    chain.push(negate(rest));
  }
  chains.set(p, chain);
  return chain;
}

/** How many different zeros p has between two numbers, neither of them counted. */
export function zerosBetween(p: Polynomial, from: Float, to: Float): number {
  if (p.length < 2) return 0;
  const chain = chainOf(p);
  const changes = (x: Float): number => {
    const signs = chain.map((one) => signAt(one, x)).filter((sign) => sign !== 0);
    return signs.filter((sign, i) => i > 0 && sign !== signs[i - 1]).length;
  };
  // Sturm counts from < x ≤ to.
  return changes(from) - changes(to) - (signAt(chain[0] as Polynomial, to) === 0 ? 1 : 0);
}

/** Degree up to which a formula within another is counted out. */
const highestInner = 24;
const rationals = new WeakMap<
  Expression,
  { readonly variable: string; readonly rational: Rational | null }
>();

function knownRational(formula: Expression, variable: string): Rational | null {
  const known = rationals.get(formula);
  if (known?.variable === variable) return known.rational;
  const found = rationalOf(formula, variable);
  const isSmall = found && Math.max(found.above.length, found.below.length) <= highestInner;
  const rational = isSmall ? found : null;
  rationals.set(formula, { variable, rational });
  return rational;
}

/**
 * What counting zeros tells of a quotient of polynomials inside a part: its sign, 0 where it is 0 throughout; null where it
 * has a zero or a pole there, or is no such quotient.
 */
export function signOfRational(formula: Expression, variable: string, part: Range): -1 | 0 | 1 | null {
  const rational = hasNoPole(formula, variable, part) ? knownRational(formula, variable) : null;
  if (!rational) return null;
  const { above, below } = rational;
  if (above.length === 0) return 0;
  if (zerosBetween(above, part.low, part.high) !== 0) return null;
  const middle = middleOf(part);
  return (signAt(above, middle) * signAt(below, middle)) as -1 | 1;
}

/** Whether a formula is a quotient of polynomials without a pole inside a part. */
export function hasNoPole(formula: Expression, variable: string, { low, high }: Range): boolean {
  if (!isBounded({ low, high }) || compare(low, high) >= 0) return false;
  const rational = knownRational(formula, variable);
  return rational !== null && zerosBetween(rational.below, low, high) === 0;
}

/** The sum of both ends over 2, with no rounding. */
function middleOf({ low, high }: Range): Float {
  const e = Math.min(low.e, high.e);
  const m = (low.m << BigInt(low.e - e)) + (high.m << BigInt(high.e - e));
  return { m, e: e - 1 };
}
