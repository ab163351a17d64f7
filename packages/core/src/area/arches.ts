import { derivativeOf } from '../algebra/differentiate.ts';
import { programOf } from '../analysis/programs.ts';
import { integralOf, type Estimate } from '../evaluate/quadrature.ts';
import { evaluateAt } from '../values/values.ts';
import * as tree from '../language/tree.ts';
import type { Wave, WaveTerm } from './waves.ts';

/** Arches that are added up, beyond those that the method skips. */
const arches = 24;
/** Arches that are taken as they are before the rest is extrapolated; two choices show how well that works. */
const skipped = [4, 11] as const;

/**
 * ∫ of an amplitude times a wave from a place to ∞: arch by arch, an alternating series whose sum is found by
 * Chebyshev polynomials. Source: Cohen, Rodriguez Villegas & Zagier, Convergence acceleration of alternating series
 * (2000), algorithm 1.
 * @returns NaN where the wave has no regular arches
 */
export function integralByArches(
  { amplitude, wave }: WaveTerm & { wave: Wave },
  variable: string,
  from: number,
): Estimate {
  const program = programOf(tree.multiply(amplitude, tree.call(wave.name, wave.argument)), variable);
  const value = (x: number): number => evaluateAt(program, x);
  const ends = zerosOf(wave, variable, from, Math.max(...skipped) + arches + 1);
  if (!ends) return { value: NaN, error: NaN, magnitude: NaN };
  const start = integralOf(value, from, ends[0] as number);
  const areas = ends.slice(1).map((end, k) => integralOf(value, ends[k] as number, end));
  const [one, other] = skipped.map((count) => {
    const whole = areas.slice(0, count).reduce((sum, area) => sum + area.value, start.value);
    return whole + alternating(areas.slice(count, count + arches).map((area) => area.value));
  }) as [number, number];
  const noise = [start, ...areas].reduce((sum, { error }) => sum + error, 0);
  const magnitude = start.magnitude + Math.max(...areas.map((area) => area.magnitude));
  return { value: other, error: Math.abs(one - other) + noise, magnitude };
}

/** The sum of a series of which the first terms are given, and whose terms alternate. */
function alternating(terms: readonly number[]): number {
  const n = terms.length;
  const power = (3 + Math.sqrt(8)) ** n;
  const d = (power + 1 / power) / 2;
  let [b, c, sum] = [-1, -d, 0];
  terms.forEach((term, k) => {
    c = b - c;
    sum += c * (k % 2 === 0 ? term : -term);
    b = ((k + n) * (k - n) * b) / ((k + 0.5) * (k + 1));
  });
  return sum / d;
}

/** The first zeros of a wave beyond a place, where its argument goes one way; null where they are not found. */
function zerosOf({ name, argument }: Wave, variable: string, from: number, count: number): number[] | null {
  const [phase, slope] = [
    programOf(argument, variable),
    programOf(derivativeOf(argument, variable), variable),
  ];
  const turns = (x: number): number => evaluateAt(phase, x) / Math.PI - (name === 'cos' ? 0.5 : 0);
  const direction = Math.sign(evaluateAt(slope, from));
  if (!(Math.abs(direction) === 1)) return null;
  const first = direction > 0 ? Math.floor(turns(from)) + 1 : Math.ceil(turns(from)) - 1;
  const zeros: number[] = [];
  let [low, step] = [from, 1];
  for (let k = 0; k < count; k++) {
    const target = first + direction * k;
    const isBefore = (x: number): boolean => direction * (turns(x) - target) < 0;
    while (isBefore(low + step)) {
      step *= 2;
      if (!Number.isFinite(low + step)) return null;
    }
    low = bisected(isBefore, low, low + step);
    if (Math.sign(evaluateAt(slope, low)) !== direction) return null;
    zeros.push(low);
  }
  return zeros;
}

function bisected(isBefore: (x: number) => boolean, from: number, to: number): number {
  let [low, high] = [from, to];
  for (;;) {
    const middle = low + (high - low) / 2;
    if (middle <= low || middle >= high) return high;
    if (isBefore(middle)) low = middle;
    else high = middle;
  }
}
