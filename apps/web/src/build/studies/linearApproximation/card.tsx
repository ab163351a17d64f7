import type { Entry, Id } from '@yperkine/demonstration';
import { TextField } from '../../../parts/TextField.tsx';
import { IntervalFields } from '../IntervalFields.tsx';
import { Dot, Sketch } from '../Sketch.tsx';
import type { StudyCard } from '../study.ts';
import { useSetting } from '../useSetting.ts';
import { addLinearApproximation } from './add.ts';

const Picture = () => (
  <Sketch>
    <path d="M42 16 L 88 84" stroke="var(--g)" strokeWidth={2.2} strokeDasharray="6 4" />
    <path d="M78 69 L 78 34" stroke="var(--ink)" strokeWidth={2.4} />
    <Dot x={63} y={47} />
  </Sketch>
);

/** How much it may be off, and where that is looked for. */
function Controls({ id, entry }: { readonly id: Id; readonly entry: Entry }) {
  const set = useSetting(id);
  if (entry.kind !== 'linearApproximation') return null;
  return (
    <IntervalFields id={id} entry={entry}>
      <div className="col-span-2">
        <TextField label="Tolerance" value={entry.tolerance} onCommit={set('tolerance')} />
      </div>
    </IntervalFields>
  );
}

export const card: StudyCard = {
  kind: 'linearApproximation',
  offers: [
    {
      question: 'steep',
      rank: 3.5,
      title: 'Linear approximation',
      words: 'tangent line differential error difference tolerance estimate linearization local',
      Picture,
      add: addLinearApproximation,
    },
  ],
  Controls,
};
