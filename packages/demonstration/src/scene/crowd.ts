import type { Frame } from '../marks/view.ts';

/** Side of a cell in pixels. */
const cell = 4;

/**
 * How many points lie in a box, for many boxes and points in one frame: points are counted by cells, and sums over all cells above
 * and to the left (a summed-area table; Crow, 1984) answer each box with four look-ups.
 */
export class Crowd {
  private readonly columns: number;
  private readonly rows: number;
  private readonly left: number;
  private readonly top: number;
  /** One row and one column more than there are cells, of zeros. */
  private readonly sums: Int32Array;

  /** @param lists points as x y x y … */
  constructor({ left, top, width, height }: Frame, lists: readonly (readonly number[])[]) {
    this.left = left;
    this.top = top;
    this.columns = Math.ceil(width / cell) + 1;
    this.rows = Math.ceil(height / cell) + 1;
    this.sums = new Int32Array(this.columns * this.rows);
    for (const points of lists) this.add(points);
    this.sum();
  }

  private add(points: readonly number[]): void {
    for (let i = 0; i + 1 < points.length; i += 2) {
      const column = Math.floor(((points[i] as number) - this.left) / cell) + 1;
      const row = Math.floor(((points[i + 1] as number) - this.top) / cell) + 1;
      if (column < 1 || row < 1 || column >= this.columns || row >= this.rows) continue;
      const index = row * this.columns + column;
      this.sums[index] = (this.sums[index] as number) + 1;
    }
  }

  private sum(): void {
    const { sums, columns } = this;
    for (let row = 1; row < this.rows; row++) {
      let running = 0;
      for (let column = 1; column < columns; column++) {
        const index = row * columns + column;
        running += sums[index] as number;
        sums[index] = running + (sums[index - columns] as number);
      }
    }
  }

  /** Points in the cells that a box touches. */
  countIn(box: Frame): number {
    const at = (x: number, y: number): number => {
      const column = Math.min(this.columns - 1, Math.max(0, x));
      const row = Math.min(this.rows - 1, Math.max(0, y));
      return this.sums[row * this.columns + column] as number;
    };
    const from = { x: Math.floor((box.left - this.left) / cell), y: Math.floor((box.top - this.top) / cell) };
    const to = {
      x: Math.floor((box.left + box.width - this.left) / cell) + 1,
      y: Math.floor((box.top + box.height - this.top) / cell) + 1,
    };
    return at(to.x, to.y) - at(from.x, to.y) - at(to.x, from.y) + at(from.x, from.y);
  }
}
