import type { Entry, Id } from '@yperkine/demonstration';
import { TextField } from '../../../parts/TextField.tsx';
import { IntervalFields } from '../IntervalFields.tsx';
import { useSetting } from '../useSetting.ts';

/** The condition and the interval. */
export function HoldsControls({ id, entry }: { readonly id: Id; readonly entry: Entry }) {
  const set = useSetting(id);
  if (entry.kind !== 'holds') return null;
  return (
    <IntervalFields id={id} entry={entry}>
      <div className="col-span-2">
        <TextField label="Condition" value={entry.condition} onCommit={set('condition')} />
      </div>
    </IntervalFields>
  );
}
