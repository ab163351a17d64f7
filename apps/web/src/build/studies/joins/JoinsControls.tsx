import type { Entry, Id, JoinsResult } from '@yperkine/demonstration';
import { useShallow } from 'zustand/shallow';
import { Button, smallButtonClass } from '../../../parts/Button.tsx';
import { SelectField } from '../../../parts/SelectField.tsx';
import { useResolved, useWorkbench, useWorkbenchState } from '../../../state/context.ts';
import { curvesOf } from '../../../state/curves.ts';
import { takeValue } from '../../../state/parameters.ts';
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
  const workbench = useWorkbench();
  const outcome = useResolved(id)?.outcome;
  if (entry.kind !== 'joins') return null;
  const mends = outcome?.ok ? (outcome.result as JoinsResult).mends : [];
  const options = [...new Set([...names, entry.constant])].filter((name) => name !== '');
  return (
    <>
      {mends.length > 0 && (
        <div role="group" aria-label="What mends it" className="mt-2.5 flex flex-wrap gap-1.5">
          {mends.map(({ constant, value }) => (
            <Button
              key={value}
              className={smallButtonClass}
              onClick={() => takeValue(workbench, constant, value)}
            >
              Take {constant} = {value.replace('-', '−')}
            </Button>
          ))}
        </div>
      )}
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
    </>
  );
}
