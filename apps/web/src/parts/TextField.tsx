import { limits } from '@yperkine/demonstration';
import { useId, useState } from 'react';

interface TextFieldProps {
  readonly label: string;
  readonly value: string;
  /** False where the text cannot be taken: it stays in the field. */
  readonly onCommit: (value: string) => unknown;
  /** What an empty field stands for. */
  readonly placeholder?: string;
  readonly maxLength?: number;
  /** What a pasted text of several lines becomes in this one; null leaves it to the browser. */
  readonly fromLines?: (pasted: string) => string | null;
}

/** A field for a short text or formula. What is typed takes effect with Enter or on leaving; Escape takes it back. */
export function TextField({
  label,
  value,
  onCommit,
  placeholder,
  maxLength = limits.text,
  fromLines,
}: TextFieldProps) {
  const [draft, setDraft] = useState<string | null>(null);
  const id = useId();
  const commit = () => {
    const isRefused = draft !== null && draft !== value && onCommit(draft) === false;
    if (!isRefused) setDraft(null);
  };
  return (
    <div>
      <label htmlFor={id} className="mb-1 block text-sm text-quiet">
        {label}
      </label>
      <input
        id={id}
        autoComplete="off"
        autoCapitalize="off"
        spellCheck={false}
        placeholder={placeholder}
        maxLength={maxLength}
        value={draft ?? value}
        onChange={(event) => setDraft(event.target.value)}
        onPaste={(event) => {
          const line = fromLines?.(event.clipboardData.getData('text/plain')) ?? null;
          if (line === null) return;
          event.preventDefault();
          setDraft(null);
          onCommit(line);
        }}
        onFocus={(event) => event.target.select()}
        onBlur={commit}
        onKeyDown={(event) => {
          if (event.key === 'Enter') commit();
          if (event.key === 'Escape' && draft !== null) {
            // The first Escape is the field's own: a dialog around it closes with the second.
            event.preventDefault();
            event.stopPropagation();
            setDraft(null);
          }
        }}
        className="w-full min-w-0 rounded-lg border border-rule bg-sheet px-2.5 py-1.5 text-ink"
      />
    </div>
  );
}
