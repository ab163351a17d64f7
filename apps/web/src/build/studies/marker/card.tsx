import { inOrder, type Entry, type Id } from '@yperkine/demonstration';
import { SelectField } from '../../../parts/SelectField.tsx';
import { TextField } from '../../../parts/TextField.tsx';
import { setField } from '../../../state/actions.ts';
import { useWorkbench, useWorkbenchState } from '../../../state/context.ts';
import { addMarker } from '../../../state/texts.ts';
import { nameOfTier } from '../../../state/tiers.ts';
import { Dot, Sketch } from '../Sketch.tsx';
import type { StudyCard } from '../study.ts';

const Picture = () => (
  <Sketch>
    <Dot x={30} y={20} tone="f1" />
    <Dot x={46} y={26} tone="f1" />
    <Dot x={63} y={50} tone="f1" />
  </Sketch>
);

function Controls({ id, entry }: { readonly id: Id; readonly entry: Entry }) {
  const workbench = useWorkbench();
  const tiers = useWorkbenchState((state) => state.document.tiers);
  if (entry.kind !== 'marker') return null;
  return (
    <div className="mt-2 grid grid-cols-2 gap-2.5">
      <TextField label="Across" value={entry.x} onCommit={(text) => setField(workbench, id, 'x', text)} />
      <TextField label="Up" value={entry.y} onCommit={(text) => setField(workbench, id, 'y', text)} />
      {Object.keys(tiers).length > 1 && (
        <SelectField
          label="Drawn with"
          value={entry.tier}
          options={inOrder(tiers).map(([tier]) => ({ value: tier, label: nameOfTier(workbench, tier) }))}
          onChange={(tier) => setField(workbench, id, 'tier', tier)}
        />
      )}
    </div>
  );
}

export const card: StudyCard = {
  kind: 'marker',
  offers: [
    {
      question: 'words',
      rank: 3,
      title: 'Marker',
      words: 'point walker coordinates moving formula',
      Picture,
      add: addMarker,
    },
  ],
  Controls,
};
