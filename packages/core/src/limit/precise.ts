import { isRelated } from '../evaluate/exact.ts';
import { indices } from '../evaluate/summation.ts';
import type { ConstantStep, Program, Step } from '../evaluate/program.ts';
import * as big from './bigFloat.ts';
import type { BigFloat } from './bigFloat.ts';

/** A value of any precision; null where the function is undefined there. */
export type Precise = BigFloat | null;

/** Thrown where a step has no evaluation of any precision: integrals and limits. */
export class NotPrecise extends Error {}

/**
 * f at a point with the given number of binary digits.
 * @throws big.OutOfRange for numbers beyond reason, NotPrecise for integrals and limits
 */
export function evaluatePrecisely(
  program: Program,
  x: BigFloat,
  parameters: readonly BigFloat[],
  bits: number,
): Precise {
  const values: Precise[] = [];
  const of = (index: number): Precise => values[index] ?? null;
  for (const step of program.steps) values.push(stepValue(step, of, x, parameters, bits));
  return values.at(-1) ?? null;
}

function stepValue(
  step: Step,
  of: (index: number) => Precise,
  x: BigFloat,
  parameters: readonly BigFloat[],
  bits: number,
): Precise {
  switch (step.op) {
    case 'constant':
      return constantValue(step, bits);
    case 'variable':
      return x;
    case 'parameter':
      return parameters[step.index] ?? null;
    case 'choose': {
      const truth = of(step.truth);
      return truth && of(big.isZero(truth) ? step.b : step.a);
    }
    case 'and':
    case 'or':
      return junction(step.op, of(step.a), of(step.b));
    case 'sum':
      return sumOf(step, of, bits);
    case 'integral':
    case 'limit':
      throw new NotPrecise(step.op);
    case 'call':
      return called(step.name, step.operands.map(of), bits);
    case 'negate':
    case 'not':
    case 'integerPower':
    case 'rationalPower': {
      const a = of(step.a);
      return a && unary(step, a, bits);
    }
    default: {
      const [a, b] = [of(step.a), of(step.b)];
      return a && b && binary(step, a, b, bits);
    }
  }
}

function constantValue(step: ConstantStep, bits: number): Precise {
  if (step.exact === 'pi') return big.pi(bits);
  if (step.exact === 'e') return big.exp(big.one, bits);
  if (step.exact) return big.fromRational(step.exact, bits);
  return Number.isFinite(step.value) ? big.fromDouble(step.value) : null;
}

const truthOf = (holds: boolean): BigFloat => (holds ? big.one : big.zero);

function junction(op: 'and' | 'or', a: Precise, b: Precise): Precise {
  const decides = (truth: Precise): boolean => truth !== null && big.isZero(truth) === (op === 'and');
  if (decides(a) || decides(b)) return truthOf(op === 'or');
  return a && b && truthOf(op === 'and');
}

function unary(
  step: Step & { op: 'negate' | 'not' | 'integerPower' | 'rationalPower' },
  a: BigFloat,
  bits: number,
): Precise {
  switch (step.op) {
    case 'negate':
      return big.negate(a);
    case 'not':
      return truthOf(big.isZero(a));
    case 'integerPower':
      return step.n < 0 && big.isZero(a) ? null : big.integerPower(a, step.n, bits);
    case 'rationalPower':
      return rationalPower(a, step.p, step.q, bits);
  }
}

function rationalPower(a: BigFloat, p: number, q: number, bits: number): Precise {
  if (big.isZero(a)) return p > 0 ? big.zero : null;
  const isNegative = big.sign(a) < 0;
  if (isNegative && q % 2 === 0) return null;
  const raised = big.integerPower(big.root(big.absolute(a), q, bits), p, bits);
  return isNegative && p % 2 !== 0 ? big.negate(raised) : raised;
}

function binary(
  step: Step & { op: 'add' | 'subtract' | 'multiply' | 'divide' | 'power' | 'guard' | 'compare' },
  a: BigFloat,
  b: BigFloat,
  bits: number,
): Precise {
  switch (step.op) {
    case 'add':
      return sumOrZero(a, b, bits);
    case 'subtract':
      return sumOrZero(a, big.negate(b), bits);
    case 'multiply':
      return big.multiply(a, b, bits);
    case 'divide':
      return big.isZero(b) ? null : big.divide(a, b, bits);
    case 'guard':
      return a;
    case 'compare':
      return truthOf(isRelated(big.sign(sumOrZero(a, big.negate(b), bits)), step.relation));
    case 'power':
      return generalPower(a, b, bits);
  }
}

/** Digits at the end that are lost to rounding. */
const lostBits = 24n;

