import clsx from 'clsx';
import { useId, useLayoutEffect, useRef, useState } from 'react';
import { readNumber } from './readNumber.ts';

interface NumberFieldProps {
  readonly label: string;
  readonly value: string;
  /** For a value that moves: told how to show a new value without rendering, now and later; gives how to stop. */
  readonly follow?: (show: (value: string) => void) => () => void;
  /** Called with decimal text once it is a number; `null` when an optional field was emptied. */
  readonly onCommit: (value: string) => void;
  /** Why a number cannot be taken, in a sentence; null where it can. */
  readonly refuse?: (value: string) => string | null;
  /** Lets the field be empty and says what that means. */
  readonly emptyMeans?: string;
  /** Whether 4/3 is a number here, too. */
  readonly takesFractions?: boolean;
  readonly isLabelHidden?: boolean;
  readonly isDisabled?: boolean;
  readonly className?: string;
}

const printed = (value: string): string => value.replace('-', '−');

/** A field for an exact number. What is typed stays until it is a number or Escape takes it back. */
export function NumberField({
  label,
  value,
  follow,
  onCommit,
  emptyMeans,
  refuse,
  takesFractions = false,
  isLabelHidden = false,
  isDisabled = false,
  className,
}: NumberFieldProps) {
  const [draft, setDraft] = useState<string | null>(null);
  const [problem, setProblem] = useState<{ message: string; correction?: string } | null>(null);
  const id = useId();
  const input = useRef<HTMLInputElement>(null);
  const present = useRef(value);
  /** Whether somebody is about to type: the text under the selection stays as it is. */
  const isHeld = useRef(false);
  const isTyped = draft !== null;

  useLayoutEffect(() => {
    present.current = value;
    return follow?.((next) => {
      present.current = next;
      if (input.current && !isTyped && !isHeld.current) input.current.value = printed(next);
    });
  }, [value, follow, isTyped]);

  const commit = (typed: string) => {
    isHeld.current = false;
    const isEmptied = emptyMeans !== undefined && typed.trim() === '';
    const reading = isEmptied ? { value: '' } : readNumber(typed, takesFractions);
    if ('message' in reading) return setProblem(reading);
    const refusal = refuse?.(reading.value) ?? null;
    if (refusal !== null) return setProblem({ message: refusal });
    setProblem(null);
    setDraft(null);
    if (reading.value !== present.current) onCommit(reading.value);
  };

  return (
    <div className={className}>
      <label htmlFor={id} className={isLabelHidden ? 'sr-only' : 'mb-1 block text-sm text-quiet'}>
        {label}
      </label>
      <input
        ref={input}
        id={id}
        inputMode="decimal"
        autoComplete="off"
        disabled={isDisabled}
        value={draft ?? printed(value)}
        placeholder={emptyMeans}
        aria-invalid={problem !== null}
        aria-describedby={problem ? `${id}-problem` : undefined}
        onChange={(event) => setDraft(event.target.value)}
        onFocus={({ target }) => {
          isHeld.current = true;
          target.select();
        }}
        onBlur={({ target }) => {
          if (draft !== null) return commit(draft);
          isHeld.current = false;
          target.value = printed(present.current);
        }}
        onKeyDown={(event) => {
          if (event.key === 'Enter') commit(event.currentTarget.value);
          if (event.key === 'Escape') {
            isHeld.current = false;
            setDraft(null);
            setProblem(null);
          }
        }}
        className={clsx(
          'w-full min-w-0 rounded-lg border bg-sheet px-2.5 py-1.5 text-ink',
          problem ? 'border-danger' : 'border-rule',
        )}
      />
      {problem && (
        <p id={`${id}-problem`} role="alert" className="mt-1 text-sm text-danger">
          {problem.message}{' '}
          {problem.correction !== undefined && (
            <button
              type="button"
              className="font-semibold underline"
              onClick={() => commit(problem.correction ?? '')}
            >
              Use {problem.correction}
            </button>
          )}
        </p>
      )}
    </div>
  );
}
