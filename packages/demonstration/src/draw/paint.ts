import type { Id } from '../schema/document.ts';
import type { PlacedLabel } from '../scene/labels.ts';
import type { Mark, MarkOf } from '../marks/mark.ts';
import type { PointShape } from '../fields/look.ts';
import { tickPixels } from '../fields/looks.ts';
import type { Scene, SceneTier } from '../scene/scene.ts';
import { paintArea, paintBars } from './paintAreas.ts';
import { paintSpan, paintStrips } from './paintStrips.ts';
import type { Emphasis, Pen, Surface } from './surface.ts';

const fullCircle = 2 * Math.PI;
const measuredRadius = 3;
/** How far the halo of an emphasised point reaches beyond it. */
const halo = 6;
/** A diamond is as large as a disc to the eye when its corners reach a little further. */
const diamondReach = 1.25;

/** Paints a scene: grid, axes, numbers, marks, reading line, labels, from back to front. */
export function paint(scene: Scene, surface: Surface, emphasis: Emphasis = { entry: null }): void {
  const none = scene.tiers.map(() => 0);
  paintBackdrop(scene, none, surface, emphasis);
  paintBefore(scene, none, surface, emphasis);
}

/**
 * The back of a scene: grid, axes, numbers, and of each tier so many of its first marks. Where those stay the same from
 * frame to frame they are painted once, and `paintBefore` paints the rest over a copy.
 */
export function paintBackdrop(
  scene: Scene,
  counts: readonly number[],
  surface: Surface,
  emphasis: Emphasis,
): void {
  scene.tiers.forEach((tier, i) => {
    paintGrid(scene, tier, surface);
    paintMarks(scene, tier, tier.marks.slice(0, counts[i]), surface, emphasis);
  });
  if (scene.size.furniture) paintNumbers(scene, surface);
}

/** What stands before the backdrop with the same counts. */
export function paintBefore(
  scene: Scene,
  counts: readonly number[],
  surface: Surface,
  emphasis: Emphasis,
): void {
  scene.tiers.forEach((tier, i) => paintMarks(scene, tier, tier.marks.slice(counts[i]), surface, emphasis));
  paintReadingLine(scene, surface);
  for (const tier of scene.tiers) {
    surface.clipped(grown(tier), () => tier.marks.forEach((mark) => paintPlace(mark, surface, emphasis)));
    tier.marks.forEach((mark) => mark.kind === 'lens' && paintLens(mark, surface, emphasis));
    if (!scene.size.furniture) continue;
    tier.labels.forEach((label) => paintLabel(label, surface));
    paintStrips(tier, surface, emphasis);
    tier.marks.forEach((mark) => mark.kind === 'span' && paintSpan(mark, tier, surface, emphasis));
  }
}

function paintMarks(
  { size }: Scene,
  { view: { frame } }: SceneTier,
  marks: readonly Mark[],
  surface: Surface,
  emphasis: Emphasis,
): void {
  if (marks.length === 0) return;
  surface.clipped(frame, () => {
    for (const mark of marks) {
      if (mark.kind === 'bars') paintBars(mark, surface, emphasis);
      else if (mark.kind === 'area') paintArea(mark, surface, emphasis);
      else if (mark.kind !== 'note' || size.furniture) paintMark(mark, surface, emphasis);
    }
  });
}

/** A dot at the very edge of the frame is still drawn whole. */
function grown({ view: { frame } }: SceneTier) {
  const by = 9;
  return {
    left: frame.left - by,
    top: frame.top - by,
    width: frame.width + 2 * by,
    height: frame.height + 2 * by,
  };
}

function paintGrid({ xTicks, size, looks }: Scene, { view, yTicks }: SceneTier, surface: Surface): void {
  const { left, top, width, height } = view.frame;
  const vertical = (x: number) => (pen: Pen) => {
    pen.moveTo(x, top);
    pen.lineTo(x, top + height);
  };
  const horizontal = (y: number) => (pen: Pen) => {
    pen.moveTo(left, y);
    pen.lineTo(left + width, y);
  };
  if (size.furniture && looks.grid) {
    xTicks.forEach(({ value }) => surface.path(vertical(view.toX(value)), { stroke: 'rule', opacity: 0.75 }));
    yTicks.forEach(({ value }) =>
      surface.path(horizontal(view.toY(value)), { stroke: 'rule', opacity: 0.75 }),
    );
  }
  if (!looks.axes) return;
  const axis = { stroke: 'quiet', width: size.furniture ? 1.25 : 1 } as const;
  surface.clipped(view.frame, () => {
    surface.path(horizontal(view.toY(0)), axis);
    surface.path(vertical(view.toX(0)), axis);
  });
}

