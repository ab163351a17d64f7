import { rational } from '@yperkine/core';
import type { ParameterEntry, Repeat } from '../entries/parameter/parameter.ts';
import type { ParameterResult } from '../entries/parameter/result.ts';

/** Going from stop to stop, with a rest at each. */
export interface Stepping {
  /** The distance of two stops. */
  readonly size: number;
  /** Seconds that it rests at a stop. */
  readonly pause: number;
}

/** A run of a parameter through its limits. */
export interface Run {
  readonly from: number;
  readonly to: number;
  /** Value when the run began. */
  readonly start: number;
  /** Seconds from limit to limit. */
  readonly seconds: number;
  readonly repeat: Repeat;
  /** Even; shrinking by the same factor in every second; or twice as much after every so many seconds. */
  readonly pace?: 'even' | 'closing' | 'doubling';
  /** From stop to stop instead of smoothly. */
  readonly stepping?: Stepping | null;
}

export interface Position {
  readonly value: number;
  readonly isOver: boolean;
}

/** Whether a run goes from a value to twice that value: by steps, once, on a slider that gives each doubling the same room. */
export const doublesInSteps = ({ spread, motion, repeat, from }: ParameterEntry): boolean =>
  spread === 'doubling' && motion === 'steps' && repeat === 'once' && Number(from) > 0;

/** The run that a parameter's settings ask for, from where it stands. */
export function runOf(entry: ParameterEntry, { value, scale }: ParameterResult): Run {
  const { seconds, pace, speed, repeat, motion, pause, step } = entry;
  const [from, to] = [rational.toNumber(scale.from), rational.toNumber(scale.to)];
  if (doublesInSteps(entry)) {
    // From its last doubling it begins anew.
    const start = 2 * value.value > to ? from : value.value;
    return { from, to, start, seconds: Number(pause), repeat, pace: 'doubling' };
  }
  return {
    from,
    to,
    start: value.value,
    seconds: pace === 'speed' ? (to - from) / Number(speed) : Number(seconds),
    repeat,
    stepping: motion === 'steps' ? { size: Number(step), pause: Number(pause) } : null,
  };
}

/** Stops of a run for those who want less motion, and the least rest at each. */
const calmStops = 10;
const calmPause = 1;

/** The same run in a few jumps with time between them, for those who asked their system to reduce motion. */
export function calmed(run: Run): Run {
  if (run.stepping || run.pace === 'doubling') return run;
  const size = (run.to - run.from) / calmStops;
  return { ...run, stepping: { size, pause: Math.max(calmPause, run.seconds / calmStops) } };
}

/**
 * Where a run is after `elapsed` seconds: a function of time alone, so the frame rate plays no part.
 * A run that repeats once and starts at its end begins anew.
 */
export function positionOf(run: Run, elapsed: number): Position {
  if (run.pace === 'closing') return closingPosition(run, elapsed);
  if (run.pace === 'doubling') return doublingPosition(run, elapsed);
  const span = run.to - run.from;
  if (!(span > 0) || !(run.seconds > 0)) return { value: run.start, isOver: true };
  return run.stepping ? steppingPosition(run, run.stepping, elapsed) : smoothPosition(run, span, elapsed);
}

function closingPosition({ from, to, seconds, stepping }: Run, elapsed: number): Position {
  const time = stepping ? Math.floor(elapsed / stepping.pause) * stepping.pause : elapsed;
  const share = Math.min(1, time / seconds);
  return { value: from * (to / from) ** share, isOver: share >= 1 };
}

/** The start, twice, four times it …, each for the run's seconds, up to the limit. */
function doublingPosition({ start, to, seconds }: Run, elapsed: number): Position {
  const value = start * 2 ** Math.floor(elapsed / seconds + onStop);
  return { value: Math.min(value, to), isOver: 2 * value > to };
}

function smoothPosition({ from, start, seconds, repeat }: Run, span: number, elapsed: number): Position {
  const startShare = Math.min(1, Math.max(0, (start - from) / span));
  const travelled = elapsed / seconds;
  const at = (share: number, isOver = false): Position => ({ value: from + span * share, isOver });
  switch (repeat) {
    case 'once': {
      const share = (startShare >= 1 ? 0 : startShare) + travelled;
      return share >= 1 ? at(1, true) : at(share);
    }
    case 'overAndOver':
      return at(((startShare >= 1 ? 0 : startShare) + travelled) % 1);
    case 'thereAndBack': {
      const phase = (startShare + travelled) % 2;
      return at(phase <= 1 ? phase : 2 - phase);
    }
  }
}

/** How near to a stop, in steps, a value counts as standing on it. */
const onStop = 1e-9;

function steppingPosition(
  { from, to, start, repeat }: Run,
  { size, pause }: Stepping,
  elapsed: number,
): Position {
  if (!(size > 0) || !(pause > 0)) return { value: start, isOver: true };
  const last = Math.ceil((to - from) / size - onStop);
  const stop = (index: number): number => (index >= last ? to : from + index * size);
  const taken = Math.floor(elapsed / pause + onStop);
  const place = start >= to ? last : Math.max(0, start - from) / size;
  const isOnStop = Math.abs(place - Math.round(place)) < onStop || start >= to;
  // From between two stops the first step leads to the next one.
  const first = isOnStop ? Math.round(place) : Math.ceil(place) - 1;
  if (taken === 0 && !(repeat === 'once' && first === last)) return { value: start, isOver: false };
  const index = first + taken;
  switch (repeat) {
    case 'once': {
      const reached = first === last ? taken : index;
      return { value: stop(Math.min(last, reached)), isOver: reached >= last };
    }
    case 'overAndOver':
      return { value: stop(index % (last + 1)), isOver: false };
    case 'thereAndBack': {
      const phase = index % (2 * last);
      return { value: stop(phase <= last ? phase : 2 * last - phase), isOver: false };
    }
  }
}
