import type { Expression } from '../language/tree.ts';
import * as big from '../numbers/bigFloat.ts';
import { Arcs, type SignedStretch } from './arcs.ts';
import { signOfHeight } from './height.ts';
import type { Box } from './isolate.ts';
import { sortedPlaces, type Place } from './place.ts';
import { refuseSingleValues } from './singleValues.ts';

export interface Signs {
  readonly intervals: readonly SignedStretch[];
  /** The ends of the stretches, in ascending order, with the value there; null where it has none. */
  readonly ends: readonly { readonly place: Place; readonly value: number | null }[];
  readonly complete: boolean;
  readonly undecided: readonly Box[];
  readonly hasTooManyJumps: boolean;
}

/**
 * The stretches of [a, b] on which the derivative of the given order (0 for the function itself) is positive,
 * negative or zero, in ascending order; places where it does not exist separate stretches.
 * @throws SingleValues where the function has values at single numbers only
 */
export function signs(
  body: Expression,
  variable: string,
  interval: readonly [number, number],
  order = 0,
): Signs {
  refuseSingleValues(body, variable);
  const arcs = new Arcs(body, variable, interval, 0, order);
  const joined: SignedStretch[] = [];
  for (const stretch of arcs.arcs.flatMap((arc) => arcs.signsOn(arc, 0))) {
    const before = joined.at(-1);
    const goesOn =
      before && before.to === stretch.from && before.sign === stretch.sign && keepsSign(arcs, stretch);
    if (goesOn) joined[joined.length - 1] = { ...before, to: stretch.to };
    else joined.push(stretch);
  }
  const places = sortedPlaces(joined.flatMap(({ from, to }) => [from, to]));
  const ends = places.map((place) => {
    const value = arcs.valueAt(place);
    return { place, value: value && big.toDouble(value.value) };
  });
  const { undecided, hasTooManyJumps } = arcs;
  return { intervals: joined, ends, complete: undecided.length === 0, undecided, hasTooManyJumps };
}

/** Whether the sign before a stretch goes on through the joint at its beginning. */
function keepsSign(arcs: Arcs, { from, sign }: SignedStretch): boolean {
  if (!arcs.joints.includes(from)) return false;
  const value = arcs.valueAt(from);
  return value !== null && signOfHeight(value) === sign;
}
