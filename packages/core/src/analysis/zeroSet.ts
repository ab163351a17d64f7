import type { Box } from './isolate.ts';
import { sortedPlaces, type Place } from './place.ts';

/** Where a function is 0 on an interval. */
export interface ZeroSet {
  /** Proved, in ascending order. */
  readonly roots: readonly Place[];
  /** Places beside which the function is analytic or not defined, but at which it need not be. */
  readonly breaks: readonly Place[];
  /** Parts in which zeros or breaks could be neither found nor excluded. */
  readonly undecided: readonly Box[];
  /** Whether the function is 0 wherever it is defined. */
  readonly isZero: boolean;
}

export const nowhere: ZeroSet = { roots: [], breaks: [], undecided: [], isZero: false };

/** Parts over which the range of a function is told. */
export const rangeParts = 64;

/** What several functions together have. */
export function union(sets: readonly ZeroSet[]): ZeroSet {
  const breaks = sortedPlaces(sets.flatMap((set) => set.breaks));
  return {
    roots: sortedPlaces(sets.flatMap((set) => set.roots)),
    breaks,
    undecided: sets.flatMap((set) => set.undecided),
    isZero: sets.some((set) => set.isZero),
  };
}
