import {
  catchOn,
  decimalText,
  nearestMultiple,
  roundStep,
  type Scene,
  type SlideHandle,
} from '@yperkine/demonstration';
import { memo, useRef, type KeyboardEvent, type PointerEvent } from 'react';
import { keyParts, stepsOf } from '../../parts/stepKeys.ts';
import { removePart, sumOf } from '../../state/areas.ts';
import { useWorkbench } from '../../state/context.ts';
import { Grip } from './Grip.tsx';
import type { Painter } from './painter.ts';

interface SlideDotProps {
  readonly handle: Pick<SlideHandle, 'key' | 'tier' | 'entry' | 'kind' | 'index'>;
  readonly name: string;
  readonly painter: () => Painter | null;
}

/** The grip of a partition point, dragged along the axis, or of a height, dragged up and down. */
export const SlideDot = memo(function SlideDot({ handle, name, painter }: SlideDotProps) {
  const workbench = useWorkbench();
  const grip = useRef<number | null>(null);
  const { kind, entry, index } = handle;
  const isCut = kind === 'cut';
  const tierOf = () => painter()?.scene?.tiers.find(({ id }) => id === handle.tier);
  const placeIn = (scene: Scene | null | undefined) => scene?.slides.find(({ key }) => key === handle.key);

  /** A partition point stays between its neighbours; a height goes anywhere. */
  const moveTo = (value: number): void => {
    const view = tierOf()?.view;
    if (!view) return;
    const fine = roundStep(isCut ? view.x : view.y, 1000);
    if (!isCut) return workbench.showText(entry, decimalText(nearestMultiple(value, fine)));
    const ends = sumOf(workbench, entry)?.sum.ends;
    if (!ends) return;
    const [before, behind] = [ends[index] as number, ends[index + 2] as number];
    const inside = Math.min(behind - fine, Math.max(before + fine, value));
    const inner = Array.from(ends.subarray(1, -1), (x, i) =>
      decimalText(nearestMultiple(i === index ? inside : x, fine / 1000)),
    );
    workbench.showText(entry, inner.join('; '));
  };
  const valueNow = (): number | null => {
    const [view, at] = [tierOf()?.view, placeIn(painter()?.present())];
    return view && at ? (isCut ? view.fromX(at.x) : view.fromY(at.y)) : null;
  };
  const along = (event: PointerEvent): number => (isCut ? event.clientX : event.clientY);

  const begin = (event: PointerEvent<HTMLDivElement>) => {
    const at = placeIn(painter()?.scene);
    grip.current = at ? along(event) - (isCut ? at.x : at.y) : null;
  };
  const drag = (event: PointerEvent<HTMLDivElement>) => {
    const [tier, scene] = [tierOf(), painter()?.scene];
    if (grip.current === null || !tier || !scene) return;
    const pixel = along(event) - grip.current;
    const value = isCut ? tier.view.fromX(pixel) : tier.view.fromY(pixel);
    if (event.shiftKey) return moveTo(value);
    const ticks = (isCut ? scene.xTicks : tier.yTicks).map((tick) => tick.value);
    moveTo(catchOn(value, ticks, isCut ? tier.view.pixelsPerX : tier.view.pixelsPerY).value);
  };
  const end = () => {
    if (grip.current === null) return;
    grip.current = null;
    workbench.settle(entry);
  };
  const press = (event: KeyboardEvent<HTMLDivElement>) => {
    const [steps, view, now] = [stepsOf(event), tierOf()?.view, valueNow()];
    const isRemoval = isCut && (event.key === 'Delete' || event.key === 'Backspace');
    if ((steps === 0 && !isRemoval) || !view || now === null) return;
    event.preventDefault();
    event.stopPropagation();
    if (isRemoval) return removePart(workbench, entry, index);
    moveTo(now + steps * roundStep(isCut ? view.x : view.y, keyParts));
    workbench.settle(entry, `slide ${handle.key}`);
  };

  return (
    <Grip
      name={name}
      title={
        isCut
          ? 'Drag along the axis; Delete joins the two parts'
          : 'Drag up and down, or move with the arrow keys'
      }
      data-slide={handle.key}
      className={isCut ? 'cursor-ew-resize' : 'cursor-ns-resize'}
      entry={entry}
      onBegin={begin}
      onMove={drag}
      onEnd={end}
      onPress={press}
    />
  );
});
