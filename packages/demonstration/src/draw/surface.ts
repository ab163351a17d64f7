import type { Tone } from '../scene/tone.ts';
import type { Frame } from '../scene/view.ts';

/** The path commands that a canvas context and an SVG path have in common. */
export interface Pen {
  moveTo(x: number, y: number): void;
  lineTo(x: number, y: number): void;
  closePath(): void;
  arc(x: number, y: number, radius: number, from: number, to: number): void;
  rect(x: number, y: number, width: number, height: number): void;
}

export interface PathStyle {
  readonly stroke?: Tone;
  readonly fill?: Tone;
  readonly width?: number;
  readonly dash?: readonly number[];
  readonly opacity?: number;
}

export interface TextStyle {
  readonly tone: Tone;
  readonly size: number;
  /** The typeface: the interface's, unless it is the mathematics'. */
  readonly face?: 'plain' | 'mathematics';
  readonly anchor: 'start' | 'middle' | 'end';
}

/** What a painter paints on: the same drawing goes to a canvas or into SVG text. */
export interface Surface {
  path(build: (pen: Pen) => void, style: PathStyle): void;
  text(text: string, x: number, y: number, style: TextStyle): void;
  clipped(frame: Frame, draw: () => void): void;
  clippedToPath(build: (pen: Pen) => void, draw: () => void): void;
  clippedToCircle(x: number, y: number, radius: number, draw: () => void): void;
}
