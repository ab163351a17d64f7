/**
 * Counted operations, so that what has to be done between two frames ends in time on every machine alike. One is about
 * a step of a program at a point of arrays; who counts nothing has as many as it needs.
 */
let left = Infinity;

/** Thrown where an effort is used up: what was begun has to be done elsewhere, or more roughly. */
export class OutOfEffort extends Error {}

/** Counts operations that are about to be done. @throws OutOfEffort where there are not so many left */
export function spend(operations: number): void {
  left -= operations;
  if (left < 0) throw new OutOfEffort('more operations than are allowed');
}

/** A number of operations that may be spent, here and there. */
export class Effort {
  constructor(private remaining: number) {}

  /** How many operations are left of it. */
  get left(): number {
    return this.remaining;
  }

  get isUsedUp(): boolean {
    return this.remaining <= 0;
  }

  /** A part of it, for work that ends by itself where that is used up; it is gone from the whole. */
  part(share: number): Effort {
    const taken = Math.max(0, Math.min(share, this.remaining));
    this.remaining -= taken;
    return new Effort(taken);
  }

  /** Takes back what a part of it has not used. */
  takeBack(part: Effort): void {
    this.remaining += Math.max(0, part.remaining);
    part.remaining = 0;
  }

  /**
   * Does some work on this effort, whatever is counted around it.
   * @param share the most that this work may take of it
   * @throws OutOfEffort when it is used up
   */
  spendOn<T>(work: () => T, share: number = Infinity): T {
    const around = left;
    const begun = Math.min(this.remaining, share);
    left = begun;
    try {
      return work();
    } finally {
      this.remaining -= begun - left;
      left = around;
    }
  }
}

/** What comes of some work where so many operations suffice for it; null where they do not. */
export function ifInTime<T>(operations: number, work: () => T): T | null {
  try {
    return new Effort(operations).spendOn(work);
  } catch (error) {
    if (error instanceof OutOfEffort) return null;
    throw error;
  }
}

/**
 * What comes of a part of some work where so many operations suffice for it; null where they do not. They are taken from
 * what the whole work may spend.
 * @throws OutOfEffort where that is used up
 */
export function ifWithin<T>(operations: number, work: () => T): T | null {
  const around = left;
  const begun = Math.min(operations, around);
  left = begun;
  try {
    return work();
  } catch (error) {
    if (error instanceof OutOfEffort && begun < around) return null;
    throw error;
  } finally {
    left = around === Infinity ? Infinity : around - (begun - left);
  }
}
