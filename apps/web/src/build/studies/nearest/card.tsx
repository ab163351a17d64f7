import type { Entry, Id } from '@yperkine/demonstration';
import type { MenuAction } from '../../../parts/ActionMenu.tsx';
import { lazily } from '../../../parts/lazily.tsx';
import { addDistance, addNearest } from '../../../state/where.ts';
import type { Workbench } from '../../../state/workbench.ts';
import { Dot, Sketch } from '../Sketch.tsx';
import type { StudyCard } from '../study.ts';

const NearestControls = lazily(async () => (await import('../settings.ts')).NearestControls);

const Picture = () => (
  <Sketch>
    <path d="M74 14 L 52 33" stroke="var(--ink)" strokeWidth={2} />
    <Dot x={74} y={14} tone="ink" />
    <Dot x={52} y={33} />
  </Sketch>
);

const actions = (workbench: Workbench, id: Id, entry: Entry): MenuAction[] =>
  entry.kind === 'nearest'
    ? [{ label: 'Draw the distance as a function', run: () => addDistance(workbench, id) }]
    : [];

export const card: StudyCard = {
  kind: 'nearest',
  offers: [
    {
      question: 'where',
      rank: 7,
      title: 'Nearest point',
      words: 'distance smallest shortest closest point to a curve segment',
      Picture,
      add: addNearest,
    },
  ],
  actions,
  Controls: NearestControls,
};
