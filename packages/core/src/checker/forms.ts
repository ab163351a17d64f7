import { NoRule } from './literals.ts';

/**
 * Quotients of polynomials with whole coefficients in generators: numbers that stand for what a formula is made of, such as
 * its variable, a root or a logarithm.
 */

/** Coefficients by products of generators, each written as its number and its power: "0^2 3^1"; "" is 1. */
export type Sum = ReadonlyMap<string, bigint>;
export interface Form {
  readonly above: Sum;
  readonly below: Sum;
}
/** Powers by generator. */
export type Powers = ReadonlyMap<number, number>;

/** Terms that are written out. */
const mostTerms = 400;

export const powersOf = (key: string): Powers =>
  new Map(key === '' ? [] : key.split(' ').map((part) => part.split('^').map(Number) as [number, number]));
export const keyOf = (powers: Powers): string =>
  [...powers]
    .filter(([, power]) => power !== 0)
    .sort(([a], [b]) => a - b)
    .map(([generator, power]) => `${generator}^${power}`)
    .join(' ');

export const single = (coefficient: bigint, key = ''): Sum =>
  new Map(coefficient === 0n ? [] : [[key, coefficient]]);
export const one = single(1n);
export const whole = (n: bigint | number): Form => ({ above: single(BigInt(n)), below: one });

export function plus(x: Sum, y: Sum): Sum {
  const sum = new Map(x);
  for (const [key, c] of y) {
    const total = (sum.get(key) ?? 0n) + c;
    if (total === 0n) sum.delete(key);
    else sum.set(key, total);
  }
  if (sum.size > mostTerms) throw new NoRule('too many terms');
  return sum;
}
export const scaled = (x: Sum, by: bigint): Sum => new Map([...x].map(([key, c]) => [key, c * by]));
export const fraction = (p: bigint | number, q: bigint | number): Form => ({
  above: single(BigInt(p)),
  below: single(BigInt(q)),
});
export const minus = (u: Form): Form => ({ ...u, above: scaled(u.above, -1n) });

/** The one term of a sum; null where it has more or none. */
export function termOf(x: Sum): { c: bigint; powers: Powers } | null {
  const [first, ...others] = x;
  return first && others.length === 0 ? { c: first[1], powers: powersOf(first[0]) } : null;
}

/** The number that a sum is, 0 left out; null of another. */
export function numberOf(x: Sum): bigint | null {
  const term = termOf(x);
  return term && term.powers.size === 0 ? term.c : null;
}

export const textOf = (x: Sum): string =>
  [...x]
    .map(([key, c]) => `${c}*${key}`)
    .sort()
    .join('+');

export const gcd = (a: bigint, b: bigint): bigint => {
  let [x, y] = [a < 0n ? -a : a, b < 0n ? -b : b];
  while (y > 0n) [x, y] = [y, x % y];
  return x;
};
export const contentOf = (x: Sum): bigint => [...x.values()].reduce(gcd, 0n);

/** Whether the coefficient of the term that comes first by its key is below 0. */
export const isNegative = (x: Sum): boolean => {
  const [first] = [...x].sort(([a], [b]) => (a < b ? -1 : 1));
  return first !== undefined && first[1] < 0n;
};

/** What divides all products. */
export function commonOf(keys: readonly string[]): Powers {
  const [first, ...others] = keys.map(powersOf);
  const shared = [...(first ?? [])].map(
    ([g, power]) => [g, Math.min(power, ...others.map((powers) => powers.get(g) ?? 0))] as const,
  );
  return new Map(shared.filter(([, power]) => power > 0));
}

/** A product without what divides it. */
export const without = (powers: Powers, divisor: Powers): Powers =>
  new Map([...powers].map(([g, power]) => [g, power - (divisor.get(g) ?? 0)]));

/** Without what divides both sides: whole numbers, and products of generators. */
export function lowest({ above, below }: Form): Form {
  if (above.size === 0) return { above, below: one };
  const divisor = gcd(contentOf(above), contentOf(below)) * (isNegative(below) ? -1n : 1n);
  const common = commonOf([...above.keys(), ...below.keys()]);
  const less = (x: Sum): Sum =>
    new Map([...x].map(([key, c]) => [keyOf(without(powersOf(key), common)), c / divisor]));
  return { above: less(above), below: less(below) };
}

const largestPrime = 1000n;

/** The prime factors of a number above 0; what is left beyond small ones as it is. */
export function factorsOf(n: bigint): [bigint, number][] {
  const factors: [bigint, number][] = [];
  let rest = n;
  for (let p = 2n; p <= largestPrime && rest > 1n; p++) {
    let power = 0;
    while (rest % p === 0n) {
      rest /= p;
      power++;
    }
    if (power > 0) factors.push([p, power]);
  }
  return rest > 1n ? [...factors, [rest, 1]] : factors;
}
