import { curveOf, isGivenAlone, primed, type Entry, type Id } from '@yperkine/demonstration';
import { useShallow } from 'zustand/shallow';
import { SelectField } from '../../../parts/SelectField.tsx';
import { setField } from '../../../state/actions.ts';
import { useWorkbench, useWorkbenchState } from '../../../state/context.ts';

/** Whether f itself is drawn or one of the derivatives between. */
export function OriginalControls({ id, entry }: { readonly id: Id; readonly entry: Entry }) {
  const workbench = useWorkbench();
  const names = useWorkbenchState(
    useShallow(({ resolution }) => {
      const given = entry.kind === 'original' ? curveOf(resolution, entry.of) : undefined;
      if (!given || !isGivenAlone(given)) return [];
      return Array.from({ length: given.order }, (_, degree) => primed(given.name, degree));
    }),
  );
  if (entry.kind !== 'original' || names.length < 2) return null;
  return (
    <div className="mt-2.5">
      <SelectField
        label="Shown"
        value={String(entry.degree)}
        options={names.map((label, degree) => ({ value: String(degree), label }))}
        onChange={(value) => setField(workbench, id, 'degree', Number(value))}
      />
    </div>
  );
}
