import { Popover, PopoverButton, PopoverPanel } from '@headlessui/react';
import { lazily } from '../../parts/lazily.tsx';
import { fit } from '../../state/actions.ts';
import { useWorkbench } from '../../state/context.ts';

const WindowForm = lazily(async () => (await import('./WindowForm.tsx')).WindowForm);
const LooksForm = lazily(async () => (await import('./LooksPanel.tsx')).LooksForm);

/** Low, like the row of titles; on a touch screen as tall as a finger is broad. */
const tool =
  'inline-flex min-h-7 items-center rounded-lg border border-rule bg-sheet px-2.5 text-sm text-quiet hover:bg-hover hover:text-ink pointer-coarse:min-h-8 pointer-coarse:px-3';

/** Fit, and the limits and ticks of every axis, typed. */
export function WindowTools() {
  const workbench = useWorkbench();
  return (
    <div data-window-tools className="absolute top-0.5 right-4 z-10 flex gap-1.5">
      <button
        type="button"
        title="Choose a window that shows the zeros, highs and lows"
        className={tool}
        onClick={() => void fit(workbench, 'both')}
      >
        Fit
      </button>
      <Popover>
        <PopoverButton title="Limits and ticks of the axes" className={tool}>
          Axes
        </PopoverButton>
        <PopoverPanel
          anchor={{ to: 'bottom end', gap: 6 }}
          className="card z-30 max-h-[80dvh]! w-96 max-w-[94vw] overflow-y-auto p-4"
        >
          <WindowForm />
        </PopoverPanel>
      </Popover>
      <Popover>
        <PopoverButton title="Background, grid, numbers, rounding" className={tool}>
          Looks
        </PopoverButton>
        <PopoverPanel
          anchor={{ to: 'bottom end', gap: 6 }}
          className="card z-30 max-h-[80dvh]! w-96 max-w-[94vw] overflow-y-auto p-4"
        >
          <LooksForm />
        </PopoverPanel>
      </Popover>
    </div>
  );
}
