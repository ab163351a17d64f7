import { readPoints, writePoints, type Entry, type Id } from '@yperkine/demonstration';
import { TextField } from '../../../parts/TextField.tsx';
import { useWorkbenchState } from '../../../state/context.ts';
import { UnitField } from '../UnitField.tsx';
import { useSetting } from '../useSetting.ts';

/** Two columns, as a spreadsheet copies them, in the notation of the field. */
function pointsFromLines(pasted: string): string | null {
  const reading = readPoints(pasted);
  return pasted.includes('\n') && reading.ok ? writePoints(reading.points) : null;
}

/** The points as text: typed, or pasted as two columns. They follow what is dragged on the graph. */
export function PointsControls({ id, entry }: { readonly id: Id; readonly entry: Entry }) {
  const set = useSetting(id);
  const staged = useWorkbenchState(({ stage }) => stage.values[id]);
  if (entry.kind !== 'throughPoints') return null;
  return (
    <div className="mt-2.5 grid grid-cols-[3fr_1fr] gap-2.5">
      <TextField
        label="Points"
        value={typeof staged === 'string' ? staged : entry.points}
        onCommit={set('points')}
        fromLines={pointsFromLines}
      />
      <UnitField value={entry.unit} onCommit={set('unit')} />
    </div>
  );
}
