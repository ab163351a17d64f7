import type { Expression } from '../language/tree.ts';
import { NoRule, ratioOf } from './literals.ts';

/**
 * Sums of fractions times powers of π and of e. That such a sum is written as 0 shows that it is 0; of one that is not,
 * nothing is said.
 */
type Exact = ReadonlyMap<string, Fraction>;
interface Fraction {
  readonly p: bigint;
  readonly q: bigint;
}

const size = (n: bigint): bigint => (n < 0n ? -n : n);

function lowest(p: bigint, q: bigint): Fraction {
  let [a, b] = [size(p), size(q)];
  while (b > 0n) [a, b] = [b, a % b];
  const sign = q < 0n ? -1n : 1n;
  return { p: (sign * p) / a, q: (sign * q) / a };
}

const keyOf = (pi: number, e: number): string => `${pi},${e}`;
const powersOf = (key: string): [number, number] => key.split(',').map(Number) as [number, number];
const single = (p: bigint, q = 1n, pi = 0, e = 0): Exact =>
  new Map(p === 0n ? [] : [[keyOf(pi, e), lowest(p, q)]]);
const nought = single(0n);
const one = single(1n);

export const isZero = (x: Exact): boolean => x.size === 0;

function add(x: Exact, y: Exact): Exact {
  const sum = new Map(x);
  for (const [key, { p, q }] of y) {
    const before = sum.get(key) ?? { p: 0n, q: 1n };
    const top = before.p * q + p * before.q;
    if (top === 0n) sum.delete(key);
    else sum.set(key, lowest(top, before.q * q));
  }
  return sum;
}

function multiply(x: Exact, y: Exact): Exact {
  let result = nought;
  for (const [k, a] of x)
    for (const [l, b] of y) {
      const [[i, j], [m, n]] = [powersOf(k), powersOf(l)];
      result = add(result, single(a.p * b.p, a.q * b.q, i + m, j + n));
    }
  return result;
}

const scale = (x: Exact, p: bigint, q = 1n): Exact => multiply(x, single(p, q));

function reciprocal(x: Exact): Exact {
  const [term, ...more] = x;
  if (!term || more.length > 0) throw new NoRule('division');
  const [pi, e] = powersOf(term[0]);
  return single(term[1].q, term[1].p, -pi, -e);
}

/** The fraction that it is; null for anything else. */
function fractionOf(x: Exact): Fraction | null {
  if (isZero(x)) return { p: 0n, q: 1n };
  const [[key, value]] = [...x] as [[string, Fraction]];
  return x.size === 1 && key === keyOf(0, 0) ? value : null;
}

export type ExactJet = readonly Exact[];
const at = (u: ExactJet, k: number): Exact => u[k] ?? nought;
const first = (u: ExactJet): Exact => at(u, 0);
const constant = (value: Exact, length: number): ExactJet =>
  Array.from({ length }, (_, k) => (k === 0 ? value : nought));
const plus = (u: ExactJet, v: ExactJet): ExactJet => u.map((c, k) => add(c, at(v, k)));
export const times = (u: ExactJet, v: ExactJet): ExactJet =>
  u.map((_, k) =>
    Array.from({ length: k + 1 }, (__, j) => multiply(at(u, j), at(v, k - j))).reduce(add, nought),
  );
const minus = (u: ExactJet): ExactJet => u.map((c) => scale(c, -1n));

/** From the value and the jet of the slope: (F∘u)′ = F′(u)·u′. */
function along(u: ExactJet, value: Exact, slope: (k: number, known: ExactJet) => Exact): ExactJet {
  const result = [value];
  for (let k = 1; k < u.length; k++) {
    let sum = nought;
    for (let j = 1; j <= k; j++) sum = add(sum, multiply(scale(at(u, j), BigInt(j)), slope(k - j, result)));
    result.push(scale(sum, 1n, BigInt(k)));
  }
  return result;
}

export function inverse(u: ExactJet): ExactJet {
  const result = [reciprocal(first(u))];
  for (let k = 1; k < u.length; k++) {
    let sum = nought;
    for (let j = 1; j <= k; j++) sum = add(sum, multiply(at(u, j), at(result, k - j)));
    result.push(scale(multiply(sum, first(result)), -1n));
  }
  return result;
}

function raised(u: ExactJet, n: number): ExactJet {
  if (n < 0) return inverse(raised(u, -n));
  let result = constant(one, u.length);
  for (let i = 0; i < n; i++) result = times(result, u);
  return result;
}

/** u^(p/q) where u begins with a square, a cube …: w′ u = r w u′. */
function root(u: ExactJet, p: number, q: number): ExactJet {
  const value = fractionOf(first(u));
  if (value?.p === 0n && u.length === 1 && p > 0) return [nought];
  if (!value || value.p === 0n) throw new NoRule('root');
  const [top, bottom] = [rootOf(value.p, q), rootOf(value.q, q)];
  const result = [...raised([single(top, bottom)], p)];
  const below = reciprocal(first(u));
  for (let k = 1; k < u.length; k++) {
    let sum = nought;
    for (let j = 1; j <= k; j++)
      sum = add(sum, scale(multiply(at(u, j), at(result, k - j)), BigInt(p * j - q * (k - j)), BigInt(q)));
    result.push(scale(multiply(sum, below), 1n, BigInt(k)));
  }
  return result;
}

