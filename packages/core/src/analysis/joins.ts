import type { Expression } from '../language/tree.ts';
import * as big from '../numbers/bigFloat.ts';
import { Arcs, type SideLimit } from './arcs.ts';
import type { Place } from './place.ts';

/** What a function does at a join, seen from one side: value, slope and second derivative; null where infinite or none. */
export interface JoinSide {
  readonly value: number | null;
  readonly slope: number | null;
  readonly bend: number | null;
}

/** A place at which two pieces meet. */
export interface Join {
  readonly place: Place;
  readonly value: number | null;
  readonly left: JoinSide;
  readonly right: JoinSide;
  readonly isContinuous: boolean;
  readonly isDifferentiable: boolean;
  readonly isTwiceDifferentiable: boolean;
}

/** Every place inside an interval at which pieces of a function meet, with what it does on either side. */
export function joins(body: Expression, variable: string, interval: readonly [number, number]): Join[] {
  const arcs = new Arcs(body, variable, interval, 2);
  return arcs.joints.slice(1, -1).map((place) => {
    const { left, right } = arcs.arcsAt(place);
    const [l, r] = [left, right].map((arc) => [0, 1, 2].map((order) => arcs.limitAlong(arc, place, order)));
    const value = arcs.valueAt(place);
    const agrees = (order: number): boolean => {
      const [a, b] = [l?.[order], r?.[order]];
      return a?.kind === 'finite' && b?.kind === 'finite' && arcs.areSame(a.height, b.height, place);
    };
    const first = l?.[0] as SideLimit;
    const isContinuous =
      value !== null && agrees(0) && first.kind === 'finite' && arcs.areSame(first.height, value, place);
    const isDifferentiable = isContinuous && agrees(1);
    return {
      place,
      value: value && big.toDouble(value.value),
      left: sideOf(l as SideLimit[]),
      right: sideOf(r as SideLimit[]),
      isContinuous,
      isDifferentiable,
      isTwiceDifferentiable: isDifferentiable && agrees(2),
    };
  });
}

function sideOf(limits: readonly SideLimit[]): JoinSide {
  const [value = null, slope = null, bend = null] = limits.map((limit) =>
    limit.kind === 'finite' ? big.toDouble(limit.height.value) : null,
  );
  return { value, slope, bend };
}
