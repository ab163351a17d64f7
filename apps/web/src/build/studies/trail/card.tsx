import type { Entry, Id } from '@yperkine/demonstration';
import { Button } from '../../../parts/Button.tsx';
import { NumberField } from '../../../parts/NumberField.tsx';
import { SelectField } from '../../../parts/SelectField.tsx';
import { setField } from '../../../state/actions.ts';
import { useWorkbench } from '../../../state/context.ts';
import type { StudyCard } from '../study.ts';

const drawings = [
  { value: 'dots', label: 'dots' },
  { value: 'line', label: 'a line' },
];

function Controls({ id, entry }: { readonly id: Id; readonly entry: Entry }) {
  const workbench = useWorkbench();
  if (entry.kind !== 'trail') return null;
  return (
    <div className="mt-2 grid grid-cols-2 items-end gap-2.5">
      <SelectField
        label="It leaves"
        value={entry.drawn}
        options={drawings}
        onChange={(drawn) => setField(workbench, id, 'drawn', drawn)}
      />
      <NumberField
        label="At most"
        value={String(entry.limit)}
        refuse={(text) =>
          /^\d+$/.test(text) && Number(text) >= 2 && Number(text) <= 5000
            ? null
            : 'This is a whole number from 2 to 5000.'
        }
        onCommit={(text) => setField(workbench, id, 'limit', Number(text))}
      />
      <Button onClick={() => workbench.clearTrails()}>Clear the trails</Button>
    </div>
  );
}

export const card: StudyCard = { kind: 'trail', offers: [], Controls };
