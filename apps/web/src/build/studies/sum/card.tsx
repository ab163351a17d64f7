import { lazily } from '../../../parts/lazily.tsx';
import { addSum } from '../../../state/areas.ts';
import { Sketch } from '../Sketch.tsx';
import type { StudyCard } from '../study.ts';
import { SumBody } from './SumBody.tsx';

const Picture = () => (
  <Sketch isFaint>
    <path
      d="M10 68 V58 H26 V68 M26 68 V26 H42 V68 M42 68 V24 H58 V68 M58 68 V46 H74 V68 M74 68 V63 H90 V68 M8 68 H106"
      stroke="var(--f)"
      strokeWidth={1.8}
      fill="var(--f)"
      fillOpacity={0.14}
    />
  </Sketch>
);

export const card: StudyCard = {
  kind: 'sum',
  offers: [
    {
      question: 'much',
      isOfWhole: true,
      rank: 1,
      title: 'Rectangle sum',
      words:
        'riemann sum rectangles left right midpoint lower upper trapezoids parabolas simpson partition area under',
      Picture,
      add: (workbench, on) => addSum(workbench, on),
    },
  ],
  Body: SumBody,
  Controls: lazily(async () => (await import('./SumControls.tsx')).SumControls),
};
