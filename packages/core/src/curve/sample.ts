import { enclose } from '../evaluate/enclosures.ts';
import { isNested, splineOf, type NestedStep, type Program, type Step } from '../evaluate/program.ts';
import type { Evaluator } from '../values/evaluator.ts';
import { evaluateAt } from '../values/values.ts';
import type { Grid, SampledCurve } from './sampled.ts';
import { sampleSpline } from './sampleSpline.ts';

/** Halvings of a pixel column at most. */
const deepest = 12;
/** Closer looks for the whole curve at most, and steps of the program that they may take together. */
const mostLooks = 3000;
const mostSteps = 4_000_000;
/** A rise between neighbouring points, in pixels, above which a column is looked at more closely. */
const steep = 1;

/**
 * The curve of a function as joined points, one column of pixels at a time. Two points are joined
 * only when an enclosure shows the function defined and continuous between them, or when closer
 * looks down to 1/4096 of a pixel leave less than half a pixel between them. Where the enclosure of
 * a column is taller than what its two ends show, it is halved, so that a narrow spike is not lost;
 * unless the slope keeps one sign there, which proves that the ends are the highest and the lowest place.
 * @param slope the derivative's program; without it every such column is halved
 */
export function sampleCurve(
  program: Program,
  evaluator: Evaluator,
  grid: Grid,
  parameters: readonly number[] = [],
  slope?: Program,
): SampledCurve {
  const table = splineOf(program);
  if (table) return sampleSpline(table, grid);
  const sampler = new Sampler(program, grid, parameters, slope);
  const columns = Math.max(2, Math.ceil(grid.width));
  const xs = Float64Array.from(
    { length: columns + 1 },
    (_, i) => grid.xFrom + ((grid.xTo - grid.xFrom) * i) / columns,
  );
  const ys = new Float64Array(xs.length);
  evaluator.evaluate(xs, ys, parameters);
  sampler.point(xs[0] as number, ys[0] as number);
  for (let i = 0; i < columns; i++) {
    sampler.column(xs[i] as number, ys[i] as number, xs[i + 1] as number, ys[i + 1] as number, 0);
  }
  return sampler.finish(xs.length);
}

/** Steps that one evaluation takes, those of sums and integrals in it included, about. */
function stepsOf({ steps }: Program): number {
  return steps.reduce((sum, step) => sum + (isNested(step) ? nestedSteps(step, steps) : 1), 0);
}

/** What a sum is taken to have where its bounds are no numbers, and an integral or limit to be asked at. */
const usualTerms = 100;

function nestedSteps(step: NestedStep, steps: readonly Step[]): number {
  const bound = (index: number): number => {
    const at = steps[index];
    return at?.op === 'constant' ? at.value : NaN;
  };
  const terms = step.op === 'sum' ? bound(step.to) - bound(step.from) + 1 : usualTerms;
  return stepsOf(step.body) * Math.max(1, Number.isFinite(terms) ? terms : usualTerms);
}

class Sampler {
  private readonly runs: Float64Array[] = [];
  private run: number[] = [];
  private readonly unsure: number[] = [];
  private looks = 0;
  private readonly pixelsPerY: number;
  private readonly mostLooks: number;
  private readonly slopeParameters: readonly number[];

  constructor(
    private readonly program: Program,
    private readonly grid: Grid,
    private readonly parameters: readonly number[],
    private readonly slope: Program | undefined,
  ) {
    this.pixelsPerY = grid.height / (grid.yTo - grid.yFrom);
    const names = program.parameters;
    this.slopeParameters = slope
      ? slope.parameters.map((name) => parameters[names.indexOf(name)] ?? NaN)
      : [];
    this.mostLooks = Math.min(mostLooks, Math.floor(mostSteps / stepsOf(program)));
  }

  point(x: number, y: number): void {
    if (Number.isFinite(y)) this.run.push(x, y);
    else this.gap();
  }

  private gap(): void {
    if (this.run.length > 0) this.runs.push(Float64Array.from(this.run));
    this.run = [];
  }

  /** Draws from (x0, y0), already there, to (x1, y1). */
  column(x0: number, y0: number, x1: number, y1: number, depth: number): void {
    const range = enclose(this.program, x0, x1, this.parameters);
    if (Number.isNaN(range.low)) return this.point(x1, NaN);
    const isTall = this.pixels(range.low, range.high) - this.pixels(y0, y1) > steep;
    const isSettled =
      range.sure && (!isTall || this.isOutside(range.low, range.high) || this.isMonotone(x0, x1));
    if (isSettled) return this.point(x1, y1);
    const middle = x0 + (x1 - x0) * 0.5;
    const canLook = depth < deepest && this.looks < this.mostLooks && middle > x0 && middle < x1;
    if (!canLook) return this.settle(x0, y0, x1, y1, range.sure);
    this.looks++;
    const y = evaluateAt(this.program, middle, this.parameters);
    this.column(x0, y0, middle, y, depth + 1);
    this.column(middle, y, x1, y1, depth + 1);
  }

  /** The last word on a column that enclosures leave open: join only what nearly touches. */
  private settle(x0: number, y0: number, x1: number, y1: number, isContinuous: boolean): void {
    const isClose = Math.abs(y1 - y0) * this.pixelsPerY < 0.5;
    if (!isContinuous && !isClose) this.gap();
    if (this.looks >= this.mostLooks && this.unsure.at(-1) !== x0) this.unsure.push(x0);
    this.point(x1, y1);
  }

  /** The height between two values in pixels, as far as it lies in the window. */
  private pixels(a: number, b: number): number {
    const { yFrom, yTo } = this.grid;
    const low = Math.max(yFrom, Math.min(a, b));
    const high = Math.min(yTo, Math.max(a, b));
    return high > low ? (high - low) * this.pixelsPerY : 0;
  }

  /** Whether the slope is proved to keep one sign from x0 to x1. */
  private isMonotone(x0: number, x1: number): boolean {
    if (!this.slope) return false;
    const { low, high, sure } = enclose(this.slope, x0, x1, this.slopeParameters);
    return sure && (low >= 0 || high <= 0);
  }

  private isOutside(low: number, high: number): boolean {
    return low > this.grid.yTo || high < this.grid.yFrom;
  }

  finish(gridPoints: number): SampledCurve {
    this.gap();
    return { runs: this.runs, unsure: this.unsure, evaluations: gridPoints + this.looks };
  }
}
