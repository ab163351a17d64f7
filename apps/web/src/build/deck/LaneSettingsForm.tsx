import { Radio, RadioGroup } from '@headlessui/react';
import { rational } from '@yperkine/core';
import { settingValue, type EntryOf, type Id, type Repeat } from '@yperkine/demonstration';
import { useState } from 'react';
import { Button } from '../../parts/Button.tsx';
import { NumberField } from '../../parts/NumberField.tsx';
import { SelectField } from '../../parts/SelectField.tsx';
import { removeEntry, setField } from '../../state/actions.ts';
import { useWorkbench } from '../../state/context.ts';
import { setWhole } from '../../state/parameters.ts';
import { UnitField } from '../studies/UnitField.tsx';
import { ConditionField } from '../working/ShownWhen.tsx';
import { repeatIcons, repeatNames } from './repeats.ts';

/** Settings that must fit one another. */
type Setting =
  | 'from'
  | 'to'
  | 'step'
  | 'start'
  | 'seconds'
  | 'speed'
  | 'pause'
  | 'pace'
  | 'motion'
  | 'repeat'
  | 'spread'
  | 'students';
type Settings = Pick<EntryOf<'parameter'>, Setting | 'whole'>;

const isPositive = (text: string): boolean => Number(text) > 0;

/** What would be wrong with a parameter's settings, as a sentence. */
function problemWith({ from, to, step, start, seconds, speed, pause, whole }: Settings): string | null {
  const number = (text: string) => rational.parseDecimal(text) ?? rational.zero;
  if (rational.compare(number(from), number(to)) >= 0)
    return 'The left limit must be smaller than the right one.';
  if (!isPositive(step)) return 'The step must be greater than zero.';
  if (whole && [from, to, step, start].some((text) => settingValue(text)?.denominator !== 1n))
    return 'Limits, start and step are whole numbers, too.';
  if (!isPositive(seconds)) return 'A run must take some time.';
  if (!isPositive(speed)) return 'The pace must be greater than zero.';
  if (!isPositive(pause)) return 'A pause must take some time.';
  return null;
}

const paces = [
  { value: 'seconds', label: 'seconds a run' },
  { value: 'speed', label: 'units a second' },
];
const motions = [
  { value: 'smooth', label: 'smoothly' },
  { value: 'steps', label: 'step by step' },
];
const spreads = [
  { value: 'even', label: 'evenly' },
  { value: 'doubling', label: 'each doubling alike' },
];
const studentChoices = [
  { value: 'move', label: 'move it' },
  { value: 'see', label: 'only see it' },
  { value: 'nothing', label: 'do not see it' },
];

/** Limits, step, start, pace and repetition of a parameter, and what students may do with it. */
export function LaneSettingsForm({ id, entry }: { id: Id; entry: EntryOf<'parameter'> }) {
  const workbench = useWorkbench();
  const [problem, setProblem] = useState<string | null>(null);

  const set = (field: Setting, value: string) => {
    const wrong = problemWith({ ...entry, [field]: value });
    setProblem(wrong);
    if (wrong) return;
    workbench.stop(id);
    setField(workbench, id, field, value);
  };
  const number = (name: Setting, label: string) => (
    <NumberField
      label={label}
      value={entry[name]}
      takesFractions={name === 'start'}
      onCommit={(value) => set(name, value)}
    />
  );
  const choice = (name: Setting, label: string, options: readonly { value: string; label: string }[]) => (
    <SelectField label={label} value={entry[name]} options={options} onChange={(value) => set(name, value)} />
  );

  return (
    <>
      <div className="grid grid-cols-2 gap-3">
        {number('from', 'From')}
        {number('to', 'To')}
        {number('step', 'Step')}
        {number('start', 'At the start')}
        {choice('motion', 'It moves', motions)}
        {entry.motion === 'steps' ? (
          number('pause', 'Seconds at each step')
        ) : (
          <>
            {choice('pace', 'Pace in', paces)}
            {entry.pace === 'speed' ? number('speed', 'Units a second') : number('seconds', 'Seconds a run')}
          </>
        )}
        <UnitField value={entry.unit} onCommit={(unit) => setField(workbench, id, 'unit', unit)} />
      </div>
      <RadioGroup
        value={entry.repeat}
        onChange={(repeat) => set('repeat', repeat)}
        aria-label="How it repeats"
        className="my-3 grid gap-0.5"
      >
        {(Object.keys(repeatNames) as Repeat[]).map((repeat) => {
          const Icon = repeatIcons[repeat];
          return (
            <Radio
              key={repeat}
              value={repeat}
              className="flex cursor-pointer items-center gap-2.5 rounded-lg px-3 py-1.5 hover:bg-hover data-checked:bg-ink data-checked:text-on-ink"
            >
              <Icon size={16} aria-hidden /> {repeatNames[repeat]}
            </Radio>
          );
        })}
      </RadioGroup>
      {problem && (
        <p role="alert" className="mt-2 text-sm text-danger">
          {problem}
        </p>
      )}
      <div className="grid grid-cols-2 items-end gap-3">
        <label className="col-span-2 flex min-h-9 items-center gap-2">
          <input
            type="checkbox"
            checked={entry.whole}
            onChange={() => setWhole(workbench, id, !entry.whole)}
            className="size-4 accent-ink"
          />
          Whole numbers
        </label>
        {choice('students', 'Students', studentChoices)}
        {Number(entry.from) > 0 && choice('spread', 'Numbers lie on the slider', spreads)}
        <ConditionField id={id} entry={entry} label="Shown when" />
      </div>
      <Button look="bare" className="mt-3 w-full" onClick={() => removeEntry(workbench, id)}>
        Delete {entry.name} and what stands on it
      </Button>
    </>
  );
}
