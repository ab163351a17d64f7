import { lazily } from '../../../parts/lazily.tsx';
import { addOverInterval } from '../../../state/where.ts';
import { Sketch } from '../Sketch.tsx';
import type { StudyCard } from '../study.ts';

const AverageControls = lazily(async () => (await import('../settings.ts')).AverageControls);

const Picture = () => (
  <Sketch>
    <path
      d="M14 68 V42 H96 V68 Z"
      fill="var(--ink)"
      fillOpacity={0.1}
      stroke="var(--ink)"
      strokeDasharray="4 3"
    />
    <path d="M8 68 H106" stroke="var(--quiet)" strokeWidth={1.5} />
  </Sketch>
);

export const card: StudyCard = {
  kind: 'averageValue',
  offers: [
    {
      question: 'much',
      isOfWhole: true,
      rank: 5,
      title: 'Average value',
      words: 'mean height rectangle of the same area',
      Picture,
      add: (workbench, on) => void addOverInterval(workbench, 'averageValue', on),
    },
  ],
  Controls: AverageControls,
};
