import { knownNumber } from '@yperkine/core';
import { Pin } from 'lucide-react';
import {
  curveOf,
  format,
  primed,
  shownX,
  type NearCurve,
  type NearFeature,
  type Resolution,
} from '@yperkine/demonstration';
import { keepFeature } from '../../state/where.ts';
import { useWorkbench } from '../../state/context.ts';
import { PlaceMenu } from './PlaceMenu.tsx';
import { offers } from '../studies/table.ts';

export interface Picked {
  readonly near: NearCurve;
  /** The x of the place, on a round value or a feature where it caught. */
  readonly at: number;
  /** The high, low, zero or crossing that was clicked, if one was near. */
  readonly feature: NearFeature | null;
}

const featureWords = { maximum: 'High', minimum: 'Low', zero: 'Zero', crossing: 'Crossing' } as const;

/** High at (2.000, 5.000): read off at once, by the demonstration's rounding. */
function featureText({ kind, x, y }: NearFeature, { rule }: Resolution): string {
  const text = (value: number): string => format(knownNumber(value), rule).text;
  return `${featureWords[kind]} at (${text(x)}, ${text(y)})`;
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
  const { near, at, feature } = picked;
  const curve = curveOf(workbench.current(), near.entry);

  if (!curve) return null;
  const { from, to } = shownX(workbench.state.document, workbench.state.stage);
  const places = Math.max(0, 2 - Math.floor(Math.log10(to - from)));
  const name = primed(curve.name, curve.order);
  const choices = offers
    .flatMap(({ list }) => list)
    .filter(({ isOfWhole = false }) => !isOfWhole)
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
      {feature && (
        <>
          <p className="px-3 pt-1 font-semibold">{featureText(feature, workbench.current())}</p>
          <button
            type="button"
            onClick={() => {
              onClose();
              keepFeature(workbench, near.entry, feature);
            }}
            className="flex w-full items-center gap-2 rounded-lg px-3 py-2 text-left hover:bg-hover focus-visible:bg-hover"
          >
            <Pin size={16} aria-hidden /> Keep it
          </button>
        </>
      )}
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
