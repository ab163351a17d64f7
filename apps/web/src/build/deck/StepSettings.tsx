import { Popover, PopoverButton, PopoverPanel } from '@headlessui/react';
import { ListChecks } from 'lucide-react';
import { iconButtonClass, smallIconClass } from '../../parts/Button.tsx';
import { lazily } from '../../parts/lazily.tsx';
import { titleOfStep } from '../../state/steps.ts';
import type { StepSettingsProps } from './StepSettingsForm.tsx';

const StepSettingsForm = lazily(async () => (await import('./StepSettingsForm.tsx')).StepSettingsForm);

/** What opens the settings of a step. */
export function StepSettings(props: StepSettingsProps) {
  const name = titleOfStep(props.step, props.at);
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
        <StepSettingsForm {...props} />
      </PopoverPanel>
    </Popover>
  );
}
