import { lazily } from '../../../parts/lazily.tsx';
import { addOverInterval } from '../../../state/where.ts';
import { Sketch } from '../Sketch.tsx';
import type { StudyCard } from '../study.ts';

const IntegralControls = lazily(async () => (await import('../settings.ts')).IntegralControls);

const Picture = () => (
  <Sketch>
    <path d="M24 68 V24 C 32 12, 40 14, 46 26 S 72 76, 86 60 V68 Z" fill="var(--f)" fillOpacity={0.22} />
    <path d="M8 68 H106" stroke="var(--quiet)" strokeWidth={1.5} />
  </Sketch>
);

export const card: StudyCard = {
  kind: 'integral',
  offers: [
    {
      question: 'much',
      isOfWhole: true,
      rank: 2,
      title: 'Definite integral',
      words: 'area under a curve signed total exact antiderivative improper infinity',
      Picture,
      add: (workbench, on) => void addOverInterval(workbench, 'integral', on),
    },
  ],
  Controls: IntegralControls,
};
