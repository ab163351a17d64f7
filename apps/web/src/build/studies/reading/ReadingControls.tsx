import { primed, type Entry, type Id } from '@yperkine/demonstration';
import { SelectField } from '../../../parts/SelectField.tsx';
import { useWorkbenchState } from '../../../state/context.ts';
import { curvesOf } from '../../../state/curves.ts';
import { IntervalFields } from '../IntervalFields.tsx';
import { useSetting } from '../useSetting.ts';

/** What the graph is read about, and the interval. */
export function ReadingControls({ id, entry }: { readonly id: Id; readonly entry: Entry }) {
  const set = useSetting(id);
  const on = entry.kind === 'reading' ? entry.on : '';
  const name = useWorkbenchState(
    ({ resolution }) => curvesOf(resolution).find((one) => one.id === on)?.curve.name ?? 'f',
  );
  if (entry.kind !== 'reading') return null;
  return (
    <IntervalFields id={id} entry={entry}>
      <SelectField
        label="About"
        className="col-span-2"
        value={entry.about}
        options={[
          { value: 'both', label: `${name} and ${primed(name, 1)}` },
          { value: 'function', label: `${name} alone` },
          { value: 'slope', label: `${primed(name, 1)} alone` },
        ]}
        onChange={set('about')}
      />
    </IntervalFields>
  );
}
