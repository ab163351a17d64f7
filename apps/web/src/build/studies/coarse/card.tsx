import { lazily } from '../../../parts/lazily.tsx';
import { addCoarse } from '../../../state/where.ts';
import { Sketch } from '../Sketch.tsx';
import type { StudyCard } from '../study.ts';

const CoarseControls = lazily(async () => (await import('../settings.ts')).CoarseControls);

const Picture = () => (
  <Sketch isFaint>
    <path d="M8 60 L 46 26 L 86 60 L 104 22" stroke="var(--ink)" strokeWidth={1.8} />
    {[
      [8, 60],
      [46, 26],
      [86, 60],
      [104, 22],
    ].map(([x, y]) => (
      <circle key={x} cx={x} cy={y} r={3} fill="var(--ink)" />
    ))}
  </Sketch>
);

export const card: StudyCard = {
  kind: 'coarse',
  offers: [
    {
      question: 'where',
      isOfWhole: true,
      rank: 8,
      title: 'What joined dots hide',
      words: 'samples coarse plot hidden points sampling artefact',
      Picture,
      add: (workbench, on) => addCoarse(workbench, on),
    },
  ],
  Controls: CoarseControls,
};
