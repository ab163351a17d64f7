import { X } from 'lucide-react';
import { PlaceMenu } from './PlaceMenu.tsx';

export interface PickedVertex {
  readonly name: string;
  /** Its coordinates, as text. */
  readonly text: string;
  readonly x: number;
  readonly y: number;
  /** Removes it; undefined where a function would be left without a line. */
  readonly remove: (() => void) | undefined;
}

interface VertexMenuProps {
  readonly picked: PickedVertex;
  readonly within: number;
  readonly onClose: () => void;
}

/** What can be done with a point that a function goes through, right there. */
export function VertexMenu({ picked: { name, text, x, y, remove }, within, onClose }: VertexMenuProps) {
  return (
    <PlaceMenu label={name} x={x} y={y} within={within} onClose={onClose}>
      <p className="px-3 pt-1 pb-1.5 text-sm text-quiet">{text}</p>
      {remove ? (
        <button
          type="button"
          onClick={() => {
            onClose();
            remove();
          }}
          className="flex w-full items-center gap-2 rounded-lg px-3 py-2 text-left hover:bg-hover focus-visible:bg-hover"
        >
          <X size={17} aria-hidden /> Remove this point
        </button>
      ) : (
        <p className="px-3 pb-2 text-sm">The last two points stay: a line needs them.</p>
      )}
    </PlaceMenu>
  );
}
