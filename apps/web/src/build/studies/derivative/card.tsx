import { addDerivative } from '../../../state/studies.ts';
import { Sketch } from '../Sketch.tsx';
import type { StudyCard } from '../study.ts';

const Picture = () => (
  <Sketch>
    <path
      d="M8 14 C 24 30, 30 44, 42 58 S 60 74, 68 56 S 84 14, 92 18 S 102 34, 104 42"
      stroke="var(--f1)"
      strokeWidth={2.2}
      strokeDasharray="5 4.5"
    />
  </Sketch>
);

export const card: StudyCard = {
  kind: 'derivative',
  offers: [
    {
      question: 'steep',
      rank: 5,
      title: 'Derivative',
      words: 'slope curve f prime rate of change own tier',
      Picture,
      add: (workbench, on) => addDerivative(workbench, on),
    },
  ],
};
