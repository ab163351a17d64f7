import { limits, type Id, type Step } from '@yperkine/demonstration';
import { Button } from '../../parts/Button.tsx';
import { CheckBox } from '../../parts/CheckBox.tsx';
import { TextField } from '../../parts/TextField.tsx';
import { useWorkbench } from '../../state/context.ts';
import { moveStep, removeStep, retakeStep, setStep, setStepPart, type StepPart } from '../../state/steps.ts';

const partNames: Readonly<Record<StepPart, string>> = {
  values: 'Sliders and points',
  reveals: 'Reveals',
  windows: 'Windows',
};

export interface StepSettingsProps {
  readonly id: Id;
  readonly step: Step;
  readonly at: number;
  readonly count: number;
}

/** A step's title, what it sets on arriving, and its place among the others. */
export function StepSettingsForm({ id, step, at, count }: StepSettingsProps) {
  const workbench = useWorkbench();
  return (
    <>
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
    </>
  );
}
