import { ruleNames, sumRuleSchema, type Entry, type Id, type SumResult } from '@yperkine/demonstration';
import { ChartSpline, ChevronsUp, Shuffle, Square } from 'lucide-react';
import { memo } from 'react';
import { useShallow } from 'zustand/shallow';
import { Button, smallButtonClass } from '../../../parts/Button.tsx';
import { CheckBox } from '../../../parts/CheckBox.tsx';
import { SelectField } from '../../../parts/SelectField.tsx';
import { TextField } from '../../../parts/TextField.tsx';
import { setField } from '../../../state/actions.ts';
import { addFraction, addSumErrors, doubleUp, evenOut } from '../../../state/areas.ts';
import { useWorkbench, useWorkbenchState } from '../../../state/context.ts';
import { IntervalFields } from '../IntervalFields.tsx';
import { useSetting } from '../useSetting.ts';

/** Everything about a sum that is set now and then: its interval, a second rule, motion, the parts. */
export const SumControls = memo(function SumControls({
  id,
  entry,
}: {
  readonly id: Id;
  readonly entry: Entry;
}) {
  const workbench = useWorkbench();
  const set = useSetting(id);
  const isSum = entry.kind === 'sum';
  const isDoubling = useWorkbenchState(({ playing }) => isSum && entry.parts in playing);
  const countName = useWorkbenchState(({ document }) => {
    const count = isSum ? document.entries[entry.parts] : undefined;
    return count?.kind === 'parameter' ? count.name : 'n';
  });
  const { isEven, hasPicks } = useWorkbenchState(
    useShallow(({ resolution }) => {
      const outcome = resolution.entries.get(id)?.outcome;
      const result = outcome?.ok ? (outcome.result as SumResult) : null;
      return { isEven: result?.isEven ?? true, hasPicks: result?.hasPicks ?? false };
    }),
  );
  if (!isSum) return null;
  const usesFraction = entry.rule === 'fraction' || entry.against === 'fraction';
  const usesChance = entry.rule === 'random' || entry.against === 'random';
  return (
    <>
      <div role="group" aria-label="Parts of the sum" className="mt-2.5 flex flex-wrap gap-1.5">
        <Button
          className={smallButtonClass}
          onClick={() => (isDoubling ? workbench.stop(entry.parts) : doubleUp(workbench, entry.parts))}
        >
          {isDoubling ? <Square size={15} aria-hidden /> : <ChevronsUp size={16} aria-hidden />}
          {isDoubling ? 'Stop' : `Let ${countName} double`}
        </Button>
        <Button className={smallButtonClass} onClick={() => addSumErrors(workbench, id)}>
          <ChartSpline size={16} aria-hidden /> Error against {countName}
        </Button>
        {usesChance && (
          <Button
            className={smallButtonClass}
            onClick={() => setField(workbench, id, 'seed', (entry.seed + 1) % 1_000_000)}
          >
            <Shuffle size={15} aria-hidden /> Other points
          </Button>
        )}
        {(!isEven || hasPicks) && (
          <Button className={smallButtonClass} onClick={() => evenOut(workbench, id)}>
            Even out
          </Button>
        )}
      </div>
      <IntervalFields
        id={id}
        entry={entry}
        after={
          <>
            <SelectField
              label="Laid over it"
              value={entry.against}
              options={[
                { value: 'none', label: 'nothing' },
                ...sumRuleSchema.options
                  .filter((rule) => rule !== entry.rule)
                  .map((rule) => ({ value: rule, label: ruleNames[rule] })),
              ]}
              onChange={set('against')}
            />
            {usesFraction && (
              <TextField
                label="Place in each part, 0 to 1"
                value={entry.fraction}
                onCommit={set('fraction')}
              />
            )}
            {usesFraction && (
              <Button className={`${smallButtonClass} self-end`} onClick={() => addFraction(workbench, id)}>
                By a slider
              </Button>
            )}
          </>
        }
      />
      <div className="mt-2 flex flex-wrap gap-x-4">
        <CheckBox
          label="Points of the heights"
          isOn={entry.showsPoints}
          onChange={() => setField(workbench, id, 'showsPoints', !entry.showsPoints)}
        />
        <CheckBox
          label="Table"
          isOn={entry.showsTable}
          onChange={() => setField(workbench, id, 'showsTable', !entry.showsTable)}
        />
      </div>
    </>
  );
});
