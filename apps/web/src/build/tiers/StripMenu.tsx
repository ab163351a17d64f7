import { primed } from '@yperkine/demonstration';
import { Highlighter } from 'lucide-react';
import { useWorkbench } from '../../state/context.ts';
import { curvesOf } from '../../state/curves.ts';
import { addHolds } from '../../state/where.ts';
import { PlaceMenu } from './PlaceMenu.tsx';
import type { PickedPart } from './stripParts.ts';

const relations = ['<', '=', '>'] as const;

interface StripMenuProps {
  readonly picked: PickedPart;
  readonly within: number;
  readonly onClose: () => void;
}

/** What a part of a sign strip says, in a sentence, and the part of the curve to which it belongs. */
export function StripMenu({ picked: { entry, title, part, x, y }, within, onClose }: StripMenuProps) {
  const workbench = useWorkbench();
  const strip = workbench.state.document.entries[entry];
  const curve =
    strip?.kind === 'signStrip'
      ? curvesOf(workbench.state.resolution).find(({ id }) => id === strip.on)
      : undefined;
  const emphasise = () => {
    onClose();
    if (strip?.kind !== 'signStrip' || !curve) return;
    const { name, order, variable } = curve.curve;
    const primes = "'".repeat(order + strip.degree);
    addHolds(
      workbench,
      curve.id,
      `${name}${primes}(${variable}) ${relations[(part.sign ?? 0) + 1] ?? '='} 0`,
    );
  };
  return (
    <PlaceMenu label={`${title}: ${part.word}`} x={x} y={y} within={within} onClose={onClose}>
      <p className="px-3 pt-1 pb-1.5">{part.sentence}</p>
      {strip?.kind === 'signStrip' && (
        <button
          type="button"
          onClick={emphasise}
          className="flex w-full items-center gap-2 rounded-lg px-3 py-2 text-left hover:bg-hover focus-visible:bg-hover"
        >
          <Highlighter size={17} aria-hidden /> Emphasise{' '}
          {curve ? `${primed(curve.curve.name, curve.curve.order)} where this holds` : 'this part'}
        </button>
      )}
    </PlaceMenu>
  );
}
