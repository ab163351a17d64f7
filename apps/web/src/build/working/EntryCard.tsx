import {
  headOfEntry,
  type CurveResult,
  type Entry,
  type EntryProblem,
  type Head,
  type Id,
  type Line,
  type StudyResult,
  type Tone,
} from '@yperkine/demonstration';
import clsx from 'clsx';
import { BadgeCheck, SearchX } from 'lucide-react';
import { useState } from 'react';
import { useStore } from 'zustand';
import { useShallow } from 'zustand/shallow';
import { FittedLine } from '../../parts/FittedLine.tsx';
import { LookFields } from './LookFields.tsx';
import { ResultNames } from './ResultNames.tsx';
import { ShownWhen, useAbsence } from './ShownWhen.tsx';
import { PlaceField } from './PlaceField.tsx';
import { jumpTo } from '../../state/where.ts';
import { useResolved, useWorkbench, useWorkbenchState } from '../../state/context.ts';
import { studyCards } from '../studies/table.ts';
import { CardFrame } from './CardFrame.tsx';
import { cardActions, type Asked } from './cardActions.ts';
import { isFormula, type FormulaEntry } from './formulaEntry.ts';
import { GivenFormula } from './GivenFormula.tsx';
import { Problem } from './Problem.tsx';
import { ResultTable } from './ResultTable.tsx';
import { cssColour } from '../../theme/colour.ts';

/** One entry of the working: its statement, its result in typeset mathematics, its sentence. */
export function EntryCard({ id }: { id: Id }) {
  const entry = useWorkbenchState((state) => state.document.entries[id]);
  if (!entry || entry.kind === 'parameter') return null;
  return <Card id={id} entry={entry} />;
}

function Lines({ lines, tone }: { lines: readonly Line[]; tone: Tone }) {
  return lines.map((line, i) => (
    <div key={i} className="py-1.5 text-[1.06rem]" style={i === 0 ? { color: cssColour(tone) } : undefined}>
      <FittedLine line={line} />
    </div>
  ));
}

/** The head stays the same while only numbers move, so the frame is not rendered again. */
function useHead(id: Id): Head | null {
  return useStore(
    useWorkbench().store,
    useShallow((state) => {
      const resolved = state.resolution.entries.get(id);
      return resolved ? headOfEntry(resolved) : null;
    }),
  );
}

function Card({ id, entry }: { id: Id; entry: Entry }) {
  const workbench = useWorkbench();
  const head = useHead(id);
  const [asked, setAsked] = useState<Asked | null>(null);
  const absence = useAbsence(id, entry);
  if (!head) return null;
  const { Controls, Body } = studyCards.get(entry.kind) ?? {};
  return (
    <CardFrame
      id={id}
      entry={entry}
      head={head}
      absence={absence}
      actions={() => cardActions(workbench, id, entry, setAsked)}
    >
      {Body ? (
        <Body id={id} entry={entry} />
      ) : isFormula(entry) ? (
        <GivenBody id={id} entry={entry} />
      ) : (
        <StudyBody id={id} tone={head.tone} />
      )}
      <PlaceField study={id} />
      <ResultNames id={id} entry={entry} isOpen={asked === 'names'} />
      <ShownWhen id={id} entry={entry} isOpen={asked === 'condition'} />
      {asked === 'look' && <LookFields id={id} entry={entry} onClose={() => setAsked(null)} />}
      {Controls && <Controls id={id} entry={entry} />}
    </CardFrame>
  );
}

function GivenBody({ id, entry }: { id: Id; entry: FormulaEntry }) {
  const workbench = useWorkbench();
  const outcome = useResolved(id)?.outcome;
  const isOpen = useWorkbenchState((state) => state.open === id);
  const problem = outcome && !outcome.ok ? outcome.problem : null;
  if (isOpen) return <GivenFormula id={id} entry={entry} problem={problem} />;
  return (
    <>
      <div className="relative">
        <button
          type="button"
          aria-label={`Change the formula ${entry.text}`}
          onClick={() => workbench.openEntry(id)}
          className="absolute inset-0 rounded-lg hover:bg-hover"
        />
        {/* The line lies over its button and lets it through, but for numbers that can be opened. */}
        <div className="pointer-events-none relative [&_button]:pointer-events-auto">
          {outcome?.ok ? (
            <Lines lines={(outcome.result as StudyResult).lines} tone="ink" />
          ) : (
            <span className="block py-1 text-[1.06rem]">{entry.text}</span>
          )}
        </div>
      </div>
      {outcome?.ok && <Sentence text={(outcome.result as StudyResult).sentence} />}
      {problem && <Unresolved problem={problem} />}
    </>
  );
}

/** The part of a card that follows the numbers, once a frame at most. */
function StudyBody({ id, tone }: { id: Id; tone: Tone }) {
  const workbench = useWorkbench();
  const outcome = useResolved(id)?.outcome;
  if (!outcome) return null;
  if (!outcome.ok) return <Unresolved problem={outcome.problem} />;
  const result = outcome.result as StudyResult & { readonly curve?: CurveResult };
  const { lines, sentence, table, certainty, isPending = false } = result;
  const tier = result.curve?.tier;
  const jump =
    tier === undefined
      ? undefined
      : ({ x, y }: { x: number; y: number | null }) => jumpTo(workbench, tier, x, y);
  return (
    <div aria-busy={isPending} className={clsx('transition-opacity', isPending && 'opacity-60 delay-150')}>
      <Lines lines={lines} tone={tone} />
      {certainty && <Certainty {...certainty} />}
      <Sentence text={sentence} />
      {table && <ResultTable table={table} tone={tone} {...(jump ? { onJump: jump } : {})} />}
    </div>
  );
}

/** How sure a result is, in a word: proved, or found by search. */
function Certainty({ text, isProved }: NonNullable<StudyResult['certainty']>) {
  const Icon = isProved ? BadgeCheck : SearchX;
  return (
    <p
      className={clsx(
        'mt-1 inline-flex items-center gap-1.5 rounded-full border px-2.5 py-0.5 text-sm font-semibold',
        isProved ? 'border-f2 text-f2' : 'border-quiet text-quiet',
      )}
    >
      <Icon size={15} aria-hidden /> {text}
    </p>
  );
}

function Sentence({ text }: { text: string }) {
  return text ? <p className="mt-0.5 text-[0.95rem] text-quiet">{text}</p> : null;
}

/** What keeps an entry from its result: loud where the fault is, quiet where an entry only waits. */
function Unresolved({ problem: { message, isWaiting, missingName } }: { problem: EntryProblem }) {
  if (isWaiting) return <p className="mt-1 text-[0.95rem] text-quiet">{message}</p>;
  return <Problem message={message} missingName={missingName} />;
}
