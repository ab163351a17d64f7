import { makeParameter } from '../../state/givens.ts';
import { useWorkbench } from '../../state/context.ts';

interface ProblemProps {
  readonly id?: string;
  readonly message: string;
  /** Replaces the wrong range by the correction. */
  readonly onCorrect?: (() => void) | undefined;
  readonly correction?: string | undefined;
  readonly missingName?: string | undefined;
}

/** One sentence about what is wrong, with the cures that are at hand. */
export function Problem({ id, message, onCorrect, correction, missingName }: ProblemProps) {
  const workbench = useWorkbench();
  const cure = 'font-semibold underline underline-offset-2';
  return (
    <p id={id} role="alert" className="mt-1.5 text-[0.95rem] text-danger">
      {message}{' '}
      {correction !== undefined && onCorrect && (
        <button type="button" className={cure} onClick={onCorrect}>
          {correction === '' ? 'Take it away' : `Use ${correction}`}
        </button>
      )}{' '}
      {missingName !== undefined && (
        <button type="button" className={cure} onClick={() => makeParameter(workbench, missingName)}>
          Make {missingName} a slider
        </button>
      )}
    </p>
  );
}
