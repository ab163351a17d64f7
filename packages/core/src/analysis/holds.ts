import { isRelated } from '../algebra/exact.ts';
import { truthOf } from '../algebra/truth.ts';
import * as tree from '../language/tree.ts';
import type { ComparisonNode, Condition, Expression } from '../language/tree.ts';
import { Arcs } from './arcs.ts';
import { comparePlaces, pointPlace, sortedPlaces, type Place } from './place.ts';
import { signs, type Signs } from './signs.ts';
import { SingleValues } from './singleValues.ts';
import type { Held } from './solve.ts';

interface Holds {
  readonly stretches: readonly Held[];
  readonly complete: boolean;
}

/** Where in [a, b] a condition on the variable holds, in ascending order; single places have equal ends. */
export const whereHolds = (
  condition: Condition,
  variable: string,
  interval: readonly [number, number],
): Holds => bySigns(condition, variable, interval) ?? byDomain(condition, variable, interval);

/** A function less another: in pieces piece by piece, so that each of them is looked at as a formula. */
export function differenceOf(body: Expression, other: Expression): Expression {
  const less = (value: Expression): Expression => tree.subtract(value, other);
  if (body.kind !== 'piecewise') return less(body);
  const pieces = body.pieces.map(({ value, condition }) => ({ value: less(value), condition }));
  return tree.piecewise(pieces, body.otherwise && less(body.otherwise));
}

/**
 * The signs of the differences of what is compared tell it part by part, and at each place where one of them ends; null
 * where they are not known throughout.
 */
function bySigns(condition: Condition, variable: string, interval: readonly [number, number]): Holds | null {
  const differences = signsOf(condition, variable, interval);
  if (!differences) return null;
  const places = sortedPlaces([
    ...interval.map(pointPlace),
    ...differences.flatMap(({ ends }) => ends.map(({ place }) => place)),
  ]);
  const holdsBy = (signOf: (difference: Signs) => Sign): boolean => {
    // Taken from left to right, as the comparisons are gone through.
    const found = differences.map(signOf).values();
    return truthOf(condition, (comparison) => comparedBy(comparison, found)) === true;
  };
  const stretches: Held[] = [];
  places.forEach((place, i) => {
    const isAt = holdsBy((difference) => signAt(difference, place));
    const next = places[i + 1];
    const before = stretches.at(-1);
    const reaches = before?.to === place;
    if (reaches && isAt) stretches[stretches.length - 1] = { ...before, includesTo: true };
    if (next && holdsBy((difference) => signBetween(difference, place, next))) {
      const goesOn = reaches && isAt ? stretches.pop() : undefined;
      stretches.push({
        from: goesOn?.from ?? place,
        includesFrom: goesOn?.includesFrom ?? isAt,
        to: next,
        includesTo: false,
      });
    } else if (isAt && !reaches)
      stretches.push({ from: place, to: place, includesFrom: true, includesTo: true });
  });
  return { stretches, complete: true };
}

/** The signs of every compared pair's difference; null where one of them is not known throughout. */
function signsOf(
  condition: Condition,
  variable: string,
  interval: readonly [number, number],
): readonly Signs[] | null {
  try {
    const all = tree
      .comparedPairs(condition)
      .map(([left, right]) => signs(differenceOf(left, right), variable, interval));
    return all.every(({ complete }) => complete) ? all : null;
  } catch (error) {
    if (error instanceof SingleValues) return null;
    throw error;
  }
}

type Sign = -1 | 0 | 1 | null;

const signBetween = ({ intervals }: Signs, from: Place, to: Place): Sign =>
  intervals.find((one) => comparePlaces(one.from, from) <= 0 && comparePlaces(to, one.to) <= 0)?.sign ?? null;

function signAt({ ends, intervals }: Signs, place: Place): Sign {
  const end = ends.find((one) => comparePlaces(one.place, place) === 0);
  if (end) return end.value === null ? null : (Math.sign(end.value) as Sign);
  const around = intervals.find(
    ({ from, to }) => comparePlaces(from, place) < 0 && comparePlaces(place, to) < 0,
  );
  return around?.sign ?? null;
}

/** Whether a comparison holds; null where something that has no value is compared and the rest leaves it open. */
function comparedBy({ relations }: ComparisonNode, found: Iterator<Sign>): boolean | null {
  const truths = relations.map((relation) => {
    const sign = found.next().value as Sign;
    return sign === null ? null : isRelated(sign, relation);
  });
  return truths.includes(false) ? false : truths.includes(null) ? null : true;
}

/** By the domain of a function that is 1 where the condition holds, and has no value elsewhere. */
function byDomain(condition: Condition, variable: string, interval: readonly [number, number]): Holds {
  const one = tree.number(1);
  const arcs = new Arcs(tree.piecewise([{ value: one, condition }]), variable, interval, 0);
  const holdsAt = (place: Place): boolean => arcs.valueAt(place) !== null;
  const stretches: Held[] = [];
  arcs.joints.forEach((joint, i) => {
    const arc = arcs.arcs[i];
    const before = stretches.at(-1);
    const joins = before?.to === joint && before.includesTo;
    if (arc?.derivatives) {
      const includesTo = holdsAt(arc.to);
      if (joins) stretches[stretches.length - 1] = { ...before, to: arc.to, includesTo };
      else stretches.push({ from: joint, to: arc.to, includesFrom: holdsAt(joint), includesTo });
    } else if (!joins && holdsAt(joint)) {
      stretches.push({ from: joint, to: joint, includesFrom: true, includesTo: true });
    }
  });
  return { stretches, complete: arcs.undecided.length === 0 };
}
