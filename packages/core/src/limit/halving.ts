/** Whole numbers beyond this are not looked for. */
const largest = 2 ** 50;

/**
 * The largest whole number that something reaches, by doubling and halving; null where it is beyond all reach.
 * @param isAtLeast whether it is as large as a whole number; true for all smaller ones, too
 */
export function wholePartBy(isAtLeast: (n: number) => boolean): number | null {
  let [low, high] = [-1, 1];
  while (!isAtLeast(low)) if ((low *= 2) < -largest) return null;
  while (isAtLeast(high)) if ((high *= 2) > largest) return null;
  return lastBy(isAtLeast, low, high);
}

/**
 * The last of some whole numbers for which something holds, by halving.
 * @param low one for which it holds
 * @param high a larger one, for which it does not, or which is not asked for
 */
export function lastBy(holds: (n: number) => boolean, low: number, high: number): number {
  let [from, to] = [low, high];
  while (to - from > 1) {
    const middle = Math.floor((from + to) / 2);
    if (holds(middle)) from = middle;
    else to = middle;
  }
  return from;
}
