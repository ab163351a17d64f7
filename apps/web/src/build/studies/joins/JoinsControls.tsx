import type { Entry, Id } from '@yperkine/demonstration';
import { useShallow } from 'zustand/shallow';
import { SelectField } from '../../../parts/SelectField.tsx';
import { useWorkbenchState } from '../../../state/context.ts';
import { curvesOf } from '../../../state/curves.ts';
import { IntervalFields } from '../IntervalFields.tsx';
import { useSetting } from '../useSetting.ts';

/** The interval, and the constant that could mend the joins. */
export function JoinsControls({ id, entry }: { readonly id: Id; readonly entry: Entry }) {
  const set = useSetting(id);
  const names = useWorkbenchState(
    useShallow(({ resolution }) => {
      const on = entry.kind === 'joins' ? entry.on : '';
      return curvesOf(resolution).find((one) => one.id === on)?.curve.program.parameters ?? [];
    }),
  );
  if (entry.kind !== 'joins') return null;
  const options = [...new Set([...names, entry.constant])].filter((name) => name !== '');
  return (
    <IntervalFields
      id={id}
      entry={entry}
      after={
        options.length > 0 && (
          <SelectField
            label="Which value would mend it?"
            className="col-span-2"
            value={entry.constant}
            options={[
              { value: '', label: 'not asked' },
              ...options.map((name) => ({ value: name, label: `of ${name}` })),
            ]}
            onChange={set('constant')}
          />
        )
      }
    />
  );
}
