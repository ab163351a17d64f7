import { canonical, isNumber } from '../algebra/canonical.ts';
import { antiderivative } from '../algebra/antiderivative/antiderivative.ts';
import { joined, type Estimate } from '../evaluate/quadrature.ts';
import * as tree from '../language/tree.ts';
import type { Expression } from '../language/tree.ts';
import { integralByArches } from './arches.ts';
import { convergence } from './convergence.ts';
import type { DefiniteIntegral } from './integral.ts';
import { convergenceOfWaves, isSteady, waveTerms, steadyRest, type Wave, type WaveTerm } from './waves.ts';

type Interval = readonly [number, number];

/** Where the far part of an integral begins, at the least. */
const far = 4;
/** Of what is added up: a larger estimated error leaves no value. */
const largestError = 1e-7;

const everyEnd: readonly (1 | -1)[] = [-1, 1];
const infiniteEnds = ([a, b]: Interval): readonly (1 | -1)[] =>
  everyEnd.filter((side) => (side > 0 ? b : a) === side * Infinity);

/**
 * The integral of waves up to ±∞ that has no antiderivative: up to some place as any other, and from there arch by arch.
 * Null where the function is no sum of waves, or nothing shows whether its integral has a value.
 * @param over the integral of another formula, or over another interval
 */
export function integralOfWaves(
  body: Expression,
  variable: string,
  interval: Interval,
  over: (body: Expression, interval: Interval) => DefiniteIntegral,
): DefiniteIntegral | null {
  const ends = infiniteEnds(interval);
  const terms = ends.length > 0 ? waveTerms(body, variable) : null;
  if (!terms || antiderivative(body, variable)) return null;
  const verdicts = ends.map((side) => convergenceOfWaves(terms, variable, side));
  if (verdicts.includes('diverges')) return diverging;
  if (verdicts.includes('unknown')) return null;
  const [a, b] = interval;
  const low = ends.includes(-1) ? Math.min(b, 0) - far : a;
  const high = ends.includes(1) ? Math.max(a, 0) + far : b;
  const inner = over(body, [low, high]);
  if (Number.isNaN(inner.value)) return inner;
  const tails = ends.map((side) => tail(terms, variable, side, side > 0 ? high : -low, over));
  const { value, error, magnitude } = [
    { value: inner.value, error: inner.bound, magnitude: Math.abs(inner.value) },
    ...tails,
  ].reduce(joined);
  const outer = ends.map((side, i) => ({
    ...{ from: side > 0 ? high : -Infinity, to: side > 0 ? Infinity : low },
    ...{ value: tails[i]?.value ?? NaN, exact: null, sign: NaN, antiderivative: null },
  }));
  return {
    ...inner,
    value: error <= largestError * magnitude ? value : NaN,
    exact: null,
    bound: error,
    certainty: 'estimated',
    parts: [...inner.parts, ...outer].sort((p, q) => p.from - q.from),
  };
}

const diverging: DefiniteIntegral = {
  ...{ value: NaN, exact: null, bound: NaN, certainty: 'proved', diverges: true },
  ...{ undefinedOn: [], parts: [] },
};

/** From a place to ∞, or from −∞ to the place on the other side of 0. */
function tail(
  terms: readonly WaveTerm[],
  variable: string,
  side: 1 | -1,
  from: number,
  over: (body: Expression, interval: Interval) => DefiniteIntegral,
): Estimate {
  const turned = side > 0 ? terms : terms.map((term) => mirrored(term, variable));
  const waves = turned.filter((term): term is WaveTerm & { wave: Wave } => term.wave !== null);
  const rest = steadyRest(turned);
  const steady = rest && over(rest, [from, Infinity]);
  return [
    ...waves.map((term) => integralByArches(term, variable, from)),
    ...(steady ? [{ value: steady.value, error: steady.bound, magnitude: Math.abs(steady.value) }] : []),
  ].reduce(joined);
}

function mirrored({ amplitude, wave }: WaveTerm, variable: string): WaveTerm {
  const turned = (formula: Expression): Expression =>
    tree.substitute(formula, variable, tree.negate(tree.name(variable)));
  return {
    amplitude: turned(amplitude),
    wave: wave && { name: wave.name, argument: turned(wave.argument) },
  };
}

/**
 * Whether the area between a curve and the axis is known to be infinite because waves do not make it finite: where the
 * integral of the amplitude diverges, so does that of its product with |sin|, which is of one size on the mean.
 */
export function hasInfiniteArea(body: Expression, variable: string, interval: Interval): boolean {
  const amplitude = amplitudeOf(body, variable);
  return (
    amplitude !== null &&
    infiniteEnds(interval).some(
      (side) => convergence(amplitude, variable, side, side > 0 ? -1 : 1) === 'diverges',
    )
  );
}

/** The amplitude of a product of powers of waves of one argument; null for anything else. */
function amplitudeOf(body: Expression, variable: string): Expression | null {
  const waves: Expression[] = [];
  const stripped = (node: Expression): Expression | null => {
    if (isSteady(node, variable)) return node;
    const [argument] = node.kind === 'call' ? node.arguments : [];
    if (node.kind === 'call' && (node.name === 'sin' || node.name === 'cos') && argument) {
      waves.push(argument);
      return isSteady(argument, variable) ? tree.number(1) : null;
    }
    if (node.kind === 'negate') return stripped(node.operand);
    if (node.kind === 'power' && node.exponent.kind === 'number') {
      const base = stripped(node.base);
      return base && tree.power(base, node.exponent);
    }
    if (node.kind !== 'multiply' && node.kind !== 'divide') return null;
    const [left, right] = [stripped(node.left), stripped(node.right)];
    const isBelow = node.kind === 'divide' && !isSteady(node.right, variable);
    return left && right && !isBelow ? tree.binary(node.kind, left, right) : null;
  };
  const amplitude = stripped(body);
  const [first, ...others] = waves;
  if (!amplitude || !first) return null;
  const isOne = others.every((other) => isNumber(canonical(tree.subtract(other, first)), 0));
  return isOne ? amplitude : null;
}
