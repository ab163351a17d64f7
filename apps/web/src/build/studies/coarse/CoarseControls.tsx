import type { Entry, Id } from '@yperkine/demonstration';
import { TextField } from '../../../parts/TextField.tsx';
import { IntervalFields } from '../IntervalFields.tsx';
import { useSetting } from '../useSetting.ts';

/** How far apart the dots are, and the interval. */
export function CoarseControls({ id, entry }: { readonly id: Id; readonly entry: Entry }) {
  const set = useSetting(id);
  if (entry.kind !== 'coarse') return null;
  return (
    <IntervalFields id={id} entry={entry}>
      <div className="col-span-2">
        <TextField label="Distance of the dots" value={entry.step} onCommit={set('step')} />
      </div>
    </IntervalFields>
  );
}
