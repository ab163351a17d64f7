import { lazily } from '../../../parts/lazily.tsx';
import { addOriginal } from '../../../state/where.ts';
import { Dot, Sketch } from '../Sketch.tsx';
import type { StudyCard } from '../study.ts';

const OriginalControls = lazily(async () => (await import('../settings.ts')).OriginalControls);

const Picture = () => (
  <Sketch>
    <path d="M8 74 L 104 44" stroke="var(--f1)" strokeWidth={2} strokeDasharray="6 4" />
    <Dot x={8} y={60} />
  </Sketch>
);

export const card: StudyCard = {
  kind: 'original',
  offers: [
    {
      question: 'where',
      isOfWhole: true,
      rank: 9,
      title: 'The function behind it',
      words: 'antiderivative start values initial value itself from its derivative original',
      Picture,
      add: (workbench, on) => addOriginal(workbench, on),
    },
  ],
  Controls: OriginalControls,
};
