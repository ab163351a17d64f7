import {
  baseAndExponent,
  power,
  product,
  splitCoefficient,
  sum,
  whole,
  numeric,
  type Canonical,
} from './canonical.ts';
import { mostTerms } from '../budget/tooLarge.ts';
import { factorsOf } from './parts.ts';
import * as rational from '../numbers/rational.ts';
import type { Rational } from '../numbers/rational.ts';

const highestExpandedPower = 6n;

/** Products of sums multiplied out, as far as they stay below a bounded number of terms. */
export function expanded(c: Canonical): Canonical {
  if (c.kind === 'sum') return sum(c.terms.map(expanded));
  const factors = c.kind === 'product' ? c.factors : [c];
  const sums = factors.flatMap(sumsOf);
  if (sums.length === 0) return c;
  const others = factors.filter((factor) => sumsOf(factor).length === 0);
  let terms: readonly Canonical[] = [product([numeric(splitCoefficient(c).coefficient), ...others])];
  for (const { terms: parts } of sums) {
    if (terms.length * parts.length > mostTerms) return c;
    const multiplied = sum(terms.flatMap((term) => parts.map((part) => product([term, part]))));
    terms = multiplied.kind === 'sum' ? multiplied.terms : [multiplied];
  }
  return sum(terms);
}

/** A sum or small whole power of a sum as that many sums; nothing for any other factor. */
function sumsOf(factor: Canonical): { terms: readonly Canonical[] }[] {
  const { base, exponent } = baseAndExponent(factor);
  if (base.kind !== 'sum' || exponent.kind !== 'number') return [];
  const isSmall =
    rational.isInteger(exponent.value) &&
    exponent.value.numerator > 0n &&
    exponent.value.numerator <= highestExpandedPower;
  return isSmall
    ? Array.from({ length: Number(exponent.value.numerator) }, () => ({ terms: base.terms }))
    : [];
}

/**
 * A sum with the factors that all its terms share taken out: the lowest power of each common base,
 * negative ones too (which brings fractions over one denominator), and the common number.
 */
export function factored(c: Canonical): Canonical {
  if (c.kind === 'product') return product([numeric(c.coefficient), ...c.factors.map(factored)]);
  if (c.kind !== 'sum') return c;
  const common = commonFactor(c.terms);
  const inverse = power(common, whole(-1));
  const rest = sum(c.terms.map((term) => expandedIfShorter(product([term, inverse]))));
  return product([common, expandedIfShorter(rest)]);
}

const expandedIfShorter = (c: Canonical): Canonical => {
  const candidate = expanded(c);
  return candidate.key.length < c.key.length ? candidate : c;
};

function commonFactor(terms: readonly Canonical[]): Canonical {
  const lowest = new Map<string, { base: Canonical; exponent: Rational; count: number }>();
  for (const term of terms) {
    for (const { base, exponent } of exponentsIn(term).values()) note(lowest, base, exponent);
  }
  const shared = [...lowest.values()].filter(
    ({ count, exponent }) => count === terms.length || rational.isNegative(exponent),
  );
  const numbers = terms.map((term) => splitCoefficient(term).coefficient);
  return product([
    numeric(content(numbers)),
    ...shared.map(({ base, exponent }) => power(base, numeric(exponent))),
  ]);
}

/** An exponent as a sum without a number and a number: x^(x − 1) is xˣ·x⁻¹. */
function splitExponent(exponent: Canonical): { moving: Canonical | null; fixed: Rational } {
  if (exponent.kind === 'number') return { moving: null, fixed: exponent.value };
  const terms = exponent.kind === 'sum' ? exponent.terms : [exponent];
  const number = terms.find((term) => term.kind === 'number');
  if (number?.kind !== 'number') return { moving: exponent, fixed: rational.zero };
  return { moving: sum(terms.filter((term) => term !== number)), fixed: number.value };
}

/** The bases of a term's factors with their exponents, each base once. */
function exponentsIn(term: Canonical): Map<string, { base: Canonical; exponent: Rational }> {
  const found = new Map<string, { base: Canonical; exponent: Rational }>();
  const gather = (base: Canonical, exponent: Rational): void => {
    const before = found.get(base.key)?.exponent ?? rational.zero;
    found.set(base.key, { base, exponent: rational.add(before, exponent) });
  };
  for (const factor of factorsOf(term)) {
    const { base, exponent } = baseAndExponent(factor);
    const { moving, fixed } = splitExponent(exponent);
    if (moving) gather(power(base, moving), rational.one);
    if (!rational.isZero(fixed)) gather(base, fixed);
  }
  return found;
}

function note(
  lowest: Map<string, { base: Canonical; exponent: Rational; count: number }>,
  base: Canonical,
  exponent: Rational,
): void {
  const before = lowest.get(base.key);
  const least = before && rational.compare(before.exponent, exponent) < 0 ? before.exponent : exponent;
  lowest.set(base.key, { base, exponent: least, count: (before?.count ?? 0) + 1 });
}

/** The greatest rational that leaves whole numbers without a common divisor; negative where all are. */
function content(numbers: readonly Rational[]): Rational {
  let numerator = 0n;
  let denominator = 1n;
  for (const { numerator: n, denominator: d } of numbers) {
    numerator = divisor(numerator, n);
    denominator = (denominator * d) / divisor(denominator, d);
  }
  const isNegative = numbers.every(rational.isNegative);
  return rational.rational(numerator === 0n ? 1n : isNegative ? -numerator : numerator, denominator);
}

function divisor(a: bigint, b: bigint): bigint {
  let [x, y] = [a < 0n ? -a : a, b < 0n ? -b : b];
  while (y > 0n) [x, y] = [y, x % y];
  return x;
}