/** a + b, and zero where nothing is left of them but rounding: 2 − √2² is 0. */
function sumOrZero(a: BigFloat, b: BigFloat, bits: number): BigFloat {
  const sum = big.add(a, b, bits);
  if (big.isZero(a) || big.isZero(b) || big.isZero(sum)) return sum;
  const size = big.order(a) > big.order(b) ? big.order(a) : big.order(b);
  return big.order(sum) < size - BigInt(bits) + lostBits ? big.zero : sum;
}

/** A sine or cosine, and zero where nothing is left of it but the rounding of its argument. */
function waveOrZero(value: BigFloat, x: BigFloat, bits: number): BigFloat {
  const size = big.order(x) > 0n ? big.order(x) : 0n;
  const isLost = big.order(value) < size - BigInt(bits) + lostBits && big.order(x) > -4n;
  return isLost ? big.zero : value;
}

function sinCos(x: BigFloat, bits: number): [BigFloat, BigFloat] {
  const [sine, cosine] = big.sinCos(x, bits);
  return [waveOrZero(sine, x, bits), waveOrZero(cosine, x, bits)];
}

/** The whole part, of a number that misses a whole one by rounding alone that whole number. */
function floor(x: BigFloat, bits: number): BigFloat {
  const nearest = big.floor(big.add(x, half(big.one), bits));
  return big.isZero(sumOrZero(x, big.negate(nearest), bits)) ? nearest : big.floor(x);
}

function generalPower(a: BigFloat, b: BigFloat, bits: number): Precise {
  const exponent = big.toDouble(b);
  const isWhole = big.isZero(big.subtract(b, big.floor(b), bits)) && Math.abs(exponent) < 10_000;
  if (isWhole) return exponent < 0 && big.isZero(a) ? null : big.integerPower(a, exponent, bits);
  if (big.sign(a) < 0 || big.isZero(a)) return big.isZero(a) && big.sign(b) > 0 ? big.zero : null;
  const wide = bits + Math.max(0, Number(big.order(b))) + 64;
  return big.exp(big.multiply(b, big.ln(a, wide), wide), bits);
}

const whole = (n: number): BigFloat => big.fromInteger(BigInt(n));
const half = (x: BigFloat): BigFloat => big.scale(x, -1n);
const plus = (x: BigFloat, n: number, bits: number): BigFloat => big.add(x, whole(n), bits);

function logarithm(x: BigFloat, bits: number): Precise {
  return big.sign(x) > 0 ? big.ln(x, bits) : null;
}

/** √(1 − x²), null outside of −1 … 1. */
function leg(x: BigFloat, bits: number): Precise {
  const square = big.multiply(big.subtract(big.one, x, bits), big.add(big.one, x, bits), bits);
  return big.sign(square) < 0 ? null : big.root(square, 2, bits);
}

function arcsin(x: BigFloat, bits: number): Precise {
  const cosine = leg(x, bits);
  if (cosine && big.isZero(cosine)) {
    const quarter = half(big.pi(bits));
    return big.sign(x) > 0 ? quarter : big.negate(quarter);
  }
  return cosine && big.arctan(big.divide(x, cosine, bits), bits);
}

function ratio(a: Precise, b: Precise, bits: number): Precise {
  return a && b && !big.isZero(b) ? big.divide(a, b, bits) : null;
}

/** (eˣ ± e⁻ˣ)/2, with more digits for small x, where they cancel. */
function hyperbolic(x: BigFloat, sign: 1 | -1, bits: number): BigFloat {
  const wide = bits + 8 + (big.isZero(x) ? 0 : Math.min(8 * bits, Math.max(0, -Number(big.order(x)))));
  const up = big.exp(x, wide);
  const down = big.divide(big.one, up, wide);
  return big.rounded(half(big.add(up, sign > 0 ? down : big.negate(down), wide)), bits);
}

function arsinh(x: BigFloat, bits: number): Precise {
  const wide = 2 * bits + (big.isZero(x) ? 0 : Math.min(8 * bits, Math.max(0, -Number(big.order(x)))));
  const size = big.absolute(x);
  const hypotenuse = big.root(plus(big.multiply(x, x, wide), 1, wide), 2, wide);
  const value = big.ln(big.add(size, hypotenuse, wide), bits);
  return big.sign(x) < 0 ? big.negate(value) : value;
}

function factorial(x: BigFloat): Precise {
  const n = big.toDouble(x);
  if (!Number.isInteger(n) || n < 0 || n > 1000) return null;
  let product = 1n;
  for (let k = 2n; k <= BigInt(n); k++) product *= k;
  return big.fromInteger(product);
}

type Unary = (x: BigFloat, bits: number) => Precise;

