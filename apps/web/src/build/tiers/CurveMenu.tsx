import { curveOf, primed, shownX, type NearCurve } from '@yperkine/demonstration';
import { useWorkbench } from '../../state/context.ts';
import { PlaceMenu } from './PlaceMenu.tsx';
import { offers } from '../studies/table.ts';

export interface Picked {
  readonly near: NearCurve;
  /** The x of the place, on a round value where it caught. */
  readonly at: number;
}

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
  const { near, at } = picked;
  const curve = curveOf(workbench.current(), near.entry);

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
    <PlaceMenu
      label={`On ${name} at ${curve.variable} = ${at.toFixed(places)}`}
      x={near.x}
      y={near.y}
      within={within}
      onClose={onClose}
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
    </PlaceMenu>
  );
}
