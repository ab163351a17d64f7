import { Popover, PopoverButton, PopoverPanel } from '@headlessui/react';
import type { EntryOf, Id } from '@yperkine/demonstration';
import { SlidersHorizontal } from 'lucide-react';
import { iconButtonClass } from '../../parts/Button.tsx';
import { lazily } from '../../parts/lazily.tsx';

const LaneSettingsForm = lazily(async () => (await import('./LaneSettingsForm.tsx')).LaneSettingsForm);

/** What opens the settings of a parameter. */
export function LaneSettings({ id, entry }: { id: Id; entry: EntryOf<'parameter'> }) {
  return (
    <Popover>
      <PopoverButton
        aria-label={`Settings of ${entry.name}`}
        title={`Settings of ${entry.name}`}
        className={iconButtonClass}
      >
        <SlidersHorizontal size={18} aria-hidden />
      </PopoverButton>
      <PopoverPanel
        anchor={{ to: 'top end', gap: 8 }}
        className="card z-30 max-h-[86dvh]! w-88 max-w-[94vw] overflow-y-auto p-4"
      >
        <LaneSettingsForm id={id} entry={entry} />
      </PopoverPanel>
    </Popover>
  );
}
