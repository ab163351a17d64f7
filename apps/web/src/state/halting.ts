import type { Id, ReadoutResult, Resolution } from '@yperkine/demonstration';

interface Sample {
  readonly time: number;
  readonly value: number;
}

/** The share that a golden section keeps of its interval. */
const golden = (Math.sqrt(5) - 1) / 2;
/** Sections that bring the time between three frames down to a billionth of a second. */
const sections = 40;

/** Watches large numbers while parameters run, and finds the moment at which one of them turned. */
export class Halting {
  /** The last two values of each number, in the frames before this one. */
  private readonly seen = new Map<Id, readonly Sample[]>();

  /** Nothing is remembered from before a run. */
  reset(): void {
    this.seen.clear();
  }

  /**
   * @param time of this frame, in milliseconds
   * @param resolutionAt what is shown at any time of the run
   * @returns the time at which a number that halts motion passed its least or greatest value; null where none did
   */
  *watch(
    time: number,
    resolution: Resolution,
    resolutionAt: (time: number) => Generator<void, Resolution>,
  ): Generator<void, number | null> {
    for (const { id, entry } of resolution.entries.values()) {
      if (entry.kind !== 'readout' || entry.halt === 'never') continue;
      const value = valueIn(resolution, id);
      const before = this.seen.get(id) ?? [];
      const isStill = before.at(-1)?.value === value;
      // A number that stands still has not turned: its last value counts once.
      const samples = isStill ? [...before] : [...before.slice(-2), { time, value }];
      this.seen.set(id, samples);
      const way = isStill ? 0 : turn(samples);
      if (way === 0 || (way > 0 && entry.halt === 'greatest') || (way < 0 && entry.halt === 'least'))
        continue;
      const [from] = samples as [Sample];
      return yield* turningTime(from.time, time, function* (moment) {
        return way * valueIn(yield* resolutionAt(moment), id);
      });
    }
    return null;
  }
}

/** 1 where three values fall and rise again, −1 where they rise and fall, 0 elsewhere. */
function turn(samples: readonly Sample[]): number {
  const [a, b, c] = samples.map(({ value }) => value);
  if (a === undefined || b === undefined || c === undefined) return 0;
  return b < a && b < c ? 1 : b > a && b > c ? -1 : 0;
}

function valueIn({ entries }: Resolution, id: Id): number {
  const outcome = entries.get(id)?.outcome;
  return outcome?.ok ? (outcome.result as ReadoutResult).value.value : NaN;
}

/** Where a function that falls and rises is least, by golden section (Kiefer, 1953). */
function* turningTime(
  from: number,
  to: number,
  f: (time: number) => Generator<void, number>,
): Generator<void, number> {
  let [a, b] = [from, to];
  let [left, right] = [b - golden * (b - a), a + golden * (b - a)];
  let [low, high] = [yield* f(left), yield* f(right)];
  for (let i = 0; i < sections; i++) {
    if (low <= high) {
      [b, right, high] = [right, left, low];
      left = b - golden * (b - a);
      low = yield* f(left);
    } else {
      [a, left, low] = [left, right, high];
      right = a + golden * (b - a);
      high = yield* f(right);
    }
  }
  return low <= high ? left : right;
}
