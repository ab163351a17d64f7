import { Popover, PopoverButton, PopoverPanel } from '@headlessui/react';
import { limits, type Id, type Step } from '@yperkine/demonstration';
import { ListChecks } from 'lucide-react';
import { Button, iconButtonClass, smallIconClass } from '../../parts/Button.tsx';
import { CheckBox } from '../../parts/CheckBox.tsx';
import { TextField } from '../../parts/TextField.tsx';
import { useWorkbench } from '../../state/context.ts';
import {
  moveStep,
  removeStep,
  retakeStep,
  setStep,
  setStepPart,
  titleOfStep,
  type StepPart,
} from '../../state/steps.ts';

const partNames: Readonly<Record<StepPart, string>> = {
  values: 'Sliders and points',
  reveals: 'Reveals',
  windows: 'Windows',
};

interface StepSettingsProps {
  readonly id: Id;
  readonly step: Step;
  readonly at: number;
  readonly count: number;
}

/** A step's title, what it sets on arriving, and its place among the others. */
export function StepSettings({ id, step, at, count }: StepSettingsProps) {
  const workbench = useWorkbench();
  const name = titleOfStep(step, at);
  return (
    <Popover>
      <PopoverButton
        aria-label={`Settings of ${name}`}
        title={`Settings of ${name}`}
        className={`${iconButtonClass} ${smallIconClass} shrink-0`}
      >
        <ListChecks size={18} aria-hidden />
      </PopoverButton>
      <PopoverPanel
        anchor={{ to: 'top end', gap: 8 }}
        className="card z-30 max-h-[86dvh]! w-80 max-w-[94vw] overflow-y-auto p-4"
      >
        <TextField
          label="Title of the step"
          value={step.title}
          maxLength={limits.title}
          placeholder={`Step ${at + 1}`}
          onCommit={(title) => setStep(workbench, id, 'title', title.trim())}
        />
        <fieldset className="mt-3">
          <legend className="text-sm text-quiet">On arriving it brings back</legend>
          {(Object.keys(partNames) as StepPart[]).map((part) => (
            <CheckBox
              key={part}
              label={partNames[part]}
              isOn={step[part] !== null}
              onChange={() => setStepPart(workbench, id, part, step[part] === null)}
            />
          ))}
        </fieldset>
        <CheckBox
          label="Clear the trails on arriving"
          isOn={step.clearsTrails}
          onChange={() => setStep(workbench, id, 'clearsTrails', !step.clearsTrails)}
        />
        <div className="mt-3 grid grid-cols-2 gap-2">
          <Button className="col-span-2" onClick={() => retakeStep(workbench, id)}>
            Keep what is shown now
          </Button>
          <Button disabled={at === 0} onClick={() => moveStep(workbench, id, -1)}>
            Earlier
          </Button>
          <Button disabled={at === count - 1} onClick={() => moveStep(workbench, id, 1)}>
            Later
          </Button>
          <Button look="bare" className="col-span-2" onClick={() => removeStep(workbench, id)}>
            Delete this step
          </Button>
        </div>
      </PopoverPanel>
    </Popover>
  );
}
