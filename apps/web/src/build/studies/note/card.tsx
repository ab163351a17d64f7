import type { Entry, Id, NoteResult } from '@yperkine/demonstration';
import { lazily } from '../../../parts/lazily.tsx';
import { FormulaLine } from '../../../parts/Typeset.tsx';
import { useResolved, useWorkbench, useWorkbenchState, useSaid } from '../../../state/context.ts';
import { addNote } from '../../../state/texts.ts';
import { Problem } from '../../working/Problem.tsx';
import { Sketch } from '../Sketch.tsx';
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
  const said = useSaid(id);
  if (isEmpty) return <p className="py-1 text-quiet">An empty note</p>;
  return said?.lines.map((line, i) => (
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

const Editor = lazily(async () => (await import('./NoteEditor.tsx')).NoteEditor);

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
