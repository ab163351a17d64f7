import { keyPointGroups, type Entry, type Id, type KeyPointGroup } from '@yperkine/demonstration';
import { CheckBox } from '../../../parts/CheckBox.tsx';
import { SelectField } from '../../../parts/SelectField.tsx';
import { setField } from '../../../state/actions.ts';
import { useWorkbench } from '../../../state/context.ts';
import { IntervalFields } from '../IntervalFields.tsx';

const groups = Object.keys(keyPointGroups) as KeyPointGroup[];

const proofs = [
  { value: '', label: 'not shown' },
  { value: '0', label: 'no other zeros' },
  { value: '1', label: 'no other highs and lows' },
  { value: '2', label: 'no other changes of bend' },
];

/** The interval, and the kinds that are shown: all, or one at a time. */
export function KeyPointsControls({ id, entry }: { readonly id: Id; readonly entry: Entry }) {
  const workbench = useWorkbench();
  if (entry.kind !== 'keyPoints') return null;
  const { shows, labels } = entry;
  const toggle = (group: KeyPointGroup) => {
    const next = groups.filter((one) => (one === group ? !shows.includes(one) : shows.includes(one)));
    setField(workbench, id, 'shows', next);
  };
  return (
    <>
      <IntervalFields id={id} entry={entry} />
      <fieldset className="mt-2 grid grid-cols-2 gap-x-2">
        <legend className="sr-only">Kinds that are shown</legend>
        {groups.map((group) => (
          <CheckBox
            key={group}
            label={keyPointGroups[group]}
            isOn={shows.includes(group)}
            onChange={() => toggle(group)}
          />
        ))}
        <CheckBox
          label="Coordinates"
          isOn={labels}
          onChange={() => setField(workbench, id, 'labels', !labels)}
        />
      </fieldset>
      <div className="mt-2">
        <SelectField
          label="Why complete?"
          value={entry.proof === null ? '' : String(entry.proof)}
          options={proofs}
          onChange={(choice) => setField(workbench, id, 'proof', choice === '' ? null : Number(choice))}
        />
      </div>
    </>
  );
}
