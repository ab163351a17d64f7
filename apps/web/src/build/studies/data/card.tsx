import { shapeAction } from '../shape.ts';
import type { StudyCard } from '../study.ts';

const measured = [
  [10, 58],
  [24, 50],
  [36, 53],
  [50, 32],
  [64, 36],
  [78, 20],
  [94, 26],
  [104, 14],
] as const;

const Picture = () => (
  <svg viewBox="0 0 112 80" aria-hidden className="h-16 w-full" fill="none">
    <path d="M8 6 V72 H108" stroke="var(--rule)" strokeWidth={1.6} />
    <path
      d={`M${measured.map((place) => place.join(' ')).join(' L')}`}
      stroke="var(--f)"
      strokeWidth={1.4}
      opacity={0.6}
    />
    {measured.map(([x, y]) => (
      <circle key={x} cx={x} cy={y} r={3.4} fill="var(--f)" />
    ))}
  </svg>
);

export const card: StudyCard = {
  kind: 'data',
  offers: [
    {
      question: 'given',
      rank: 2,
      title: 'From data',
      words: 'measured table csv file paste spreadsheet rows points',
      Picture,
      add: (workbench) => workbench.importing({ table: '', into: null }),
    },
  ],
  actions: (workbench, id, entry) =>
    entry.kind === 'data'
      ? [
          { label: 'Change the data …', run: () => workbench.importing({ table: entry.table, into: id }) },
          shapeAction(workbench, id, entry.shape),
        ]
      : [],
};
