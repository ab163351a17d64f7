import { inOrder, primed, type Entry, type Id } from '@yperkine/demonstration';
import { useShallow } from 'zustand/shallow';
import { SelectField } from '../../../parts/SelectField.tsx';
import { setField } from '../../../state/actions.ts';
import { useWorkbench, useWorkbenchState } from '../../../state/context.ts';
import { curvesOf } from '../../../state/curves.ts';
import { nameOfTier } from '../../../state/tiers.ts';
import { IntervalFields } from '../IntervalFields.tsx';

const degrees = [0, 1, 2, 3] as const;
/** The choice of the tier in which the curve itself is drawn. */
const withCurve = 'with its curve';

/** Which derivative has these signs, and under which tier they stand. */
export function SignStripControls({ id, entry }: { readonly id: Id; readonly entry: Entry }) {
  const workbench = useWorkbench();
  const curve = useWorkbenchState(
    useShallow(({ resolution }) => {
      const on = entry.kind === 'signStrip' ? entry.on : '';
      const found = curvesOf(resolution).find((one) => one.id === on)?.curve;
      return { name: found?.name ?? 'f', order: found?.order ?? 0 };
    }),
  );
  if (entry.kind !== 'signStrip') return null;
  const tiers = inOrder(workbench.state.document.tiers).map(([tier]) => ({
    value: tier,
    label: `under ${nameOfTier(workbench, tier)}`,
  }));
  return (
    <IntervalFields id={id} entry={entry}>
      <SelectField
        label="Signs of"
        value={String(entry.degree)}
        options={degrees.map((degree) => ({
          value: String(degree),
          label: primed(curve.name, curve.order + degree),
        }))}
        onChange={(value) => setField(workbench, id, 'degree', Number(value))}
      />
      <SelectField
        label="Where it stands"
        value={entry.under ?? withCurve}
        options={[{ value: withCurve, label: 'under its curve' }, ...tiers]}
        onChange={(value) => setField(workbench, id, 'under', value === withCurve ? null : value)}
      />
    </IntervalFields>
  );
}
