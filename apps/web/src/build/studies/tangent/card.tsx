import type { Entry, Id } from '@yperkine/demonstration';
import { NumberField } from '../../../parts/NumberField.tsx';
import { setField } from '../../../state/actions.ts';
import { addStudy } from '../../../state/studies.ts';
import { Dot, Sketch } from '../Sketch.tsx';
import type { StudyCard } from '../study.ts';
import { useSetting } from '../useSetting.ts';

const Picture = () => (
  <Sketch>
    <path d="M42 16 L 88 84" stroke="var(--f1)" strokeWidth={2.2} />
    <Dot x={63} y={47} />
  </Sketch>
);

/** The base of the rise-over-run triangle, while it is drawn. */
function TriangleBase({ id, entry }: { readonly id: Id; readonly entry: Entry }) {
  const set = useSetting(id);
  if (entry.kind !== 'tangent' || !entry.triangle) return null;
  return (
    <NumberField
      label="Base of the triangle"
      value={entry.base}
      onCommit={set('base')}
      className="mt-2 w-40"
    />
  );
}

export const card: StudyCard = {
  kind: 'tangent',
  offers: [
    {
      question: 'steep',
      rank: 2,
      title: 'Tangent',
      words: 'slope gradient line touches rise over run equation',
      Picture,
      add: (workbench, on, at) => addStudy(workbench, 'tangent', on, at),
    },
  ],
  actions: (workbench, id, entry) =>
    entry.kind === 'tangent'
      ? [
          {
            label: entry.triangle ? 'Hide the slope triangle' : 'Show the slope triangle',
            run: () => setField(workbench, id, 'triangle', !entry.triangle),
          },
          {
            label: entry.pointSlope ? 'One form of the equation' : 'Point–slope form, too',
            run: () => setField(workbench, id, 'pointSlope', !entry.pointSlope),
          },
          {
            label: entry.reach === 'line' ? 'Draw a short piece only' : 'Draw the whole line',
            run: () => setField(workbench, id, 'reach', entry.reach === 'line' ? 'piece' : 'line'),
          },
        ]
      : [],
  Controls: TriangleBase,
};
