import type { Entry, Id } from '@yperkine/demonstration';
import { SelectField } from '../../../parts/SelectField.tsx';
import { setField } from '../../../state/actions.ts';
import { useWorkbench } from '../../../state/context.ts';
import { IntervalFields } from '../IntervalFields.tsx';

/** The interval, and whether areas under the axis count as negative. */
export function IntegralControls({ id, entry }: { readonly id: Id; readonly entry: Entry }) {
  const workbench = useWorkbench();
  if (entry.kind !== 'integral') return null;
  return (
    <IntervalFields
      id={id}
      entry={entry}
      after={
        <SelectField
          label="Areas under the axis"
          className="col-span-2"
          value={entry.isTotal ? 'total' : 'signed'}
          options={[
            { value: 'signed', label: 'count as negative (the integral)' },
            { value: 'total', label: 'count like those over it (total area)' },
          ]}
          onChange={(choice) => setField(workbench, id, 'isTotal', choice === 'total')}
        />
      }
    />
  );
}
