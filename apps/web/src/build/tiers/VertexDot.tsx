import { rational, type ExactPoint, type Rational } from '@yperkine/core';
import {
  catchOn,
  roundStep,
  writePoints,
  type ThroughPointsResult,
  type VertexHandle,
} from '@yperkine/demonstration';
import { memo, useRef, type KeyboardEvent, type PointerEvent } from 'react';
import { useWorkbench } from '../../state/context.ts';
import type { Painter } from './painter.ts';

interface VertexDotProps {
  readonly handle: Pick<VertexHandle, 'key' | 'tier' | 'entry' | 'index'>;
  readonly name: string;
  readonly painter: () => Painter | null;
}

const directions: Readonly<Record<string, readonly [number, number]>> = {
  ArrowRight: [1, 0],
  ArrowLeft: [-1, 0],
  ArrowUp: [0, 1],
  ArrowDown: [0, -1],
};
const manySteps = 10;
/** Parts of the window that one press of a key moves a point by. */
const keyParts = 100;

/** The grip of a point that a function goes through: dragged, moved by the arrow keys, removed by Delete. */
export const VertexDot = memo(function VertexDot({ handle, name, painter }: VertexDotProps) {
  const workbench = useWorkbench();
  const grip = useRef<{ x: number; y: number } | null>(null);

  const points = (): readonly ExactPoint[] => {
    const outcome = workbench.current().entries.get(handle.entry)?.outcome;
    return outcome?.ok ? (outcome.result as ThroughPointsResult).points : [];
  };
  const viewOf = () => painter()?.scene?.tiers.find(({ id }) => id === handle.tier)?.view;

  /** A point stays between its neighbours, so that it keeps its place in the row. */
  const moveTo = (x: number, y: number): void => {
    const list = [...points()];
    const view = viewOf();
    if (!view || !list[handle.index]) return;
    const fine = roundStep(view.x, 1000);
    const limit = (neighbour: ExactPoint | undefined, away: number): number =>
      neighbour ? rational.toNumber(neighbour.x) + away * fine : away * -Infinity;
    const inside = Math.min(limit(list[handle.index + 1], -1), Math.max(limit(list[handle.index - 1], 1), x));
    list[handle.index] = { x: rounded(inside, fine), y: rounded(y, roundStep(view.y, 1000)) };
    workbench.showPoints(handle.entry, writePoints(list));
  };

  const begin = (event: PointerEvent<HTMLDivElement>) => {
    if (event.button !== 0) return;
    event.stopPropagation();
    event.currentTarget.setPointerCapture(event.pointerId);
    const place = painter()?.scene?.vertices.find(({ key }) => key === handle.key);
    grip.current = place ? { x: event.clientX - place.x, y: event.clientY - place.y } : null;
  };
  const drag = (event: PointerEvent<HTMLDivElement>) => {
    event.stopPropagation();
    const [view, scene] = [viewOf(), painter()?.scene];
    if (!grip.current || !view || !scene) return;
    const [x, y] = [view.fromX(event.clientX - grip.current.x), view.fromY(event.clientY - grip.current.y)];
    if (event.shiftKey) return moveTo(x, y);
    const yTicks = scene.tiers.find(({ id }) => id === handle.tier)?.yTicks ?? [];
    moveTo(
      catchOn(
        x,
        scene.xTicks.map(({ value }) => value),
        view.pixelsPerX,
      ).value,
      catchOn(
        y,
        yTicks.map(({ value }) => value),
        view.pixelsPerY,
      ).value,
    );
  };
  const end = (event: PointerEvent<HTMLDivElement>) => {
    event.stopPropagation();
    if (!grip.current) return;
    grip.current = null;
    workbench.settle(handle.entry);
  };

  const press = (event: KeyboardEvent<HTMLDivElement>) => {
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    const list = points();
    const point = list[handle.index];
    const view = viewOf();
    const direction = directions[event.key];
    const isRemoval = event.key === 'Delete' || event.key === 'Backspace';
    if (!point || !view || (!direction && !isRemoval)) return;
    event.preventDefault();
    event.stopPropagation();
    if (isRemoval && list.length > 2) {
      workbench.showPoints(handle.entry, writePoints(list.filter((_, i) => i !== handle.index)));
      workbench.settle(handle.entry);
    }
    if (!direction) return;
    const many = event.shiftKey ? manySteps : 1;
    const [dx, dy] = [
      direction[0] * many * roundStep(view.x, keyParts),
      direction[1] * many * roundStep(view.y, keyParts),
    ];
    moveTo(rational.toNumber(point.x) + dx, rational.toNumber(point.y) + dy);
    workbench.settle(handle.entry, `vertex ${handle.key}`);
  };

  return (
    <div
      role="slider"
      tabIndex={0}
      aria-label={name}
      aria-valuenow={0}
      title="Drag, or move with the arrow keys; Delete removes the point"
      data-vertex={handle.key}
      className="absolute -top-[22px] -left-[22px] size-11 cursor-move touch-none rounded-full outline-offset-[-8px]"
      onPointerDown={begin}
      onPointerMove={drag}
      onPointerUp={end}
      onPointerCancel={end}
      onKeyDown={press}
    />
  );
});

/** The multiple of a round step that is nearest to a number. */
const rounded = (value: number, step: number): Rational =>
  rational.parseDecimal(
    String(Number((Math.round(value / step) * step).toPrecision(12)))
      .toUpperCase()
      .replace('E+', 'E'),
  ) ?? rational.zero;
