import type { Entry, Id } from '@yperkine/demonstration';
import { Minimize2, Square } from 'lucide-react';
import { Button, smallButtonClass } from '../../../parts/Button.tsx';
import { closeUp, setStep } from '../../../state/studies.ts';
import { useWorkbench, useWorkbenchState } from '../../../state/context.ts';

const steps = ['1', '0.1', '0.01', '0.001'] as const;
/** Buttons for the usual steps, and the motion in which the second point runs into the first. */
export function SecantControls({ entry }: { readonly id: Id; readonly entry: Entry }) {
  const workbench = useWorkbench();
  const isSecant = entry.kind === 'secant';
  const isClosing = useWorkbenchState(({ playing }) => isSecant && entry.step in playing);
  if (!isSecant) return null;
  return (
    <div role="group" aria-label="Step h" className="mt-2.5 flex flex-wrap items-center gap-1.5">
      {steps.map((step) => (
        <Button key={step} className={smallButtonClass} onClick={() => setStep(workbench, entry.step, step)}>
          h = {step}
        </Button>
      ))}
      <Button
        className={smallButtonClass}
        onClick={() => (isClosing ? workbench.stop(entry.step) : closeUp(workbench, entry.step))}
      >
        {isClosing ? <Square size={15} aria-hidden /> : <Minimize2 size={15} aria-hidden />}
        {isClosing ? 'Stop' : 'Let it close up'}
      </Button>
    </div>
  );
}
