import type { Hatch, MarkOf } from '../scene/mark.ts';
import type { Tone } from '../scene/tone.ts';
import type { Frame } from '../scene/view.ts';
import type { Emphasis } from './paint.ts';
import type { Pen, Surface } from './surface.ts';

/** Pixels between two lines of a hatching. */
const hatchGap = 8;
const fillOpacity = 0.11;
const emphasisedOpacity = 0.24;

type Build = (pen: Pen) => void;

export function paintBars(mark: MarkOf<'bars'>, frame: Frame, surface: Surface, emphasis: Emphasis): void {
  const { bars, base } = mark;
  const edges: Build = (pen) => {
    for (let i = 0; i + 2 < bars.length; i += 3) {
      const [x0, x1, y] = [bars[i] as number, bars[i + 1] as number, bars[i + 2] as number];
      pen.rect(x0, Math.min(y, base), x1 - x0, Math.abs(y - base));
    }
  };
  paintFilled(mark, (pen) => traceSkyline(bars, base, pen), edges, frame, surface, emphasis);
}

/** The outline of bars that touch one another, as one: filling and clipping it costs a fraction of what the bars cost. */
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

export function paintArea(mark: MarkOf<'area'>, frame: Frame, surface: Surface, emphasis: Emphasis): void {
  const outlines: Build = (pen) => {
    for (const outline of mark.outlines) {
      pen.moveTo(outline[0] as number, outline[1] as number);
      for (let i = 2; i + 1 < outline.length; i += 2)
        pen.lineTo(outline[i] as number, outline[i + 1] as number);
      pen.closePath();
    }
  };
  paintFilled(mark, outlines, outlines, frame, surface, emphasis);
}

function paintFilled(
  { entry, tone, hatch, hasEdges, dash, isOutline = false }: MarkOf<'bars'> | MarkOf<'area'>,
  inside: Build,
  edges: Build,
  frame: Frame,
  surface: Surface,
  emphasis: Emphasis,
): void {
  const isEmphasised = entry === emphasis.entry;
  if (!isOutline)
    surface.path(inside, { fill: tone, opacity: isEmphasised ? emphasisedOpacity : fillOpacity });
  if (hatch !== 'none') surface.clippedToPath(inside, () => paintHatching(hatch, tone, frame, surface));
  if (hasEdges) surface.path(edges, { stroke: tone, width: isEmphasised ? 2 : 1.25, dash });
}

/** Slanted lines over the whole frame, at places that do not move with what they fill. */
function paintHatching(hatch: Exclude<Hatch, 'none'>, tone: Tone, frame: Frame, surface: Surface): void {
  const { left, top, width, height } = frame;
  const first = Math.floor((hatch === 'up' ? left + top : left - top - height) / hatchGap) * hatchGap;
  surface.path(
    (pen) => {
      for (let at = first; at < first + width + height + 2 * hatchGap; at += hatchGap) {
        const toX = (y: number): number => (hatch === 'up' ? at - y : at + y);
        pen.moveTo(toX(top), top);
        pen.lineTo(toX(top + height), top + height);
      }
    },
    { stroke: tone, width: 1, opacity: 0.35 },
  );
}
