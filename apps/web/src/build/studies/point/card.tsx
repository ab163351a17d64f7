import { addStudy } from '../../../state/studies.ts';
import { Dot, Sketch } from '../Sketch.tsx';
import type { StudyCard } from '../study.ts';

const Picture = () => (
  <Sketch>
    <Dot x={63} y={50} />
  </Sketch>
);

export const card: StudyCard = {
  kind: 'point',
  offers: [
    {
      question: 'steep',
      rank: 1,
      title: 'Point on the curve',
      words: 'value height coordinates f(a)',
      Picture,
      add: (workbench, on, at) => addStudy(workbench, 'point', on, at),
    },
  ],
};