function rootOf(n: bigint, q: number): bigint {
  const near = BigInt(Math.round(Number(size(n)) ** (1 / q)));
  if (near ** BigInt(q) !== size(n) || (n < 0n && q % 2 === 0)) throw new NoRule('root');
  return n < 0n ? -near : near;
}

function exponential(u: ExactJet): ExactJet {
  const power = fractionOf(first(u));
  if (!power || power.q !== 1n) throw new NoRule('exp');
  return along(u, single(1n, 1n, 0, Number(power.p)), (k, known) => at(known, k));
}

/** sin and cos at whole multiples of π/2. */
function waves(u: ExactJet): { sin: ExactJet; cos: ExactJet } {
  const quarters = fractionOf(multiply(first(u), single(2n, 1n, -1)));
  if (!quarters || quarters.q !== 1n) throw new NoRule('wave');
  const turn = Number(((quarters.p % 4n) + 4n) % 4n);
  const values = [0n, 1n, 0n, -1n];
  const sin = [single(values[turn] as bigint)];
  const cos = [single(values[(turn + 1) % 4] as bigint)];
  for (let k = 1; k < u.length; k++) {
    const part = u.slice(0, k + 1);
    const [s, c] = [
      at(
        along(part, nought, (j) => at(cos, j)),
        k,
      ),
      at(
        along(part, nought, (j) => at(sin, j)),
        k,
      ),
    ];
    sin.push(s);
    cos.push(scale(c, -1n));
  }
  return { sin, cos };
}

/** A function that is 0 at 0 (at 1 for ln), by its slope there. */
function fromSlope(u: ExactJet, begins: Exact, slope: (v: ExactJet) => ExactJet): ExactJet {
  if (!isZero(add(first(u), scale(begins, -1n)))) throw new NoRule('value');
  const slopes = slope(u);
  return along(u, nought, (k) => at(slopes, k));
}

const onePlus = (v: ExactJet, sign: bigint): ExactJet =>
  plus(
    constant(one, v.length),
    times(v, v).map((c) => scale(c, sign)),
  );

/**
 * The Taylor coefficients of a formula at an exact number.
 * @throws NoRule where they are no such sums, or it has no value there
 */
export function exactJet(node: Expression, names: ReadonlyMap<string, ExactJet>, length: number): ExactJet {
  const inner = (part: Expression): ExactJet => exactJet(part, names, length);
  switch (node.kind) {
    case 'number': {
      const ratio = ratioOf(node);
      if (!ratio) throw new NoRule('number');
      return constant(single(BigInt(ratio.p), BigInt(ratio.q)), length);
    }
    case 'constant':
      if (node.name === 'infinity') throw new NoRule('infinity');
      return constant(node.name === 'pi' ? single(1n, 1n, 1) : single(1n, 1n, 0, 1), length);
    case 'name': {
      const known = names.get(node.name);
      if (!known) throw new NoRule(node.name);
      return known;
    }
    case 'negate':
      return minus(inner(node.operand));
    case 'add':
      return plus(inner(node.left), inner(node.right));
    case 'subtract':
      return plus(inner(node.left), minus(inner(node.right)));
    case 'multiply':
      return times(inner(node.left), inner(node.right));
    case 'divide':
      return times(inner(node.left), inverse(inner(node.right)));
    case 'power': {
      if (node.base.kind === 'constant' && node.base.name === 'e') return exponential(inner(node.exponent));
      const ratio = ratioOf(node.exponent);
      if (!ratio) throw new NoRule('power');
      return ratio.q === 1 ? raised(inner(node.base), ratio.p) : root(inner(node.base), ratio.p, ratio.q);
    }
    case 'call': {
      const [argument] = node.arguments;
      if (!argument || node.arguments.length > 1) throw new NoRule(node.name);
      return exactCall(node.name, inner(argument));
    }
    default:
      throw new NoRule(node.kind);
  }
}

function exactCall(name: string, u: ExactJet): ExactJet {
  switch (name) {
    case 'sin':
    case 'cos':
      return waves(u)[name];
    case 'tan':
      return times(waves(u).sin, inverse(waves(u).cos));
    case 'exp':
      return exponential(u);
    case 'ln':
      return fromSlope(u, one, inverse);
    case 'sqrt':
      return root(u, 1, 2);
    case 'cbrt':
      return root(u, 1, 3);
    case 'arctan':
      return fromSlope(u, nought, (v) => inverse(onePlus(v, 1n)));
    case 'arcsin':
      return fromSlope(u, nought, (v) => root(onePlus(v, -1n), -1, 2));
    case 'sinh':
    case 'cosh': {
      const [up, down] = [exponential(u), exponential(minus(u))];
      return plus(up, name === 'sinh' ? minus(down) : down).map((c) => scale(c, 1n, 2n));
    }
    case 'degrees':
      return u.map((c) => multiply(c, single(1n, 180n, 1)));
    default:
      throw new NoRule(name);
  }
}

/** The variable at an exact number. */
export function exactVariable(place: Expression, length: number): ExactJet {
  const [value = nought] = exactJet(place, new Map(), 1);
  return Array.from({ length }, (_, k) => (k === 0 ? value : k === 1 ? one : nought));
}
