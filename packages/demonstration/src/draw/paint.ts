import type { Id } from '../schema/document.ts';
import type { PlacedLabel } from '../scene/labels.ts';
import type { Mark, MarkOf } from '../scene/mark.ts';
import type { Scene, SceneTier } from '../scene/scene.ts';
import type { Pen, Surface } from './surface.ts';

export interface Emphasis {
  /** The entry whose marks stand out. */
  readonly entry: Id | null;
}

const fullCircle = 2 * Math.PI;
const measuredRadius = 3;

/** Paints a scene: grid, axes, marks, reading line, labels, from back to front. */
export function paint(scene: Scene, surface: Surface, emphasis: Emphasis = { entry: null }): void {
  for (const tier of scene.tiers) {
    paintGrid(scene, tier, surface);
    surface.clipped(tier.view.frame, () => {
      for (const mark of tier.marks) {
        if (mark.kind !== 'note' || scene.size.furniture) paintMark(mark, surface, emphasis);
      }
    });
  }
  if (scene.size.furniture) paintNumbers(scene, surface);
  paintReadingLine(scene, surface);
  for (const tier of scene.tiers) {
    surface.clipped(grown(tier), () => tier.marks.forEach((mark) => paintPlace(mark, surface)));
    tier.marks.forEach((mark) => mark.kind === 'lens' && paintLens(mark, surface, emphasis));
    if (scene.size.furniture) tier.labels.forEach((label) => paintLabel(label, surface));
  }
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

function paintGrid({ xTicks, size }: Scene, { view, yTicks }: SceneTier, surface: Surface): void {
  const { left, top, width, height } = view.frame;
  const vertical = (x: number) => (pen: Pen) => {
    pen.moveTo(x, top);
    pen.lineTo(x, top + height);
  };
  const horizontal = (y: number) => (pen: Pen) => {
    pen.moveTo(left, y);
    pen.lineTo(left + width, y);
  };
  if (size.furniture) {
    xTicks.forEach(({ value }) => surface.path(vertical(view.toX(value)), { stroke: 'rule', opacity: 0.75 }));
    yTicks.forEach(({ value }) =>
      surface.path(horizontal(view.toY(value)), { stroke: 'rule', opacity: 0.75 }),
    );
  }
  const axis = { stroke: 'quiet', width: size.furniture ? 1.25 : 1 } as const;
  surface.clipped(view.frame, () => {
    surface.path(horizontal(view.toY(0)), axis);
    surface.path(vertical(view.toX(0)), axis);
  });
}

function paintNumbers({ xTicks, xTitle, tiers }: Scene, surface: Surface): void {
  const size = 13;
  const last = tiers.at(-1)?.view;
  if (last) {
    const y = last.frame.top + last.frame.height + 20;
    xTicks.forEach(({ value, text }) =>
      surface.text(text, last.toX(value), y, { tone: 'quiet', size, anchor: 'middle' }),
    );
    const middle = last.frame.left + last.frame.width / 2;
    if (xTitle) surface.text(xTitle, middle, y + 20, { tone: 'ink', size: 14, anchor: 'middle' });
  }
  for (const { view, yTicks } of tiers) {
    yTicks.forEach(({ value, text }) =>
      surface.text(text, view.frame.left - 10, view.toY(value) + 4.5, { tone: 'quiet', size, anchor: 'end' }),
    );
  }
}

function paintMark(mark: Mark, surface: Surface, { entry }: Emphasis): void {
  switch (mark.kind) {
    case 'curve': {
      const isEmphasised = mark.entry === entry;
      const build = (pen: Pen) => mark.runs.forEach((run) => drawRun(run, pen));
      if (isEmphasised) surface.path(build, { stroke: mark.tone, width: mark.weight + 7, opacity: 0.22 });
      surface.path(build, {
        stroke: mark.tone,
        width: mark.weight + (isEmphasised ? 0.5 : 0),
        dash: mark.dash,
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
    case 'dots':
      surface.path(
        (pen) => {
          for (let i = 0; i + 1 < mark.points.length; i += 2) {
            const [x, y] = [mark.points[i] as number, mark.points[i + 1] as number];
            pen.moveTo(x + measuredRadius, y);
            pen.arc(x, y, measuredRadius, 0, fullCircle);
          }
        },
        { fill: mark.tone },
      );
      return;
    case 'note':
      surface.text(mark.text, mark.x, mark.y, { tone: mark.tone, size: 13, anchor: mark.anchor });
      return;
    case 'point':
    case 'vertex':
    case 'dot':
    case 'label':
    case 'lens':
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
      pen.lineTo(readingX, last.top + last.height);
    },
    { stroke: 'here', width: 1.5 },
  );
}

function paintPlace(mark: Mark, surface: Surface): void {
  if (mark.kind !== 'point' && mark.kind !== 'dot' && mark.kind !== 'vertex') return;
  const radius = mark.kind === 'point' ? 7 : mark.kind === 'vertex' ? 6 : 5;
  const circle = (pen: Pen) => {
    pen.moveTo(mark.x + radius, mark.y);
    pen.arc(mark.x, mark.y, radius, 0, fullCircle);
  };
  // A point of the function itself is open, one that was put on it is filled.
  const isVertex = mark.kind === 'vertex';
  surface.path(circle, {
    fill: isVertex ? 'sheet' : mark.tone,
    stroke: isVertex ? mark.tone : 'sheet',
    width: 2,
  });
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
    marks.forEach((mark) => paintPlace(mark, surface));
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
