import { useEffect, useRef, type ReactNode } from 'react';

const width = 236;

interface PlaceMenuProps {
  readonly label: string;
  /** Where on the graphs it belongs, and how wide they are, in pixels. */
  readonly x: number;
  readonly y: number;
  readonly within: number;
  readonly onClose: () => void;
  readonly children: ReactNode;
}

/** A small menu beside a place of the graph. Escape and a press elsewhere close it. */
export function PlaceMenu({ label, x, y, within, onClose, children }: PlaceMenuProps) {
  const box = useRef<HTMLDivElement>(null);
  useEffect(() => {
    box.current?.querySelector('button')?.focus();
    const outside = (event: PointerEvent) => {
      if (!box.current?.contains(event.target as Node)) onClose();
    };
    window.addEventListener('pointerdown', outside, { capture: true });
    return () => window.removeEventListener('pointerdown', outside, { capture: true });
  }, [onClose]);
  return (
    <div
      ref={box}
      role="dialog"
      aria-label={label}
      onKeyDown={(event) => event.key === 'Escape' && onClose()}
      onPointerDown={(event) => event.stopPropagation()}
      className="card absolute z-20 p-1.5"
      style={{ left: Math.min(Math.max(8, x + 14), within - width - 8), top: y + 14, width }}
    >
      {children}
    </div>
  );
}
