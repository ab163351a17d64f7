import {
  isDefinition,
  readDefinition,
  readExpression,
  readStatement,
  sentence,
  type Problem as ReadingProblem,
  type Scope,
} from '@yperkine/core';
import {
  isGivenDerivative,
  type Edit,
  type EntryOf,
  type EntryProblem,
  type Id,
} from '@yperkine/demonstration';
import { useEffect, useId, useRef, useState } from 'react';
import { useWorkbench, useWorkbenchState } from '../../state/context.ts';
import { setField } from '../../state/actions.ts';
import { UnitField } from '../studies/UnitField.tsx';
import { FormulaField } from './FormulaField.tsx';
import { FormulaPreview } from './FormulaPreview.tsx';
import { Button } from '../../parts/Button.tsx';
import { lazily } from '../../parts/lazily.tsx';
import { readPieces } from './pieces.ts';
import { Problem } from './Problem.tsx';

/** Time without typing after which even a text that cannot be read becomes part of the document. */
const idle = 800;

/**
 * The formula of a function or value, opened in place. What can be read takes effect letter by letter; what
 * cannot waits until the typing rests, so that the curve does not flicker, and is then kept as well.
 */
export function GivenFormula({
  id,
  entry,
  problem,
}: {
  id: Id;
  entry: EntryOf<'function' | 'value' | 'givenDerivative'>;
  problem: EntryProblem | null;
}) {
  const workbench = useWorkbench();
  const scope = useWorkbenchState((state) => state.resolution.directory.scope);
  const [draft, setDraft] = useState<string | null>(null);
  /** Why the document does not take what is typed, which stays in the field. */
  const [refusal, setRefusal] = useState<string | null>(null);
  const text = draft ?? entry.text;
  const problemId = useId();
  const pending = useRef<{ text: string; timer: ReturnType<typeof setTimeout> } | null>(null);

  const store = (next: string) => {
    if (pending.current) clearTimeout(pending.current.timer);
    pending.current = null;
    const current = workbench.state.document.entries[id];
    if (!current || !('text' in current)) return;
    const edit: Edit = { at: 'field', of: 'entries', id, field: 'text', old: current.text, new: next };
    const why = workbench.refusalOf([edit]);
    setRefusal(why);
    setDraft(why === null ? null : next);
    if (why === null) workbench.change([edit], `formula ${id}`);
  };
  const flush = () => {
    if (pending.current) store(pending.current.text);
    else if (refusal === null) setDraft(null);
  };
  const type = (next: string) => {
    if (next === text) return;
    if (readTyped(next, scope).ok) return store(next);
    setDraft(next);
    setRefusal(null);
    if (pending.current) clearTimeout(pending.current.timer);
    pending.current = {
      text: next,
      timer: setTimeout(() => store(next), idle),
    };
  };
  const close = () => {
    flush();
    workbench.openEntry(null);
  };

  const latestFlush = useRef(flush);
  useEffect(() => {
    latestFlush.current = flush;
  });
  useEffect(() => {
    const leave = () => latestFlush.current();
    window.addEventListener('pagehide', leave);
    return () => {
      window.removeEventListener('pagehide', leave);
      leave();
    };
  }, []);

  const refused = refusal === null ? null : { message: refusal };
  const shown: EntryProblem | null = refused ?? (draft === null ? problem : problemOf(draft, scope));
  const correct = () => {
    if (!shown?.range || shown.correction === undefined) return;
    type(text.slice(0, shown.range.from) + shown.correction + text.slice(shown.range.to));
  };

  return (
    <div>
      <div className="flex min-h-10 items-center rounded-[10px] border border-rule bg-paper px-3 py-1.5 focus-within:outline-2 focus-within:outline-here">
        <FormulaField
          label="Formula"
          value={text}
          scope={scope}
          wrong={shown?.range}
          autoFocus
          onChange={type}
          onEnter={close}
          onEscape={close}
          onBlur={flush}
          {...(shown ? { describedBy: problemId } : {})}
        />
      </div>
      <FormulaPreview text={text} scope={scope} />
      {entry.kind === 'function' && <Pieces text={text} scope={scope} onChange={type} />}
      {'unit' in entry && (
        <div className="mt-2 max-w-40">
          <UnitField value={entry.unit} onCommit={(unit) => setField(workbench, id, 'unit', unit)} />
        </div>
      )}
      {shown && (
        <Problem
          id={problemId}
          message={shown.message}
          correction={shown.correction}
          onCorrect={correct}
          missingName={shown.missingName}
        />
      )}
    </div>
  );
}

const PiecesEditor = lazily(async () => (await import('./PiecesEditor.tsx')).PiecesEditor);

/** The editor for pieces: open where there are some, else behind a button. */
function Pieces({ text, scope, onChange }: { text: string; scope: Scope; onChange: (text: string) => void }) {
  const [isWanted, setWanted] = useState(false);
  const reading = readPieces(text, scope);
  const hasPieces = (reading?.rows.length ?? 0) > 1 || reading?.rows[0]?.condition !== '';
  if (reading && (hasPieces || isWanted))
    return <PiecesEditor text={text} scope={scope} onChange={onChange} />;
  return (
    <Button look="bare" className="mt-1 min-h-9 px-2! text-[0.95rem]" onClick={() => setWanted(true)}>
      In pieces …
    </Button>
  );
}

/** A definition, or a bare formula whose value is asked for. */
const readTyped = (text: string, scope: Scope) =>
  isGivenDerivative(text)
    ? readStatement(text, scope)
    : isDefinition(text)
      ? readDefinition(text, scope)
      : readExpression(text, scope);

function problemOf(text: string, scope: Scope): EntryProblem | null {
  const reading = readTyped(text, scope);
  return reading.ok ? null : asEntryProblem(reading.problem);
}

function asEntryProblem(problem: ReadingProblem): EntryProblem {
  const { from, to, correction } = problem;
  return {
    message: sentence(problem),
    range: { from, to },
    ...(correction === undefined ? {} : { correction }),
  };
}
