import { primed, type Entry, type Id } from '@yperkine/demonstration';
import { useShallow } from 'zustand/shallow';
import { SelectField } from '../../../parts/SelectField.tsx';
import { NumberField } from '../../../parts/NumberField.tsx';
import { useWorkbenchState } from '../../../state/context.ts';
import { curvesOf } from '../../../state/curves.ts';
import { useSetting } from '../useSetting.ts';

/** The curve that is compared with, and the interval. */
export function AgreementControls({ id, entry }: { readonly id: Id; readonly entry: Entry }) {
  const set = useSetting(id);
  const names = useWorkbenchState(
    useShallow(({ resolution }) =>
      curvesOf(resolution).map((found) => `${found.id} ${primed(found.curve.name, found.curve.order)}`),
    ),
  );
  if (entry.kind !== 'agreement') return null;
  const curves = names.map((text) => {
    const [value = '', label = ''] = text.split(' ');
    return { value, label };
  });
  return (
    <div className="mt-2.5 grid grid-cols-3 gap-2">
      <SelectField
        label="Compare with"
        value={entry.with}
        options={curves.filter(({ value }) => value !== entry.on)}
        onChange={set('with')}
      />
      <NumberField label="From" value={entry.from} onCommit={set('from')} />
      <NumberField label="To" value={entry.to} onCommit={set('to')} />
    </div>
  );
}
