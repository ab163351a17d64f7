import { Popover, PopoverButton, PopoverPanel, Radio, RadioGroup } from '@headlessui/react';
import type { Edit, EntryOf, Id, Repeat } from '@yperkine/demonstration';
import { ArrowLeftRight, ArrowRightToLine, Repeat as RepeatAgain, SlidersHorizontal } from 'lucide-react';
import { useState } from 'react';
import { rational } from '@yperkine/core';
import { Button, iconButtonClass } from '../../parts/Button.tsx';
import { NumberField } from '../../parts/NumberField.tsx';
import { UnitField } from '../studies/UnitField.tsx';
import { setWhole } from '../../state/parameters.ts';
import { removeEntry, setField } from '../../state/actions.ts';
import { useWorkbench } from '../../state/context.ts';

export const repeatNames: Readonly<Record<Repeat, string>> = {
  once: 'Once',
  overAndOver: 'Over and over',
  thereAndBack: 'There and back',
};
export const repeatIcons = {
  once: ArrowRightToLine,
  overAndOver: RepeatAgain,
  thereAndBack: ArrowLeftRight,
} as const;

type Field = 'from' | 'to' | 'step' | 'seconds';

/** What would be wrong with a parameter's settings, as a sentence. */
function problemWith({
  from,
  to,
  step,
  seconds,
  whole,
}: Record<Field, string> & { whole: boolean }): string | null {
  const number = (text: string) => rational.parseDecimal(text) ?? rational.zero;
  if (rational.compare(number(from), number(to)) >= 0)
    return 'The left limit must be smaller than the right one.';
  if (!(Number(step) > 0)) return 'The step must be greater than zero.';
  if (whole && [from, to, step].some((text) => !Number.isInteger(Number(text))))
    return 'Limits and step are whole numbers, too.';
  if (!(Number(seconds) > 0)) return 'A run must take some time.';
  return null;
}

/** Limits, step, pace and repetition of a parameter. */
export function LaneSettings({ id, entry }: { id: Id; entry: EntryOf<'parameter'> }) {
  const workbench = useWorkbench();
  const [problem, setProblem] = useState<string | null>(null);

  const set = (field: Field | 'repeat', value: string) => {
    const wrong = problemWith({ ...entry, [field]: value });
    setProblem(wrong);
    if (wrong) return;
    workbench.stop(id);
    workbench.change([
      { at: 'field', of: 'entries', id, field, old: entry[field], new: value } satisfies Edit,
    ]);
  };
  const field = (name: Field, label: string) => (
    <NumberField label={label} value={entry[name]} onCommit={(value) => set(name, value)} />
  );

  return (
    <Popover>
      <PopoverButton
        aria-label={`Settings of ${entry.name}`}
        title={`Settings of ${entry.name}`}
        className={iconButtonClass}
      >
        <SlidersHorizontal size={18} aria-hidden />
      </PopoverButton>
      <PopoverPanel anchor={{ to: 'top end', gap: 8 }} className="card z-30 w-80 max-w-[94vw] p-4">
        <div className="grid grid-cols-2 gap-3">
          {field('from', 'From')}
          {field('to', 'To')}
          {field('step', 'Step')}
          {field('seconds', 'Seconds a run')}
        </div>
        <div className="mt-3 grid grid-cols-2 items-end gap-3">
          <UnitField value={entry.unit} onCommit={(unit) => setField(workbench, id, 'unit', unit)} />
          <label className="flex min-h-9 items-center gap-2">
            <input
              type="checkbox"
              checked={entry.whole}
              onChange={() => setWhole(workbench, id, !entry.whole)}
              className="size-4 accent-ink"
            />
            Whole numbers
          </label>
        </div>
        {problem && (
          <p role="alert" className="mt-2 text-sm text-danger">
            {problem}
          </p>
        )}
        <RadioGroup
          value={entry.repeat}
          onChange={(repeat) => set('repeat', repeat)}
          aria-label="How it repeats"
          className="mt-4 grid gap-1"
        >
          {(Object.keys(repeatNames) as Repeat[]).map((repeat) => {
            const Icon = repeatIcons[repeat];
            return (
              <Radio
                key={repeat}
                value={repeat}
                className="flex cursor-pointer items-center gap-2.5 rounded-lg px-3 py-2 hover:bg-hover data-checked:bg-ink data-checked:text-on-ink"
              >
                <Icon size={16} aria-hidden /> {repeatNames[repeat]}
              </Radio>
            );
          })}
        </RadioGroup>
        <Button look="bare" className="mt-3 w-full" onClick={() => removeEntry(workbench, id)}>
          Delete {entry.name} and what stands on it
        </Button>
      </PopoverPanel>
    </Popover>
  );
}
