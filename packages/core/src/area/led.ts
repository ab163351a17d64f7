import type { Interval } from '../numbers/interval.ts';
import * as intervals from '../numbers/interval.ts';
import type { Program } from '../evaluate/program.ts';
import { fromFar, integralOf, joined as joinedEstimates, type Estimate } from '../evaluate/quadrature.ts';
import { evaluateAt } from '../values/values.ts';
import { exactly, isBall, type Ball } from '../numbers/ball.ts';
import * as big from '../numbers/bigFloat.ts';
import { enclosedOrUnsure } from '../limit/enclosed.ts';
import {
  enclosedParts,
  integrandOf,
  integrandToInfinity,
  isBounded,
  sizeOf,
  togetherOf,
  type EnclosedPart,
  type Integrand,
} from '../evaluate/enclosedArea.ts';

/** An integral by quadrature, with bounds that are proved where there are such. */
export interface Led extends Estimate {
  readonly bounds: Interval | null;
}

/**
 * ∫ f from a to b, infinite bounds included, by quadrature that is led by enclosures: these show where the function
 * does something, however narrow that is, and what they enclose needs no trust in samples. Quadrature alone tells of
 * the parts without bounds, as next to a pole, and where rounding leaves too little, f is worked out in more digits.
 * @param f a program without parameters
 */
export function ledIntegral(f: Program, a: number, b: number, tolerance = 1e-11): Led {
  if (a === b) return { value: 0, error: 0, magnitude: 0, bounds: intervals.exactly(0) };
  const value = (x: number): number => evaluateAt(f, x);
  if (Number.isFinite(a) && Number.isFinite(b))
    return led({ f: integrandOf(f), value, precise: preciseValue(f), a, b }, tolerance);
  if (!Number.isFinite(a) && !Number.isFinite(b))
    return joined(ledIntegral(f, a, 0, tolerance), ledIntegral(f, 0, b, tolerance));
  const [start, side] = Number.isFinite(a) ? [a, 1 as const] : [b, -1 as const];
  return led(
    {
      f: integrandToInfinity(f, start, side),
      value: fromFar(value, start, side),
      precise: fromFar(preciseValue(f), start, side),
      a: 0,
      b: 1,
    },
    tolerance,
  );
}

/** Over two neighbouring parts. */
export const joined = (one: Led, other: Led): Led => ({
  ...joinedEstimates(one, other),
  bounds: one.bounds && other.bounds && intervals.add(one.bounds, other.bounds),
});

interface Way {
  readonly f: Integrand;
  readonly value: (x: number) => number;
  /** The same to all digits, which takes a thousand times as long. */
  readonly precise: (x: number) => number;
  readonly a: number;
  readonly b: number;
}

/** Of the integral of |f|: parts with wider bounds are left to quadrature. */
const narrow = 1e-9;

function led(way: Way, tolerance: number): Led {
  const parts = enclosedParts(way.f, way.a, way.b, tolerance);
  const size = parts.reduce((total, part) => total + sizeOf(part), 0);
  const bounds = togetherOf(parts);
  if (bounds.sure && bounds.high - bounds.low <= narrow * size)
    return within(bounds, integralOf(way.value, way.a, way.b), size);
  return pieced(parts, way, size);
}

/** The value that quadrature tells where that lies between the bounds, and otherwise what lies between them. */
export function within(bounds: Interval, seen: Estimate, magnitude: number): Led {
  const isInside = seen.value >= bounds.low && seen.value <= bounds.high;
  const value = isInside ? seen.value : bounds.low + (bounds.high - bounds.low) / 2;
  return { value, error: Math.max(bounds.high - value, value - bounds.low), magnitude, bounds };
}

/** Parts with narrow bounds by these, and what lies between by quadrature. */
function pieced(parts: readonly EnclosedPart[], way: Way, size: number): Led {
  // Of what is nowhere shown to be other than 0 all bounds are taken as they are.
  const share = size > 0 ? (narrow * size) / parts.length : Number.MAX_VALUE;
  const isKnown = ({ width }: EnclosedPart): boolean => width <= share;
  let whole: Estimate = { value: 0, error: 0, magnitude: 0 };
  for (let i = 0; i < parts.length;) {
    const begun = i;
    const known = isKnown(parts[i] as EnclosedPart);
    while (i < parts.length && isKnown(parts[i] as EnclosedPart) === known) i++;
    const run = parts.slice(begun, i);
    whole = joinedEstimates(whole, known ? boundedRun(run, way) : openRun(run, way));
  }
  return { ...whole, bounds: null };
}

const endsOf = (run: readonly EnclosedPart[]): [number, number] => [
  (run[0] as EnclosedPart).from,
  (run.at(-1) as EnclosedPart).to,
];

function boundedRun(run: readonly EnclosedPart[], { value }: Way): Estimate {
  const bounds = togetherOf(run);
  const magnitude = run.reduce((total, part) => total + sizeOf(part), 0);
  return within(bounds, integralOf(value, ...endsOf(run)), magnitude);
}

/**
 * A run without narrow bounds: by quadrature, in more digits where doubles do not suffice. Where there are bounds, these
 * hold for what quadrature says.
 */
function openRun(run: readonly EnclosedPart[], { value, precise }: Way): Estimate {
  const rough = integralOf(value, ...endsOf(run));
  const isRounding = run.some((part) => part.isRounding) || Number.isNaN(rough.value);
  const f = isRounding ? precise : value;
  const seen = isRounding ? integralOf(f, ...endsOf(run)) : rough;
  const bounds = togetherOf(run);
  if (!bounds.sure || !isBounded(bounds))
    return { ...seen, error: Math.max(seen.error, disagreement(f, run, seen)) };
  const { value: best, error } = within(bounds, seen, seen.magnitude);
  return { value: best, error, magnitude: Math.max(seen.magnitude, Math.abs(best)) };
}

/** Where a run is cut in two to be looked at again. */
const cut = 0.382;

/** How far quadrature over two parts is from that over the whole. Next to a singular end it need not be tried. */
function disagreement(f: (x: number) => number, run: readonly EnclosedPart[], whole: Estimate): number {
  const [from, to] = endsOf(run);
  if (run.every(({ isSettled }) => isSettled)) return 0;
  const middle = from + cut * (to - from);
  return Math.abs(integralOf(f, from, middle).value + integralOf(f, middle, to).value - whole.value);
}

/** Binary digits that a value is asked for, more and more. */
const precisions = [128, 512, 2048, 8192];
const digitsOfDouble = 56n;

/** f to all digits of a double where that can be had, as it is otherwise. */
function preciseValue(f: Program): (x: number) => number {
  return (x) => {
    for (const bits of precisions) {
      const ball = enclosedOrUnsure(f, exactly(big.fromDouble(x)), [], bits);
      if (isBall(ball) && isSharp(ball)) return big.toDouble(ball.middle);
    }
    return evaluateAt(f, x);
  };
}

const isSharp = ({ middle, radius }: Ball): boolean =>
  big.isZero(radius) || (!big.isZero(middle) && big.order(radius) + digitsOfDouble < big.order(middle));
