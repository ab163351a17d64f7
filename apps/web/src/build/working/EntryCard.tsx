import {
  toneOf,
  type CurveResult,
  type EntryOf,
  type EntryProblem,
  type Id,
  type Line,
  type PointResult,
  type Resolved,
  type TangentResult,
  type Tone,
} from '@yperkine/demonstration';
import clsx from 'clsx';
import type { ReactNode } from 'react';
import { useStore } from 'zustand';
import { useShallow } from 'zustand/shallow';
import { ActionMenu, type MenuAction } from '../../parts/ActionMenu.tsx';
import { FormulaLine } from '../../parts/Typeset.tsx';
import { addDerivative, addPoint, addTangent, removeEntry } from '../../state/actions.ts';
import { useResolved, useWorkbench, useWorkbenchState } from '../../state/context.ts';
import type { Workbench } from '../../state/workbench.ts';
import { GivenFormula } from './GivenFormula.tsx';
import { Problem } from './Problem.tsx';

const dots: Readonly<Record<Tone, string>> = {
  f: 'bg-f',
  f1: 'bg-f1',
  f2: 'bg-f2',
  ink: 'bg-ink',
  quiet: 'bg-quiet',
  rule: 'bg-rule',
  here: 'bg-here',
  sheet: 'bg-sheet',
  paper: 'bg-paper',
};
const inks: Readonly<Partial<Record<Tone, string>>> = { f: 'text-f', f1: 'text-f1', f2: 'text-f2' };

/** One entry of the working: its statement, its result in typeset mathematics, its sentence. */
export function EntryCard({ id }: { id: Id }) {
  const entry = useWorkbenchState((state) => state.document.entries[id]);
  switch (entry?.kind) {
    case 'function':
      return <FunctionCard id={id} entry={entry} />;
    case 'point':
    case 'tangent':
    case 'derivative':
      return <StudyCard id={id} entry={entry} />;
    case 'parameter':
    case undefined:
      return null;
  }
}

interface FrameProps {
  readonly id: Id;
  readonly tone: Tone;
  readonly heading: string;
  readonly actions: readonly MenuAction[];
  readonly children: ReactNode;
}

function CardFrame({ id, tone, heading, actions, children }: FrameProps) {
  const workbench = useWorkbench();
  const isEmphasised = useWorkbenchState((state) => state.emphasis === id);
  return (
    <section
      aria-label={heading}
      onPointerEnter={({ pointerType }) => pointerType === 'mouse' && workbench.emphasise(id)}
      onPointerLeave={() => workbench.emphasise(null)}
      className={clsx(
        'relative border-b border-rule py-3.5 pr-3 pl-5 transition-colors',
        isEmphasised && 'bg-here/8 before:absolute before:inset-y-0 before:left-0 before:w-1 before:bg-here',
      )}
    >
      <header className="flex items-center gap-2.5">
        <span aria-hidden className={clsx('size-2.5 rounded-full', dots[tone])} />
        <h2 className="flex-1 font-semibold text-quiet">{heading}</h2>
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
      className={clsx('overflow-x-auto overflow-y-hidden py-1.5 text-[1.06rem]', i === 0 && inks[tone])}
    >
      <FormulaLine line={line} />
    </div>
  ));
}

/** What the frame of a card needs: it stays the same while only numbers move, so the frame is not rendered again. */
interface Head {
  readonly heading: string;
  readonly tone: Tone;
  /** Name with primes of the slope of this entry's curve, if it has a curve of its own. */
  readonly slope: string | null;
}

const primed = (name: string, order: number): string =>
  order <= 3 ? name + '′'.repeat(order) : `${name}⁽${order}⁾`;

const headings = {
  function: 'Given',
  point: 'Point on the curve',
  tangent: 'Tangent',
  derivative: 'Slope',
  parameter: 'Slider',
} as const;

function headOf(resolved: Resolved | undefined): Head {
  if (!resolved?.outcome.ok)
    return { heading: headings[resolved?.entry.kind ?? 'point'], tone: 'quiet', slope: null };
  const { result } = resolved.outcome;
  switch (resolved.entry.kind) {
    case 'point':
    case 'tangent': {
      const { curve, at } = result as PointResult | TangentResult;
      const isTangent = resolved.entry.kind === 'tangent';
      const place = `${primed(curve.name, curve.order)} at ${curve.variable} = ${at.name}`;
      return {
        heading: `${isTangent ? 'Tangent to' : 'Point on'} ${place}`,
        tone: toneOf(curve.order + (isTangent ? 1 : 0)),
        slope: null,
      };
    }
    default: {
      const { name, order } = result as CurveResult;
      const heading = order === 0 ? headings.function : `Slope ${primed(name, order)}`;
      return { heading, tone: toneOf(order), slope: primed(name, order + 1) };
    }
  }
}