function paintNumbers(scene: Scene, surface: Surface): void {
  const { xTicks, tiers, looks } = scene;
  if (!looks.numbers) return;
  const { face, size: name } = looks.tickNumbers;
  const size = tickPixels[name];
  const style = { tone: 'quiet', size, face } as const;
  const last = tiers.at(-1)?.view;
  if (last) {
    const y = last.frame.top + last.frame.height + (tiers.at(-1)?.stripRoom ?? 0) + size + 7;
    for (const { value, text, latex } of xTicks) {
      if (!scene.size.isTypesetOver || latex === undefined)
        surface.text(text, last.toX(value), y, { ...style, anchor: 'middle' });
    }
  }
  for (const { view, yTicks } of tiers) {
    yTicks.forEach(({ value, text }) =>
      surface.text(text, view.frame.left - 10, view.toY(value) + size * 0.35, { ...style, anchor: 'end' }),
    );
  }
}

/** How much is seen of a curve that waits for a better one. */
const ofOld = 0.4;

function paintMark(mark: Mark, surface: Surface, { entry }: Emphasis): void {
  switch (mark.kind) {
    case 'curve':
    case 'track': {
      const isEmphasised = mark.entry === entry;
      const build = (pen: Pen) => mark.runs.forEach((run) => drawRun(run, pen));
      if (isEmphasised) surface.path(build, { stroke: mark.tone, width: mark.weight + 7, opacity: 0.22 });
      surface.path(build, {
        stroke: mark.tone,
        width: mark.weight + (isEmphasised ? 0.5 : 0),
        dash: mark.dash,
        ...(mark.kind === 'curve' && mark.isOld ? { opacity: ofOld } : {}),
      });
      return;
    }
    case 'line':
      surface.path(
        (pen) => {
          pen.moveTo(mark.x0, mark.y0);
          pen.lineTo(mark.x1, mark.y1);
        },
        { stroke: mark.tone, width: mark.weight + (mark.entry === entry ? 1 : 0), dash: mark.dash },
      );
      return;
    case 'polygon': {
      const build = (pen: Pen) => {
        for (let i = 0; i + 1 < mark.points.length; i += 2) {
          const [x, y] = [mark.points[i] as number, mark.points[i + 1] as number];
          if (i === 0) pen.moveTo(x, y);
          else pen.lineTo(x, y);
        }
        pen.closePath();
      };
      surface.path(build, { fill: mark.tone, opacity: 0.16 });
      surface.path(build, { stroke: mark.tone, width: 1.25 });
      return;
    }
    case 'dots': {
      const { shape = 'disc', size = measuredRadius, tone, points } = mark;
      const build = (pen: Pen) => {
        for (let i = 0; i + 1 < points.length; i += 2)
          drawPoint(shape, points[i] as number, points[i + 1] as number, size, pen);
      };
      const isOpen = shape === 'ring' || shape === 'cross';
      surface.path(build, isOpen ? { stroke: tone, width: 1.5 } : { fill: tone });
      return;
    }
    case 'note':
      surface.text(mark.text, mark.x, mark.y, { tone: mark.tone, size: 13, anchor: mark.anchor });
      return;
    case 'point':
    case 'vertex':
    case 'dot':
    case 'label':
    case 'lens':
    case 'bars':
    case 'area':
    case 'cut':
    case 'level':
    case 'span':
    case 'strip':
      return;
  }
}

function drawRun(run: Float64Array, pen: Pen): void {
  pen.moveTo(run[0] as number, run[1] as number);
  for (let i = 2; i + 1 < run.length; i += 2) pen.lineTo(run[i] as number, run[i + 1] as number);
}

function paintReadingLine({ readingX, tiers }: Scene, surface: Surface): void {
  const [first, last] = [tiers[0]?.view.frame, tiers.at(-1)?.view.frame];
  if (readingX === null || !first || !last) return;
  if (readingX < first.left || readingX > first.left + first.width) return;
  surface.path(
    (pen) => {
      pen.moveTo(readingX, first.top);
      pen.lineTo(readingX, last.top + last.height + (tiers.at(-1)?.stripRoom ?? 0));
    },
    { stroke: 'here', width: 1.5 },
  );
}

