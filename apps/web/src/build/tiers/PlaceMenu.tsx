import { useEffect, useLayoutEffect, useRef, type KeyboardEvent, type ReactNode } from 'react';

const width = 236;
/** Pixels from the place, and to the edges of the graphs. */
const gap = 14;
const margin = 8;

interface PlaceMenuProps {
  readonly label: string;
  /** Where on the graphs it belongs, and how wide they are, in pixels. */
  readonly x: number;
  readonly y: number;
  readonly within: number;
  readonly onClose: () => void;
  readonly children: ReactNode;
}

/** A small menu beside a place of the graph. Escape, which leads back to where one was, and a press elsewhere close it. */
export function PlaceMenu({ label, x, y, within, onClose, children }: PlaceMenuProps) {
  const box = useRef<HTMLDivElement>(null);
  const opener = useRef<Element | null>(null);
  useLayoutEffect(() => {
    const element = box.current;
    const room = element?.offsetParent?.clientHeight;
    if (!element || room === undefined) return;
    // Over its place where there is more room, and never on it: the click of a tap would fall into the menu.
    element.style.maxHeight = '';
    const height = element.offsetHeight;
    const [below, above] = [room - margin - y - gap, y - gap - margin];
    const isOver = height > below && above > below;
    element.style.maxHeight = `${isOver ? above : below}px`;
    element.style.top = `${isOver ? y - gap - Math.min(height, above) : y + gap}px`;
  });
  useEffect(() => {
    opener.current = document.activeElement;
    (box.current?.querySelector('button') ?? box.current)?.focus({ preventScroll: true });
    const outside = (event: PointerEvent) => {
      if (!box.current?.contains(event.target as Node)) onClose();
    };
    window.addEventListener('pointerdown', outside, { capture: true });
    return () => window.removeEventListener('pointerdown', outside, { capture: true });
  }, [onClose]);
  const leave = (event: KeyboardEvent) => {
    if (event.key !== 'Escape') return;
    onClose();
    if (opener.current instanceof HTMLElement) opener.current.focus({ preventScroll: true });
  };
  return (
    <div
      ref={box}
      role="dialog"
      tabIndex={-1}
      aria-label={label}
      onKeyDown={leave}
      onPointerDown={(event) => event.stopPropagation()}
      className="card absolute z-20 overflow-y-auto p-1.5 outline-none"
      style={{ left: Math.min(Math.max(margin, x + gap), within - width - margin), top: y + gap, width }}
    >
      {children}
    </div>
  );
}
