import { addStudy } from '../../../state/studies.ts';
import { Dot, Sketch } from '../Sketch.tsx';
import type { StudyCard } from '../study.ts';

const Picture = () => (
  <Sketch>
    <path d="M42 16 L 88 84" stroke="var(--f1)" strokeWidth={1.4} strokeDasharray="2 4" />
    <path d="M30 71 L 98 24" stroke="var(--ink)" strokeWidth={2} />
    <Dot x={63} y={48} />
  </Sketch>
);

export const card: StudyCard = {
  kind: 'normal',
  offers: [
    {
      question: 'steep',
      rank: 3,
      title: 'Normal',
      words: 'perpendicular right angle line',
      Picture,
      add: (workbench, on, at) => addStudy(workbench, 'normal', on, at),
    },
  ],
};
