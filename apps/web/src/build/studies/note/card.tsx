import { limits, type Entry, type Id, type NoteResult } from '@yperkine/demonstration';
import { useRef } from 'react';
import { Button } from '../../../parts/Button.tsx';
import { NumberField } from '../../../parts/NumberField.tsx';
import { refuseDecimals } from '../../../parts/refuseDecimals.ts';
import { FormulaLine } from '../../../parts/Typeset.tsx';
import { setField } from '../../../state/actions.ts';
import { useResolved, useWorkbench, useWorkbenchState } from '../../../state/context.ts';
import { addNote } from '../../../state/texts.ts';
import { Problem } from '../../working/Problem.tsx';
import { Sketch } from '../Sketch.tsx';
import { StandingFields } from '../StandingFields.tsx';
import type { StudyCard } from '../study.ts';

const Picture = () => (
  <Sketch isFaint>
    <path d="M14 18 H 66 M14 29 H 74 M14 40 H 52" stroke="var(--ink)" strokeWidth={3} />
  </Sketch>
);

interface BodyProps {
  readonly id: Id;
  readonly entry: Entry;
}

/** The note as it reads, and while it is open the field where it is written. */
function Body({ id, entry }: BodyProps) {
  const workbench = useWorkbench();
  const isOpen = useWorkbenchState((state) => state.open === id);
  if (entry.kind !== 'note') return null;
  return (
    <>
      <div className="relative min-h-8">
        <button
          type="button"
          aria-label="Change the note"
          onClick={() => workbench.openEntry(isOpen ? null : id)}
          className="absolute inset-0 rounded-lg hover:bg-hover"
        />
        <div className="pointer-events-none relative [&_button]:pointer-events-auto">
          <Paragraphs id={id} isEmpty={entry.text === ''} />
        </div>
      </div>
      {isOpen && <Editor id={id} entry={entry} />}
      <Fault id={id} />
    </>
  );
}

function Paragraphs({ id, isEmpty }: { id: Id; isEmpty: boolean }) {
  const outcome = useResolved(id)?.outcome;
  if (isEmpty) return <p className="py-1 text-quiet">An empty note</p>;
  if (!outcome?.ok) return null;
  return (outcome.result as NoteResult).lines.map((line, i) => (
    <p key={i} className="min-h-[1lh] py-0.5">
      <FormulaLine line={line} isProse />
    </p>
  ));
}

/** Which of its values cannot be worked out. */
function Fault({ id }: { id: Id }) {
  const outcome = useResolved(id)?.outcome;
  const fault = outcome?.ok ? (outcome.result as NoteResult).fault : null;
  if (!fault) return null;
  const { message, missingName } = fault.problem;
  return <Problem message={`In {${fault.text}}: ${message}`} missingName={missingName} />;
}

/** Pieces that a teacher would have to remember otherwise: what each puts in, and where the cursor goes. */
const pieces = [
  { label: 'mathematics', before: '$', middle: 'x^2/2', after: '$' },
  { label: 'a live value', before: '{', middle: 'f(1)', after: '}' },
  { label: 'a definition', before: '{definition of ', middle: 'f', after: '}' },
] as const;

function Editor({ id, entry }: { id: Id; entry: Extract<Entry, { kind: 'note' }> }) {
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

export const card: StudyCard = {
  kind: 'note',
  offers: [
    {
      question: 'words',
      rank: 1,
      title: 'Note',
      words: 'text title explanation sentence words definition',
      Picture,
      add: addNote,
    },
  ],
  actions: (workbench, id) => [{ label: 'Change the note', run: () => workbench.openEntry(id) }],
  Body,
};
