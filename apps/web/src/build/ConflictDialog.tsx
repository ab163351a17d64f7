import { Dialog, DialogPanel, DialogTitle, Radio, RadioGroup } from '@headlessui/react';
import type { Choice, Conflict, Edit } from '@yperkine/demonstration';
import { useState } from 'react';
import { Button } from '../parts/Button.tsx';
import { Veil } from '../parts/Veil.tsx';
import { useWorkbench, useWorkbenchState } from '../state/context.ts';
import { placeInWords, valueInWords } from '../state/placeWords.ts';

/** Asks which of two changes to the same place is to stay. Nothing is lost before the answer. */
export function ConflictDialog() {
  const conflicts = useWorkbenchState((state) => state.conflicts);
  if (conflicts.length === 0) return null;
  return <Question conflicts={conflicts} />;
}

function Question({ conflicts }: { conflicts: readonly Conflict[] }) {
  const workbench = useWorkbench();
  const known = { document: workbench.state.document, resolution: workbench.state.resolution };
  const [choices, setChoices] = useState<ReadonlyMap<string, Choice>>(new Map());
  return (
    <Dialog open onClose={() => undefined} className="relative z-50">
      <Veil />
      <div className="fixed inset-0 grid place-items-center overflow-y-auto p-4">
        <DialogPanel className="card w-full max-w-xl p-6">
          <DialogTitle className="text-xl font-semibold">Changed in two windows</DialogTitle>
          <p className="mt-1 mb-4 text-quiet">
            Another window saved first. Choose what stays; everything else is kept from both.
          </p>
          {conflicts.map((conflict) => (
            <RadioGroup
              key={conflict.place}
              aria-label={placeInWords(conflict.mine, known)}
              value={choices.get(conflict.place) ?? 'mine'}
              onChange={(choice: Choice) => setChoices(new Map([...choices, [conflict.place, choice]]))}
              className="mb-4"
            >
              <p className="mb-1.5 font-semibold">{placeInWords(conflict.mine, known)}</p>
              <Option choice="mine" label="This window" edit={conflict.mine} />
              <Option choice="theirs" label="The other window" edit={conflict.theirs} />
            </RadioGroup>
          ))}
          <Button look="strong" className="w-full" onClick={() => workbench.decide(choices)}>
            Keep the chosen ones
          </Button>
        </DialogPanel>
      </div>
    </Dialog>
  );
}

function Option({ choice, label, edit }: { choice: Choice; label: string; edit: Edit }) {
  return (
    <Radio
      value={choice}
      className="mb-1.5 flex cursor-pointer gap-3 rounded-lg border border-rule px-4 py-2.5 data-checked:border-ink data-checked:bg-hover"
    >
      <span className="w-36 shrink-0 text-quiet">{label}</span>
      <span className="min-w-0 break-words">{valueInWords(edit)}</span>
    </Radio>
  );
}
