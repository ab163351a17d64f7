import {
  callOf,
  difference,
  negative,
  numeric,
  power,
  primeFactors,
  product,
  splitCoefficient,
  quotient,
  sum,
  whole,
  type Canonical,
} from './canonical.ts';
import { expanded } from './expand.ts';
import { mapped } from './parts.ts';
import * as rational from '../numbers/rational.ts';
import type { Rational } from '../numbers/rational.ts';
import { rationalized, withoutBars } from './surds.ts';

/**
 * Shorter forms of constants that a textbook would write: sin(π/12) as (√6 − √2)/4, √(3 + 2√2) as √2 + 1, arcsin(sin 3)
 * as π − 3, sinh(ln 2) as 3/4, log₄ 8 as 3/2. Each is equal to what it stands for, by algebra.
 */
export const inConstantForms = (c: Canonical): Canonical => mapped(mapped(c, undoneWave), shorter);

const half = rational.rational(1, 2);
const two = rational.rational(2);
const pi: Canonical = callOf('degrees', [whole(180)]);
const root = (c: Canonical): Canonical => power(c, numeric(half));

function shorter(c: Canonical): Canonical {
  if (c.kind === 'power') {
    const plain = (c.exponent.kind === 'number' && denested(c.base, c.exponent.value)) || c;
    return rationalized(plain);
  }
  if (c.kind !== 'call') return c;
  if (c.name === 'abs') return withoutBars(c);
  const [u, v] = c.operands as [Canonical, Canonical?];
  const turns = halfTurns(u);
  const atPart = turns?.rest && rational.isZero(turns.rest) ? waveAt(c.name, turns.ofPi) : undefined;
  return (
    atPart ?? arcAt(c.name, u) ?? ofArc(c.name, u) ?? hyperbolic(c.name, u) ?? logarithm(c.name, u, v) ?? c
  );
}

/** A constant a + b·π with rational a and b. */
function halfTurns(c: Canonical): { rest: Rational; ofPi: Rational } | undefined {
  if (c.kind === 'number') return { rest: c.value, ofPi: rational.zero };
  if (c.key === pi.key) return { rest: rational.zero, ofPi: rational.one };
  if (c.kind === 'product')
    return c.factors.length === 1 && c.factors[0]?.key === pi.key
      ? { rest: rational.zero, ofPi: c.coefficient }
      : undefined;
  if (c.kind !== 'sum') return undefined;
  const parts = c.terms.map(halfTurns);
  if (parts.some((part) => part === undefined)) return undefined;
  return (parts as { rest: Rational; ofPi: Rational }[]).reduce((a, b) => ({
    rest: rational.add(a.rest, b.rest),
    ofPi: rational.add(a.ofPi, b.ofPi),
  }));
}

/** π lies between these. */
const piBounds = ['3.14159265358979323846264338327950288419', '3.14159265358979323846264338327950288420'].map(
  (text) => rational.parseDecimal(text) as Rational,
);

/** ⌊(a + b·π)/π + shift⌋ where it is certain. */
function wholeTurns({ rest, ofPi }: { rest: Rational; ofPi: Rational }, shift: Rational): bigint | undefined {
  const [first, second] = piBounds.map((bound) =>
    rational.floor(rational.add(rational.add(rational.divide(rest, bound), ofPi), shift)),
  );
  return first === second ? first : undefined;
}

/** arcsin(sin u), arccos(cos u) and arctan(tan u) for a number u = a + b·π. */
function undoneWave(c: Canonical): Canonical {
  if (c.kind !== 'call') return c;
  const [inner] = c.operands;
  const isUndone = inner?.kind === 'call' && ['sin', 'cos', 'tan'].includes(inner.name);
  if (!isUndone || c.name !== `arc${inner.name}`) return c;
  const [u] = inner.operands as [Canonical];
  const turns = halfTurns(u);
  const isCosine = inner.name === 'cos';
  const count = turns && wholeTurns(turns, isCosine ? rational.zero : half);
  if (!turns || count === undefined || (inner.name === 'tan' && isPole(turns))) return c;
  const isOdd = count % 2n !== 0n;
  const rest = difference(u, product([numeric(rational.rational(count)), pi]));
  if (inner.name === 'tan' || !isOdd) return rest;
  return isCosine ? difference(pi, rest) : negative(rest);
}

const isPole = ({ rest, ofPi }: { rest: Rational; ofPi: Rational }): boolean =>
  rational.isZero(rest) && rational.isInteger(rational.add(ofPi, half));

