import type { Entry, EntryOf, Id, TrialsResult } from '@yperkine/demonstration';
import { useShallow } from 'zustand/shallow';
import { SelectField } from '../../../parts/SelectField.tsx';
import { TextField } from '../../../parts/TextField.tsx';
import { setField } from '../../../state/actions.ts';
import { useWorkbench, useWorkbenchState } from '../../../state/context.ts';

/** What a trial keeps, and which of it is drawn. */
export function TrialsControls({ id, entry }: { readonly id: Id; readonly entry: Entry }) {
  const workbench = useWorkbench();
  const heads = useWorkbenchState(
    useShallow(({ resolution }) => {
      const outcome = resolution.entries.get(id)?.outcome;
      return outcome?.ok ? (outcome.result as TrialsResult).heads : [];
    }),
  );
  if (entry.kind !== 'trials') return null;
  return (
    <div className="mt-2.5 grid grid-cols-2 gap-2.5">
      <div className="col-span-2">
        <TextField
          label="What a trial keeps"
          value={entry.columns}
          onCommit={(columns) => setField(workbench, id, 'columns', columns)}
        />
      </div>
      <PlotFields id={id} plot={entry.plot} heads={heads} />
    </div>
  );
}

interface PlotFieldsProps {
  readonly id: Id;
  readonly plot: EntryOf<'trials'>['plot'];
  readonly heads: readonly string[];
}

/** Which two columns are drawn against each other. */
function PlotFields({ id, plot, heads }: PlotFieldsProps) {
  const workbench = useWorkbench();
  const columns = heads.map((label, i) => ({ value: String(i), label }));
  const set = (part: Partial<NonNullable<typeof plot>> | null) =>
    setField(
      workbench,
      id,
      'plot',
      part && { across: 0, up: Math.min(1, heads.length - 1), ...plot, ...part },
    );
  return (
    <>
      <SelectField
        label="Draw as points: across"
        value={plot === null ? '' : String(plot.across)}
        options={[{ value: '', label: 'not drawn' }, ...columns]}
        onChange={(choice) => set(choice === '' ? null : { across: Number(choice) })}
      />
      {plot !== null && (
        <SelectField
          label="up"
          value={String(plot.up)}
          options={columns}
          onChange={(choice) => set({ up: Number(choice) })}
        />
      )}
    </>
  );
}
