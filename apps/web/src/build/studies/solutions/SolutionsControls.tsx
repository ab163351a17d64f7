import type { Entry, Id } from '@yperkine/demonstration';
import { TextField } from '../../../parts/TextField.tsx';
import { IntervalFields } from '../IntervalFields.tsx';
import { useSetting } from '../useSetting.ts';

/** The other side of the equation and the interval. */
export function SolutionsControls({ id, entry }: { readonly id: Id; readonly entry: Entry }) {
  const set = useSetting(id);
  if (entry.kind !== 'solutions') return null;
  return (
    <IntervalFields id={id} entry={entry}>
      <div className="col-span-2">
        <TextField label="Equal to" value={entry.equals} onCommit={set('equals')} />
      </div>
    </IntervalFields>
  );
}
