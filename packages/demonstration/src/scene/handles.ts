import type { Document, Id } from '../schema/document.ts';
import type { Mark, MarkOf } from '../marks/mark.ts';
import type { Tone } from '../fields/tone.ts';
import type { TierView } from '../marks/view.ts';

/** A tier as far as handles are concerned. */
interface MarkedTier {
  readonly id: Id;
  readonly view: TierView;
  readonly marks: readonly Mark[];
}

/** A point that can be dragged; its parameter moves with it. */
export interface Handle {
  readonly key: string;
  readonly tier: Id;
  readonly entry: Id;
  readonly parameter: Id;
  readonly x: number;
  readonly y: number;
  readonly tone: Tone;
  readonly isVisible: boolean;
  /** The parameter's value is (x − offset)·sign. */
  readonly offset: number;
  readonly sign: number;
}

/** A point of a function through points; it is dragged in both directions. */
export interface VertexHandle {
  readonly key: string;
  readonly tier: Id;
  readonly entry: Id;
  readonly index: number;
  readonly x: number;
  readonly y: number;
  readonly isVisible: boolean;
}

/** An end of an interval, which is dragged along the axis. */
export interface BoundHandle {
  readonly key: string;
  readonly tier: Id;
  readonly entry: Id;
  readonly end: 'from' | 'to';
  readonly x: number;
  readonly y: number;
  readonly isVisible: boolean;
}

/** A grip of an entry's own that is moved one way: a partition point along the axis, a height up and down. */
export interface SlideHandle {
  readonly key: string;
  readonly tier: Id;
  readonly entry: Id;
  readonly kind: 'cut' | 'level';
  readonly index: number;
  readonly x: number;
  readonly y: number;
  readonly isVisible: boolean;
}

const isInside = ({ frame: { left, top, width, height } }: TierView, x: number, y: number): boolean =>
  x >= left - 1 && x <= left + width + 1 && y >= top - 1 && y <= top + height + 1;

export function verticesOf({ id, view, marks }: MarkedTier): VertexHandle[] {
  const vertices = marks.filter((mark): mark is MarkOf<'vertex'> => mark.kind === 'vertex');
  return vertices.map(({ entry, index, x, y }) => ({
    key: `${id} ${entry} vertex ${index}`,
    tier: id,
    entry,
    index,
    x,
    y,
    isVisible: isInside(view, x, y),
  }));
}

export function boundsOf({ id, view, marks }: MarkedTier): BoundHandle[] {
  const spans = marks.filter((mark): mark is MarkOf<'span'> => mark.kind === 'span');
  return spans.flatMap(({ entry, x0, x1, y }) =>
    (['from', 'to'] as const).map((end) => {
      const x = end === 'from' ? x0 : x1;
      return { key: `${id} ${entry} ${end}`, tier: id, entry, end, x, y, isVisible: isInside(view, x, y) };
    }),
  );
}

export function slidesOf({ id, view, marks }: MarkedTier): SlideHandle[] {
  return marks.flatMap((mark) => {
    if (mark.kind !== 'cut' && mark.kind !== 'level') return [];
    const { kind, entry, x, y } = mark;
    const index = kind === 'cut' ? mark.index : 0;
    const key = `${id} ${entry} ${kind} ${index}`;
    return [{ key, tier: id, entry, kind, index, x, y, isVisible: isInside(view, x, y) }];
  });
}

/** A point that nothing moves is drawn, but cannot be taken hold of. */
export function isFixed({ entries }: Document, parameter: Id): boolean {
  const entry = entries[parameter];
  return entry?.kind === 'parameter' && entry.moves === 'fixed';
}

/** One handle for points that lie on one another. */
export function handlesOf({ id, view, marks }: MarkedTier): Handle[] {
  const points = marks.filter((mark): mark is MarkOf<'point'> => mark.kind === 'point');
  const handles = new Map<string, Handle>();
  for (const { entry, parameter, x, y, tone, offset = 0, sign = 1 } of points) {
    const key = `${id} ${parameter} ${Math.round(y)} ${sign}`;
    const isVisible = isInside(view, x, y);
    if (!handles.has(key))
      handles.set(key, {
        key: `${id} ${entry} ${parameter} ${sign}`,
        tier: id,
        entry,
        parameter,
        x,
        y,
        tone,
        isVisible,
        offset,
        sign,
      });
  }
  return [...handles.values()];
}
