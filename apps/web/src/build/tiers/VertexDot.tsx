import { rational, type ExactPoint } from '@yperkine/core';
import {
  catchOn,
  nearestMultiple,
  roundStep,
  writePoints,
  type ThroughPointsResult,
  type Tick,
  type VertexHandle,
} from '@yperkine/demonstration';
import { memo, useRef, type KeyboardEvent, type PointerEvent } from 'react';
import { useWorkbench } from '../../state/context.ts';
import { Grip } from './Grip.tsx';
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
    list[handle.index] = { x: nearestMultiple(inside, fine), y: nearestMultiple(y, roundStep(view.y, 1000)) };
    workbench.showPoints(handle.entry, writePoints(list));
  };

  const begin = (event: PointerEvent<HTMLDivElement>) => {
    const place = painter()?.scene?.vertices.find(({ key }) => key === handle.key);
    grip.current = place ? { x: event.clientX - place.x, y: event.clientY - place.y } : null;
  };
  const drag = (event: PointerEvent<HTMLDivElement>) => {
    const [view, scene] = [viewOf(), painter()?.scene];
    if (!grip.current || !view || !scene) return;
    const [x, y] = [view.fromX(event.clientX - grip.current.x), view.fromY(event.clientY - grip.current.y)];
    if (event.shiftKey) return moveTo(x, y);
    const yTicks = scene.tiers.find(({ id }) => id === handle.tier)?.yTicks ?? [];
    const caught = (value: number, ticks: readonly Tick[], pixels: number): number =>
      catchOn(
        value,
        ticks.map((tick) => tick.value),
        pixels,
      ).value;
    moveTo(caught(x, scene.xTicks, view.pixelsPerX), caught(y, yTicks, view.pixelsPerY));
  };
  const end = () => {
    if (!grip.current) return;
    grip.current = null;
    workbench.settle(handle.entry);
  };

  const press = (event: KeyboardEvent<HTMLDivElement>) => {
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
    <Grip
      name={name}
      title="Drag, or move with the arrow keys; Delete removes the point"
      data-vertex={handle.key}
      className="cursor-move"
      onBegin={begin}
      onMove={drag}
      onEnd={end}
      onPress={press}
    />
  );
});
