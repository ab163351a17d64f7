import type { Entry, Id } from '@yperkine/demonstration';
import { NumberField } from '../../../parts/NumberField.tsx';
import { TextField } from '../../../parts/TextField.tsx';
import { useSetting } from '../useSetting.ts';

/** The slope that is looked for and the interval. */
export function SlopeEqualsControls({ id, entry }: { readonly id: Id; readonly entry: Entry }) {
  const set = useSetting(id);
  if (entry.kind !== 'slopeEquals') return null;
  return (
    <div className="mt-2.5 grid grid-cols-3 gap-2">
      <TextField label="Slope" value={entry.level} onCommit={set('level')} />
      <NumberField label="From" value={entry.from} onCommit={set('from')} />
      <NumberField label="To" value={entry.to} onCommit={set('to')} />
    </div>
  );
}
