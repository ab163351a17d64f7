import * as tree from '../language/tree.ts';
import type { Condition, Expression } from '../language/tree.ts';
import * as big from '../limit/bigFloat.ts';
import { Arcs } from './arcs.ts';
import type { Box } from './isolate.ts';
import { sortedPlaces, type Place } from './place.ts';

export interface Solutions {
  readonly solutions: readonly Place[];
  /** Stretches on which the equation holds throughout. */
  readonly everywhere: readonly { readonly from: Place; readonly to: Place }[];
  readonly complete: boolean;
  readonly undecided: readonly Box[];
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
  const left =
    order === 0 ? body : ({ ...tree.derivative(variable, order, body) } satisfies Expression);
  const functionArcs = new Arcs(body, variable, interval, order);
  const arcs = new Arcs(tree.subtract(left, equals), variable, interval, 0);
  const inside = arcs.arcs.flatMap((arc) => arcs.zerosOn(arc, 0));
  const atJoints = arcs.joints.filter((joint) => {
    const value = arcs.valueAt(joint);
    return value !== null && big.isZero(value) && hasDerivative(functionArcs, joint, order);
  });
  const everywhere = arcs.arcs.filter((arc) => arc.bodies?.[0] && arcs.signsOn(arc, 0)[0]?.sign === 0);
  const isInside = (place: Place): boolean =>
    everywhere.some(({ from, to }) => place.value > from.value && place.value < to.value);
  return {
    solutions: sortedPlaces([...inside, ...atJoints]).filter((place) => !isInside(place)),
    everywhere: everywhere.map(({ from, to }) => ({ from, to })),
    complete: arcs.undecided.length === 0,
    undecided: arcs.undecided,
  };
}

/** Formulas of derivatives may have a value at a corner where the derivative itself has none. */
function hasDerivative(arcs: Arcs, place: Place, order: number): boolean {
  if (order === 0) return true;
  const joint = arcs.joints.find((candidate) => candidate.value === place.value);
  if (!joint) return true;
  const isEnd = joint === arcs.from || joint === arcs.to;
  return isEnd || arcs.derivativeAt(joint, order) !== null;
}

/** A stretch on which a condition holds, and whether its ends belong to it. */
export interface Held {
  readonly from: Place;
  readonly to: Place;
  readonly includesFrom: boolean;
  readonly includesTo: boolean;
}

/** Where in [a, b] a condition on the variable holds, in ascending order; single places have equal ends. */
export function whereHolds(
  condition: Condition,
  variable: string,
  interval: readonly [number, number],
): { readonly stretches: readonly Held[]; readonly complete: boolean } {
  const one = tree.number(1);
  const arcs = new Arcs(tree.piecewise([{ value: one, condition }]), variable, interval, 0);
  const holdsAt = (place: Place): boolean => arcs.valueAt(place) !== null;
  const stretches: Held[] = [];
  arcs.joints.forEach((joint, i) => {
    const arc = arcs.arcs[i];
    const before = stretches.at(-1);
    const joins = before?.to === joint && before.includesTo;
    if (arc?.bodies) {
      const includesTo = holdsAt(arc.to);
      if (joins) stretches[stretches.length - 1] = { ...before, to: arc.to, includesTo };
      else stretches.push({ from: joint, to: arc.to, includesFrom: holdsAt(joint), includesTo });
    } else if (!joins && holdsAt(joint)) {
      stretches.push({ from: joint, to: joint, includesFrom: true, includesTo: true });
    }
  });
  return { stretches, complete: arcs.undecided.length === 0 };
}
