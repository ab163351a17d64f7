import { derivativeOf } from '../algebra/differentiate.ts';
import { simplify } from '../algebra/simplify.ts';
import { run } from '../evaluate/enclosures.ts';
import { exactly, type Interval } from '../numbers/interval.ts';
import { compile, type Program } from '../evaluate/program.ts';
import { evaluateAt } from '../values/values.ts';
import * as tree from '../language/tree.ts';
import type { Expression } from '../language/tree.ts';
import type { Grid } from './sampled.ts';

/** An equation in x and y, ready to be drawn: left minus right. */
export interface Equation {
  readonly program: Program;
}

export interface DrawnEquation {
  /** Short lines x₀ y₀ x₁ y₁, one after the other. */
  readonly segments: Float64Array;
  /** Cells [x, y, width, height] in which the curve may be but was not resolved within the budget. */
  readonly unsure: readonly (readonly [number, number, number, number])[];
  readonly evaluations: number;
}

/** @throws TooLarge as `compile` does */
export function equationOf(left: Expression, right: Expression): Equation {
  return { program: compile(tree.subtract(left, right), 'x') };
}

/** Cells that are looked at for one picture at most. */
const mostCells = 60_000;
/** The side of the smallest cells, in pixels. */
const finest = 2;

interface Cell {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/**
 * The curve of an equation: cells whose enclosure excludes 0 are left out, others are quartered down to two pixels,
 * and in those the curve is a line between the places where the sign changes on the sides. Where left and right are
 * not proved to be continuous (beside a pole) a change of sign is no crossing and nothing is drawn.
 * Method: interval subdivision, Taubin (1994); marching squares for the last step.
 * @param parameters values of all names but x and y, by name
 */
export function drawEquation(
  { program }: Equation,
  grid: Grid,
  parameters: ReadonlyMap<string, number> = new Map(),
): DrawnEquation {
  const drawing = new Drawing(program, grid, parameters);
  return drawing.result();
}

class Drawing {
  private readonly segments: number[] = [];
  private readonly unsure: [number, number, number, number][] = [];
  private evaluations = 0;
  private readonly isY: readonly boolean[];
  private readonly others: readonly number[];
  private readonly smallest: { width: number; height: number };

  constructor(
    private readonly program: Program,
    private readonly grid: Grid,
    parameters: ReadonlyMap<string, number>,
  ) {
    this.isY = program.parameters.map((name) => name === 'y');
    this.others = program.parameters.map((name) => parameters.get(name) ?? NaN);
    this.smallest = {
      width: ((grid.xTo - grid.xFrom) / grid.width) * finest,
      height: ((grid.yTo - grid.yFrom) / grid.height) * finest,
    };
  }

  result(): DrawnEquation {
    const { xFrom, xTo, yFrom, yTo } = this.grid;
    const open: Cell[] = [{ x: xFrom, y: yFrom, width: xTo - xFrom, height: yTo - yFrom }];
    let cells = 0;
    for (let cell = open.pop(); cell; cell = open.pop()) {
      if (++cells > mostCells) this.unsure.push([cell.x, cell.y, cell.width, cell.height]);
      else open.push(...this.look(cell));
    }
    return {
      segments: Float64Array.from(this.segments),
      unsure: this.unsure,
      evaluations: this.evaluations,
    };
  }

  /** The quarters of a cell that are still to be looked at. */
  private look(cell: Cell): Cell[] {
    const range = this.enclose(cell);
    const isEmpty = Number.isNaN(range.low) || range.low > 0 || range.high < 0;
    if (isEmpty) return [];
    const isSmall = cell.width <= this.smallest.width && cell.height <= this.smallest.height;
    if (isSmall) {
      if (range.sure) this.cross(cell);
      return [];
    }
    const [width, height] = [cell.width / 2, cell.height / 2];
    return [0, 1].flatMap((i) =>
      [0, 1].map((j) => ({ x: cell.x + i * width, y: cell.y + j * height, width, height })),
    );
  }

  private enclose({ x, y, width, height }: Cell): Interval {
    this.evaluations++;
    const tall: Interval = { low: y, high: y + height, sure: true };
    const parameters = this.others.map((value, i) => (this.isY[i] ? tall : exactly(value)));
    return run(this.program, { low: x, high: x + width, sure: true }, parameters).at(-1) as Interval;
  }

  private valueAt(x: number, y: number): number {
    this.evaluations++;
    return evaluateAt(
      this.program,
      x,
      this.others.map((value, i) => (this.isY[i] ? y : value)),
    );
  }

  /** A line between the sign changes on the sides of a cell; two where all four sides have one. */
  private cross({ x, y, width, height }: Cell): void {
    const corners = [
      [x, y],
      [x + width, y],
      [x + width, y + height],
      [x, y + height],
    ] as const;
    const values = corners.map(([cx, cy]) => this.valueAt(cx, cy));
    const points = corners.flatMap(([ax, ay], i): [number, number][] => {
      const j = (i + 1) % 4;
      const [a, b] = [values[i] as number, values[j] as number];
      const [bx, by] = corners[j] as readonly [number, number];
      const changes = a >= 0 !== b >= 0;
      const share = a / (a - b);
      return changes ? [[ax + (bx - ax) * share, ay + (by - ay) * share]] : [];
    });
    for (let i = 0; i + 1 < points.length; i += 2) {
      this.segments.push(...(points[i] as [number, number]), ...(points[i + 1] as [number, number]));
    }
  }
}

/** The slope of the curve of an equation in x and y, by implicit differentiation: dy/dx = −Fₓ/F_y. */
export function implicitSlope(left: Expression, right: Expression): Expression {
  const difference = tree.subtract(left, right);
  const [inX, inY] = [derivativeOf(difference, 'x'), derivativeOf(difference, 'y')];
  return simplify(tree.negate(tree.divide(inX, inY)));
}
