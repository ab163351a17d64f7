import {
  headOfEntry,
  kindOf,
  placeOfStudy,
  resultsOf,
  type Entry,
  type EntryOf,
  type EntryProblem,
  type Head,
  type Id,
  type Line,
  type StudyResult,
  type Tone,
} from '@yperkine/demonstration';
import clsx from 'clsx';
import { EyeOff } from 'lucide-react';
import { useState, type ReactNode } from 'react';
import { useStore } from 'zustand';
import { useShallow } from 'zustand/shallow';
import { ActionMenu, type MenuAction } from '../../parts/ActionMenu.tsx';
import { FormulaLine } from '../../parts/Typeset.tsx';
import { setMoves } from '../../state/parameters.ts';
import { LookFields } from './LookFields.tsx';
import { ResultNames } from './ResultNames.tsx';
import { ShownWhen, useAbsence } from './ShownWhen.tsx';
import { PlaceField } from './PlaceField.tsx';
import { isInOwnTier, moveToTier, otherTiers } from '../../state/tiers.ts';
import { removeEntry, setField } from '../../state/actions.ts';
import { useResolved, useWorkbench, useWorkbenchState } from '../../state/context.ts';
import type { Workbench } from '../../state/workbench.ts';
import { studyCards } from '../studies/table.ts';
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

interface FrameProps {
  readonly id: Id;
  readonly head: Head;
  readonly absence: string | null;
  readonly actions: () => readonly MenuAction[];
  readonly children: ReactNode;
}

function CardFrame({ id, head: { heading, tone }, absence, actions, children }: FrameProps) {
  const workbench = useWorkbench();
  const isEmphasised = useWorkbenchState((state) => state.emphasis === id);
  return (
    <section
      aria-label={heading}
      onPointerEnter={({ pointerType }) => pointerType === 'mouse' && workbench.emphasise(id)}
      onPointerLeave={() => workbench.emphasise(null)}
      onFocus={() => workbench.emphasise(id)}
      onBlur={() => workbench.emphasise(null)}
      className={clsx(
        'relative border-b border-rule py-3.5 pr-3 pl-5 transition-colors',
        isEmphasised && 'bg-here/8 before:absolute before:inset-y-0 before:left-0 before:w-1 before:bg-here',
      )}
    >
      <header className="flex items-center gap-2.5">
        <span
          aria-hidden
          className="size-2.5 shrink-0 rounded-full"
          style={{ background: cssColour(tone) }}
        />
        <h2 className="flex-1 font-semibold text-quiet">{heading}</h2>
        {absence !== null && (
          <span className="flex items-center gap-1 text-sm text-quiet">
            <EyeOff size={15} aria-hidden /> {absence}
          </span>
        )}
        <ActionMenu label={`More for ${heading}`} actions={actions} />
      </header>
      <div className="pr-2 pl-5">{children}</div>
    </section>
  );
}

function Lines({ lines, tone }: { lines: readonly Line[]; tone: Tone }) {
  return lines.map((line, i) => (
    <div
      key={i}
      className="overflow-x-auto overflow-y-hidden py-1.5 text-[1.06rem]"
      style={i === 0 ? { color: cssColour(tone) } : undefined}
    >
      <FormulaLine line={line} />
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

/** A part of a card that is opened from its menu. */
type Asked = 'names' | 'condition' | 'look';

/** What the menu of any entry offers, beside what its kind adds. */
function actionsFor(workbench: Workbench, id: Id, entry: Entry, ask: (part: Asked) => void): MenuAction[] {
  const draws = kindOf(entry).curve !== undefined;
  const own = studyCards.get(entry.kind)?.actions?.(workbench, id, entry) ?? [];
  return [
    ...('text' in entry ? [{ label: 'Change the formula', run: () => workbench.openEntry(id) }] : []),
    ...(draws ? [{ label: 'Show more of it …', run: () => workbench.choosing({ on: id }) }] : []),
    ...own,
    ...placeActions(workbench, entry),
    ...(resultsOf(workbench.current(), id).length > 0
      ? [{ label: 'Name a result …', run: () => ask('names') }]
      : []),
    ...(draws ? tierActions(workbench, id) : []),
    {
      label: entry.hidden ? 'Show on the graph' : 'Hide on the graph',
      run: () => setField(workbench, id, 'hidden', !entry.hidden),
    },
    { label: 'Look …', run: () => ask('look') },
    { label: 'Shown when …', run: () => ask('condition') },
    { label: 'Delete', run: () => removeEntry(workbench, id), isDangerous: true },
  ];
}

/** A place is moved by a slider, by its point alone, or not at all. */
const moving = {
  slider: 'Move it by a slider',
  free: 'Move it by its point alone',
  fixed: 'Keep it fixed',
} as const;

function placeActions(workbench: Workbench, entry: Entry): MenuAction[] {
  const parameter = placeOfStudy(entry)?.parameter ?? '';
  const place = workbench.state.document.entries[parameter];
  if (place?.kind !== 'parameter') return [];
  return (Object.keys(moving) as (keyof typeof moving)[])
    .filter((moves) => moves !== place.moves)
    .map((moves) => ({ label: moving[moves], run: () => setMoves(workbench, parameter, moves) }));
}

/** Any curve may be laid on any tier. */
function tierActions(workbench: Workbench, id: Id): MenuAction[] {
  const others = otherTiers(workbench, id).map((tier) => ({
    label: `Draw it with ${tier.name}`,
    run: () => moveToTier(workbench, id, tier.id),
  }));
  return isInOwnTier(workbench, id)
    ? others
    : [...others, { label: 'Give it a tier of its own', run: () => moveToTier(workbench, id) }];
}

function Card({ id, entry }: { id: Id; entry: Entry }) {
  const workbench = useWorkbench();
  const head = useHead(id);
  const [asked, setAsked] = useState<Asked | null>(null);
  const absence = useAbsence(id, entry);
  if (!head) return null;
  const Controls = studyCards.get(entry.kind)?.Controls;
  return (
    <CardFrame
      id={id}
      head={head}
      absence={absence}
      actions={() => actionsFor(workbench, id, entry, setAsked)}
    >
      {'text' in entry ? <GivenBody id={id} entry={entry} /> : <StudyBody id={id} tone={head.tone} />}
      <PlaceField study={id} />
      <ResultNames id={id} entry={entry} isOpen={asked === 'names'} />
      <ShownWhen id={id} entry={entry} isOpen={asked === 'condition'} />
      {asked === 'look' && <LookFields id={id} entry={entry} onClose={() => setAsked(null)} />}
      {Controls && <Controls id={id} entry={entry} />}
    </CardFrame>
  );
}

function GivenBody({ id, entry }: { id: Id; entry: EntryOf<'function' | 'value' | 'givenDerivative'> }) {
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
  const outcome = useResolved(id)?.outcome;
  if (!outcome) return null;
  if (!outcome.ok) return <Unresolved problem={outcome.problem} />;
  const { lines, sentence, table } = outcome.result as StudyResult;
  return (
    <>
      <Lines lines={lines} tone={tone} />
      <Sentence text={sentence} />
      {table && <ResultTable table={table} tone={tone} />}
    </>
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