/** √(a + b√c) as a sum of two square roots, where a² − b²c is the square of a fraction. */
function denested(base: Canonical, exponent: Rational): Canonical | undefined {
  if (base.kind !== 'sum' || base.terms.length !== 2 || exponent.denominator !== 2n) return undefined;
  const [number] = base.terms.filter((term) => term.kind === 'number');
  const [surd] = base.terms.filter((term) => term.kind !== 'number');
  const squared = surd && product([surd, surd]);
  if (!surd || number?.kind !== 'number' || squared?.kind !== 'number' || !isSquareRoot(surd))
    return undefined;
  const a = number.value;
  const apart = rational.subtract(rational.multiply(a, a), squared.value);
  const r = rational.isNegative(apart) || rational.isNegative(a) ? null : rational.exactRoot(apart, 2);
  if (!r) return undefined;
  const halves = [rational.add(a, r), rational.subtract(a, r)].map((twice) => rational.divide(twice, two));
  // Roots of whole numbers over one divisor.
  const divisor = rational.rational(
    halves.reduce((all, { denominator }) => (denominator > all ? denominator : all), 1n),
  );
  const square = rational.multiply(divisor, divisor);
  const [larger, smaller] = halves.map((part) => root(numeric(rational.multiply(part, square)))) as [
    Canonical,
    Canonical,
  ];
  const isLess = rational.isNegative(splitCoefficient(surd).coefficient);
  const found = quotient(isLess ? difference(larger, smaller) : sum([larger, smaller]), numeric(divisor));
  return exponent.numerator === 1n ? found : power(found, numeric(rational.multiply(exponent, two)));
}

/** A fraction times roots of fractions: its sign is that of the fraction. */
const isSquareRoot = (c: Canonical): boolean =>
  c.kind === 'product'
    ? c.factors.every(isSquareRoot)
    : c.kind === 'power' && c.base.kind === 'number' && !rational.isNegative(c.base.value);

type Sides = readonly [a: number, b: number, c: number, d: number];
/** (a + b√c)/d. */
const surdOf = ([a, b, c, d]: Sides): Canonical =>
  quotient(sum([whole(a), product([whole(b), root(whole(c))])]), whole(d));
const rootOfSurd = (sides: Sides, divisor: number): Canonical =>
  quotient(root(surdOf(sides)), whole(divisor));
const ofSixAndTwo = (sign: 1 | -1): Canonical =>
  quotient(sum([root(whole(6)), product([whole(sign), root(whole(2))])]), whole(4));

/** Sines and tangents of parts of π up to ½, beside those that have a single square root. Follow from halving angles. */
const sines = new Map<string, Canonical>([
  ['1/12', ofSixAndTwo(-1)],
  ['5/12', ofSixAndTwo(1)],
  ['1/8', rootOfSurd([2, -1, 2, 1], 2)],
  ['3/8', rootOfSurd([2, 1, 2, 1], 2)],
  ['1/10', surdOf([-1, 1, 5, 4])],
  ['3/10', surdOf([1, 1, 5, 4])],
  ['1/5', rootOfSurd([10, -2, 5, 1], 4)],
  ['2/5', rootOfSurd([10, 2, 5, 1], 4)],
]);
const tangents = new Map<string, Canonical>([
  ['1/12', surdOf([2, -1, 3, 1])],
  ['5/12', surdOf([2, 1, 3, 1])],
  ['1/8', surdOf([-1, 1, 2, 1])],
  ['3/8', surdOf([1, 1, 2, 1])],
  ['1/10', rootOfSurd([25, -10, 5, 1], 5)],
  ['3/10', rootOfSurd([25, 10, 5, 1], 5)],
  ['1/5', rootOfSurd([5, -2, 5, 1], 1)],
  ['2/5', rootOfSurd([5, 2, 5, 1], 1)],
]);

/** sin, cos, tan or cot of r·π. */
function waveAt(name: string, r: Rational): Canonical | undefined {
  if (name === 'cos') return waveAt('sin', rational.add(r, half));
  if (name === 'cot') return waveAt('tan', rational.subtract(half, r));
  if (name !== 'sin' && name !== 'tan') return undefined;
  // In [0, 1), and the sign that the other half turn brings.
  const turns = rational.floor(r);
  const within = rational.subtract(r, rational.rational(turns));
  const isBeyond = rational.compare(within, half) > 0;
  const folded = rational.toText(isBeyond ? rational.subtract(rational.one, within) : within);
  const value = (name === 'sin' ? sines : tangents).get(folded);
  const isNegative = name === 'sin' ? turns % 2n !== 0n : isBeyond;
  return value && (isNegative ? negative(value) : value);
}

