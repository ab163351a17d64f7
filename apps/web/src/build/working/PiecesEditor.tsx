import { type Scope } from '@yperkine/core';
import { Plus, X } from 'lucide-react';
import { useState, type FocusEvent } from 'react';
import { Button, IconButton } from '../../parts/Button.tsx';
import { faultOfRow, readPieces, withTypedVariable, writePieces, type PieceRow } from './pieces.ts';

interface PiecesEditorProps {
  readonly text: string;
  readonly scope: Scope;
  readonly onChange: (text: string) => void;
}

/** A function with one row per piece and its condition. What can be read takes effect at once; the rest waits in its row. */
export function PiecesEditor({ text, scope, onChange }: PiecesEditorProps) {
  const [draft, setDraft] = useState<readonly PieceRow[] | null>(null);
  const reading = readPieces(text, scope);
  if (!reading) return null;
  const { head, variable } = reading;
  const faultsOf = (list: readonly PieceRow[]) =>
    list.map((row, i) => faultOfRow(row, i === list.length - 1, variable, scope));
  const isSound = (list: readonly PieceRow[]) => faultsOf(list).every((fault) => fault === null);
  // What was typed stays as typed, until the text is changed elsewhere, as by undo.
  const isOwn = draft !== null && (!isSound(draft) || writePieces(head, draft) === text);
  const rows = isOwn ? draft : reading.rows;
  const faults = isOwn ? faultsOf(rows) : [];

  const change = (next: readonly PieceRow[]) => {
    setDraft(next);
    if (isSound(next)) onChange(writePieces(head, next));
  };
  /** What is written in another letter is a function of that, once all of it is written. */
  const settle = ({ currentTarget, relatedTarget }: FocusEvent) => {
    if (currentTarget.contains(relatedTarget)) return;
    const other = withTypedVariable(rows, variable, scope);
    if (!other) return;
    setDraft(other.rows);
    onChange(writePieces(head.replace(`(${variable})`, `(${other.variable})`), other.rows));
  };
  const set = (i: number, part: Partial<PieceRow>) =>
    change(rows.map((row, j) => (j === i ? { ...row, ...part } : row)));
  const add = () => {
    const last = rows.at(-1);
    const isOtherwise = last?.condition.trim() === '';
    const boundary = `${variable} < 0`;
    change(
      isOtherwise
        ? [...rows.slice(0, -1), { value: '0', condition: boundary }, last]
        : [...rows, { value: '0', condition: '' }],
    );
  };

  return (
    <fieldset onBlur={settle} className="mt-2 rounded-[10px] border border-rule p-2.5">
      <legend className="px-1 text-sm text-quiet">{head} in pieces</legend>
      {rows.map((row, i) => {
        const fault = faults[i];
        return (
          <div key={i} className="mb-1.5">
            <div className="flex items-center gap-1.5">
              <input
                aria-label={`Piece ${i + 1}`}
                value={row.value}
                aria-invalid={Boolean(fault)}
                onChange={(event) => set(i, { value: event.target.value })}
                className={fieldClass}
              />
              <span className="text-sm text-quiet">{row.condition.trim() === '' ? '' : 'if'}</span>
              <input
                aria-label={`Where piece ${i + 1} holds`}
                value={row.condition}
                placeholder="otherwise"
                onChange={(event) => set(i, { condition: event.target.value })}
                className={fieldClass}
              />
              <IconButton
                label={`Remove piece ${i + 1}`}
                disabled={rows.length === 1}
                onClick={() => change(rows.filter((_, j) => j !== i))}
              >
                <X size={17} aria-hidden />
              </IconButton>
            </div>
            {fault && (
              <p role="alert" className="mt-1 text-sm text-danger">
                {fault}
              </p>
            )}
          </div>
        );
      })}
      <Button look="bare" className="min-h-9 px-2!" onClick={add}>
        <Plus size={16} aria-hidden /> A further piece
      </Button>
    </fieldset>
  );
}

const fieldClass =
  'min-h-9 w-full min-w-0 flex-1 rounded-lg border border-rule bg-sheet px-2.5 py-1.5 text-ink';
