import { limits, type Entry, type Id } from '@yperkine/demonstration';
import { TextField } from '../../parts/TextField.tsx';
import { setField } from '../../state/actions.ts';
import { useWorkbench, useWorkbenchState } from '../../state/context.ts';
import { Problem } from './Problem.tsx';

/** The condition under which an entry is shown; it stands in its card once there is one. */
export function ShownWhen({ id, entry, isOpen }: { id: Id; entry: Entry; isOpen: boolean }) {
  if (!isOpen && entry.shownWhen === '') return null;
  return (
    <div className="mt-2.5">
      <ConditionField id={id} entry={entry} label="Shown when" />
    </div>
  );
}

/** The field for a condition, with what is wrong with it under it. */
export function ConditionField({ id, entry, label }: { id: Id; entry: Entry; label: string }) {
  const workbench = useWorkbench();
  const problem = useWorkbenchState(({ resolution }) => resolution.visibilities.get(id)?.problem ?? null);
  return (
    <>
      <TextField
        label={label}
        placeholder="always"
        maxLength={limits.condition}
        value={entry.shownWhen}
        onCommit={(text) => setField(workbench, id, 'shownWhen', text.trim())}
      />
      {problem && <Problem message={problem.message} missingName={problem.missingName} />}
    </>
  );
}

/** Why an entry's marks are not on the graph: by hand, or by its condition; null where they are. */
export function useAbsence(id: Id, entry: Entry): 'hidden' | 'not shown just now' | null {
  const holds = useWorkbenchState(({ resolution }) => resolution.visibilities.get(id)?.holds ?? true);
  const isShown = useWorkbenchState(({ resolution }) => resolution.visibilities.get(id)?.isShown ?? true);
  if (isShown) return null;
  return entry.hidden || holds ? 'hidden' : 'not shown just now';
}
