import { limits, type Entry, type Id } from '@yperkine/demonstration';
import { SelectField } from '../../../parts/SelectField.tsx';
import { TextField } from '../../../parts/TextField.tsx';
import { setField } from '../../../state/actions.ts';
import { useWorkbench } from '../../../state/context.ts';
import { StandingFields } from '../StandingFields.tsx';

const halts = [
  { value: 'never', label: 'never' },
  { value: 'least', label: 'where it is least' },
  { value: 'greatest', label: 'where it is greatest' },
  { value: 'either', label: 'at either' },
];

export function ReadoutControls({ id, entry }: { readonly id: Id; readonly entry: Entry }) {
  const workbench = useWorkbench();
  if (entry.kind !== 'readout') return null;
  return (
    <>
      <div className="mt-2 grid grid-cols-2 items-end gap-2.5">
        <TextField
          label="The number"
          value={entry.text}
          onCommit={(text) => setField(workbench, id, 'text', text)}
        />
        <TextField
          label="What stands before it"
          placeholder="its formula"
          maxLength={limits.title}
          value={entry.title}
          onCommit={(title) => setField(workbench, id, 'title', title.trim())}
        />
        <SelectField
          label="Motion halts"
          value={entry.halt}
          options={halts}
          onChange={(halt) => setField(workbench, id, 'halt', halt)}
        />
        <label className="flex min-h-9 items-center gap-2">
          <input
            type="checkbox"
            checked={entry.keeps}
            onChange={() => setField(workbench, id, 'keeps', !entry.keeps)}
            className="size-4 accent-ink"
          />
          Least and greatest so far
        </label>
      </div>
      <StandingFields id={id} entry={entry} />
    </>
  );
}
