import * as tree from '../language/tree.ts';
import type { Expression } from '../language/tree.ts';
import { Arcs } from './arcs.ts';
import type { Height } from './height.ts';
import type { Box } from './isolate.ts';
import { comparePlaces, sortedPlaces, type Place } from './place.ts';

/** A stretch on which a condition or an equation holds, and whether its ends belong to it. */
export interface Held {
  readonly from: Place;
  readonly to: Place;
  readonly includesFrom: boolean;
  readonly includesTo: boolean;
}

export interface Solutions {
  /** Single places, outside of the stretches. */
  readonly solutions: readonly Place[];
  /** Stretches on which the equation holds throughout. */
  readonly everywhere: readonly Held[];
  readonly complete: boolean;
  readonly undecided: readonly Box[];
  readonly hasTooManyJumps: boolean;
}

/**
 * All x in [a, b] at which the derivative of the given order (0 for the function itself) equals the other side,
 * a number or a further function of the variable.
 */
export function solve(
  body: Expression,
  equals: Expression,
  variable: string,
  interval: readonly [number, number],
  order = 0,
): Solutions {
  const left = new Arcs(body, variable, interval, 0, order);
  const right = new Arcs(equals, variable, interval, 0);
  const solutions: Place[] = [];
  const everywhere: Held[] = [];
  for (const { from, to, formula } of differences(left, right)) {
    solutions.push(...left.rootsBetween(formula, from, to));
    if (left.zeros.of(formula).isZero)
      addStretch(everywhere, { from, to }, (place) => areEqualAt(left, right, place));
  }
  const joints = sortedPlaces([...left.joints, ...right.joints]);
  solutions.push(...joints.filter((joint) => areEqualAt(left, right, joint)));
  const undecided = [...left.undecided, ...right.undecided];
  // At the end of a stretch that may be a solution throughout, a solution says nothing of its own.
  const isHidden = ({ value }: Place): boolean =>
    undecided.some(({ low, high }) => low < high && (low === value || high === value));
  const isOutside = (place: Place): boolean =>
    !isHidden(place) &&
    !everywhere.some(({ from, to }) => comparePlaces(from, place) <= 0 && comparePlaces(place, to) <= 0);
  return {
    solutions: sortedPlaces(solutions).filter(isOutside),
    everywhere,
    complete: undecided.length === 0,
    undecided,
    hasTooManyJumps: left.hasTooManyJumps || right.hasTooManyJumps,
  };
}

/** Adds a stretch, with the ends that belong to it; one that goes on from the last is a part of that. */
function addStretch(
  stretches: Held[],
  { from, to }: { from: Place; to: Place },
  holdsAt: (place: Place) => boolean,
): void {
  const [includesFrom, includesTo] = [holdsAt(from), holdsAt(to)];
  const before = stretches.at(-1);
  const goesOn = before?.includesTo && includesFrom && comparePlaces(before.to, from) === 0;
  if (goesOn) stretches[stretches.length - 1] = { ...before, to, includesTo };
  else stretches.push({ from, to, includesFrom, includesTo });
}

/** Left minus right wherever both are defined, by stretches on which both have one formula. */
function differences(left: Arcs, right: Arcs): { from: Place; to: Place; formula: Expression }[] {
  return left.arcs.flatMap((arc) =>
    right.arcs.flatMap((other) => {
      const from = comparePlaces(arc.from, other.from) < 0 ? other.from : arc.from;
      const to = comparePlaces(arc.to, other.to) < 0 ? arc.to : other.to;
      const [a, b] = [left.bodyOf(arc, 0), right.bodyOf(other, 0)];
      return a && b && comparePlaces(from, to) < 0 ? [{ from, to, formula: tree.subtract(a, b) }] : [];
    }),
  );
}

function areEqualAt(left: Arcs, right: Arcs, place: Place): boolean {
  const [a, b] = [valueNear(left, place), valueNear(right, place)];
  return a !== null && b !== null && left.areSame(a, b, place);
}

/** The value at a place that may be a joint of the other side only. */
function valueNear(arcs: Arcs, place: Place): Height | null {
  return arcs.valueAt(arcs.joints.find((joint) => comparePlaces(joint, place) === 0) ?? place);
}
