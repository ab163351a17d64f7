import { lazily } from '../../../parts/lazily.tsx';
import { addReadout } from '../../../state/texts.ts';
import { Sketch } from '../Sketch.tsx';
import type { StudyCard } from '../study.ts';

const Picture = () => (
  <Sketch isFaint>
    <text x={14} y={40} fill="var(--ink)" stroke="none" fontSize={26} fontWeight={600}>
      4.25
    </text>
  </Sketch>
);

export const card: StudyCard = {
  kind: 'readout',
  offers: [
    {
      question: 'words',
      rank: 4,
      title: 'Large number',
      words: 'live value display least greatest record halt stop',
      Picture,
      add: addReadout,
    },
  ],
  Controls: lazily(async () => (await import('./ReadoutControls.tsx')).ReadoutControls),
};
