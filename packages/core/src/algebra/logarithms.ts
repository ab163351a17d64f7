import {
  baseAndExponent,
  callOf,
  numeric,
  primeFactors,
  product,
  splitCoefficient,
  sum,
  type Canonical,
} from './canonical.ts';
import { factorsOf } from './parts.ts';
import * as rational from '../numbers/rational.ts';
import type { Rational } from '../numbers/rational.ts';

/** Largest number that a joined logarithm may have above or below the line. */
const largestArgument = 1_000_000n;

/**
 * A sum in which the logarithms of numbers are one: ln 6 − ln 3 is ln 2, and −ln (√2/2) is half of ln 2. Written with
 * the largest common factor before it, of a number above 1.
 */
export function withJoinedLogarithms(form: Canonical): Canonical {
  const terms = form.kind === 'sum' ? form.terms : [form];
  const exponents = new Map<bigint, Rational>();
  const others: Canonical[] = [];
  for (const term of terms) {
    const primes = logarithmOf(term);
    if (!primes) others.push(term);
    for (const [prime, count] of primes ?? [])
      exponents.set(prime, rational.add(exponents.get(prime) ?? rational.zero, count));
  }
  const joined = others.length < terms.length ? oneLogarithm(exponents) : null;
  return joined ? sum([...others, joined]) : form;
}

type Exponents = ReadonlyMap<bigint, Rational>;

/** A term q·ln r, r a product of powers of numbers, as the exponents of primes; null for any other. */
function logarithmOf(term: Canonical): [bigint, Rational][] | null {
  const [only, ...rest] = factorsOf(term);
  if (rest.length > 0 || only?.kind !== 'call' || only.name !== 'ln') return null;
  const scale = term.kind === 'product' ? term.coefficient : rational.one;
  const [argument] = only.operands as [Canonical];
  const found: [bigint, Rational][] = [];
  const take = (value: Rational, exponent: Rational): boolean => {
    if (rational.compare(value, rational.zero) <= 0) return false;
    for (const [number, sign] of [
      [value.numerator, 1],
      [value.denominator, -1],
    ] as const) {
      for (const [prime, count] of primeFactors(number, sign))
        found.push([prime, rational.multiply(scale, rational.multiply(exponent, rational.rational(count)))]);
    }
    return true;
  };
  const { coefficient } = splitCoefficient(argument);
  const areNumbers = factorsOf(argument).every((factor) => {
    const { base, exponent } = baseAndExponent(factor);
    return base.kind === 'number' && exponent.kind === 'number' && take(base.value, exponent.value);
  });
  return areNumbers && take(coefficient, rational.one) ? found : null;
}

function oneLogarithm(exponents: Exponents): Canonical | null {
  const kept = [...exponents].filter(([, count]) => !rational.isZero(count));
  if (kept.length === 0) return numeric(rational.zero);
  const common = kept.reduce((divisor, [, count]) => commonDivisor(divisor, count), rational.zero);
  let argument = rational.one;
  for (const [prime, count] of kept) {
    const power = rational.integerPower(
      rational.rational(prime),
      Number(rational.divide(count, common).numerator),
    );
    if (!power) return null;
    argument = rational.multiply(argument, power);
    if (argument.numerator > largestArgument || argument.denominator > largestArgument) return null;
  }
  const isBelowOne = rational.compare(argument, rational.one) < 0;
  const number = isBelowOne ? rational.divide(rational.one, argument) : argument;
  const factor = isBelowOne ? rational.negate(common) : common;
  return product([numeric(factor), callOf('ln', [numeric(number)])]);
}

/** The largest rational of which both are whole multiples. */
function commonDivisor(a: Rational, b: Rational): Rational {
  let [x, y] = [rational.absolute(a), rational.absolute(b)];
  while (!rational.isZero(y)) {
    const whole = rational.rational(rational.floor(rational.divide(x, y)));
    [x, y] = [y, rational.subtract(x, rational.multiply(whole, y))];
  }
  return x;
}
