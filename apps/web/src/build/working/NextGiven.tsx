import { isTable } from '@yperkine/demonstration';
import { Plus } from 'lucide-react';
import { useId, useState } from 'react';
import { Button } from '../../parts/Button.tsx';
import { addGiven, type Addition } from '../../state/givens.ts';
import { useWorkbench, useWorkbenchState } from '../../state/context.ts';
import { FormulaField } from './FormulaField.tsx';
import { FormulaPreview } from './FormulaPreview.tsx';
import { keepDraft, recallDraft } from './draft.ts';
import { Problem } from './Problem.tsx';

type Refused = Extract<Addition, { ok: false }>;

/** The field at the foot of the working that takes the next given. What is typed survives a reload. */
export function NextGiven({ draftKey }: { draftKey: string }) {
  const workbench = useWorkbench();
  const scope = useWorkbenchState((state) => state.resolution.directory.scope);
  const isEmpty = useWorkbenchState((state) => Object.keys(state.document.entries).length === 0);
  const [text, setText] = useState(() => recallDraft(draftKey));
  const [refused, setRefused] = useState<Refused | null>(null);
  const problemId = useId();

  const type = (next: string) => {
    setText(next);
    setRefused(null);
    keepDraft(draftKey, next);
  };
  const add = (typed: string) => {
    const addition = addGiven(workbench, typed);
    if (addition.ok) type('');
    else setRefused(addition);
  };
  const takeTable = (pasted: string) => {
    if (!isTable(pasted)) return false;
    workbench.importing({ table: pasted, into: null });
    return true;
  };
  const correct = ({ problem }: Refused) => {
    if (problem?.correction === undefined) return;
    type(text.slice(0, problem.from) + problem.correction + text.slice(problem.to));
  };
  const wrong = refused?.problem && { from: refused.problem.from, to: refused.problem.to };

  return (
    <div className="border-t border-rule p-4">
      <div className="flex items-start gap-2.5">
        <div className="flex min-h-10 min-w-0 flex-1 items-center rounded-[10px] border border-rule bg-paper px-3 py-1.5 focus-within:outline-2 focus-within:outline-here">
          <FormulaField
            label="Next given"
            value={text}
            scope={scope}
            placeholder={isEmpty ? 'f(x) = 3x^2 − 5x − 2' : 'g(x) = …  or  b = 2'}
            wrong={wrong}
            autoFocus={isEmpty}
            onChange={type}
            onEnter={add}
            onPaste={takeTable}
            {...(refused ? { describedBy: problemId } : {})}
          />
        </div>
        <Button look="strong" onClick={() => (text.trim() ? add(text) : workbench.choosing({ on: null }))}>
          <Plus size={18} aria-hidden /> Add
        </Button>
      </div>
      <FormulaPreview text={text} scope={scope} />
      {refused && (
        <Problem
          id={problemId}
          message={refused.message}
          correction={refused.problem?.correction}
          onCorrect={() => correct(refused)}
          missingName={refused.missingName}
        />
      )}
    </div>
  );
}
