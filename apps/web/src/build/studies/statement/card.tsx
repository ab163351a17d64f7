import { saidOf, type Entry, type Id } from '@yperkine/demonstration';
import { SelectField } from '../../../parts/SelectField.tsx';
import { setField } from '../../../state/actions.ts';
import { useWorkbench, useWorkbenchState } from '../../../state/context.ts';
import { StandingFields } from '../StandingFields.tsx';
import type { StudyCard } from '../study.ts';

/** Which of the lines of its entry stands on the graph, and where. */
function Controls({ id, entry }: { readonly id: Id; readonly entry: Entry }) {
  const workbench = useWorkbench();
  const of = entry.kind === 'statement' ? entry.of : '';
  const count = useWorkbenchState(({ resolution }) => saidOf(resolution, of)?.lines.length ?? 0);
  if (entry.kind !== 'statement') return null;
  const lines = Array.from({ length: count }, (_, i) => ({
    value: String(i),
    label: count === 1 ? 'its line' : `its line ${i + 1}`,
  }));
  return (
    <>
      <div className="mt-2.5">
        <SelectField
          label="What it says"
          value={entry.line === null ? 'sentence' : String(entry.line)}
          options={[...lines, { value: 'sentence', label: 'its sentence' }]}
          onChange={(choice) =>
            setField(workbench, id, 'line', choice === 'sentence' ? null : Number(choice))
          }
        />
      </div>
      <StandingFields id={id} entry={entry} />
    </>
  );
}

export const card: StudyCard = { kind: 'statement', offers: [], Controls };
