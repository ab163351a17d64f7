import type { Entry, Id } from '@yperkine/demonstration';
import { NumberField } from '../../../parts/NumberField.tsx';
import { TextField } from '../../../parts/TextField.tsx';
import { setField } from '../../../state/actions.ts';
import { useWorkbench } from '../../../state/context.ts';

/** The slope that is looked for and the interval. */
export function SlopeEqualsControls({ id, entry }: { readonly id: Id; readonly entry: Entry }) {
  const workbench = useWorkbench();
  if (entry.kind !== 'slopeEquals') return null;
  return (
    <div className="mt-2.5 grid grid-cols-3 gap-2">
      <TextField
        label="Slope"
        value={entry.level}
        onCommit={(text) => setField(workbench, id, 'level', text)}
      />
      <NumberField
        label="From"
        value={entry.from}
        onCommit={(text) => setField(workbench, id, 'from', text)}
      />
      <NumberField label="To" value={entry.to} onCommit={(text) => setField(workbench, id, 'to', text)} />
    </div>
  );
}
