import type { Entry, Id } from '@yperkine/demonstration';
import { lazily } from '../../../parts/lazily.tsx';
import { setField } from '../../../state/actions.ts';
import { addSecant } from '../../../state/studies.ts';
import type { MenuAction } from '../../../parts/ActionMenu.tsx';
import type { Workbench } from '../../../state/workbench.ts';
import { Dot, Sketch } from '../Sketch.tsx';
import type { StudyCard } from '../study.ts';

const SecantControls = lazily(async () => (await import('../settings.ts')).SecantControls);

const Picture = () => (
  <Sketch>
    <path d="M10 24 L 108 66" stroke="var(--quiet)" strokeWidth={2} strokeDasharray="2.5 4" />
    <Dot x={44} y={24} />
    <circle cx={83} cy={61} r={4.6} fill="var(--sheet)" stroke="var(--quiet)" strokeWidth={2} />
  </Sketch>
);

const directions = { forward: 'a to a + h', backward: 'a − h to a', symmetric: 'a − h to a + h' } as const;
const tables = {
  none: 'Without a table',
  school: 'Table down to h = 0.001',
  tooSmall: 'Table until the digits run out',
} as const;

function actions(workbench: Workbench, id: Id, entry: Entry): MenuAction[] {
  if (entry.kind !== 'secant') return [];
  const choices = <T extends string>(
    field: string,
    names: Readonly<Record<T, string>>,
    now: T,
    before = '',
  ) =>
    (Object.keys(names) as T[])
      .filter((choice) => choice !== now)
      .map((choice) => ({
        label: before + names[choice],
        run: () => setField(workbench, id, field, choice),
      }));
  return [
    ...choices('direction', directions, entry.direction, 'From '),
    ...choices('table', tables, entry.table),
    {
      label: entry.windowFollows ? 'Keep the window' : 'Let the window follow h',
      run: () => setField(workbench, id, 'windowFollows', !entry.windowFollows),
    },
  ];
}

export const card: StudyCard = {
  kind: 'secant',
  offers: [
    {
      question: 'steep',
      rank: 4,
      title: 'Secant',
      words: 'difference quotients average rate of change limit table forward backward symmetric',
      Picture,
      add: addSecant,
    },
  ],
  actions,
  Controls: SecantControls,
};
