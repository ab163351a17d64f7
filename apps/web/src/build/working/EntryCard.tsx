import { latexFunction } from '@yperkine/core';
import {
  toneOf,
  type CurveResult,
  type Entry,
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
  const resolved = useResolved(id);
  if (!resolved) return null;
  switch (resolved.entry.kind) {
    case 'function':
      return <FunctionCard id={id} resolved={resolved} entry={resolved.entry} />;
    case 'point':
    case 'tangent':
    case 'derivative':
      return <StudyCard id={id} resolved={resolved} />;
    case 'parameter':
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
      className={clsx('overflow-x-auto overflow-y-hidden py-1 text-[1.06rem]', i === 0 && inks[tone])}
    >
      <FormulaLine line={line} />
    </div>
  ));
}

function studyActions(workbench: Workbench, id: Id, curve: CurveResult | undefined): MenuAction[] {
  if (!curve) return [];
  const slope = `${curve.name}${'′'.repeat(curve.order + 1)}`;
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

function FunctionCard({ id, resolved, entry }: { id: Id; resolved: Resolved; entry: EntryOf<'function'> }) {
  const workbench = useWorkbench();
  const isOpen = useWorkbenchState((state) => state.open === id);
  const { outcome } = resolved;
  const curve = outcome.ok ? (outcome.result as CurveResult) : undefined;
  const actions = [
    { label: 'Change the formula', run: () => workbench.openEntry(id) },
    ...studyActions(workbench, id, curve),
    removal(workbench, id),
  ];
  return (
    <CardFrame id={id} tone="f" heading="Given" actions={actions}>
      {isOpen ? (
        <GivenFormula id={id} entry={entry} problem={outcome.ok ? null : outcome.problem} />
      ) : (
        <>
          <button
            type="button"
            aria-label={`Change the formula ${entry.text}`}
            onClick={() => workbench.openEntry(id)}
            className="block w-full rounded-lg text-left hover:bg-hover"
          >
            {curve ? (
              <Lines lines={curve.lines} tone="ink" />
            ) : (
              <span className="block py-1 text-[1.06rem]">{entry.text}</span>
            )}
          </button>
          {!outcome.ok && <Unresolved problem={outcome.problem} />}
        </>
      )}
    </CardFrame>
  );
}

interface StudyText {
  readonly heading: string;
  readonly tone: Tone;
  readonly lines: readonly Line[];
  readonly sentence: string;
}

function studyText(entry: Entry, resolved: Resolved): StudyText {
  const { outcome } = resolved;
  const titles = {
    point: 'Point on the curve',
    tangent: 'Tangent',
    derivative: 'Slope',
    function: 'Given',
    parameter: 'Slider',
  };
  if (!outcome.ok) return { heading: titles[entry.kind], tone: 'quiet', lines: [], sentence: '' };
  switch (entry.kind) {
    case 'point': {
      const { curve, at, lines, sentence } = outcome.result as PointResult;
      return {
        heading: `Point on ${plainName(curve)} at ${curve.variable} = ${at.name}`,
        tone: toneOf(curve.order),
        lines,
        sentence,
      };
    }
    case 'tangent': {
      const { curve, at, lines, sentence } = outcome.result as TangentResult;
      return {
        heading: `Tangent to ${plainName(curve)} at ${curve.variable} = ${at.name}`,
        tone: toneOf(curve.order + 1),
        lines,
        sentence,
      };
    }
    default: {
      const curve = outcome.result as CurveResult;
      const sentence = `At each ${curve.variable} its height is the slope of ${plainName({ ...curve, order: curve.order - 1 })}.`;
      return {
        heading: `Slope ${plainName(curve)}`,
        tone: toneOf(curve.order),
        lines: curve.lines,
        sentence,
      };
    }
  }
}

const plainName = ({ name, order }: Pick<CurveResult, 'name' | 'order'>): string =>
  order <= 3 ? name + '′'.repeat(order) : latexFunction(name, order);

function StudyCard({ id, resolved }: { id: Id; resolved: Resolved }) {
  const workbench = useWorkbench();
  const { entry, outcome } = resolved;
  const { heading, tone, lines, sentence } = studyText(entry, resolved);
  const curve = entry.kind === 'derivative' && outcome.ok ? (outcome.result as CurveResult) : undefined;
  const triangle: MenuAction[] =
    entry.kind === 'tangent'
      ? [
          {
            label: entry.triangle ? 'Hide the slope triangle' : 'Show the slope triangle',
            run: () =>
              workbench.change([
                {
                  at: 'field',
                  of: 'entries',
                  id,
                  field: 'triangle',
                  old: entry.triangle,
                  new: !entry.triangle,
                },
              ]),
          },
        ]
      : [];
  return (
    <CardFrame
      id={id}
      tone={tone}
      heading={heading}
      actions={[...triangle, ...studyActions(workbench, id, curve), removal(workbench, id)]}
    >
      {outcome.ok ? (
        <>
          <Lines lines={lines} tone={tone} />
          <p className="mt-0.5 text-[0.95rem] text-quiet">{sentence}</p>
        </>
      ) : (
        <Unresolved problem={outcome.problem} />
      )}
    </CardFrame>
  );
}

/** What keeps an entry from its result: loud where the fault is, quiet where an entry only waits. */
function Unresolved({ problem: { message, isWaiting, missingName } }: { problem: EntryProblem }) {
  if (isWaiting) return <p className="mt-1 text-[0.95rem] text-quiet">{message}</p>;
  return <Problem message={message} missingName={missingName} />;
}
