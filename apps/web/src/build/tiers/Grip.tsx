import type { Id } from '@yperkine/demonstration';
import { useEffect, useRef, type HTMLAttributes, type KeyboardEvent, type PointerEvent } from 'react';
import { useWorkbench } from '../../state/context.ts';

/** On a grip that somebody holds: it is not hidden, wherever its point goes. */
export const heldMark = 'data-held';

interface GripProps extends HTMLAttributes<HTMLDivElement> {
  readonly name: string;
  /** The entry that stands out while the grip is pointed at or has the focus. */
  readonly entry: Id;
  readonly title: string;
  readonly onBegin: (event: PointerEvent<HTMLDivElement>) => void;
  readonly onMove: (event: PointerEvent<HTMLDivElement>) => void;
  readonly onEnd: () => void;
  readonly onPress: (event: KeyboardEvent<HTMLDivElement>) => void;
}

/**
 * What a hand takes a point on the graph by: wide enough for a finger, a slider for keyboard and screen readers.
 * The painter moves it and writes its values; React renders it once. A press begins a drag by the main button
 * alone, keys with a modifier stay the browser's, and the graph beneath hears nothing of either. A drag ends however
 * the grip is lost: by release, by the system, or because what it belongs to is gone.
 */
export function Grip({ name, entry, onBegin, onMove, onEnd, onPress, className = '', ...rest }: GripProps) {
  const workbench = useWorkbench();
  const held = useRef<{ readonly end: () => void } | null>(null);
  useEffect(() => () => held.current?.end(), []);
  const emphasise = () => workbench.emphasise(entry);
  const leave = () => workbench.emphasise(null);
  const begin = (event: PointerEvent<HTMLDivElement>) => {
    if (event.button !== 0) return;
    event.stopPropagation();
    const { currentTarget } = event;
    currentTarget.setPointerCapture(event.pointerId);
    currentTarget.setAttribute(heldMark, '');
    held.current = {
      end: () => {
        held.current = null;
        currentTarget.removeAttribute(heldMark);
        onEnd();
      },
    };
    onBegin(event);
  };
  const drag = (event: PointerEvent<HTMLDivElement>) => {
    event.stopPropagation();
    onMove(event);
  };
  const end = (event: PointerEvent<HTMLDivElement>) => {
    event.stopPropagation();
    held.current?.end();
  };
  const press = (event: KeyboardEvent<HTMLDivElement>) => {
    if (!event.ctrlKey && !event.metaKey && !event.altKey) onPress(event);
  };
  return (
    <div
      {...rest}
      role="slider"
      tabIndex={0}
      aria-label={name}
      aria-valuenow={0}
      className={`absolute -top-[22px] -left-[22px] size-11 touch-none rounded-full outline-offset-[-8px] ${className}`}
      onPointerEnter={emphasise}
      onPointerLeave={leave}
      onFocus={emphasise}
      onBlur={leave}
      onPointerDown={begin}
      onPointerMove={drag}
      onPointerUp={end}
      onPointerCancel={end}
      onLostPointerCapture={end}
      onKeyDown={press}
    />
  );
}