function useHead(id: Id): Head {
  return useStore(
    useWorkbench().store,
    useShallow((state) => headOf(state.resolution.entries.get(id))),
  );
}

function curveActions(workbench: Workbench, id: Id, slope: string | null): MenuAction[] {
  if (slope === null) return [];
  return [
    { label: 'Tangent', run: () => addTangent(workbench, id) },
    { label: 'Point on the curve', run: () => addPoint(workbench, id) },
    { label: `Slope ${slope} in its own tier`, run: () => addDerivative(workbench, id) },
  ];
}

const removal = (workbench: Workbench, id: Id): MenuAction => ({
  label: 'Delete',
  run: () => removeEntry(workbench, id),
  isDangerous: true,
});

function FunctionCard({ id, entry }: { id: Id; entry: EntryOf<'function'> }) {
  const workbench = useWorkbench();
  const { slope } = useHead(id);
  const actions = [
    { label: 'Change the formula', run: () => workbench.openEntry(id) },
    ...curveActions(workbench, id, slope),
    removal(workbench, id),
  ];
  return (
    <CardFrame id={id} tone="f" heading={headings.function} actions={actions}>
      <GivenBody id={id} entry={entry} />
    </CardFrame>
  );
}

function GivenBody({ id, entry }: { id: Id; entry: EntryOf<'function'> }) {
  const workbench = useWorkbench();
  const outcome = useResolved(id)?.outcome;
  const isOpen = useWorkbenchState((state) => state.open === id);
  const problem = outcome && !outcome.ok ? outcome.problem : null;
  if (isOpen) return <GivenFormula id={id} entry={entry} problem={problem} />;
  return (
    <>
      <button
        type="button"
        aria-label={`Change the formula ${entry.text}`}
        onClick={() => workbench.openEntry(id)}
        className="block w-full rounded-lg text-left hover:bg-hover"
      >
        {outcome?.ok ? (
          <Lines lines={(outcome.result as CurveResult).lines} tone="ink" />
        ) : (
          <span className="block py-1 text-[1.06rem]">{entry.text}</span>
        )}
      </button>
      {problem && <Unresolved problem={problem} />}
    </>
  );
}

function StudyCard({ id, entry }: { id: Id; entry: EntryOf<'point' | 'tangent' | 'derivative'> }) {
  const workbench = useWorkbench();
  const { heading, tone, slope } = useHead(id);
  const actions = [...curveActions(workbench, id, slope), removal(workbench, id)];
  if (entry.kind === 'tangent') {
    actions.unshift({
      label: entry.triangle ? 'Hide the slope triangle' : 'Show the slope triangle',
      run: () =>
        workbench.change([
          { at: 'field', of: 'entries', id, field: 'triangle', old: entry.triangle, new: !entry.triangle },
        ]),
    });
  }
  return (
    <CardFrame id={id} tone={tone} heading={heading} actions={actions}>
      <StudyBody id={id} tone={tone} />
    </CardFrame>
  );
}

/** The part of a card that follows the numbers, once a frame at most. */
function StudyBody({ id, tone }: { id: Id; tone: Tone }) {
  const outcome = useResolved(id)?.outcome;
  if (!outcome) return null;
  if (!outcome.ok) return <Unresolved problem={outcome.problem} />;
  const result = outcome.result as PointResult | TangentResult | CurveResult;
  return (
    <>
      <Lines lines={result.lines} tone={tone} />
      <p className="mt-0.5 text-[0.95rem] text-quiet">
        {'sentence' in result
          ? result.sentence
          : `At each ${result.variable} its height is the slope of ${primed(result.name, result.order - 1)}.`}
      </p>
    </>
  );
}

/** What keeps an entry from its result: loud where the fault is, quiet where an entry only waits. */
function Unresolved({ problem: { message, isWaiting, missingName } }: { problem: EntryProblem }) {
  if (isWaiting) return <p className="mt-1 text-[0.95rem] text-quiet">{message}</p>;
  return <Problem message={message} missingName={missingName} />;
}
