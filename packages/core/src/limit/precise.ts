import { spend } from '../evaluate/effort.ts';
import { isRelated } from '../evaluate/exact.ts';
import { indices } from '../evaluate/summation.ts';
import type { ConstantStep, Program, Step } from '../evaluate/program.ts';
import type { Spline } from '../interpolation/spline.ts';
import type { ExactPoint } from '../interpolation/through.ts';
import * as big from './bigFloat.ts';
import type { BigFloat } from './bigFloat.ts';
import { rationalPower, sumOrZero, type Precise } from './elementary.ts';
import { builtIn } from '../functions/table.ts';

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
  spend(program.steps.length * (bits / 4));
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
    case 'spline': {
      const a = of(step.a);
      return a && splineValue(step.spline, a, bits);
    }
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

/** A piece's exact polynomial in the distance from its left knot. */
function splineValue(spline: Spline, x: BigFloat, bits: number): Precise {
  const near = big.toDouble(x);
  if (Number.isNaN(spline.value(near))) return null;
  const piece = spline.pieceAt(near);
  const knot = big.fromRational((spline.points[piece] as ExactPoint).x, bits);
  const distance = big.subtract(x, knot, bits);
  return spline
    .exactPiece(piece)
    .reduceRight(
      (rest, c) => big.add(big.multiply(rest, distance, bits), big.fromRational(c, bits), bits),
      big.zero,
    );
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

function generalPower(a: BigFloat, b: BigFloat, bits: number): Precise {
  const exponent = big.toDouble(b);
  const isWhole = big.isZero(big.subtract(b, big.floor(b), bits)) && Math.abs(exponent) < 10_000;
  if (isWhole) return exponent < 0 && big.isZero(a) ? null : big.integerPower(a, exponent, bits);
  if (big.sign(a) < 0 || big.isZero(a)) return big.isZero(a) && big.sign(b) > 0 ? big.zero : null;
  const wide = bits + Math.max(0, Number(big.order(b))) + 64;
  return big.exp(big.multiply(b, big.ln(a, wide), wide), bits);
}

function called(name: string, [a = null, b = big.zero]: readonly Precise[], bits: number): Precise {
  return a && b && builtIn(name).precise(bits, a, b);
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
    const term = evaluatePrecisely(
      step.body,
      big.fromInteger(BigInt(range.first + i)),
      inputs as BigFloat[],
      bits,
    );
    if (!term) return null;
    sum = big.add(sum, term, bits);
  }
  return sum;
}

const mostPreciseTerms = 2000;
