import {
  catchOn,
  decimalText,
  nearestDecimal,
  nearestMultiple,
  readStagedInterval,
  roundStep,
  stagedInterval,
  type BoundHandle,
  type Scene,
} from '@yperkine/demonstration';
import { rational } from '@yperkine/core';
import { memo, useRef, type KeyboardEvent, type PointerEvent } from 'react';
import { keyParts, stepsOf } from '../../parts/stepKeys.ts';
import { useWorkbench } from '../../state/context.ts';
import { Grip } from './Grip.tsx';
import { lastGood } from './lastGood.ts';
import type { Painter } from './painter.ts';

interface BoundDotProps {
  readonly handle: Pick<BoundHandle, 'key' | 'tier' | 'entry' | 'end'>;
  readonly name: string;
  readonly painter: () => Painter | null;
}

/** After so many the place is known to a part of a pixel. */
const halvings = 12;

/** The grip at an end of a study's interval: dragged along the axis, moved by the arrow keys. */
export const BoundDot = memo(function BoundDot({ handle, name, painter }: BoundDotProps) {
  const workbench = useWorkbench();
  const grip = useRef<number | null>(null);
  const viewOf = () => painter()?.scene?.tiers.find(({ id }) => id === handle.tier)?.view;
  const placeIn = (scene: Scene | null | undefined) => scene?.bounds.find(({ key }) => key === handle.key);

  /** The interval with this end at x; an end stays on its own side of the other. */
  const moveTo = (x: number): void => {
    const { document, stage } = workbench.state;
    const entry = document.entries[handle.entry];
    const view = viewOf();
    const bounds = painter()?.scene?.bounds.filter((one) => one.entry === handle.entry) ?? [];
    const other = bounds.find(({ end }) => end !== handle.end);
    if (!view || !other || !entry || entry.kind === 'parameter' || !('from' in entry) || !('to' in entry))
      return;
    const fine = roundStep(view.x, 1000);
    const limit = view.fromX(other.x);
    const inside = handle.end === 'from' ? Math.min(x, limit - fine) : Math.max(x, limit + fine);
    const now = readStagedInterval(stage.values[handle.entry]) ?? entry;
    const own = bounds.find(({ end }) => end === handle.end);
    const textWith = (end: number): string => {
      const next = { from: now.from, to: now.to, [handle.end]: decimalText(nearestMultiple(end, fine)) };
      return stagedInterval(next.from, next.to);
    };
    // What comes of it is worked out now and not again in the frame.
    workbench.showText(handle.entry, textWith(inside));
    if (!own || workbench.hasResult(handle.entry)) return;
    const isAllowed = (end: number): boolean => workbench.canShow(handle.entry, textWith(end));
    const end = lastGood(view.fromX(own.x), inside, isAllowed, halvings);
    workbench.showText(handle.entry, textWith(end));
  };

  const begin = (event: PointerEvent<HTMLDivElement>) => {
    const at = placeIn(painter()?.scene);
    grip.current = at ? event.clientX - at.x : null;
  };
  const drag = (event: PointerEvent<HTMLDivElement>) => {
    const [view, scene] = [viewOf(), painter()?.scene];
    if (grip.current === null || !view || !scene) return;
    const x = view.fromX(event.clientX - grip.current);
    if (event.shiftKey) return moveTo(x);
    const ticks = scene.xTicks.map(({ value }) => value);
    moveTo(catchOn(x, ticks, view.pixelsPerX).value);
  };
  const end = () => {
    if (grip.current === null) return;
    grip.current = null;
    workbench.settle(handle.entry);
  };
  const press = (event: KeyboardEvent<HTMLDivElement>) => {
    const [steps, view, at] = [stepsOf(event), viewOf(), placeIn(painter()?.present())];
    if (steps === 0 || !view || !at) return;
    event.preventDefault();
    event.stopPropagation();
    const now = rational.toNumber(nearestDecimal(view.fromX(at.x), 10));
    moveTo(now + steps * roundStep(view.x, keyParts));
    workbench.settle(handle.entry, `bound ${handle.key}`);
  };

  return (
    <Grip
      name={name}
      title="Drag along the axis; hold Shift to pass round values freely"
      data-bound={handle.key}
      className="cursor-ew-resize"
      entry={handle.entry}
      onBegin={begin}
      onMove={drag}
      onEnd={end}
      onPress={press}
    />
  );
});
