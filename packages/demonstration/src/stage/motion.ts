import type { Repeat } from '../entries/parameter/parameter.ts';

/** A run of a parameter through its limits. */
export interface Run {
  readonly from: number;
  readonly to: number;
  /** Value when the run began. */
  readonly start: number;
  /** Seconds from limit to limit. */
  readonly seconds: number;
  readonly repeat: Repeat;
  /** Even, or shrinking by the same factor in every second, from one limit down to the other. */
  readonly pace?: 'even' | 'closing';
}

export interface Position {
  readonly value: number;
  readonly isOver: boolean;
}

/**
 * Where a run is after `elapsed` seconds: a function of time alone, so the frame rate plays no part.
 * A run that repeats once and starts at its end begins anew.
 */
export function positionOf(run: Run, elapsed: number): Position {
  if (run.pace === 'closing') {
    const share = Math.min(1, elapsed / run.seconds);
    return { value: run.from * (run.to / run.from) ** share, isOver: share >= 1 };
  }
  const span = run.to - run.from;
  if (!(span > 0) || !(run.seconds > 0)) return { value: run.start, isOver: true };
  const startShare = Math.min(1, Math.max(0, (run.start - run.from) / span));
  const travelled = elapsed / run.seconds;
  const at = (share: number, isOver = false): Position => ({ value: run.from + span * share, isOver });
  switch (run.repeat) {
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
