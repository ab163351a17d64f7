import { primed, type Entry, type Id } from '@yperkine/demonstration';
import { SelectField } from '../../../parts/SelectField.tsx';
import { setField } from '../../../state/actions.ts';
import { useWorkbench } from '../../../state/context.ts';
import { curvesOf } from '../../../state/curves.ts';
import { IntervalFields } from '../IntervalFields.tsx';

/** The other curve, and the interval. */
export function AreaBetweenControls({ id, entry }: { readonly id: Id; readonly entry: Entry }) {
  const workbench = useWorkbench();
  if (entry.kind !== 'areaBetween') return null;
  const others = curvesOf(workbench.state.resolution).filter((one) => one.id !== entry.on);
  return (
    <IntervalFields id={id} entry={entry}>
      <SelectField
        label="And which curve"
        className="col-span-2"
        value={entry.with}
        options={others.map((one) => ({ value: one.id, label: primed(one.curve.name, one.curve.order) }))}
        onChange={(other) => setField(workbench, id, 'with', other)}
      />
    </IntervalFields>
  );
}