/** What each value multiplied out belongs to, for finding angles. */
const partsOfPi = (values: ReadonlyMap<string, Canonical>): ReadonlyMap<string, Rational> =>
  new Map(
    [...values].flatMap(([text, value]) => {
      const [numerator = 0, denominator = 1] = text.split('/').map(Number);
      const r = rational.rational(numerator, denominator);
      return [
        [expanded(value).key, r],
        [expanded(negative(value)).key, rational.negate(r)],
      ] as const;
    }),
  );
const anglesOfSines = partsOfPi(sines);
const anglesOfTangents = partsOfPi(tangents);

/** arcsin, arccos and arctan of the values of those parts of π. */
function arcAt(name: string, u: Canonical): Canonical | undefined {
  if (name !== 'arcsin' && name !== 'arccos' && name !== 'arctan') return undefined;
  const r = (name === 'arctan' ? anglesOfTangents : anglesOfSines).get(expanded(u).key);
  return r && product([numeric(name === 'arccos' ? rational.subtract(half, r) : r), pi]);
}

/** sin, cos and tan of inverse functions of a number, from the sides of a triangle. */
function ofArc(name: string, operand: Canonical): Canonical | undefined {
  if (operand.kind !== 'call') return undefined;
  const [u] = operand.operands as [Canonical];
  if (u.kind !== 'number') return undefined;
  const square = product([u, u]);
  const [one, leg, long] = [whole(1), root(difference(whole(1), square)), root(sum([whole(1), square]))];
  switch (`${name} ${operand.name}`) {
    case 'sin arctan':
      return quotient(u, long);
    case 'cos arctan':
      return quotient(one, long);
    // √(1 − u²) is undefined where the inverse functions are.
    case 'tan arcsin':
      return quotient(u, leg);
    case 'tan arccos':
      return rational.isZero(u.value) ? undefined : quotient(leg, u);
    default:
      return undefined;
  }
}

/** Hyperbolic functions of logarithms, and their inverses where a square root comes out. */
function hyperbolic(name: string, u: Canonical): Canonical | undefined {
  const e = power(callOf('exp', [whole(1)]), u);
  if (e.kind === 'number' && u.kind !== 'number' && !rational.isNegative(e.value)) {
    const inverse = numeric(rational.divide(rational.one, e.value));
    const [more, less] = [sum([e, inverse]), difference(e, inverse)];
    if (name === 'sinh') return quotient(less, whole(2));
    if (name === 'cosh') return quotient(more, whole(2));
    if (name === 'tanh') return quotient(less, more);
  }
  if (u.kind !== 'number') return undefined;
  const q = u.value;
  const square = rational.multiply(q, q);
  const toLogarithm = (underRoot: Rational): Canonical | undefined => {
    const r = rational.isNegative(underRoot) ? null : rational.exactRoot(underRoot, 2);
    return r ? callOf('ln', [numeric(rational.add(q, r))]) : undefined;
  };
  if (name === 'arsinh') return toLogarithm(rational.add(square, rational.one));
  if (name === 'arcosh' && rational.compare(q, rational.one) >= 0)
    return toLogarithm(rational.subtract(square, rational.one));
  if (name !== 'artanh' || rational.compare(square, rational.one) >= 0) return undefined;
  const ratio = rational.divide(rational.add(rational.one, q), rational.subtract(rational.one, q));
  return product([numeric(half), callOf('ln', [numeric(ratio)])]);
}

/** A logarithm to another base that is a fraction. */
function logarithm(name: string, u: Canonical, v: Canonical | undefined): Canonical | undefined {
  const [base, of] = name === 'log' ? [whole(10), u] : name === 'logBase' ? [u, v] : [];
  if (base?.kind !== 'number' || of?.kind !== 'number') return undefined;
  const isFit = [base, of].every(({ value }) => rational.compare(value, rational.zero) > 0);
  if (!isFit || rational.isOne(base.value)) return undefined;
  const [above, below] = [exponents(of.value), exponents(base.value)];
  const ratios = [...new Set([...above.keys(), ...below.keys()])].map((prime) => {
    const [over, under] = [above.get(prime) ?? 0, below.get(prime) ?? 0];
    return under === 0 ? null : rational.rational(over, under);
  });
  const [ratio] = ratios;
  return ratio && ratios.every((other) => other && rational.equals(other, ratio))
    ? numeric(ratio)
    : undefined;
}

const exponents = ({ numerator, denominator }: Rational): ReadonlyMap<bigint, number> =>
  new Map([...primeFactors(numerator, 1), ...primeFactors(denominator, -1)]);
