import { limits, type Entry, type Id } from '@yperkine/demonstration';
import { TextField } from '../../../parts/TextField.tsx';
import { setField } from '../../../state/actions.ts';
import { useWorkbench, useWorkbenchState } from '../../../state/context.ts';
import { addHeading } from '../../../state/texts.ts';
import { Sketch } from '../Sketch.tsx';
import type { StudyCard } from '../study.ts';

const Picture = () => (
  <Sketch isFaint>
    <path d="M14 20 H 58" stroke="var(--ink)" strokeWidth={6} />
    <path d="M22 36 H 80 M22 48 H 70" stroke="var(--quiet)" strokeWidth={3} />
  </Sketch>
);

/** The title while the heading is open. */
function Body({ id, entry }: { readonly id: Id; readonly entry: Entry }) {
  const workbench = useWorkbench();
  const isOpen = useWorkbenchState((state) => state.open === id);
  if (entry.kind !== 'heading' || !isOpen) return null;
  return (
    <TextField
      label="Heading"
      maxLength={limits.title}
      value={entry.title}
      onCommit={(title) => {
        setField(workbench, id, 'title', title.trim());
        workbench.openEntry(null);
      }}
    />
  );
}

export const card: StudyCard = {
  kind: 'heading',
  offers: [
    {
      question: 'words',
      rank: 2,
      title: 'Heading',
      words: 'group section part fold together',
      Picture,
      add: addHeading,
    },
  ],
  actions: (workbench, id, entry) =>
    entry.kind === 'heading'
      ? [
          { label: 'Change the heading', run: () => workbench.openEntry(id) },
          {
            label: entry.folded ? 'Unfold what is under it' : 'Fold what is under it',
            run: () => setField(workbench, id, 'folded', !entry.folded),
          },
        ]
      : [],
  Body,
};
