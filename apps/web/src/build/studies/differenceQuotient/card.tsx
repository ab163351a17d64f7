import { setField } from '../../../state/actions.ts';
import { addDifferenceQuotient } from '../../../state/studies.ts';
import { Sketch } from '../Sketch.tsx';
import type { StudyCard } from '../study.ts';

const Picture = () => (
  <Sketch isFaint>
    <path d="M8 20 C 26 64, 42 78, 60 44 S 92 12, 104 60" stroke="var(--f1)" strokeWidth={2.2} />
    <path
      d="M8 28 C 26 66, 44 74, 62 46 S 92 20, 104 54"
      stroke="var(--g)"
      strokeWidth={2.4}
      strokeDasharray="1 5"
    />
  </Sketch>
);

const directions = {
  forward: 'Forward: from x to x + h',
  backward: 'Backward: from x − h to x',
  symmetric: 'Symmetric: from x − h to x + h',
} as const;

export const card: StudyCard = {
  kind: 'differenceQuotient',
  offers: [
    {
      question: 'steep',
      rank: 5.5,
      title: 'Numerical derivative',
      words: 'difference quotient step h approximate slope curve secants',
      Picture,
      add: (workbench, on) => addDifferenceQuotient(workbench, on),
    },
  ],
  actions: (workbench, id, entry) =>
    entry.kind === 'differenceQuotient'
      ? (Object.keys(directions) as (keyof typeof directions)[])
          .filter((direction) => direction !== entry.direction)
          .map((direction) => ({
            label: directions[direction],
            run: () => setField(workbench, id, 'direction', direction),
          }))
      : [],
};
