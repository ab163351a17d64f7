import { limits, type Entry, type Id } from '@yperkine/demonstration';
import { useRef } from 'react';
import { Button } from '../../../parts/Button.tsx';
import { NumberField } from '../../../parts/NumberField.tsx';
import { refuseDecimals } from '../../../parts/refuseDecimals.ts';
import { setField } from '../../../state/actions.ts';
import { useWorkbench } from '../../../state/context.ts';
import { StandingFields } from '../StandingFields.tsx';

/** Pieces that a teacher would have to remember otherwise: what each puts in, and where the cursor goes. */
const pieces = [
  { label: 'mathematics', before: '$', middle: 'x^2/2', after: '$' },
  { label: 'a live value', before: '{', middle: 'f(1)', after: '}' },
  { label: 'a definition', before: '{definition of ', middle: 'f', after: '}' },
] as const;

/** The field where a note is written, and where and how large it stands. */
export function NoteEditor({ id, entry }: { id: Id; entry: Extract<Entry, { kind: 'note' }> }) {
  const workbench = useWorkbench();
  const area = useRef<HTMLTextAreaElement>(null);
  const { text } = entry;
  const write = (next: string) => setField(workbench, id, 'text', next, `note ${id}`);
  const putIn = ({ before, middle, after }: (typeof pieces)[number]) => {
    const field = area.current;
    if (!field) return;
    const { selectionStart: from, selectionEnd: to } = field;
    const chosen = text.slice(from, to) || middle;
    write(text.slice(0, from) + before + chosen + after + text.slice(to));
    requestAnimationFrame(() => {
      field.focus();
      field.setSelectionRange(from + before.length, from + before.length + chosen.length);
    });
  };
  return (
    <div className="mt-2">
      <textarea
        ref={area}
        autoFocus
        aria-label="Text of the note"
        rows={4}
        maxLength={limits.text}
        value={text}
        onChange={({ target }) => write(target.value)}
        onBlur={() => workbench.seal()}
        onKeyDown={(event) => {
          if (event.key === 'Escape') workbench.openEntry(null);
        }}
        className="w-full rounded-lg border border-rule bg-sheet px-2.5 py-1.5"
      />
      <div className="mt-1 flex flex-wrap items-center gap-1.5 text-sm text-quiet">
        Put in
        {pieces.map((piece) => (
          <button
            key={piece.label}
            type="button"
            onClick={() => putIn(piece)}
            className="rounded-lg border border-rule bg-sheet px-2 py-1 hover:bg-hover hover:text-ink"
          >
            {piece.label}
          </button>
        ))}
      </div>
      <StandingFields id={id} entry={entry} />
      <div className="mt-2.5 grid grid-cols-2 items-end gap-2.5">
        <NumberField
          label="Decimals of its values"
          emptyMeans="as everywhere"
          value={entry.decimals === null ? '' : String(entry.decimals)}
          refuse={(typed) => (typed === '' ? null : refuseDecimals(typed))}
          onCommit={(typed) => setField(workbench, id, 'decimals', typed === '' ? null : Number(typed))}
        />
        <Button onClick={() => workbench.openEntry(null)}>Done</Button>
      </div>
    </div>
  );
}
