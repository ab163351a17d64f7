import type { Entry, Id } from '@yperkine/demonstration';
import { setField } from '../../../state/actions.ts';
import { addStudy, stepOf } from '../../../state/studies.ts';
import type { MenuAction } from '../../../parts/ActionMenu.tsx';
import type { Workbench } from '../../../state/workbench.ts';
import { Dot, Sketch } from '../Sketch.tsx';
import type { StudyCard } from '../study.ts';

const Picture = () => (
  <Sketch isFaint>
    <circle cx={62} cy={42} r={29} fill="var(--sheet)" stroke="var(--ink)" strokeWidth={2} />
    <path d="M42 21 C 54 35, 70 49, 82 63" stroke="var(--f)" strokeWidth={2.6} />
    <path d="M41 23 L 83 61" stroke="var(--f1)" strokeWidth={1.8} />
    <Dot x={62} y={42} />
  </Sketch>
);

const magnifications = [10, 100, 1000, 10_000] as const;

function actions(workbench: Workbench, id: Id, entry: Entry): MenuAction[] {
  if (entry.kind !== 'lens') return [];
  const isFixed = entry.follows === null;
  const fixed = magnifications
    .filter((times) => !isFixed || times !== entry.magnification)
    .map((times) => ({
      label: `Magnify ${String(times)} times`,
      run: () => {
        setField(workbench, id, 'follows', null, `lens ${id}`);
        setField(workbench, id, 'magnification', times, `lens ${id}`);
      },
    }));
  const step = stepOf(workbench, entry.on);
  return step && isFixed
    ? [...fixed, { label: 'Follow the step h', run: () => setField(workbench, id, 'follows', step) }]
    : fixed;
}

export const card: StudyCard = {
  kind: 'lens',
  offers: [
    {
      question: 'steep',
      rank: 6,
      title: 'Lens',
      words: 'magnifier zoom locally straight local linearity',
      Picture,
      add: (workbench, on, at) => addStudy(workbench, 'lens', on, at),
    },
  ],
  actions,
};
