import { lazily } from '../../../parts/lazily.tsx';
import { addValueTable } from '../../../state/studies.ts';
import { Dot, Sketch } from '../Sketch.tsx';
import type { StudyCard } from '../study.ts';

const ValueTableControls = lazily(async () => (await import('../settings.ts')).ValueTableControls);

const Picture = () => (
  <Sketch isFaint>
    <Dot x={16} y={42} />
    <Dot x={38} y={18} />
    <Dot x={60} y={46} />
    <Dot x={82} y={62} />
    <path d="M14 74 H 98" stroke="var(--quiet)" strokeWidth={1.4} strokeDasharray="10 4" />
  </Sketch>
);

export const card: StudyCard = {
  kind: 'valueTable',
  offers: [
    {
      question: 'steep',
      rank: 8,
      title: 'Table of values',
      words: 'list rows columns numbers spreadsheet f(x)',
      Picture,
      add: (workbench, on) => addValueTable(workbench, on),
    },
  ],
  Controls: ValueTableControls,
};
