import { lazily } from '../../../parts/lazily.tsx';
import { addThroughPoints } from '../../../state/givens.ts';
import { shapeAction } from '../shape.ts';
import type { StudyCard } from '../study.ts';

const PointsControls = lazily(async () => (await import('../settings.ts')).PointsControls);

const corners = [
  [12, 60],
  [38, 22],
  [68, 48],
  [100, 16],
] as const;

const Picture = () => (
  <svg viewBox="0 0 112 80" aria-hidden className="h-16 w-full" fill="none">
    <path d={`M${corners.map((place) => place.join(' ')).join(' L')}`} stroke="var(--f)" strokeWidth={2.6} />
    {corners.map(([x, y]) => (
      <circle key={x} cx={x} cy={y} r={4.4} fill="var(--sheet)" stroke="var(--f)" strokeWidth={2} />
    ))}
  </svg>
);

export const card: StudyCard = {
  kind: 'throughPoints',
  offers: [
    {
      question: 'given',
      rank: 1,
      title: 'Through points',
      words: 'broken line polygon smooth spline interpolate data function',
      Picture,
      add: (workbench) => void addThroughPoints(workbench),
    },
  ],
  actions: (workbench, id, entry) =>
    entry.kind === 'throughPoints' ? [shapeAction(workbench, id, entry.shape)] : [],
  Controls: PointsControls,
};
