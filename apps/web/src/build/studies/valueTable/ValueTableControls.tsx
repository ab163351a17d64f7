import type { Entry, Id } from '@yperkine/demonstration';
import { NumberField } from '../../../parts/NumberField.tsx';
import { TextField } from '../../../parts/TextField.tsx';
import { useSetting } from '../useSetting.ts';

/** Start, end and step of the rows, or their x one by one; and the formulas of the columns. */
export function ValueTableControls({ id, entry }: { readonly id: Id; readonly entry: Entry }) {
  const set = useSetting(id);
  if (entry.kind !== 'valueTable') return null;
  return (
    <div className="mt-2.5 grid grid-cols-3 gap-2">
      <NumberField label="Start" value={entry.from} onCommit={set('from')} />
      <NumberField label="Step" value={entry.step} onCommit={set('step')} />
      <NumberField label="End" value={entry.to} onCommit={set('to')} />
      <div className="col-span-3">
        <TextField label="Columns, with ; between" value={entry.columns} onCommit={set('columns')} />
      </div>
      <div className="col-span-3">
        <TextField label="Or x one by one, with ; between" value={entry.list} onCommit={set('list')} />
      </div>
    </div>
  );
}
