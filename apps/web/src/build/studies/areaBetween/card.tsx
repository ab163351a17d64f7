import { lazily } from '../../../parts/lazily.tsx';
import { addAreaBetween } from '../../../state/areas.ts';
import { Sketch } from '../Sketch.tsx';
import type { StudyCard } from '../study.ts';

const AreaBetweenControls = lazily(async () => (await import('../settings.ts')).AreaBetweenControls);

const Picture = () => (
  <Sketch>
    <path d="M16 44 C 26 14, 38 12, 46 26 S 58 52, 63 56 Z" fill="var(--f)" fillOpacity={0.22} />
    <path d="M8 40 L 104 68" stroke="var(--g)" strokeWidth={2.4} />
  </Sketch>
);

export const card: StudyCard = {
  kind: 'areaBetween',
  offers: [
    {
      question: 'much',
      isOfWhole: true,
      rank: 3,
      title: 'Area between two curves',
      words: 'enclosed region difference of functions crossing',
      Picture,
      add: (workbench, on) => addAreaBetween(workbench, on),
    },
  ],
  Controls: AreaBetweenControls,
};
