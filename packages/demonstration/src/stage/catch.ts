/** How near to a target, in pixels, a dragged value catches on it. */
export const catchRadius = 7;

export interface Caught {
  readonly value: number;
  /** Whether the value was drawn onto a target. */
  readonly isCaught: boolean;
}

/**
 * The nearest target within `catchRadius` pixels, or the value itself.
 * @param pixelsPerUnit how many pixels one unit of the value takes
 */
export function catchOn(value: number, targets: readonly number[], pixelsPerUnit: number): Caught {
  let best: number | undefined;
  for (const target of targets) {
    if (best === undefined || Math.abs(target - value) < Math.abs(best - value)) best = target;
  }
  const isCaught = best !== undefined && Math.abs(best - value) * pixelsPerUnit <= catchRadius;
  return isCaught ? { value: best as number, isCaught } : { value, isCaught };
}
