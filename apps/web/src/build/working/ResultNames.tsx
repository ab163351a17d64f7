import { resultsOf, type Entry, type Id } from '@yperkine/demonstration';
import { useShallow } from 'zustand/shallow';
import { useState } from 'react';
import { TextField } from '../../parts/TextField.tsx';
import { nameResult } from '../../state/actions.ts';
import { useWorkbench, useWorkbenchState } from '../../state/context.ts';
import { Problem } from './Problem.tsx';

/** Names for the results of an entry, by which later entries use them. */
export function ResultNames({ id, entry, isOpen }: { id: Id; entry: Entry; isOpen: boolean }) {
  const workbench = useWorkbench();
  const [problem, setProblem] = useState<string | null>(null);
  // Only keys and labels: the numbers that move are none of this card part's business.
  const labels = useWorkbenchState(
    useShallow(({ resolution }) => resultsOf(resolution, id).map(({ key, label }) => `${key}\n${label}`)),
  );
  const shown = labels
    .map((text) => text.split('\n') as [string, string])
    .filter(([key]) => isOpen || key in entry.names);
  if (shown.length === 0) return null;
  return (
    <div className="mt-2.5">
      <div className="grid grid-cols-3 gap-2">
        {shown.map(([key, label]) => (
          <TextField
            key={key}
            label={`Name of the ${label}`}
            placeholder="none"
            maxLength={40}
            value={entry.names[key] ?? ''}
            onCommit={(name) => {
              const refusal = nameResult(workbench, id, key, name);
              setProblem(refusal);
              return refusal === null;
            }}
          />
        ))}
      </div>
      {problem !== null && <Problem message={problem} />}
    </div>
  );
}
