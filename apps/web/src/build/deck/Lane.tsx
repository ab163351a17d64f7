import { latexName } from '@yperkine/core';
import { doublesInSteps, type EntryOf, type Id } from '@yperkine/demonstration';
import clsx from 'clsx';
import { EyeOff, Lock, Pause, Play } from 'lucide-react';
import { Typeset } from '../../parts/Typeset.tsx';
import { useWorkbench, useWorkbenchState } from '../../state/context.ts';
import { LaneSettings } from './LaneSettings.tsx';
import { repeatIcons, repeatNames } from './repeats.ts';
import { LaneSlider } from './LaneSlider.tsx';

/** A parameter's lane: play, name, value, slider, pace. */
export function Lane({ id, asStudent }: { id: Id; asStudent: boolean }) {
  const workbench = useWorkbench();
  const entry = useWorkbenchState((state) => state.document.entries[id]);
  const isHere = useWorkbenchState((state) => state.here === id);
  const isShown = useWorkbenchState(({ resolution }) => resolution.visibilities.get(id)?.isShown ?? true);
  if (entry?.kind !== 'parameter') return null;
  if (asStudent && (entry.students === 'nothing' || !isShown)) return null;
  const isLocked = asStudent && entry.students === 'see';
  const RepeatIcon = repeatIcons[entry.repeat];
  return (
    <div
      role="group"
      aria-label={`Slider ${entry.name}`}
      onPointerDown={() => workbench.choose(id)}
      className={clsx('card flex flex-wrap items-center gap-x-3 px-2.5 py-2', !isShown && 'border-dashed!')}
    >
      {isLocked ? (
        <Lock size={17} aria-label="Locked" className="mx-3 text-quiet" />
      ) : (
        <PlayButton id={id} name={entry.name} isHere={isHere} />
      )}
      <span className="min-w-6 text-lg">
        <Typeset latex={latexName(entry.name)} />
      </span>
      <LaneSlider id={id} entry={entry} isLocked={isLocked} />
      {!isShown && <span className="text-sm text-quiet">not shown just now</span>}
      <StudentMark students={entry.students} />
      <span
        className="hidden items-center gap-1.5 text-sm text-quiet sm:inline-flex"
        title={repeatNames[entry.repeat]}
      >
        <RepeatIcon size={15} aria-hidden />
        {paceText(entry)}
      </span>
      {!asStudent && <LaneSettings id={id} entry={entry} />}
    </div>
  );
}

function PlayButton({ id, name, isHere }: { id: Id; name: string; isHere: boolean }) {
  const workbench = useWorkbench();
  const isPlaying = useWorkbenchState((state) => id in state.playing);
  const Icon = isPlaying ? Pause : Play;
  return (
    <button
      type="button"
      aria-label={isPlaying ? `Stop ${name}` : `Play ${name}`}
      title={`${isPlaying ? 'Stop' : 'Play'} (Space)`}
      onClick={() => workbench.togglePlay(id)}
      className={clsx(
        'inline-flex size-10 shrink-0 items-center justify-center rounded-full transition-colors',
        isHere ? 'bg-here text-[#1d2433]' : 'border border-rule bg-paper text-ink',
      )}
    >
      <Icon size={17} fill="currentColor" aria-hidden className={isPlaying ? '' : 'ml-0.5'} />
    </button>
  );
}

/** How fast it goes, in short. */
function paceText(entry: EntryOf<'parameter'>): string {
  const { pace, seconds, speed, motion, pause } = entry;
  if (doublesInSteps(entry)) return `doubles each ${pause} s`;
  if (motion === 'steps') return `${pause} s a step`;
  return pace === 'speed' ? `${speed} a second` : `${seconds} s a run`;
}

/** What students may do with a lane, where it is not everything. */
function StudentMark({ students }: Pick<EntryOf<'parameter'>, 'students'>) {
  if (students === 'move') return null;
  const isHidden = students === 'nothing';
  const Icon = isHidden ? EyeOff : Lock;
  const words = isHidden ? 'Students do not see it' : 'Students see it and cannot move it';
  return (
    <span title={words} className="text-quiet">
      <Icon size={15} aria-label={words} />
    </span>
  );
}
