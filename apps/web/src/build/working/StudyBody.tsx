import type { CurveResult, EntryProblem, Id, Line, Said, Tone } from '@yperkine/demonstration';
import clsx from 'clsx';
import { BadgeCheck, SearchX } from 'lucide-react';
import { FittedLine } from '../../parts/FittedLine.tsx';
import { useResolved, useSaid, useWorkbench } from '../../state/context.ts';
import { jumpTo } from '../../state/where.ts';
import { cssColour } from '../../theme/colour.ts';
import { Problem } from './Problem.tsx';
import { ResultTable } from './ResultTable.tsx';

/** Typeset lines, the first one in the entry's tone. */
export function Lines({ lines, tone }: { lines: readonly Line[]; tone: Tone }) {
  return lines.map((line, i) => (
    <div key={i} className="py-1.5 text-[1.06rem]" style={i === 0 ? { color: cssColour(tone) } : undefined}>
      <FittedLine line={line} />
    </div>
  ));
}

/** The part of a card that follows the numbers, once a frame at most. */
export function StudyBody({ id, tone }: { id: Id; tone: Tone }) {
  const workbench = useWorkbench();
  const outcome = useResolved(id)?.outcome;
  const said = useSaid(id);
  if (!outcome) return null;
  if (!outcome.ok) return <Unresolved problem={outcome.problem} />;
  if (!said) return null;
  const { lines, sentence, table, certainty, decided, isPending = false } = said;
  const tier = (outcome.result as { readonly curve?: CurveResult }).curve?.tier;
  const jump =
    tier === undefined
      ? undefined
      : ({ x, y }: { x: number; y: number | null }) => jumpTo(workbench, tier, x, y);
  return (
    <div
      aria-busy={isPending || decided !== undefined}
      className={clsx('transition-opacity', isPending && 'opacity-60 delay-150')}
    >
      <Lines lines={lines} tone={tone} />
      {certainty && <Certainty {...certainty} />}
      {decided !== undefined && <Progress decided={decided} />}
      <Sentence text={sentence} />
      {table && <ResultTable table={table} tone={tone} {...(jump ? { onJump: jump } : {})} />}
    </div>
  );
}

/** How sure a result is, in a word: proved, or found by search. */
function Certainty({ text, isProved }: NonNullable<Said['certainty']>) {
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

/** How far a search is that has found only some of it yet. */
function Progress({ decided }: { decided: number | null }) {
  const text = decided === null ? 'so far' : `${Math.floor(decided * 100)} % decided`;
  return (
    <p className="mt-1 flex items-center gap-2.5 text-sm font-semibold text-quiet">
      <progress
        aria-label="How much of the interval is decided"
        className="h-1.5 w-36 appearance-none overflow-hidden rounded-full bg-rule [&::-moz-progress-bar]:bg-ink [&::-webkit-progress-bar]:bg-rule [&::-webkit-progress-value]:bg-ink"
        {...(decided === null ? {} : { value: decided })}
      />
      {text}
    </p>
  );
}

export function Sentence({ text }: { text: string }) {
  return text ? <p className="mt-0.5 text-[0.95rem] text-quiet">{text}</p> : null;
}

/** What keeps an entry from its result: loud where the fault is, quiet where an entry only waits. */
export function Unresolved({ problem: { message, isWaiting, missingName } }: { problem: EntryProblem }) {
  if (isWaiting) return <p className="mt-1 text-[0.95rem] text-quiet">{message}</p>;
  return <Problem message={message} missingName={missingName} />;
}
