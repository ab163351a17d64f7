import { Dialog, DialogPanel, DialogTitle } from '@headlessui/react';
import { isTable, limits } from '@yperkine/demonstration';
import { FileSpreadsheet } from 'lucide-react';
import { useRef, useState, type ChangeEvent } from 'react';
import { Button } from '../../parts/Button.tsx';
import { Veil } from '../../parts/Veil.tsx';
import { useWorkbench, useWorkbenchState } from '../../state/context.ts';
import { DataForm } from './DataForm.tsx';
import { tableIn } from './drops.ts';

/** Turns a table into a function: first the table, then which of its columns are meant. */
export function DataDialog() {
  const workbench = useWorkbench();
  const importing = useWorkbenchState((state) => state.importing);
  if (!importing) return null;
  const { table, into } = importing;
  const close = () => workbench.importing(null);
  return (
    <Dialog open onClose={close} className="relative z-40">
      <Veil />
      <div className="fixed inset-0 flex items-start justify-center overflow-y-auto p-3 sm:p-8">
        <DialogPanel className="card w-full max-w-3xl p-5 sm:p-7">
          <DialogTitle className="mb-3 text-xl font-semibold">A function from data</DialogTitle>
          {table.trim() === '' ? (
            <TableSource onTable={(text) => workbench.importing({ table: text, into })} onCancel={close} />
          ) : (
            <DataForm key={table} table={table} into={into} onClose={close} />
          )}
        </DialogPanel>
      </div>
    </Dialog>
  );
}

/** Where a table comes from: a file that is chosen or dropped, or rows that are pasted or typed. */
function TableSource({ onTable, onCancel }: { onTable: (text: string) => void; onCancel: () => void }) {
  const [typed, setTyped] = useState('');
  const [problem, setProblem] = useState<string | null>(null);
  const file = useRef<HTMLInputElement>(null);

  const take = (event: ChangeEvent<HTMLInputElement>) => {
    const chosen = event.target.files?.[0];
    if (!chosen) return;
    void tableIn(chosen).then((found) => {
      if ('table' in found && found.table.trim() !== '') onTable(found.table);
      else setProblem('message' in found ? found.message : `“${chosen.name}” is empty.`);
    });
  };

  return (
    <>
      <div className="mb-4 flex flex-wrap items-center gap-x-4 gap-y-2 rounded-[10px] border border-dashed border-rule p-4">
        <Button look="strong" onClick={() => file.current?.click()}>
          <FileSpreadsheet size={18} aria-hidden /> Choose a file
        </Button>
        <span className="text-quiet">or drop one here: comma-separated values (CSV), one row a line.</span>
        <input
          ref={file}
          type="file"
          accept=".csv,.tsv,.txt,text/csv,text/plain"
          aria-label="File with a table"
          onChange={take}
          className="sr-only"
          tabIndex={-1}
        />
      </div>
      <label className="block">
        <span className="mb-1 block text-quiet">Or paste rows, as a spreadsheet copies them</span>
        <textarea
          rows={7}
          maxLength={limits.data}
          spellCheck={false}
          placeholder={'time in min, level in cm\n0, 41.2\n5, 43.0'}
          value={typed}
          onChange={(event) => setTyped(event.target.value)}
          onPaste={(event) => {
            const pasted = event.clipboardData.getData('text/plain');
            if (!isTable(pasted)) return;
            event.preventDefault();
            onTable(pasted);
          }}
          className="w-full rounded-lg border border-rule bg-paper px-3 py-2 font-mono text-[0.95rem] text-ink"
        />
      </label>
      {problem !== null && (
        <p role="alert" className="mt-2 text-danger">
          {problem}
        </p>
      )}
      <div className="mt-4 flex justify-end gap-2">
        <Button onClick={onCancel}>Cancel</Button>
        <Button look="strong" disabled={typed.trim() === ''} onClick={() => onTable(typed)}>
          Go on
        </Button>
      </div>
    </>
  );
}
