import { lazily } from '../../../parts/lazily.tsx';
import { addOverInterval } from '../../../state/where.ts';
import { Sketch } from '../Sketch.tsx';
import type { StudyCard } from '../study.ts';

const JoinsControls = lazily(async () => (await import('../settings.ts')).JoinsControls);

const Picture = () => (
  <Sketch isFaint>
    <path d="M10 60 Q 34 52 52 30 L 102 52" stroke="var(--f)" strokeWidth={2.6} />
    <path d="M52 22 l8 8 l-8 8 l-8 -8 z" fill="var(--ink)" />
  </Sketch>
);

export const card: StudyCard = {
  kind: 'joins',
  offers: [
    {
      question: 'where',
      isOfWhole: true,
      rank: 5,
      title: 'Joins of the pieces',
      words: 'piecewise continuous differentiable smooth corner jump one-sided',
      Picture,
      add: (workbench, on) => void addOverInterval(workbench, 'joins', on),
    },
  ],
  Controls: JoinsControls,
};