const unaries: Readonly<Record<string, Unary>> = {
  sin: (x, bits) => sinCos(x, bits)[0],
  cos: (x, bits) => sinCos(x, bits)[1],
  tan: (x, bits) => ratio(...sinCos(x, bits), bits),
  cot: (x, bits) => {
    const [sine, cosine] = sinCos(x, bits);
    return ratio(cosine, sine, bits);
  },
  sec: (x, bits) => ratio(big.one, sinCos(x, bits)[1], bits),
  csc: (x, bits) => ratio(big.one, sinCos(x, bits)[0], bits),
  arcsin,
  arccos: (x, bits) => {
    const angle = arcsin(x, bits);
    return angle && big.subtract(half(big.pi(bits)), angle, bits);
  },
  arctan: big.arctan,
  arccot: (x, bits) => big.subtract(half(big.pi(bits)), big.arctan(x, bits), bits),
  sinh: (x, bits) => hyperbolic(x, -1, bits),
  cosh: (x, bits) => hyperbolic(x, 1, bits),
  tanh: (x, bits) => {
    // Beyond this the quotient is 1 to the last digit, and e^x is not needed.
    if (big.order(x) > BigInt(bitsOf(bits))) return whole(big.sign(x));
    return ratio(hyperbolic(x, -1, bits), hyperbolic(x, 1, bits), bits);
  },
  arsinh,
  arcosh: (x, bits) => {
    const square = big.subtract(big.multiply(x, x, 2 * bits), big.one, 2 * bits);
    if (big.sign(square) < 0 || big.sign(x) < 0) return null;
    return logarithm(big.add(x, big.root(square, 2, 2 * bits), 2 * bits), bits);
  },
  artanh: (x, bits) => {
    const quotient = ratio(plus(x, 1, 2 * bits), big.subtract(big.one, x, 2 * bits), 2 * bits);
    const value = quotient && logarithm(quotient, bits);
    return value && half(value);
  },
  exp: big.exp,
  ln: logarithm,
  log: (x, bits) => ratio(logarithm(x, bits), big.ln(whole(10), bits), bits),
  sqrt: (x, bits) => (big.sign(x) < 0 ? null : big.root(x, 2, bits)),
  cbrt: (x, bits) => rationalPower(x, 1, 3, bits),
  abs: big.absolute,
  sign: (x) => whole(big.sign(x)),
  floor,
  ceil: (x, bits) => big.negate(floor(big.negate(x), bits)),
  round: (x, bits) => floor(big.add(x, half(big.one), bits), bits),
  degrees: (x, bits) => big.divide(big.multiply(x, big.pi(bits), bits), whole(180), bits),
  factorial,
};

/** e^(2x) exceeds 2^bits for x of this many binary digits. */
const bitsOf = (bits: number): number => Math.ceil(Math.log2(bits)) + 1;

const binaries: Readonly<Record<string, (x: BigFloat, y: BigFloat, bits: number) => Precise>> = {
  min: (x, y, bits) => (big.sign(big.subtract(x, y, bits)) < 0 ? x : y),
  max: (x, y, bits) => (big.sign(big.subtract(x, y, bits)) > 0 ? x : y),
  mod: (x, y, bits) => {
    const quotient = ratio(x, y, bits);
    return quotient && big.subtract(x, big.multiply(y, floor(quotient, bits), bits), bits);
  },
  logBase: (base, x, bits) => ratio(logarithm(x, bits), logarithm(base, bits), bits),
  root: (degree, x, bits) => {
    const n = big.toDouble(degree);
    return Number.isInteger(n) && n >= 1 && n < 1000 ? rationalPower(x, 1, n, bits) : null;
  },
};

function called(name: string, [a = null, b = null]: readonly Precise[], bits: number): Precise {
  const one = unaries[name];
  if (one) return a && one(a, bits);
  const two = binaries[name];
  if (!two) throw new NotPrecise(name);
  return a && b && two(a, b, bits);
}

function sumOf(
  step: Step & { op: 'sum' | 'integral' },
  of: (index: number) => Precise,
  bits: number,
): Precise {
  const [from, to] = [of(step.from), of(step.to)];
  const inputs = step.inputs.map(of);
  if (!from || !to || inputs.includes(null)) return null;
  const range = indices(big.toDouble(from), big.toDouble(to));
  if (!range || range.count > mostPreciseTerms) throw new NotPrecise('sum');
  let sum = big.zero;
  for (let i = 0; i < range.count; i++) {
    const term = evaluatePrecisely(step.body, whole(range.first + i), inputs as BigFloat[], bits);
    if (!term) return null;
    sum = big.add(sum, term, bits);
  }
  return sum;
}

const mostPreciseTerms = 2000;
