import { primed, type Entry, type Id } from '@yperkine/demonstration';
import { useId } from 'react';
import { useShallow } from 'zustand/shallow';
import { useStore } from 'zustand';
import { NumberField } from '../../../parts/NumberField.tsx';
import { useWorkbench } from '../../../state/context.ts';
import { curvesOf } from '../../../state/curves.ts';
import { useSetting } from '../useSetting.ts';

/** The curve that is compared with, and the interval. */
export function AgreementControls({ id, entry }: { readonly id: Id; readonly entry: Entry }) {
  const set = useSetting(id);
  const select = useId();
  const names = useStore(
    useWorkbench().store,
    useShallow(({ resolution }) =>
      curvesOf(resolution).map((found) => `${found.id} ${primed(found.curve.name, found.curve.order)}`),
    ),
  );
  if (entry.kind !== 'agreement') return null;
  const curves = names.map((text) => text.split(' ') as [Id, string]);
  return (
    <div className="mt-2.5 grid grid-cols-3 gap-2">
      <div className="min-w-0">
        <label htmlFor={select} className="mb-1 block text-sm text-quiet">
          Compare with
        </label>
        <select
          id={select}
          value={entry.with}
          onChange={(event) => set('with')(event.target.value)}
          className="min-h-9 w-full rounded-lg border border-rule bg-sheet px-2 py-1.5 text-ink"
        >
          {curves
            .filter(([curve]) => curve !== entry.on)
            .map(([curve, name]) => (
              <option key={curve} value={curve}>
                {name}
              </option>
            ))}
        </select>
      </div>
      <NumberField label="From" value={entry.from} onCommit={set('from')} />
      <NumberField label="To" value={entry.to} onCommit={set('to')} />
    </div>
  );
}
