import type { Id, Step } from '@yperkine/demonstration';
import clsx from 'clsx';
import { ChevronLeft, ChevronRight, Plus } from 'lucide-react';
import type { KeyboardEvent } from 'react';
import { useShallow } from 'zustand/shallow';
import { IconButton, smallIconClass } from '../../parts/Button.tsx';
import { useWorkbench, useWorkbenchState } from '../../state/context.ts';
import { perDocument } from '../../state/perDocument.ts';
import { keepStep, revealedBy, stepBeside, stepIdsOf, titleOfStep } from '../../state/steps.ts';
import { firstShownBy } from '../../state/reveals.ts';
import type { Workbench } from '../../state/workbench.ts';
import { bringIntoSight } from '../working/intoSight.ts';
import { StepSettings } from './StepSettings.tsx';

const stepIds = perDocument(stepIdsOf);
const small = `${smallIconClass} shrink-0`;
const directions: Readonly<Record<string, -1 | 1>> = { ArrowLeft: -1, ArrowRight: 1 };

/** The steps of the presentation: each shows what was kept in it. Nothing before there is one. */
export function Steps() {
  const workbench = useWorkbench();
  const ids = useWorkbenchState(useShallow((state) => stepIds(state.document)));
  const current = useWorkbenchState(({ step }) => step);
  const at = current === null ? -1 : ids.indexOf(current);
  const step = useWorkbenchState(({ document }) => (current === null ? undefined : document.steps[current]));
  if (ids.length === 0) return null;

  /** The arrow keys go through the steps, and the focus with them. */
  const press = (event: KeyboardEvent<HTMLOListElement>) => {
    const by = directions[event.key];
    if (by === undefined) return;
    event.preventDefault();
    go(workbench, stepBeside(workbench, by));
    const place = stepIds(workbench.state.document).indexOf(workbench.state.step ?? '');
    event.currentTarget.children[place]?.querySelector('button')?.focus();
  };
  return (
    <div role="group" aria-label="Steps" className="flex items-center gap-1">
      <IconButton
        label="One step back"
        disabled={at <= 0}
        onClick={() => go(workbench, stepBeside(workbench, -1))}
        className={small}
      >
        <ChevronLeft size={18} aria-hidden />
      </IconButton>
      <ol onKeyDown={press} className="flex min-w-0 gap-1 overflow-x-auto p-0.5">
        {ids.map((id, i) => (
          <li key={id}>
            <StepButton id={id} at={i} isCurrent={i === at} />
          </li>
        ))}
      </ol>
      <IconButton
        label="One step on"
        disabled={at === ids.length - 1}
        onClick={() => go(workbench, stepBeside(workbench, 1))}
        className={small}
      >
        <ChevronRight size={18} aria-hidden />
      </IconButton>
      <p role="status" className="mx-1 min-w-0 flex-1 truncate max-sm:sr-only">
        {step && titleOfStep(step, at)}
      </p>
      <IconButton
        label="Keep this as a step"
        onClick={() => keepStep(workbench)}
        className={`${small} ml-auto`}
      >
        <Plus size={18} aria-hidden />
      </IconButton>
      {step && current !== null ? (
        <StepSettings id={current} step={step} at={at} count={ids.length} />
      ) : (
        // Its room is kept, so that nothing moves under the finger that goes from step to step.
        <span className={small} />
      )}
    </div>
  );
}

/** Shows a step, and brings into sight what it reveals. */
function go(workbench: Workbench, id: Id | undefined): void {
  if (id === undefined) return;
  const first = firstShownBy(workbench, revealedBy(workbench, id));
  workbench.showStep(id);
  if (first !== undefined) bringIntoSight(first);
}

function StepButton({ id, at, isCurrent }: { id: Id; at: number; isCurrent: boolean }) {
  const workbench = useWorkbench();
  const title = useWorkbenchState(({ document }) => nameOfStep(document.steps[id], at));
  return (
    <button
      type="button"
      aria-current={isCurrent ? 'step' : undefined}
      aria-label={title}
      title={title}
      onClick={() => go(workbench, id)}
      className={clsx(
        'size-8 rounded-lg font-semibold tabular-nums pointer-coarse:size-10',
        isCurrent
          ? 'bg-ink text-on-ink'
          : 'border border-rule bg-sheet text-quiet hover:bg-hover hover:text-ink',
      )}
    >
      {at + 1}
    </button>
  );
}

const nameOfStep = (step: Step | undefined, at: number): string =>
  step?.title ? `Step ${at + 1}: ${step.title}` : `Step ${at + 1}`;
