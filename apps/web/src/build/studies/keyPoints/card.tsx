import { lazily } from '../../../parts/lazily.tsx';
import { addOverInterval } from '../../../state/where.ts';
import { Dot, Sketch } from '../Sketch.tsx';
import type { StudyCard } from '../study.ts';

const KeyPointsControls = lazily(async () => (await import('../settings.ts')).KeyPointsControls);

const Picture = () => (
  <Sketch>
    <Dot x={37} y={20} />
    <Dot x={80} y={63} />
    <circle cx={56} cy={40} r={4} fill="var(--sheet)" stroke="var(--f)" strokeWidth={2} />
    <rect x={4} y={56} width={8} height={8} fill="var(--f)" stroke="var(--sheet)" />
  </Sketch>
);

export const card: StudyCard = {
  kind: 'keyPoints',
  offers: [
    {
      question: 'where',
      rank: 1,
      title: 'Key points',
      words: 'extrema maximum minimum high low zero root inflection end points absolute local pole jump',
      Picture,
      add: (workbench, on) => void addOverInterval(workbench, 'keyPoints', on),
    },
  ],
  Controls: KeyPointsControls,
};
