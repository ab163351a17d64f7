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
import { directionOf, keyParts } from '../../parts/stepKeys.ts';
import { useWorkbench } from '../../state/context.ts';
import { Grip } from './Grip.tsx';
import type { Painter } from './painter.ts';
import type { PickedVertex } from './VertexMenu.tsx';

interface VertexDotProps {
  readonly handle: Pick<VertexHandle, 'key' | 'tier' | 'entry' | 'index'>;
  readonly name: string;
  readonly painter: () => Painter | null;
  readonly onMenu: (picked: PickedVertex) => void;
}

/** Movement in pixels below which a press is a click. */
const still = 5;
/** Points that a function through points keeps. */
const fewest = 2;

/** The grip of a point that a function goes through: dragged, moved by the arrow keys, removed by Delete. */
export const VertexDot = memo(function VertexDot({ handle, name, painter, onMenu }: VertexDotProps) {
  const workbench = useWorkbench();
  const grip = useRef<{ x: number; y: number; start: { x: number; y: number }; hasMoved: boolean } | null>(
    null,
  );

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
    workbench.showText(handle.entry, writePoints(list));
  };

  const begin = (event: PointerEvent<HTMLDivElement>) => {
    const place = painter()?.scene?.vertices.find(({ key }) => key === handle.key);
    const start = { x: event.clientX, y: event.clientY };
    grip.current = place ? { x: start.x - place.x, y: start.y - place.y, start, hasMoved: false } : null;
  };
  const drag = (event: PointerEvent<HTMLDivElement>) => {
    const [view, scene] = [viewOf(), painter()?.scene];
    if (!grip.current || !view || !scene) return;
    const { start } = grip.current;
    grip.current.hasMoved ||= Math.hypot(event.clientX - start.x, event.clientY - start.y) > still;
    if (!grip.current.hasMoved) return;
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
    const { hasMoved } = grip.current;
    grip.current = null;
    if (hasMoved) workbench.settle(handle.entry);
    else openMenu();
  };

  const remove = (): void => {
    workbench.showText(handle.entry, writePoints(points().filter((_, i) => i !== handle.index)));
    workbench.settle(handle.entry);
  };
  const openMenu = (): void => {
    const list = points();
    const point = list[handle.index];
    const place = painter()?.scene?.vertices.find(({ key }) => key === handle.key);
    if (!point || !place) return;
    const text = writePoints([point]).replaceAll('-', '−');
    onMenu({ name, text, x: place.x, y: place.y, remove: list.length > fewest ? remove : undefined });
  };

  const press = (event: KeyboardEvent<HTMLDivElement>) => {
    const list = points();
    const point = list[handle.index];
    const view = viewOf();
    const direction = directionOf(event);
    const isRemoval = event.key === 'Delete' || event.key === 'Backspace';
    const isMenu = event.key === 'Enter' || event.key === 'ContextMenu';
    if (!point || !view || (!direction && !isRemoval && !isMenu)) return;
    event.preventDefault();
    event.stopPropagation();
    if (isRemoval && list.length > fewest) remove();
    if (isMenu) openMenu();
    if (!direction) return;
    const [dx, dy] = [direction[0] * roundStep(view.x, keyParts), direction[1] * roundStep(view.y, keyParts)];
    moveTo(rational.toNumber(point.x) + dx, rational.toNumber(point.y) + dy);
    workbench.settle(handle.entry, `vertex ${handle.key}`);
  };

  return (
    <Grip
      name={name}
      title="Drag, or move with the arrow keys; a click offers to remove the point"
      data-vertex={handle.key}
      className="cursor-move"
      entry={handle.entry}
      onBegin={begin}
      onMove={drag}
      onEnd={end}
      onPress={press}
    />
  );
});
