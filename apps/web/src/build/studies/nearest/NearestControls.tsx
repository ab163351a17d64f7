import type { Entry, Id } from '@yperkine/demonstration';
import { TextField } from '../../../parts/TextField.tsx';
import { IntervalFields } from '../IntervalFields.tsx';
import { useSetting } from '../useSetting.ts';

/** The free point and the part of the curve. */
export function NearestControls({ id, entry }: { readonly id: Id; readonly entry: Entry }) {
  const set = useSetting(id);
  if (entry.kind !== 'nearest') return null;
  return (
    <IntervalFields id={id} entry={entry}>
      <div className="col-span-2">
        <TextField label="Point P" value={entry.points} onCommit={set('points')} />
      </div>
    </IntervalFields>
  );
}
