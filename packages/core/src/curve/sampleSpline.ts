import type { Table } from '../language/table.ts';
import type { Grid, SampledCurve } from './sampled.ts';

/** Pieces in one column of pixels of which every one is drawn; of more, the lowest and the highest place. */
const mostDrawn = 4;

interface Dot {
  readonly x: number;
  readonly y: number;
}

/**
 * The curve of a table as joined points. Its highs and lows are known, so that none is lost: not where a piece takes many
 * columns of pixels, nor where one column holds many pieces. Where the table has no value at a knot, there is a gap.
 */
export function sampleSpline(spline: Table, { xFrom, xTo, width }: Grid): SampledCurve {
  const pen = new Pen();
  const columns = Math.max(2, Math.ceil(width));
  const at = (i: number): number => xFrom + ((xTo - xFrom) * i) / columns;
  const end = spline.knots[spline.knots.length - 1] as number;
  for (let i = 0; i < columns; i++) {
    const from = Math.max(at(i), spline.knots[0] as number);
    const to = Math.min(at(i + 1), end);
    if (from < to) drawColumn(spline, from, to, pen);
  }
  return pen.finish();
}

function drawColumn(spline: Table, from: number, to: number, pen: Pen): void {
  const [first, last] = [spline.pieceAt(from), spline.pieceAt(to)];
  const part = (piece: number): Dot[] =>
    dotsOn(
      spline,
      piece,
      Math.max(from, spline.knots[piece] as number),
      Math.min(to, spline.knots[piece + 1] as number),
    );
  if (last - first < mostDrawn) {
    for (let piece = first; piece <= last; piece++) draw(spline, part(piece), pen);
  } else if (spline.hasJumps) {
    for (const piece of farthest(spline, first, last + 1)) draw(spline, part(piece), pen);
  } else {
    const whole = farthest(spline, first + 1, last).flatMap((piece) => turningDots(spline, piece));
    draw(spline, lowestAndHighest([...part(first), ...whole, ...part(last)]), pen);
  }
}

/** Dots that are joined; with those before them only where the table has no jumps, or where they touch. */
function draw(spline: Table, dots: readonly Dot[], pen: Pen): void {
  const [start] = dots;
  if (!start) return;
  if (spline.hasJumps && !pen.isAt(start)) pen.lift();
  dots.forEach(pen.to);
}

/** The ends of a part of a piece, and where it turns between them. */
function dotsOn(spline: Table, piece: number, from: number, to: number): Dot[] {
  if (from >= to) return [];
  const turns = spline.turnsOf(piece).filter((x) => x > from && x < to);
  return [from, ...turns, to].map((x) => ({ x, y: spline.valueOn(piece, x) }));
}

/** From i up to but not including j: the piece that reaches lowest and the one that reaches highest, in order. */
function farthest(spline: Table, i: number, j: number): number[] {
  const { low, high } = spline.reach;
  let [lowest, highest] = [i, i];
  for (let piece = i + 1; piece < j; piece++) {
    if ((low[piece] as number) < (low[lowest] as number)) lowest = piece;
    if ((high[piece] as number) > (high[highest] as number)) highest = piece;
  }
  return lowest === highest ? [lowest] : lowest < highest ? [lowest, highest] : [highest, lowest];
}

const turningDots = (spline: Table, piece: number): Dot[] =>
  dotsOn(spline, piece, spline.knots[piece] as number, spline.knots[piece + 1] as number);

function lowestAndHighest(dots: readonly Dot[]): Dot[] {
  const low = dots.reduce((a, b) => (b.y < a.y ? b : a));
  const high = dots.reduce((a, b) => (b.y > a.y ? b : a));
  return [low, high].sort((a, b) => a.x - b.x);
}

class Pen {
  private readonly runs: Float64Array[] = [];
  private run: number[] = [];
  private evaluations = 0;

  readonly to = (dot: Dot): void => {
    this.evaluations++;
    if (!this.isAt(dot)) this.run.push(dot.x, dot.y);
  };

  isAt({ x, y }: Dot): boolean {
    return this.run.at(-2) === x && this.run.at(-1) === y;
  }

  lift(): void {
    if (this.run.length > 0) this.runs.push(Float64Array.from(this.run));
    this.run = [];
  }

  finish(): SampledCurve {
    this.lift();
    return { runs: this.runs, unsure: [], evaluations: this.evaluations };
  }
}
