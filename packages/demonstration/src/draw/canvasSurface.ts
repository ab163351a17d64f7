import type { Frame } from '../marks/view.ts';
import type { Tone } from '../fields/tone.ts';
import {
  hatching,
  tileLines,
  type PathStyle,
  type Pen,
  type Slant,
  type Surface,
  type TextStyle,
} from './surface.ts';
import { colourOf, type Palette } from './theme.ts';

/** A surface on a canvas context whose unit is one pixel of the scene. */
export class CanvasSurface implements Surface {
  constructor(
    private readonly context: CanvasRenderingContext2D | OffscreenCanvasRenderingContext2D,
    private readonly palette: Palette,
    private readonly fontFamily: string,
    private readonly mathematicsFamily: string = fontFamily,
  ) {}

  path(build: (pen: Pen) => void, style: PathStyle): void {
    const { context, palette } = this;
    context.beginPath();
    build(context);
    context.globalAlpha = style.opacity ?? 1;
    if (style.fill) {
      context.fillStyle = colourOf(style.fill, palette);
      context.fill();
    }
    if (style.stroke) {
      this.take(style, 'round');
      context.stroke();
    }
    context.globalAlpha = 1;
  }

  boxes(build: (pen: Pick<Pen, 'rect'>) => void, style: PathStyle): void {
    const { context } = this;
    context.globalAlpha = style.opacity ?? 1;
    this.take(style, 'miter');
    build({ rect: (x, y, width, height) => context.strokeRect(x, y, width, height) });
    context.globalAlpha = 1;
  }

  /** Takes the pencil of a style. */
  private take({ stroke = 'ink', width = 1, dash = [] }: PathStyle, lineJoin: CanvasLineJoin): void {
    const { context, palette } = this;
    context.strokeStyle = colourOf(stroke, palette);
    context.lineWidth = width;
    context.lineJoin = lineJoin;
    context.setLineDash([...dash]);
  }

  hatched(build: (pen: Pen) => void, slant: Slant, tone: Tone): void {
    const { context } = this;
    const pattern = this.patternOf(slant, colourOf(tone, this.palette));
    if (!pattern) return;
    context.beginPath();
    build(context);
    context.globalAlpha = hatching.opacity;
    context.fillStyle = pattern;
    context.fill();
    context.globalAlpha = 1;
  }

  private patternOf(slant: Slant, colour: string): CanvasPattern | null {
    const size = Math.max(1, Math.round(hatching.gap * this.context.getTransform().a));
    const pattern = this.context.createPattern(tileOf(slant, colour, size), 'repeat');
    pattern?.setTransform(new DOMMatrix().scale(hatching.gap / size));
    return pattern;
  }

  text(text: string, x: number, y: number, style: TextStyle): void {
    const { context } = this;
    context.font = `${style.size}px ${style.face === 'mathematics' ? this.mathematicsFamily : this.fontFamily}`;
    context.fillStyle = colourOf(style.tone, this.palette);
    context.textAlign = style.anchor === 'middle' ? 'center' : style.anchor;
    context.fillText(text, x, y);
  }

  /** Puts another canvas of the same size, which is so large in pixels of the scene, over everything. */
  copy(
    canvas: CanvasImageSource,
    { width, height }: { readonly width: number; readonly height: number },
  ): void {
    this.context.drawImage(canvas, 0, 0, width, height);
  }

  clipped({ left, top, width, height }: Frame, draw: () => void): void {
    this.clippedTo((pen) => pen.rect(left, top, width, height), draw);
  }

  clippedToCircle(x: number, y: number, radius: number, draw: () => void): void {
    this.clippedTo((pen) => pen.arc(x, y, radius, 0, 2 * Math.PI), draw);
  }

  private clippedTo(build: (pen: Pen) => void, draw: () => void): void {
    const { context } = this;
    context.save();
    context.beginPath();
    build(context);
    context.clip();
    draw();
    context.restore();
  }
}

const tiles = new Map<string, OffscreenCanvas>();
const mostTiles = 40;

/**
 * A square tile of slanted lines with so many pixels of the canvas a side, painted once; clipping lines to a shape would
 * cost many times as much.
 */
function tileOf(slant: Slant, colour: string, size: number): OffscreenCanvas {
  const key = `${slant} ${colour} ${size}`;
  const known = tiles.get(key);
  if (known) return known;
  const tile = new OffscreenCanvas(size, size);
  const pen = tile.getContext('2d');
  if (!pen) throw new Error('this browser cannot draw on a canvas');
  pen.scale(size / hatching.gap, size / hatching.gap);
  pen.strokeStyle = colour;
  pen.lineWidth = hatching.width;
  for (const [x0, y0, x1, y1] of tileLines(slant)) {
    pen.moveTo(x0, y0);
    pen.lineTo(x1, y1);
  }
  pen.stroke();
  if (tiles.size >= mostTiles) tiles.clear();
  tiles.set(key, tile);
  return tile;
}
