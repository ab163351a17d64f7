import {
  Effort,
  evaluatorFor,
  OutOfEffort,
  roughCurve,
  sampleCurve,
  slopeProgram,
  type Grid,
  type Program,
} from '@yperkine/core';
import type { CurveResult } from './curve.ts';
import type { Id } from '../fields/fields.ts';
import type { MarkOf } from '../marks/mark.ts';
import { dashOf, toneOf } from '../fields/tone.ts';
import type { TierView } from '../marks/view.ts';

const slopes = new WeakMap<Program, { readonly program: Program | undefined }>();

/** The program of a curve's slope, compiled once a curve; undefined where it would be too large. */
function slopeOf({ program, body, variable, functions }: CurveResult): Program | undefined {
  const known = slopes.get(program) ?? { program: slopeProgram(body, variable, functions) };
  slopes.set(program, known);
  return known.program;
}

/** How far outside its frame a curve is still drawn, as a share of the frame's height. */
const overhang = 2;

/** A curve in pixels over a window. */
interface Drawn {
  readonly tier: TierView;
  readonly runs: readonly Float64Array[];
  /** Whether it is less than the curve: rough, or drawn for another window or other numbers. It is drawn so that this is seen. */
  readonly isOld: boolean;
  /** Whether nothing stands for it yet only because this frame had no time left to try. */
  readonly isUntried?: boolean;
  /** Whether nothing better is to be had, so that it is asked for no more. */
  readonly isLast?: boolean;
}

const drawn = new WeakMap<CurveResult, Drawn>();
/** The last picture of each formula, whatever its numbers were. */
const lastOf = new WeakMap<Program, Drawn>();
/** Formulas that have once taken more than a frame has. */
const slow = new WeakSet<Program>();

/** A curve that a frame has no time for, over the window in which it is wanted. */
export interface WantedCurve {
  readonly curve: CurveResult;
  readonly tier: TierView;
}

/** What the curves of one scene may take together, and what it does not suffice for. */
interface Sampling {
  readonly effort: Effort;
  /** Curves that take more than any frame has. */
  readonly wanted: WantedCurve[];
  /** Whether others are left for the next frame. */
  isBehind: boolean;
}
let sampling: Sampling | null = null;

/** Operations that one curve may take of a frame, that finding its slope may, and that a rough one may. */
const ofOneCurve = 1_500_000;
const ofSlope = 1_000_000;
/** After a slope that has taken so many, the curve itself is left to the next frame. */
const ofShortSlope = 200_000;
const ofRoughCurve = 2_000_000;

/**
 * Makes a scene whose curves are sampled within an effort. Those that it does not suffice for are drawn as they were
 * last, or roughly: some are left for the next frame, and those for which no frame suffices are told.
 */
export function samplingWithin<T>(
  effort: Effort,
  work: () => T,
): { readonly made: T; readonly wanted: readonly WantedCurve[]; readonly isBehind: boolean } {
  const around = sampling;
  const own: Sampling = { effort, wanted: [], isBehind: false };
  sampling = own;
  try {
    return { made: work(), wanted: own.wanted, isBehind: own.isBehind };
  } finally {
    sampling = around;
  }
}

/** The curve in pixels; sampled once for a view, whether it is drawn whole or a study draws a part of it. */
function drawnOver(curve: CurveResult, tier: TierView): Drawn {
  const known = drawn.get(curve);
  const isSame = known?.tier === tier;
  if (isSame && (!known.isOld || known.isLast)) return known;
  if (!sampling) return remember(curve, { tier, runs: sampledRuns(curve, tier), isOld: false });
  const there = inTime(curve, tier, sampling.effort);
  if (there) return remember(curve, there);
  if (slow.has(curve.program)) sampling.wanted.push({ curve, tier });
  else sampling.isBehind = true;
  if (isSame && !known.isUntried) return known;
  const next = beforeItsTime(curve, tier, sampling.effort);
  if (next.isUntried) sampling.isBehind = true;
  return remember(curve, next);
}

function remember(curve: CurveResult, next: Drawn): Drawn {
  drawn.set(curve, next);
  if (!next.isOld) lastOf.set(curve.program, next);
  return next;
}

