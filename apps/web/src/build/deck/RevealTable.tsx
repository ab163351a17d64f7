import { Dialog, DialogPanel, DialogTitle } from '@headlessui/react';
import {
  curveOf,
  headOfEntry,
  inOrder,
  limits,
  revealUse,
  type CurveResult,
  type Entry,
  type EntryOf,
  type Id,
} from '@yperkine/demonstration';
import { Plus, Trash2 } from 'lucide-react';
import { useState } from 'react';
import { Button, IconButton } from '../../parts/Button.tsx';
import { TextField } from '../../parts/TextField.tsx';
import { Veil } from '../../parts/Veil.tsx';
import { removeEntry, setField } from '../../state/actions.ts';
import { useWorkbench, useWorkbenchState } from '../../state/context.ts';
import {
  addReveal,
  renameReveal,
  revealsOf,
  showBy,
  spokenName,
  titleOfReveal,
} from '../../state/reveals.ts';
import { ConditionField } from '../working/ShownWhen.tsx';

type Reveal = [Id, EntryOf<'reveal'>];

/** All conditions in one place: which reveal shows which entry, and the condition itself. */
export function RevealTable({ onClose }: { onClose: () => void }) {
  const workbench = useWorkbench();
  const document = useWorkbenchState((state) => state.document);
  const [problem, setProblem] = useState<string | null>(null);
  const reveals = revealsOf(document);
  const rows = inOrder(document.entries).filter(([, { kind }]) => kind !== 'reveal');
  return (
    <Dialog open onClose={onClose} className="relative z-40">
      <Veil />
      <div className="fixed inset-0 flex items-start justify-center overflow-y-auto p-3 sm:p-8">
        <DialogPanel className="card w-full max-w-4xl p-5 sm:p-7">
          <DialogTitle className="text-xl font-semibold">What shows when</DialogTitle>
          <p className="mt-1 mb-4 max-w-prose text-quiet">
            A reveal is a switch in the deck. Tick what it shows; what has two ticks is shown when either
            switch is on. A condition can also be typed, such as{' '}
            <span className="whitespace-nowrap">2 &lt; t &lt; 5 and question2</span>.
          </p>
          <div className="mb-5 grid gap-3 sm:grid-cols-2">
            {reveals.map((reveal) => (
              <RevealNames key={reveal[0]} reveal={reveal} onProblem={setProblem} />
            ))}
          </div>
          <Button onClick={() => addReveal(workbench)} className="mb-5">
            <Plus size={17} aria-hidden /> Add a reveal
          </Button>
          {problem !== null && (
            <p role="alert" className="mb-3 text-danger">
              {problem}
            </p>
          )}
          {rows.length > 0 && (
            <div className="overflow-x-auto">
              <table aria-label="What shows when" className="w-full text-left">
                <thead>
                  <tr className="border-b border-rule text-quiet">
                    <th scope="col" className="py-1.5 pr-3 font-normal">
                      Entry
                    </th>
                    {reveals.map(([id, entry]) => (
                      <th key={id} scope="col" className="px-2 py-1.5 text-center font-normal">
                        {titleOfReveal(entry)}
                      </th>
                    ))}
                    <th scope="col" className="min-w-56 py-1.5 pl-3 font-normal">
                      Shown when
                    </th>
                  </tr>
                </thead>
                <tbody>
                  {rows.map(([id, entry]) => (
                    <Row key={id} id={id} entry={entry} reveals={reveals} onProblem={setProblem} />
                  ))}
                </tbody>
              </table>
            </div>
          )}
          <Button look="strong" onClick={onClose} className="mt-6">
            Done
          </Button>
        </DialogPanel>
      </div>
    </Dialog>
  );
}

interface PartProps {
  readonly onProblem: (problem: string | null) => void;
}

function RevealNames({ reveal: [id, entry], onProblem }: PartProps & { readonly reveal: Reveal }) {
  const workbench = useWorkbench();
  return (
    <div role="group" aria-label={titleOfReveal(entry)} className="flex items-end gap-2">
      <div className="flex-1">
        <TextField
          label="Its switch says"
          maxLength={limits.title}
          value={entry.title}
          onCommit={(title) => setField(workbench, id, 'title', title.trim())}
        />
      </div>
      <div className="w-32">
        <TextField
          label="Name in conditions"
          maxLength={40}
          value={spokenName(entry.name)}
          onCommit={(name) => {
            const refusal = renameReveal(workbench, id, name);
            onProblem(refusal);
            return refusal === null;
          }}
        />
      </div>
      <IconButton label={`Delete ${titleOfReveal(entry)}`} onClick={() => removeEntry(workbench, id)}>
        <Trash2 size={17} aria-hidden />
      </IconButton>
    </div>
  );
}

/** Characters of a note by which it is told from the others. */
const excerpt = 28;

/** An entry by its heading, and by what tells it from others of the same heading: a function's name, a note's words. */
function nameInTable(heading: string, entry: Entry, curve: CurveResult | undefined): string {
  if (curve && heading === 'Given') return `Given: ${curve.name}`;
  if (entry.kind !== 'note' || entry.text.trim() === '') return heading;
  const words = entry.text.replaceAll(/\s+/g, ' ');
  return `Note: ${words.length > excerpt ? `${words.slice(0, excerpt)} …` : words}`;
}

interface RowProps extends PartProps {
  readonly id: Id;
  readonly entry: Entry;
  readonly reveals: readonly Reveal[];
}

function Row({ id, entry, reveals, onProblem }: RowProps) {
  const workbench = useWorkbench();
  const heading = useWorkbenchState(({ resolution }) => {
    const resolved = resolution.entries.get(id);
    return resolved ? nameInTable(headOfEntry(resolved).heading, entry, curveOf(resolution, id)) : '';
  });
  const directory = useWorkbenchState(({ resolution }) => resolution.directory);
  return (
    <tr className="border-b border-rule align-top">
      <th scope="row" className="py-2.5 pr-3 font-semibold">
        {heading}
      </th>
      {reveals.map(([revealId, reveal]) => {
        const use = revealUse(entry.shownWhen, reveal.name, directory);
        return (
          <td key={revealId} className="px-2 py-2.5 text-center">
            <input
              type="checkbox"
              aria-label={`${titleOfReveal(reveal)} shows ${heading}`}
              checked={use !== 'none'}
              disabled={use === 'inside'}
              title={use === 'inside' ? 'It is a part of the condition' : undefined}
              onChange={({ target }) => onProblem(showBy(workbench, id, reveal.name, target.checked))}
              className="size-4.5 accent-ink"
            />
          </td>
        );
      })}
      <td className="py-1.5 pl-3 [&_label]:sr-only">
        <ConditionField id={id} entry={entry} label={`${heading} is shown when`} />
      </td>
    </tr>
  );
}
