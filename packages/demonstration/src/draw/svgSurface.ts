import { pathRound } from 'd3-path';
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

/** A surface that collects SVG text. */
export class SvgSurface implements Surface {
  private readonly pieces: string[] = [];
  private clips = 0;
  private patterns = 0;

  /** @param digits decimal places of pixels */
  constructor(
    private readonly palette: Palette,
    private readonly digits = 2,
  ) {}

  path(build: (pen: Pen) => void, style: PathStyle): void {
    const d = pathRound(this.digits);
    build(d);
    const { palette } = this;
    const stroke = style.stroke
      ? ` stroke="${colourOf(style.stroke, palette)}" stroke-width="${style.width ?? 1}" stroke-linejoin="round"`
      : '';
    const dash = style.dash?.length ? ` stroke-dasharray="${style.dash.join(' ')}"` : '';
    const opacity = style.opacity === undefined ? '' : ` opacity="${style.opacity}"`;
    this.pieces.push(
      `<path d="${d.toString()}" fill="${style.fill ? colourOf(style.fill, palette) : 'none'}"${stroke}${dash}${opacity}/>`,
    );
  }

  text(text: string, x: number, y: number, { tone, size, anchor, face }: TextStyle): void {
    this.pieces.push(
      `<text x="${x.toFixed(this.digits)}" y="${y.toFixed(this.digits)}" font-size="${size}" font-family="${face === 'mathematics' ? 'serif' : 'sans-serif'}" ` +
        `text-anchor="${anchor}" fill="${colourOf(tone, this.palette)}">${escaped(text)}</text>`,
    );
  }

  clipped({ left, top, width, height }: Frame, draw: () => void): void {
    this.clippedTo(`<rect x="${left}" y="${top}" width="${width}" height="${height}"/>`, draw);
  }

  clippedToCircle(x: number, y: number, radius: number, draw: () => void): void {
    this.clippedTo(`<circle cx="${x}" cy="${y}" r="${radius}"/>`, draw);
  }

  boxes(build: (pen: Pick<Pen, 'rect'>) => void, style: PathStyle): void {
    this.path(build, style);
  }

  hatched(build: (pen: Pen) => void, slant: Slant, tone: Tone): void {
    const d = pathRound(this.digits);
    build(d);
    const { gap, width, opacity } = hatching;
    const id = `hatching${++this.patterns}`;
    const lines = tileLines(slant).map(([x0, y0, x1, y1]) => `M${x0} ${y0}L${x1} ${y1}`);
    this.pieces.push(
      `<pattern id="${id}" width="${gap}" height="${gap}" patternUnits="userSpaceOnUse">`,
      `<path d="${lines.join('')}" stroke="${colourOf(tone, this.palette)}" stroke-width="${width}"/></pattern>`,
      `<path d="${d.toString()}" fill="url(#${id})" opacity="${opacity}"/>`,
    );
  }

  private clippedTo(shape: string, draw: () => void): void {
    const id = `clip${++this.clips}`;
    this.pieces.push(`<clipPath id="${id}">${shape}</clipPath>`, `<g clip-path="url(#${id})">`);
    draw();
    this.pieces.push('</g>');
  }

  /** The whole drawing as an SVG document. */
  toSvg(width: number, height: number): string {
    return (
      `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${width} ${height}" width="${width}" height="${height}">` +
      `${this.pieces.join('')}</svg>`
    );
  }
}

const escaped = (text: string): string =>
  text.replace(/[&<>"']/g, (character) => `&#${character.charCodeAt(0)};`);