/** The curve as it should be; null where a frame has no time for it. */
function inTime(curve: CurveResult, tier: TierView, effort: Effort): Drawn | null {
  if (slow.has(curve.program) || effort.isUsedUp) return null;
  try {
    if (!slopes.has(curve.program)) findSlope(curve, effort);
    if (effort.isUsedUp) return null;
    return { tier, runs: effort.spendOn(() => sampledRuns(curve, tier), ofOneCurve), isOld: false };
  } catch (error) {
    if (!(error instanceof OutOfEffort)) throw error;
    if (!effort.isUsedUp) slow.add(curve.program);
    return null;
  }
}

/** @throws OutOfEffort where that takes more than any frame has */
function findSlope(curve: CurveResult, effort: Effort): void {
  const own = new Effort(ofSlope);
  own.spendOn(() => slopeOf(curve));
  const spent = ofSlope - own.left;
  effort.part(spent > ofShortSlope ? effort.left : spent);
}

/** What stands for a curve until it is there: its last picture at its place, or a rough one as far as time allows. */
function beforeItsTime(curve: CurveResult, tier: TierView, effort: Effort): Drawn {
  const last = lastOf.get(curve.program);
  if (last) return { tier, runs: moved(last, tier), isOld: true };
  const part = effort.part(ofRoughCurve);
  const isWhole = part.left === ofRoughCurve;
  const rough = roughCurve(() => evaluatorFor(curve.program), gridOf(tier), curve.parameters, part);
  effort.takeBack(part);
  const isUntried = rough.length === 0 && !isWhole;
  return { tier, runs: inPixels(rough, tier), isOld: true, isUntried };
}

/** A picture of one window as far as it can be seen in another. */
const moved = ({ tier: from, runs }: Drawn, to: TierView): Float64Array[] =>
  inPixels(
    runs.map((run) => run.map((value, i) => (i % 2 === 0 ? from.fromX(value) : from.fromY(value)))),
    to,
  );

const pointsIn = (runs: readonly Float64Array[]): number => runs.reduce((sum, run) => sum + run.length, 0);

/** What came of a curve beside the page: the curve, a rough one, or null where it took too long. */
export type Found = { readonly runs: readonly Float64Array[]; readonly isRough: boolean } | null;

/** Takes in what was worked out beside the page. What is rough stays to be seen as such: nothing better is to be had. */
export function keepCurve({ curve, tier }: WantedCurve, found: Found): void {
  const known = drawn.get(curve);
  if (known?.tier !== tier) return;
  const isBetter = found !== null && (!found.isRough || pointsIn(found.runs) > pointsIn(known.runs));
  const runs = isBetter ? inPixels(found.runs, tier) : known.runs;
  remember(curve, { tier, runs, isOld: found?.isRough ?? true, isLast: true });
}

/** A function's curve over the window of a tier. */
export function curveMark(entry: Id, curve: CurveResult, tier: TierView): MarkOf<'curve'> {
  const { runs, isOld } = drawnOver(curve, tier);
  return {
    kind: 'curve',
    entry,
    runs,
    tone: toneOf(curve.order, curve.family),
    dash: dashOf(curve.order),
    weight: 2.5,
    ...(isOld ? { isOld } : {}),
  };
}

/** What a curve is sampled on: device pixels, as far as eyes tell them apart. */
export const gridOf = ({ x, y, frame, density }: TierView): Grid => ({
  xFrom: x.from,
  xTo: x.to,
  yFrom: y.from,
  yTo: y.to,
  width: Math.round(frame.width * Math.min(density, 2)),
  height: Math.round(frame.height * Math.min(density, 2)),
});

function sampledRuns(curve: CurveResult, tier: TierView): Float64Array[] {
  const { program, parameters } = curve;
  const { runs } = sampleCurve(program, evaluatorFor(program), gridOf(tier), parameters, slopeOf(curve));
  return inPixels(runs, tier);
}

function inPixels(runs: readonly Float64Array[], tier: TierView): Float64Array[] {
  const { frame } = tier;
  const highest = frame.top - frame.height * overhang;
  const lowest = frame.top + frame.height * (1 + overhang);
  return runs.map((run) =>
    run.map((value, i) =>
      i % 2 === 0 ? tier.toX(value) : Math.min(lowest, Math.max(highest, tier.toY(value))),
    ),
  );
}
