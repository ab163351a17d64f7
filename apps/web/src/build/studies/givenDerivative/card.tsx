import type { Entry, Id } from '@yperkine/demonstration';
import { TextField } from '../../../parts/TextField.tsx';
import type { StudyCard } from '../study.ts';
import { useSetting } from '../useSetting.ts';

/** Start values, by which the function itself becomes known. */
function StartControls({ id, entry }: { readonly id: Id; readonly entry: Entry }) {
  const set = useSetting(id);
  if (entry.kind !== 'givenDerivative') return null;
  return (
    <div className="mt-2.5 grid grid-cols-[6rem_1fr] gap-2">
      <TextField label="Start at" value={entry.startAt} onCommit={set('startAt')} />
      <TextField
        label="Start values, with ; between"
        value={entry.startValues}
        onCommit={set('startValues')}
      />
    </div>
  );
}

/** It is typed at the foot of the working, f''(x) = …, and so is not in the chooser. */
export const card: StudyCard = { kind: 'givenDerivative', offers: [], Controls: StartControls };
