/**
 * How thoroughly a question is searched. A first answer is soon there when every search in it may take a part of its
 * steps only; whether that was enough is known afterwards.
 */
let share = 1;
let isCutShort = false;

/** How many steps a search may take that takes so many when it has all its time. */
export const stepsAllowed = (most: number): number => Math.ceil(most * share);

/** A search tells that it ended with something left to do. */
export function endedEarly(): void {
  isCutShort = true;
}

export interface Searched<T> {
  readonly result: T;
  /** Whether more time would change nothing. */
  readonly isAll: boolean;
}

/**
 * Does some work in which every search takes no more than a part of its steps.
 * @param part from above 0 up to 1
 */
export function searchedInPart<T>(part: number, work: () => T): Searched<T> {
  const [shareAround, cutAround] = [share, isCutShort];
  share = part;
  isCutShort = false;
  try {
    const result = work();
    return { result, isAll: !isCutShort };
  } finally {
    share = shareAround;
    isCutShort = cutAround;
  }
}
