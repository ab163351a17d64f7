import type { Id } from '../fields/fields.ts';
import type { Tone } from '../fields/tone.ts';
import type { Hatch } from '../marks/mark.ts';
import type { Frame } from '../marks/view.ts';

/** What stands out in a picture. */
export interface Emphasis {
  /** The entry whose marks stand out. */
  readonly entry: Id | null;
}

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

/** Slanted lines that rise or fall to the right, so many pixels from one another along x. */
export type Slant = Exclude<Hatch, 'none'>;
export const hatching = { gap: 8, width: 1, opacity: 0.35 } as const;

/** The lines x₀ y₀ x₁ y₁ of a square tile as wide as the gap: one through it, two whose ends lie in its corners. */
export const tileLines = (slant: Slant): readonly (readonly [number, number, number, number])[] => {
  const { gap } = hatching;
  const [y0, y1] = slant === 'up' ? [2 * gap, -gap] : [-gap, 2 * gap];
  return [-gap, 0, gap].map((at) => [at - gap, y0, at + 2 * gap, y1]);
};

/** What a painter paints on: the same drawing goes to a canvas or into SVG text. */
export interface Surface {
  path(build: (pen: Pen) => void, style: PathStyle): void;
  text(text: string, x: number, y: number, style: TextStyle): void;
  clipped(frame: Frame, draw: () => void): void;
  /** Fills with slanted lines, at places that do not move with what they fill. */
  hatched(build: (pen: Pen) => void, slant: Slant, tone: Tone): void;
  /** The outlines of rectangles; a canvas draws a hundred of them in the time of a few along one path. */
  boxes(build: (pen: Pick<Pen, 'rect'>) => void, style: PathStyle): void;
  clippedToCircle(x: number, y: number, radius: number, draw: () => void): void;
}
