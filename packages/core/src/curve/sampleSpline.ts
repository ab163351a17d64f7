import type { Program } from '../evaluate/program.ts';
import type { Spline } from '../interpolation/spline.ts';
import type { Grid, SampledCurve } from './sample.ts';

/** Pieces in one column of pixels of which every one is drawn; of more, the lowest and the highest place. */
const mostDrawn = 4;

interface Dot {
  readonly x: number;
  readonly y: number;
}

/** The table that a program does nothing but look up at its variable. */
export function splineOf({ steps }: Program): Spline | undefined {
  const last = steps.at(-1);
  return last?.op === 'spline' && steps[last.a]?.op === 'variable' ? last.spline : undefined;
}

/**
 * The curve of a table as joined points. Its highs and lows are known, so that none is lost: not where a piece takes many
 * columns of pixels, nor where one column holds many pieces. Where the table has no value at a knot, there is a gap.
 */
export function sampleSpline(spline: Spline, { xFrom, xTo, width }: Grid): SampledCurve {
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

function drawColumn(spline: Spline, from: number, to: number, pen: Pen): void {
  const [first, last] = [spline.pieceAt(from), spline.pieceAt(to)];
  const parts: Dot[][] = [];
  for (let piece = first; piece <= last; piece++) {
    const start = Math.max(from, spline.knots[piece] as number);
    const end = Math.min(to, spline.knots[piece + 1] as number);
    if (start < end) parts.push(dotsOn(spline, piece, start, end));
  }
  const drawn = parts.length <= mostDrawn ? parts : extremesOf(parts, !spline.hasJumps);
  for (const part of drawn) {
    if (spline.hasJumps && !pen.isAt(part[0] as Dot)) pen.lift();
    part.forEach(pen.to);
  }
}

/** The ends of a part of a piece, and where it turns between them. */
function dotsOn(spline: Spline, piece: number, from: number, to: number): Dot[] {
  const turns = turnsOf(spline.coefficientsOf(piece))
    .map((d) => (spline.knots[piece] as number) + d)
    .filter((x) => x > from && x < to)
    .sort((a, b) => a - b);
  return [from, ...turns, to].map((x) => ({ x, y: spline.valueOn(piece, x) }));
}

/** Where c₁ + 2c₂d + 3c₃d² is 0. */
function turnsOf(coefficients: Float64Array): number[] {
  const [, c1 = 0, c2 = 0, c3 = 0] = coefficients;
  if (c2 === 0 && c3 === 0) return [];
  const root = Math.sqrt(c2 * c2 - 3 * c1 * c3);
  const q = -(c2 + (c2 < 0 ? -root : root));
  return [q / (3 * c3), c1 / q].filter(Number.isFinite);
}

/** The lowest and the highest of many dots, as one part or, where they must not be joined, as two. */
function extremesOf(parts: readonly Dot[][], isJoined: boolean): Dot[][] {
  const dots = parts.flat();
  if (isJoined) {
    const low = dots.reduce((a, b) => (b.y < a.y ? b : a));
    const high = dots.reduce((a, b) => (b.y > a.y ? b : a));
    return [[low, high].sort((a, b) => a.x - b.x)];
  }
  const lowest = (part: readonly Dot[]): number => Math.min(...part.map(({ y }) => y));
  const highest = (part: readonly Dot[]): number => Math.max(...part.map(({ y }) => y));
  const low = parts.reduce((a, b) => (lowest(b) < lowest(a) ? b : a));
  const high = parts.reduce((a, b) => (highest(b) > highest(a) ? b : a));
  return low === high ? [low] : parts.indexOf(low) < parts.indexOf(high) ? [low, high] : [high, low];
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
