import { addInPieces } from '../../../state/givens.ts';
import type { StudyCard } from '../study.ts';

const Picture = () => (
  <svg viewBox="0 0 112 80" aria-hidden className="h-16 w-full" fill="none" strokeLinecap="round">
    <path d="M8 62 C 22 62, 30 40, 44 34" stroke="var(--f)" strokeWidth={2.6} />
    <path d="M44 20 L 76 20" stroke="var(--f)" strokeWidth={2.6} />
    <path d="M76 20 C 88 22, 96 44, 104 64" stroke="var(--f)" strokeWidth={2.6} />
    <circle cx={44} cy={34} r={4} fill="var(--sheet)" stroke="var(--f)" strokeWidth={2} />
    <circle cx={44} cy={20} r={4} fill="var(--f)" />
  </svg>
);

export const card: StudyCard = {
  kind: 'function',
  offers: [
    {
      question: 'given',
      rank: 0,
      title: 'In pieces',
      words: 'piecewise function by cases condition if otherwise profile domain',
      Picture,
      add: (workbench) => addInPieces(workbench),
    },
  ],
};
