import type { Frame, PathStyle, Pen, Slant, Surface, TextStyle, Tone } from '../src/index.ts';

/** A surface that writes down what it is asked to draw. */
export class Recorder implements Surface {
  readonly paths: {
    readonly style: PathStyle;
    readonly points: [number, number][];
    readonly clip: Frame | null;
  }[] = [];
  readonly texts: {
    readonly text: string;
    readonly x: number;
    readonly y: number;
    readonly style: TextStyle;
  }[] = [];
  private clip: Frame | null = null;

  path(build: (pen: Pen) => void, style: PathStyle): void {
    const points: [number, number][] = [];
    const at = (x: number, y: number) => void points.push([x, y]);
    build({ moveTo: at, lineTo: at, closePath: () => undefined, arc: at, rect: at });
    this.paths.push({ style, points, clip: this.clip });
  }
  text(text: string, x: number, y: number, style: TextStyle): void {
    this.texts.push({ text, x, y, style });
  }
  clipped(frame: Frame, draw: () => void): void {
    this.clip = frame;
    draw();
    this.clip = null;
  }
  boxes(build: (pen: Pick<Pen, 'rect'>) => void, style: PathStyle): void {
    this.path(build, style);
  }
  hatched(build: (pen: Pen) => void, _slant: Slant, tone: Tone): void {
    this.path(build, { fill: tone });
  }

  clippedToCircle(x: number, y: number, radius: number, draw: () => void): void {
    this.clipped({ left: x - radius, top: y - radius, width: 2 * radius, height: 2 * radius }, draw);
  }
}
