import { addSlopeEquals } from '../../../state/studies.ts';
import { Sketch } from '../Sketch.tsx';
import type { StudyCard } from '../study.ts';
import { SlopeEqualsControls } from './SlopeEqualsControls.tsx';

const Picture = () => (
  <Sketch>
    <path d="M18 20 L 56 20 M 68 67 L 100 67" stroke="var(--f1)" strokeWidth={2.4} />
  </Sketch>
);

export const card: StudyCard = {
  kind: 'slopeEquals',
  offers: [
    {
      question: 'steep',
      rank: 7,
      title: 'Where is the slope k?',
      words: 'solve f prime equals horizontal level parallel',
      Picture,
      add: (workbench, on) => addSlopeEquals(workbench, on),
    },
  ],
  Controls: SlopeEqualsControls,
};
