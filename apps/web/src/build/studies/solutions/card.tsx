import { lazily } from '../../../parts/lazily.tsx';
import { addSolutions } from '../../../state/where.ts';
import { Dot, Sketch } from '../Sketch.tsx';
import type { StudyCard } from '../study.ts';

const SolutionsControls = lazily(async () => (await import('../settings.ts')).SolutionsControls);

const Picture = () => (
  <Sketch>
    <path d="M6 40 L 108 40" stroke="var(--quiet)" strokeWidth={2} strokeDasharray="5 4" />
    <Dot x={24} y={40} />
    <Dot x={56} y={40} />
    <Dot x={96} y={40} />
  </Sketch>
);

export const card: StudyCard = {
  kind: 'solutions',
  offers: [
    {
      question: 'where',
      isOfWhole: true,
      rank: 6,
      title: 'Intersections, solutions',
      words: 'solve equation equal level crossing meet f = k f = g',
      Picture,
      add: (workbench, on) => addSolutions(workbench, on),
    },
  ],
  Controls: SolutionsControls,
};
