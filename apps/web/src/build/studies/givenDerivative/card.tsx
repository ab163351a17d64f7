import type { Entry, Id } from '@yperkine/demonstration';
import { TextField } from '../../../parts/TextField.tsx';
import { setField } from '../../../state/actions.ts';
import { useWorkbench } from '../../../state/context.ts';
import type { StudyCard } from '../study.ts';

/** Start values, by which the function itself becomes known. */
function StartControls({ id, entry }: { readonly id: Id; readonly entry: Entry }) {
  const workbench = useWorkbench();
  if (entry.kind !== 'givenDerivative') return null;
  return (
    <div className="mt-2.5 grid grid-cols-[6rem_1fr] gap-2">
      <TextField
        label="Start at"
        value={entry.startAt}
        onCommit={(text) => setField(workbench, id, 'startAt', text)}
      />
      <TextField
        label="Start values, with ; between"
        value={entry.startValues}
        onCommit={(text) => setField(workbench, id, 'startValues', text)}
      />
    </div>
  );
}

/** It is typed at the foot of the working, f''(x) = …, and so is not in the chooser. */
export const card: StudyCard = { kind: 'givenDerivative', offers: [], Controls: StartControls };
