import type { Entry, Id } from '@yperkine/demonstration';
import { Button, smallButtonClass } from '../../../parts/Button.tsx';
import { NumberField } from '../../../parts/NumberField.tsx';
import { setField } from '../../../state/actions.ts';
import { useWorkbench } from '../../../state/context.ts';
import { IntervalFields } from '../IntervalFields.tsx';

/** The interval, and the height that is tried. */
export function AverageControls({ id, entry }: { readonly id: Id; readonly entry: Entry }) {
  const workbench = useWorkbench();
  if (entry.kind !== 'averageValue') return null;
  return (
    <IntervalFields
      id={id}
      entry={entry}
      after={
        <>
          <NumberField
            label="Height of the rectangle"
            value={entry.height ?? ''}
            emptyMeans="the average value"
            onCommit={(height) => setField(workbench, id, 'height', height === '' ? null : height)}
          />
          {entry.height !== null && (
            <Button className={smallButtonClass} onClick={() => setField(workbench, id, 'height', null)}>
              To the average value
            </Button>
          )}
        </>
      }
    />
  );
}
