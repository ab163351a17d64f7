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
  const build: Build = (pen) => {
    for (let i = 0; i + 2 < bars.length; i += 3) {
      const [x0, x1, y] = [bars[i] as number, bars[i + 1] as number, bars[i + 2] as number];
      pen.rect(x0, Math.min(y, base), x1 - x0, Math.abs(y - base));
    }
  };
  paintFilled(mark, build, frame, surface, emphasis);
}

export function paintArea(mark: MarkOf<'area'>, frame: Frame, surface: Surface, emphasis: Emphasis): void {
  const build: Build = (pen) => {
    for (const outline of mark.outlines) {
      pen.moveTo(outline[0] as number, outline[1] as number);
      for (let i = 2; i + 1 < outline.length; i += 2)
        pen.lineTo(outline[i] as number, outline[i + 1] as number);
      pen.closePath();
    }
  };
  paintFilled(mark, build, frame, surface, emphasis);
}

function paintFilled(
  { entry, tone, hatch, hasEdges, dash, isOutline = false }: MarkOf<'bars'> | MarkOf<'area'>,
  build: Build,
  frame: Frame,
  surface: Surface,
  emphasis: Emphasis,
): void {
  const isEmphasised = entry === emphasis.entry;
  if (!isOutline)
    surface.path(build, { fill: tone, opacity: isEmphasised ? emphasisedOpacity : fillOpacity });
  if (hatch !== 'none') surface.clippedToPath(build, () => paintHatching(hatch, tone, frame, surface));
  if (hasEdges) surface.path(build, { stroke: tone, width: isEmphasised ? 2 : 1.25, dash });
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
