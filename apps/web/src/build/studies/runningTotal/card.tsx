import type { Entry, Id } from '@yperkine/demonstration';
import { TextField } from '../../../parts/TextField.tsx';
import { addRunningTotal } from '../../../state/areas.ts';
import { addDerivative } from '../../../state/studies.ts';
import { Sketch } from '../Sketch.tsx';
import type { StudyCard } from '../study.ts';
import { useSetting } from '../useSetting.ts';

const Picture = () => (
  <Sketch isFaint>
    <path
      d="M8 70 C 30 58, 34 30, 58 22 S 92 26, 104 20"
      stroke="var(--total)"
      strokeWidth={2.6}
      strokeDasharray="6 4"
    />
  </Sketch>
);

function Controls({ id, entry }: { readonly id: Id; readonly entry: Entry }) {
  const set = useSetting(id);
  if (entry.kind !== 'runningTotal') return null;
  return (
    <div className="mt-2.5 grid grid-cols-2 gap-2">
      <TextField label="From" value={entry.from} onCommit={set('from')} />
      <TextField label="Name" value={entry.name} onCommit={set('name')} maxLength={60} />
    </div>
  );
}

export const card: StudyCard = {
  kind: 'runningTotal',
  offers: [
    {
      question: 'much',
      rank: 4,
      title: 'Running total',
      words: 'accumulation function integral as a function area so far fundamental theorem',
      Picture,
      add: addRunningTotal,
    },
  ],
  actions: (workbench, id, entry) =>
    entry.kind === 'runningTotal'
      ? [{ label: 'Draw its slope on a tier of its own', run: () => addDerivative(workbench, id) }]
      : [],
  Controls,
};
