import { curveOf, primed, shownX, type NearCurve } from '@yperkine/demonstration';
import { useEffect, useRef } from 'react';
import { useWorkbench } from '../../state/context.ts';
import { offers } from '../studies/table.ts';

export interface Picked {
  readonly near: NearCurve;
  /** The x of the place, on a round value where it caught. */
  readonly at: number;
}

const width = 236;

/** What can be done at a place of a curve, right there. */
export function CurveMenu({
  picked,
  within,
  onClose,
}: {
  picked: Picked;
  within: number;
  onClose: () => void;
}) {
  const workbench = useWorkbench();
  const box = useRef<HTMLDivElement>(null);
  const { near, at } = picked;
  const curve = curveOf(workbench.current(), near.entry);

  useEffect(() => {
    box.current?.querySelector('button')?.focus();
    const outside = (event: PointerEvent) => {
      if (!box.current?.contains(event.target as Node)) onClose();
    };
    window.addEventListener('pointerdown', outside, { capture: true });
    return () => window.removeEventListener('pointerdown', outside, { capture: true });
  }, [onClose]);

  if (!curve) return null;
  const { from, to } = shownX(workbench.state.document, workbench.state.stage);
  const places = Math.max(0, 2 - Math.floor(Math.log10(to - from)));
  const name = primed(curve.name, curve.order);
  const choices = offers
    .flatMap(({ list }) => list)
    .map(({ title, add }) => ({
      label: title,
      run: () => add(workbench, near.entry, at),
    }));
  return (
    <div
      ref={box}
      role="dialog"
      aria-label={`On ${name} at ${curve.variable} = ${at.toFixed(places)}`}
      onKeyDown={(event) => event.key === 'Escape' && onClose()}
      onPointerDown={(event) => event.stopPropagation()}
      className="card absolute z-20 p-1.5"
      style={{ left: Math.min(Math.max(8, near.x + 14), within - width - 8), top: near.y + 14, width }}
    >
      <p className="px-3 pt-1 pb-1.5 text-sm text-quiet">
        {name} at {curve.variable} = {at.toFixed(places).replace('-', '−')}
      </p>
      {choices.map(({ label, run }) => (
        <button
          key={label}
          type="button"
          onClick={() => {
            onClose();
            run();
          }}
          className="block w-full rounded-lg px-3 py-2 text-left hover:bg-hover focus-visible:bg-hover"
        >
          {label}
        </button>
      ))}
    </div>
  );
}
