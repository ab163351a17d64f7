import { rational } from '@yperkine/core';
import {
  doublingOf,
  doublingPositions,
  parameterOf,
  settingValue,
  stepped,
  unitText,
  valueAtDoubling,
  withUnit,
  type EntryOf,
  type Id,
  type ParameterResult,
  shownValue,
} from '@yperkine/demonstration';
import { useCallback, useLayoutEffect, useRef, type KeyboardEvent } from 'react';
import { NumberField } from '../../parts/NumberField.tsx';
import { stepsOf } from '../../parts/stepKeys.ts';
import { useWorkbench, useWorkbenchState } from '../../state/context.ts';
import type { Workbench } from '../../state/workbench.ts';
import { Problem } from '../working/Problem.tsx';

interface LaneSliderProps {
  readonly id: Id;
  readonly entry: EntryOf<'parameter'>;
  readonly isLocked: boolean;
}

/** Value and slider of a lane. They follow the motion without being rendered. */
export function LaneSlider({ id, entry, isLocked }: LaneSliderProps) {
  const problem = useWorkbenchState(({ resolution }) => {
    const outcome = resolution.entries.get(id)?.outcome;
    return outcome && !outcome.ok ? outcome.problem.message : null;
  });
  const scale = useWorkbenchState(({ resolution }) => parameterOf(resolution, id)?.scale);
  const unit = useWorkbenchState(({ resolution }) => parameterOf(resolution, id)?.unit);
  if (problem !== null) {
    return (
      <div className="flex-1">
        <Problem message={problem} />
      </div>
    );
  }
  if (!scale || !unit) return null;
  return (
    <>
      <LaneValue id={id} entry={entry} isLocked={isLocked} />
      {unit.size > 0 && <span className="text-sm text-quiet">{unitText(unit)}</span>}
      <Slider id={id} entry={entry} isLocked={isLocked} scale={scale} />
    </>
  );
}

/** Tells a parameter's result and how it is written, now and whenever they change; gives how to stop. */
function follow(
  workbench: Workbench,
  id: Id,
  tell: (result: ParameterResult, text: string) => void,
): () => void {
  let told: readonly unknown[] = [];
  const tellNews = () => {
    const { resolution } = workbench.state;
    const result = parameterOf(resolution, id);
    if (!result || (result === told[0] && resolution.rule === told[1])) return;
    told = [result, resolution.rule];
    tell(result, shownValue(result, resolution.rule));
  };
  tellNews();
  return workbench.store.subscribe(tellNews);
}

const asTyped = (text: string): string => text.replace('−', '-');

function LaneValue({ id, entry, isLocked }: LaneSliderProps) {
  const workbench = useWorkbench();
  const { resolution } = workbench.state;
  const [now, rule] = [parameterOf(resolution, id), resolution.rule];
  const followText = useCallback(
    (write: (text: string) => void) => follow(workbench, id, (_, text) => write(asTyped(text))),
    [workbench, id],
  );
  return (
    <NumberField
      isDisabled={isLocked}
      label={`Value of ${entry.name}`}
      isLabelHidden
      takesFractions
      value={asTyped(now ? shownValue(now, rule) : entry.value)}
      follow={followText}
      refuse={(next) => (entry.whole && !isWhole(next) ? `${entry.name} takes whole numbers only.` : null)}
      onCommit={(next) => {
        workbench.stop(id);
        workbench.setValue(id, next);
      }}
      className="w-22 shrink-0 max-sm:w-16 text-right [&_input]:rounded-none [&_input]:border-transparent [&_input]:border-b-rule [&_input]:bg-transparent [&_input]:text-right [&_input]:hover:border-b-ink [&_input]:focus:border-b-ink"
    />
  );
}

/**
 * A range input that follows the frames. A key goes on from the value of this moment, so that neither a second key
 * within one frame nor a value that was typed just before is lost.
 */
function Slider({ id, entry, isLocked, scale }: LaneSliderProps & Pick<ParameterResult, 'scale'>) {
  const workbench = useWorkbench();
  const input = useRef<HTMLInputElement>(null);
  const [from, to] = [rational.toNumber(scale.from), rational.toNumber(scale.to)];
  const isDoubling = entry.spread === 'doubling' && from > 0;
  const [least, greatest] = isDoubling ? [0, doublingPositions] : [from, to];
  const settle = () => workbench.settle(id);

  const write = useCallback(
    ({ value, unit }: ParameterResult, text: string) => {
      const slider = input.current;
      if (!slider) return;
      const place = isDoubling ? doublingOf(value.value, scale) : value.value;
      const share = Math.min(1, Math.max(0, (place - least) / (greatest - least)));
      slider.value = String(place);
      slider.style.setProperty('--share', String(share));
      slider.setAttribute('aria-valuetext', withUnit(text, unit));
    },
    [isDoubling, scale, least, greatest],
  );
  useLayoutEffect(() => follow(workbench, id, write), [workbench, id, write, entry.step]);

  const press = (event: KeyboardEvent<HTMLInputElement>) => {
    const present = parameterOf(workbench.current(), id);
    const steps = stepsOf(event);
    if (isDoubling && present && steps !== 0) {
      event.preventDefault();
      workbench.show(id, stepped(present.value.value, steps, scale));
    }
    const resolution = workbench.current();
    const next = parameterOf(resolution, id);
    if (next) write(next, shownValue(next, resolution.rule));
  };
  return (
    <input
      ref={input}
      type="range"
      disabled={isLocked}
      aria-label={entry.name}
      min={least}
      max={greatest}
      step={isDoubling ? 1 : Number(entry.step)}
      onChange={({ target }) =>
        workbench.show(id, isDoubling ? valueAtDoubling(Number(target.value), scale) : decimal(target.value))
      }
      onKeyDown={press}
      onPointerUp={settle}
      onKeyUp={settle}
      onBlur={settle}
      className="lane-slider min-w-16 flex-1 accent-ink"
    />
  );
}

const isWhole = (text: string): boolean => settingValue(text)?.denominator === 1n;

/** The browser's number text as a decimal without a small e. */
const decimal = (text: string): string => text.replace('e', 'E');
