import { lazily } from '../../../parts/lazily.tsx';
import { setField } from '../../../state/actions.ts';
import { keepTrial } from '../../../state/trials.ts';
import { Sketch } from '../Sketch.tsx';
import type { StudyCard } from '../study.ts';

const Picture = () => (
  <Sketch isFaint>
    <path d="M16 18 H 78 M16 32 H 78 M16 46 H 78 M36 12 V 52" stroke="var(--ink)" strokeWidth={2} />
  </Sketch>
);

export const card: StudyCard = {
  kind: 'trials',
  offers: [
    {
      question: 'words',
      rank: 5,
      title: 'Table of trials',
      words: 'keep trial compare rows record values',
      Picture,
      add: keepTrial,
    },
  ],
  actions: (workbench, id, entry) =>
    entry.kind === 'trials' && entry.rows.length > 0
      ? [
          {
            label: 'Take the last row away',
            run: () => setField(workbench, id, 'rows', entry.rows.slice(0, -1)),
          },
          { label: 'Take all rows away', run: () => setField(workbench, id, 'rows', []) },
        ]
      : [],
  Controls: lazily(async () => (await import('./TrialsControls.tsx')).TrialsControls),
};
