import { lazily } from '../../../parts/lazily.tsx';
import { addHolds } from '../../../state/where.ts';
import { Sketch } from '../Sketch.tsx';
import type { StudyCard } from '../study.ts';

const HoldsControls = lazily(async () => (await import('../settings.ts')).HoldsControls);

const Picture = () => (
  <Sketch>
    <path d="M46 26 C 58 40, 72 76, 86 60" stroke="var(--f)" strokeWidth={7} opacity={0.75} />
  </Sketch>
);

export const card: StudyCard = {
  kind: 'holds',
  offers: [
    {
      question: 'where',
      isOfWhole: true,
      rank: 3,
      title: 'Where a condition holds',
      words: 'emphasise part of a curve highlight inequality',
      Picture,
      add: (workbench, on) => addHolds(workbench, on),
    },
  ],
  Controls: HoldsControls,
};