/** Radii of points that were given none, in pixels. */
const radii = { point: 7, vertex: 6, dot: 5 } as const;

function paintPlace(mark: Mark, surface: Surface, { entry }: Emphasis): void {
  if (mark.kind === 'cut' || mark.kind === 'level') return paintSlide(mark, surface, entry);
  if (mark.kind !== 'point' && mark.kind !== 'dot' && mark.kind !== 'vertex') return;
  const { x, y, tone, size = radii[mark.kind] } = mark;
  // A point of the function itself is open, one that was put on it is filled.
  const shape = mark.shape ?? (mark.kind === 'vertex' ? 'ring' : 'disc');
  const build = (pen: Pen) => drawPoint(shape, x, y, size, pen);
  if ('entry' in mark && mark.entry === entry)
    surface.path((pen) => drawPoint('disc', x, y, size + halo, pen), { fill: tone, opacity: 0.25 });
  if (shape === 'cross') return surface.path(build, { stroke: tone, width: 2.5 });
  const isOpen = shape === 'ring';
  surface.path(build, { fill: isOpen ? 'sheet' : tone, stroke: isOpen ? tone : 'sheet', width: 2 });
}

/** A partition point is a small bead on the axis, a height a bar with a grip. */
function paintSlide(mark: MarkOf<'cut' | 'level'>, surface: Surface, emphasised: Id | null): void {
  const { kind, x, y, tone, entry } = mark;
  const [width, height] = kind === 'cut' ? [5, 11] : [26, 9];
  const bar = (pen: Pen) => pen.rect(x - width / 2, y - height / 2, width, height);
  surface.path(bar, {
    fill: kind === 'cut' ? 'sheet' : tone,
    stroke: tone,
    width: entry === emphasised ? 2.5 : 1.5,
  });
}

function drawPoint(shape: PointShape, x: number, y: number, radius: number, pen: Pen): void {
  switch (shape) {
    case 'disc':
    case 'ring':
      pen.moveTo(x + radius, y);
      pen.arc(x, y, radius, 0, fullCircle);
      return;
    case 'square':
      pen.rect(x - radius, y - radius, 2 * radius, 2 * radius);
      return;
    case 'diamond':
      pen.moveTo(x, y - radius * diamondReach);
      pen.lineTo(x + radius * diamondReach, y);
      pen.lineTo(x, y + radius * diamondReach);
      pen.lineTo(x - radius * diamondReach, y);
      pen.closePath();
      return;
    case 'cross':
      pen.moveTo(x - radius, y - radius);
      pen.lineTo(x + radius, y + radius);
      pen.moveTo(x - radius, y + radius);
      pen.lineTo(x + radius, y - radius);
      return;
  }
}

/** The lens lies over everything else; a thin line leads from its place to it. */
function paintLens(lens: MarkOf<'lens'>, surface: Surface, emphasis: Emphasis): void {
  const { x, y, radius, source, text, marks } = lens;
  const circle = (pen: Pen) => {
    pen.moveTo(x + radius, y);
    pen.arc(x, y, radius, 0, fullCircle);
  };
  const distance = Math.hypot(source.x - x, source.y - y);
  if (distance > radius) {
    const share = radius / distance;
    surface.path(
      (pen) => {
        pen.moveTo(source.x, source.y);
        pen.lineTo(x + (source.x - x) * share, y + (source.y - y) * share);
      },
      { stroke: 'quiet', opacity: 0.6 },
    );
  }
  surface.path(circle, { fill: 'sheet' });
  surface.clippedToCircle(x, y, radius, () => {
    marks.forEach((mark) => paintMark(mark, surface, emphasis));
    marks.forEach((mark) => paintPlace(mark, surface, emphasis));
  });
  surface.path(circle, { stroke: 'ink', width: lens.entry === emphasis.entry ? 3 : 2 });
  surface.text(text, x, y + radius - 12, { tone: 'quiet', size: 13, anchor: 'middle' });
}

function paintLabel({ left, top, width, height, label }: PlacedLabel, surface: Surface): void {
  surface.path((pen) => pen.rect(left, top, width, height), { fill: 'sheet', stroke: 'rule', opacity: 0.94 });
  surface.text(label.text, left + width / 2, top + height / 2 + 4.5, {
    tone: label.tone,
    size: 13,
    anchor: 'middle',
  });
}
