import { lazily } from '../../../parts/lazily.tsx';
import { addReading } from '../../../state/where.ts';
import { Sketch } from '../Sketch.tsx';
import type { StudyCard } from '../study.ts';

const ReadingControls = lazily(async () => (await import('../settings.ts')).ReadingControls);

const Picture = () => (
  <Sketch isFaint>
    <path d="M8 40 L 106 40" stroke="var(--quiet)" strokeWidth={1.5} />
    <path d="M10 62 C 34 58, 52 30, 104 22" stroke="var(--f1)" strokeWidth={2.6} strokeDasharray="6 4" />
    <circle cx={56} cy={40} r={4.6} fill="var(--f)" stroke="var(--sheet)" strokeWidth={1.5} />
    <path d="M66 60 h36 M66 67 h28" stroke="var(--ink)" strokeWidth={1.6} />
  </Sketch>
);

export const card: StudyCard = {
  kind: 'reading',
  offers: [
    {
      question: 'where',
      isOfWhole: true,
      rank: 4,
      title: 'Read f from its derivative',
      words: 'reading f prime second derivative graph extrema inflection reasons sentences',
      Picture,
      add: (workbench, on) => addReading(workbench, on),
    },
  ],
  Controls: ReadingControls,
};
