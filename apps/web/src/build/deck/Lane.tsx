import { latexName, rational } from '@yperkine/core';
import {
  doublesInSteps,
  doublingOf,
  doublingPositions,
  parameterOf,
  stepped,
  unitText,
  valueAtDoubling,
  withUnit,
  type EntryOf,
  type Id,
  type ParameterResult,
} from '@yperkine/demonstration';
import clsx from 'clsx';
import { EyeOff, Lock, Pause, Play } from 'lucide-react';
import { useLayoutEffect, useRef, type ComponentProps, type CSSProperties, type KeyboardEvent } from 'react';
import { NumberField } from '../../parts/NumberField.tsx';
import { stepsOf } from '../../parts/stepKeys.ts';
import { Typeset } from '../../parts/Typeset.tsx';
import { useResolved, useWorkbench, useWorkbenchState } from '../../state/context.ts';
import { Problem } from '../working/Problem.tsx';
import { LaneSettings, repeatIcons, repeatNames } from './LaneSettings.tsx';

/** A parameter's lane: play, name, value, slider, pace. Only its slider follows the moving value. */
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

interface LaneSliderProps {
  readonly id: Id;
  readonly entry: EntryOf<'parameter'>;
  readonly isLocked: boolean;
}

function LaneSlider({ id, entry, isLocked }: LaneSliderProps) {
  const workbench = useWorkbench();
  const outcome = useResolved(id)?.outcome;
  if (!outcome) return null;
  if (!outcome.ok) {
    return (
      <div className="flex-1">
        <Problem message={outcome.problem.message} />
      </div>
    );
  }
  const { scale, value, text, unit } = outcome.result as ParameterResult;
  const [from, to] = [rational.toNumber(scale.from), rational.toNumber(scale.to)];
  const isDoubling = entry.spread === 'doubling' && from > 0;
  const place = (number: number): number => (isDoubling ? doublingOf(number, scale) : number);
  const ends = isDoubling ? [0, doublingPositions] : [from, to];
  const share = Math.min(
    1,
    Math.max(0, (place(value.value) - (ends[0] ?? 0)) / ((ends[1] ?? 1) - (ends[0] ?? 0))),
  );
  const settle = () => workbench.settle(id);
  const valueNow = (): number => parameterOf(workbench.current(), id)?.value.value ?? value.value;
  return (
    <>
      <NumberField
        isDisabled={isLocked}
        label={`Value of ${entry.name}`}
        isLabelHidden
        value={text.replace('−', '-')}
        refuse={(next) => (entry.whole && !isWhole(next) ? `${entry.name} takes whole numbers only.` : null)}
        onCommit={(next) => {
          workbench.stop(id);
          workbench.setValue(id, next);
        }}
        className="w-22 shrink-0 max-sm:w-16 text-right [&_input]:rounded-none [&_input]:border-transparent [&_input]:border-b-rule [&_input]:bg-transparent [&_input]:text-right [&_input]:hover:border-b-ink [&_input]:focus:border-b-ink"
      />
      {unit.size > 0 && <span className="text-sm text-quiet">{unitText(unit)}</span>}
      <Slider
        disabled={isLocked}
        aria-label={entry.name}
        aria-valuetext={withUnit(text, unit)}
        min={ends[0]}
        max={ends[1]}
        step={isDoubling ? 1 : Number(entry.step)}
        shown={place(value.value)}
        present={() => {
          const now = parameterOf(workbench.current(), id)?.value.value;
          return now === undefined ? undefined : place(now);
        }}
        onStep={isDoubling ? (steps) => workbench.show(id, stepped(valueNow(), steps, scale)) : undefined}
        style={{ '--share': share } as CSSProperties}
        onChange={(event) =>
          workbench.show(
            id,
            isDoubling ? valueAtDoubling(Number(event.target.value), scale) : decimal(event.target.value),
          )
        }
        onPointerUp={settle}
        onKeyUp={settle}
        onBlur={settle}
        className="lane-slider min-w-16 flex-1 accent-ink"
      />
    </>
  );
}

interface SliderProps extends ComponentProps<'input'> {
  /** The value of the last frame. */
  readonly shown: number;
  /** The value at this moment, which no frame may have shown yet. */
  readonly present: () => number | undefined;
  /** Moves by so many steps of the parameter, where those are not the slider's own. */
  readonly onStep?: ((steps: number) => void) | undefined;
}

/**
 * A range input that follows the frames. A key goes on from the present value, so that neither a second key within one
 * frame nor a value that was typed just before is lost.
 */
function Slider({ shown, present, onStep, ...rest }: SliderProps) {
  const input = useRef<HTMLInputElement>(null);
  const write = (value: number | undefined) => {
    if (input.current && value !== undefined) input.current.value = String(value);
  };
  useLayoutEffect(() => write(shown), [shown, rest.min, rest.max, rest.step]);
  const press = (event: KeyboardEvent<HTMLInputElement>) => {
    const steps = stepsOf(event);
    if (onStep && steps !== 0) {
      event.preventDefault();
      onStep(steps);
    }
    write(present());
  };
  return <input type="range" ref={input} defaultValue={shown} {...rest} onKeyDown={press} />;
}

const isWhole = (text: string): boolean => Number.isInteger(Number(text));

/** The browser's number text as a decimal without a small e. */
const decimal = (text: string): string => text.replace('e', 'E');
