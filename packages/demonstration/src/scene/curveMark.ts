import { compile, evaluatorFor, sampleCurve, TooLarge, type Program } from '@yperkine/core';
import type { CurveResult } from '../entries/curve.ts';
import type { Id } from '../schema/fields.ts';
import type { MarkOf } from './mark.ts';
import { dashOf, toneOf } from './tone.ts';
import type { TierView } from './view.ts';

const slopes = new WeakMap<Program, Program | null>();

/** The program of a curve's slope, compiled once a curve; undefined where it would be too large. */
function slopeOf({ program, body, variable, functions }: CurveResult): Program | undefined {
  const known = slopes.get(program);
  if (known !== undefined) return known ?? undefined;
  const slope = compiledSlope(body, variable, functions);
  slopes.set(program, slope);
  return slope ?? undefined;
}

function compiledSlope(
  body: CurveResult['body'],
  variable: string,
  functions: CurveResult['functions'],
): Program | null {
  try {
    return compile(body, variable, functions, 1);
  } catch (error) {
    if (error instanceof TooLarge) return null;
    throw error;
  }
}

/** How far outside its frame a curve is still drawn, as a share of the frame's height. */
const overhang = 2;

const drawn = new WeakMap<CurveResult, { readonly tier: TierView; readonly runs: readonly Float64Array[] }>();

/** The runs of a curve in pixels; sampled once for a view, whether it is drawn whole or a study draws a part of it. */
function runsOf(curve: CurveResult, tier: TierView): readonly Float64Array[] {
  const known = drawn.get(curve);
  if (known?.tier === tier) return known.runs;
  const runs = sampledRuns(curve, tier);
  drawn.set(curve, { tier, runs });
  return runs;
}

/** A function's curve over the window of a tier. */
export const curveMark = (entry: Id, curve: CurveResult, tier: TierView): MarkOf<'curve'> => ({
  kind: 'curve',
  entry,
  runs: runsOf(curve, tier),
  tone: toneOf(curve.order, curve.family),
  dash: dashOf(curve.order),
  weight: 2.5,
});

function sampledRuns(curve: CurveResult, tier: TierView): Float64Array[] {
  const { x, y, frame, density } = tier;
  const grid = {
    xFrom: x.from,
    xTo: x.to,
    yFrom: y.from,
    yTo: y.to,
    width: Math.round(frame.width * Math.min(density, 2)),
    height: Math.round(frame.height * Math.min(density, 2)),
  };
  const { runs } = sampleCurve(
    curve.program,
    evaluatorFor(curve.program),
    grid,
    curve.parameters,
    slopeOf(curve),
  );
  const highest = frame.top - frame.height * overhang;
  const lowest = frame.top + frame.height * (1 + overhang);
  return runs.map((run) =>
    run.map((value, i) =>
      i % 2 === 0 ? tier.toX(value) : Math.min(lowest, Math.max(highest, tier.toY(value))),
    ),
  );
}
