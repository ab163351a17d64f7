import type { Frame } from '../scene/view.ts';
import type { PathStyle, Pen, Surface, TextStyle } from './surface.ts';
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
      context.strokeStyle = colourOf(style.stroke, palette);
      context.lineWidth = style.width ?? 1;
      context.lineJoin = 'round';
      context.setLineDash([...(style.dash ?? [])]);
      context.stroke();
    }
    context.globalAlpha = 1;
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

  clippedToPath(build: (pen: Pen) => void, draw: () => void): void {
    this.clippedTo(build, draw);
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
