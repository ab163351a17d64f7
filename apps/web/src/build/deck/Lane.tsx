import { latexName, rational } from '@yperkine/core';
import type { EntryOf, Id, ParameterResult } from '@yperkine/demonstration';
import clsx from 'clsx';
import { Pause, Play } from 'lucide-react';
import type { CSSProperties } from 'react';
import { NumberField } from '../../parts/NumberField.tsx';
import { Typeset } from '../../parts/Typeset.tsx';
import { removeEntry } from '../../state/actions.ts';
import { useResolved, useWorkbench, useWorkbenchState } from '../../state/context.ts';
import { Problem } from '../working/Problem.tsx';
import { LaneSettings, repeatIcons, repeatNames } from './LaneSettings.tsx';

/** A parameter's lane: play, name, value, slider, pace. */
export function Lane({ id }: { id: Id }) {
  const workbench = useWorkbench();
  const resolved = useResolved(id);
  const isHere = useWorkbenchState((state) => state.here === id);
  const isPlaying = useWorkbenchState((state) => state.playing?.parameter === id);
  const entry = resolved?.entry;
  if (entry?.kind !== 'parameter' || !resolved) return null;
  const { outcome } = resolved;
  const RepeatIcon = repeatIcons[entry.repeat];
  return (
    <div
      role="group"
      aria-label={`Slider ${entry.name}`}
      onPointerDown={() => workbench.choose(id)}
      className="card flex flex-wrap items-center gap-x-3 px-2.5 py-2"
    >
      <button
        type="button"
        aria-label={isPlaying ? `Stop ${entry.name}` : `Play ${entry.name}`}
        title={`${isPlaying ? 'Stop' : 'Play'} (Space)`}
        onClick={() => workbench.togglePlay(id)}
        disabled={!outcome.ok}
        className={clsx(
          'inline-flex size-10 shrink-0 items-center justify-center rounded-full transition-colors',
          isHere ? 'bg-here text-[#1d2433]' : 'border border-rule bg-paper text-ink',
        )}
      >
        {isPlaying ? (
          <Pause size={17} fill="currentColor" aria-hidden />
        ) : (
          <Play size={17} fill="currentColor" aria-hidden className="ml-0.5" />
        )}
      </button>
      <span className="min-w-6 text-lg">
        <Typeset latex={latexName(entry.name)} />
      </span>
      {outcome.ok ? (
        <LaneSlider id={id} entry={entry} result={outcome.result as ParameterResult} />
      ) : (
        <div className="flex-1">
          <Problem message={outcome.problem.message} />
        </div>
      )}
      <span
        className="hidden items-center gap-1.5 text-sm text-quiet sm:inline-flex"
        title={repeatNames[entry.repeat]}
      >
        <RepeatIcon size={15} aria-hidden />
        {entry.seconds} s a run
      </span>
      <LaneSettings id={id} entry={entry} onRemove={() => removeEntry(workbench, id)} />
    </div>
  );
}

interface LaneSliderProps {
  readonly id: Id;
  readonly entry: EntryOf<'parameter'>;
  readonly result: ParameterResult;
}

function LaneSlider({ id, entry, result }: LaneSliderProps) {
  const workbench = useWorkbench();
  const { from, to } = { from: rational.toNumber(result.scale.from), to: rational.toNumber(result.scale.to) };
  const value = result.value.value;
  const share = Math.min(1, Math.max(0, (value - from) / (to - from)));
  const settle = () => workbench.settle(id);
  return (
    <>
      <NumberField
        label={`Value of ${entry.name}`}
        isLabelHidden
        value={result.text.replace('−', '-')}
        onCommit={(next) => {
          workbench.stop();
          workbench.setValue(id, next);
        }}
        className="w-22 shrink-0 text-right [&_input]:border-transparent [&_input]:border-b-rule [&_input]:rounded-none [&_input]:bg-transparent [&_input]:text-right [&_input]:focus:border-b-ink [&_input]:hover:border-b-ink"
      />
      <input
        type="range"
        aria-label={entry.name}
        aria-valuetext={result.text}
        min={from}
        max={to}
        step={Number(entry.step)}
        value={value}
        style={{ '--share': share } as CSSProperties}
        onChange={(event) => workbench.show(id, decimal(event.target.value))}
        onPointerUp={settle}
        onKeyUp={settle}
        onBlur={settle}
        className="lane-slider min-w-24 flex-1 accent-ink"
      />
    </>
  );
}

/** The browser's number text as a decimal without a small e. */
const decimal = (text: string): string => text.replace('e', 'E');
