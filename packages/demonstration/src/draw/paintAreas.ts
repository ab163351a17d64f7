import type { MarkOf } from '../marks/mark.ts';
import type { Emphasis, PathStyle, Pen, Surface } from './surface.ts';

const fillOpacity = 0.11;
const emphasisedOpacity = 0.24;

type Filled = MarkOf<'bars'> | MarkOf<'area'>;

export function paintBars(mark: MarkOf<'bars'>, surface: Surface, emphasis: Emphasis): void {
  const { bars, base } = mark;
  paintInside(mark, (pen) => traceSkyline(bars, base, pen), surface, emphasis);
  const each = (pen: Pick<Pen, 'rect'>) => {
    for (let i = 0; i + 2 < bars.length; i += 3) {
      const [x0, x1, y] = [bars[i] as number, bars[i + 1] as number, bars[i + 2] as number];
      pen.rect(x0, Math.min(y, base), x1 - x0, Math.abs(y - base));
    }
  };
  if (mark.hasEdges) surface.boxes(each, edgesOf(mark, emphasis));
}

/** The outline of bars that touch one another, as one: filling it costs a fraction of what the bars cost. */
function traceSkyline(bars: Float64Array, base: number, pen: Pen): void {
  let end = NaN;
  for (let i = 0; i + 2 < bars.length; i += 3) {
    const [x0, x1, y] = [bars[i] as number, bars[i + 1] as number, bars[i + 2] as number];
    if (x0 !== end) {
      if (i > 0) closeAt(end, base, pen);
      pen.moveTo(x0, base);
    }
    pen.lineTo(x0, y);
    pen.lineTo(x1, y);
    end = x1;
  }
  if (bars.length > 0) closeAt(end, base, pen);
}

function closeAt(x: number, base: number, pen: Pen): void {
  pen.lineTo(x, base);
  pen.closePath();
}

export function paintArea(mark: MarkOf<'area'>, surface: Surface, emphasis: Emphasis): void {
  const build = (pen: Pen) => {
    for (const outline of mark.outlines) {
      pen.moveTo(outline[0] as number, outline[1] as number);
      for (let i = 2; i + 1 < outline.length; i += 2)
        pen.lineTo(outline[i] as number, outline[i + 1] as number);
      pen.closePath();
    }
  };
  paintInside(mark, build, surface, emphasis);
  if (mark.hasEdges) surface.path(build, edgesOf(mark, emphasis));
}

function paintInside(
  { entry, tone, hatch, isOutline = false }: Filled,
  build: (pen: Pen) => void,
  surface: Surface,
  emphasis: Emphasis,
): void {
  const opacity = entry === emphasis.entry ? emphasisedOpacity : fillOpacity;
  if (!isOutline) surface.path(build, { fill: tone, opacity });
  if (hatch !== 'none') surface.hatched(build, hatch, tone);
}

const edgesOf = ({ entry, tone, dash }: Filled, emphasis: Emphasis): PathStyle => ({
  stroke: tone,
  width: entry === emphasis.entry ? 2 : 1.25,
  dash,
});
