import { addMeanValue } from '../../../state/where.ts';
import { Dot, Sketch } from '../Sketch.tsx';
import type { StudyCard } from '../study.ts';

const Picture = () => (
  <Sketch>
    <path d="M8 60 L 104 22" stroke="var(--quiet)" strokeWidth={2} strokeDasharray="2.5 4" />
    <path d="M14 30 L 58 12.5 M 58 74 L 104 56" stroke="var(--f1)" strokeWidth={2.4} />
    <Dot x={8} y={60} />
    <Dot x={104} y={22} />
  </Sketch>
);

export const card: StudyCard = {
  kind: 'meanValue',
  offers: [
    {
      question: 'where',
      isOfWhole: true,
      rank: 10,
      title: 'Mean value theorem',
      words: 'parallel tangent secant rolle average rate of change',
      Picture,
      add: (workbench, on) => addMeanValue(workbench, on),
    },
  ],
};
