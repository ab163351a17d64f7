import type { Id, Standing, TextSize } from '@yperkine/demonstration';
import { SelectField } from '../../parts/SelectField.tsx';
import { setField } from '../../state/actions.ts';
import { useWorkbench } from '../../state/context.ts';
import { firstTierOf, type StandingEntry } from '../../state/texts.ts';
import type { Workbench } from '../../state/workbench.ts';

const places = [
  { value: 'screen', label: 'pinned to the screen' },
  { value: 'graph', label: 'pinned to a place of the graph' },
  { value: 'page', label: 'in the working alone' },
];
const sizes = [
  { value: 'small', label: 'small' },
  { value: 'medium', label: 'medium' },
  { value: 'large', label: 'large' },
  { value: 'title', label: 'a title' },
];

/** Where a text stands, and how large. */
export function StandingFields({ id, entry }: { id: Id; entry: StandingEntry }) {
  const workbench = useWorkbench();
  return (
    <div className="mt-2.5 grid grid-cols-2 gap-2.5">
      <SelectField
        label="Where it stands"
        value={entry.standing.at}
        options={places}
        onChange={(at) => setField(workbench, id, 'standing', standingOf(workbench, at as Standing['at']))}
      />
      <SelectField
        label="Size"
        value={entry.size}
        options={sizes}
        onChange={(size) => setField(workbench, id, 'size', size as TextSize)}
      />
    </div>
  );
}

/** A place to begin with: near the left upper corner of the screen or of the first tier. */
function standingOf(workbench: Workbench, at: Standing['at']): Standing {
  if (at === 'page') return { at };
  if (at === 'screen') return { at, x: 0.12, y: 0.12 };
  const { document } = workbench.state;
  const tier = firstTierOf(workbench);
  const y = document.tiers[tier]?.y ?? { from: -5, to: 5 };
  return {
    at,
    tier,
    x: document.x.from + 0.1 * (document.x.to - document.x.from),
    y: y.to - 0.1 * (y.to - y.from),
  };
}
