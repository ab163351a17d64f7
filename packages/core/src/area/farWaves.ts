import { canonical, isNumber } from '../algebra/canonical.ts';
import { hasWaves } from '../algebra/identities.ts';
import { shortest } from '../algebra/shortest.ts';
import { antiderivative } from '../algebra/antiderivative/antiderivative.ts';
import * as intervals from '../numbers/interval.ts';
import type { Interval as Bounds } from '../numbers/interval.ts';
import { joined, type Estimate } from '../evaluate/quadrature.ts';
import * as tree from '../language/tree.ts';
import type { Expression } from '../language/tree.ts';
import { integralByArches } from './arches.ts';
import { convergence } from './convergence.ts';
import { valueAt } from './endValues.ts';
import type { DefiniteIntegral } from './parts.ts';
import type { Found } from './parts.ts';
import { isFinitePlace, type Stretch } from './stretches.ts';
import { boundsOfTail, startOfTail } from './waveTails.ts';
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
  const proved = provedByParts(body, terms, variable, interval, over);
  if (proved) return proved;
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
  return {
    ...inner,
    value: error <= largestError * magnitude ? value : NaN,
    exact: null,
    bound: error,
    certainty: 'estimated',
    parts: withTails(inner, [low, high], ends, tails),
  };
}

/** The parts of an inner integral and those beyond its ends. */
function withTails(
  inner: DefiniteIntegral,
  [low, high]: Interval,
  ends: readonly (1 | -1)[],
  tails: readonly { readonly value: number }[],
): DefiniteIntegral['parts'] {
  const outer = ends.map((side, i) => ({
    ...{ from: side > 0 ? high : -Infinity, to: side > 0 ? Infinity : low },
    ...{ value: tails[i]?.value ?? NaN, exact: null, sign: NaN, antiderivative: null },
  }));
  return [...inner.parts, ...outer].sort((p, q) => p.from - q.from);
}

/** The same with bounds: up to a far place as any other, and from there by parts. Null where nothing bounds it so. */
function provedByParts(
  body: Expression,
  terms: readonly WaveTerm[],
  variable: string,
  interval: Interval,
  over: (body: Expression, interval: Interval) => DefiniteIntegral,
): DefiniteIntegral | null {
  const [a, b] = interval;
  const ends = infiniteEnds(interval);
  const sides = ends.map((side) => {
    const turned = side > 0 ? terms : terms.map((term) => mirrored(term, variable));
    const waves = turned.filter((term): term is WaveTerm & { wave: Wave } => term.wave !== null);
    const finite = side > 0 ? a : -b;
    const start = startOfTail(
      waves.map(({ wave }) => wave),
      variable,
      Number.isFinite(finite) ? finite : 0,
    );
    return start === null ? null : { start, waves, rest: steadyRest(turned) };
  });
  const bounds = sides.map((side) => {
    if (!side) return null;
    const tails = side.waves.map((term) => boundsOfTail(term, variable, side.start));
    const steady = side.rest && over(side.rest, [side.start, Infinity]);
    if (steady && !isProved(steady)) return null;
    const rest = steady ? around(steady) : intervals.exactly(0);
    return tails.every((tail) => tail !== null) ? tails.reduce(intervals.add, rest) : null;
  });
  if (!bounds.every((tail) => tail !== null)) return null;
  const starts = ends.map((side, i) => side * (sides[i]?.start ?? NaN));
  const low = a === -Infinity ? Math.min(...starts) : a;
  const high = b === Infinity ? Math.max(...starts) : b;
  const inner = over(body, [low, high]);
  if (!isProved(inner)) return null;
  const all = bounds.reduce(intervals.add, around(inner));
  const value = all.low + (all.high - all.low) / 2;
  const bound = Math.max(all.high - value, value - all.low);
  if (!(bound <= largestError * Math.abs(value))) return null;
  const tails = bounds.map((tail) => ({ value: tail.low + (tail.high - tail.low) / 2 }));
  const parts = withTails(inner, [low, high], ends, tails);
  return { ...inner, value, exact: null, bound, certainty: 'proved', parts };
}

const isProved = ({ certainty, value }: DefiniteIntegral): boolean =>
  certainty !== 'estimated' && Number.isFinite(value);

const around = ({ value, bound }: DefiniteIntegral): Bounds =>
  intervals.outward(value - bound, value + bound);

/**
 * The integral over a stretch beside an end p towards which the function swings without end: with x = p ± c/u a far part of
 * u, where c is the length of the stretch. Null where it does not swing so, or nothing shows that it has a value.
 */
export function integralOfSwings(
  { body, from, to, sign, antiderivative }: Stretch,
  variable: string,
  over: (body: Expression, interval: Interval) => DefiniteIntegral,
): Found | null {
  if (!body || !isFinitePlace(from) || !isFinitePlace(to) || !hasWaves(canonical(body))) return null;
  const [start, end] = [from.exact, to.exact];
  const isOpen = [from, to].map((place) => valueAt(body, variable, place) === null);
  if (!start || !end || isOpen[0] === isOpen[1]) return null;
  const length = tree.subtract(end, start);
  const step = tree.divide(length, tree.name(variable));
  const x = isOpen[0] ? tree.add(start, step) : tree.subtract(end, step);
  const rate = tree.divide(length, tree.power(tree.name(variable), tree.number(2)));
  const turned = shortest(canonical(tree.multiply(tree.substitute(body, variable, x), rate)), 'fraction');
  const found = integralOfWaves(turned, variable, [1, Infinity], over);
  if (!found || (Number.isNaN(found.value) && !found.diverges)) return null;
  const { value, bound, certainty, diverges } = found;
  return {
    part: { from: from.value, to: to.value, value, exact: null, sign, antiderivative },
    bound,
    magnitude: Math.abs(value),
    certainty,
    convergence: diverges ? 'diverges' : 'converges',
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
