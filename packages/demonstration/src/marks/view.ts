import type { Range } from '@yperkine/core';
import type { RoundingRule } from '../numbers/format.ts';
import type { Id } from '../fields/fields.ts';

export interface Frame {
  readonly left: number;
  readonly top: number;
  readonly width: number;
  readonly height: number;
}

/** An immutable map between a tier's coordinates and the pixels of its frame. */
export class TierView {
  constructor(
    readonly id: Id,
    readonly frame: Frame,
    readonly x: Range,
    readonly y: Range,
    readonly rule: RoundingRule,
    /** Device pixels for one pixel of the scene. */
    readonly density: number,
  ) {}

  get pixelsPerX(): number {
    return this.frame.width / (this.x.to - this.x.from);
  }
  get pixelsPerY(): number {
    return this.frame.height / (this.y.to - this.y.from);
  }
  toX(x: number): number {
    return this.frame.left + (x - this.x.from) * this.pixelsPerX;
  }
  toY(y: number): number {
    return this.frame.top + (this.y.to - y) * this.pixelsPerY;
  }
  fromX(pixel: number): number {
    return this.x.from + (pixel - this.frame.left) / this.pixelsPerX;
  }
  fromY(pixel: number): number {
    return this.y.to - (pixel - this.frame.top) / this.pixelsPerY;
  }
}

/** A range moved by so many units. */
export const panned = ({ from, to }: Range, by: number): Range => ({ from: from + by, to: to + by });

/** A range made `factor` times as wide around a place that stays where it is. */
export const zoomed = ({ from, to }: Range, around: number, factor: number): Range => ({
  from: around - (around - from) * factor,
  to: around + (to - around) * factor,
});

const narrowest = 1e-9;
const widest = 1e12;

/** Whether a range can be drawn with the digits that doubles have. */
export function isDrawable({ from, to }: Range): boolean {
  const width = to - from;
  const magnitude = Math.max(Math.abs(from), Math.abs(to), 1e-3);
  return Number.isFinite(width) && width > narrowest * magnitude && width < widest && magnitude < widest;
}
