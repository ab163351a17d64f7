import { Arcs } from '../analysis/arcs.ts';
import type { Place } from '../analysis/place.ts';
import type { Expression } from '../language/tree.ts';
import * as big from '../numbers/bigFloat.ts';

/** The heights that a function has or comes near to at a place: its value there, and its limits from either side. */
interface HeightsAt {
  readonly x: number;
  readonly value: number;
  readonly left: number;
  readonly right: number;
}

/** The places at which a function may be least or greatest, ends of parts apart, in ascending order. */
export interface ExtremeHeights {
  readonly places: readonly HeightsAt[];
  /** Whether there are proved to be no others. */
  readonly isProved: boolean;
  /** Stretches of which nothing is known. */
  readonly open: readonly (readonly [from: number, to: number])[];
}

/** How often an interval is halved that holds more jumps than are looked at together. */
const mostHalvings = 2;

/**
 * The extrema, corners and jumps of a function on an interval with the heights there.
 * @param body a formula in the variable alone
 * @throws TooLarge where the function falls into too many pieces
 */
export function extremeHeights(
  body: Expression,
  variable: string,
  interval: readonly [number, number],
  halvings = mostHalvings,
): ExtremeHeights {
  const arcs = new Arcs(body, variable, interval, 1);
  if (arcs.hasTooManyJumps && halvings > 0) {
    const [from, to] = interval;
    const middle = from + (to - from) / 2;
    const [left, right] = (
      [
        [from, middle],
        [middle, to],
      ] as const
    ).map((half) => extremeHeights(body, variable, half, halvings - 1)) as [ExtremeHeights, ExtremeHeights];
    return joined(left, right);
  }
  const extrema = arcs.arcs.flatMap((arc) => arcs.zerosOn(arc, 1));
  const places = [...arcs.joints, ...extrema].map((place) => heightsAt(arcs, place));
  return {
    places: places.sort((p, q) => p.x - q.x),
    isProved: arcs.undecided.length === 0,
    open: arcs.arcs.flatMap(({ isOpen, from, to }) => (isOpen ? [[from.value, to.value] as const] : [])),
  };
}

/** Where two intervals meet, each knows what the function tends to on its own side. */
function joined(left: ExtremeHeights, right: ExtremeHeights): ExtremeHeights {
  const [last, first] = [left.places.at(-1), right.places[0]];
  const meeting = last && first && last.x === first.x ? [{ ...last, right: first.right }] : [];
  return {
    places: [
      ...left.places.slice(0, left.places.length - meeting.length),
      ...meeting,
      ...right.places.slice(meeting.length),
    ],
    isProved: left.isProved && right.isProved,
    open: [...left.open, ...right.open],
  };
}

function heightsAt(arcs: Arcs, place: Place): HeightsAt {
  const value = arcs.valueAt(place);
  const double = value ? big.toDouble(value.value) : NaN;
  if (!arcs.joints.includes(place)) return { x: place.value, value: double, left: double, right: double };
  const sides = arcs.arcsAt(place);
  const along = (side: 'left' | 'right'): number => {
    const limit = arcs.limitAlong(sides[side], place, 0);
    if (limit.kind === 'infinite') return limit.sign * Infinity;
    return limit.kind === 'finite' ? big.toDouble(limit.height.value) : NaN;
  };
  return { x: place.value, value: double, left: along('left'), right: along('right') };
}

/** In each part the greatest lower (least upper) bound of the function, and where it is. */
export function extremes(
  { places, open }: ExtremeHeights,
  ends: Float64Array,
  atEnds: Float64Array,
  rule: 'lower' | 'upper',
): { xs: Float64Array; heights: Float64Array } {
  const xs = new Float64Array(ends.length - 1);
  const heights = new Float64Array(ends.length - 1);
  let next = 0;
  for (let i = 0; i < xs.length; i++) {
    const [from, to] = [ends[i] as number, ends[i + 1] as number];
    const best = new Best(rule);
    if (open.some(([start, end]) => start < to && from < end)) best.take(from, NaN);
    let isFromKnown = false;
    let isToKnown = false;
    while (next < places.length && (places[next] as HeightsAt).x < from) next++;
    for (let k = next; k < places.length && (places[k] as HeightsAt).x <= to; k++) {
      const place = places[k] as HeightsAt;
      isFromKnown ||= place.x === from;
      isToKnown ||= place.x === to;
      if (!Number.isNaN(place.value)) best.take(place.x, place.value);
      if (place.x > from) best.take(place.x, place.left);
      if (place.x < to) best.take(place.x, place.right);
    }
    if (!isFromKnown) best.take(from, atEnds[i] as number);
    if (!isToKnown) best.take(to, atEnds[i + 1] as number);
    [xs[i], heights[i]] = [best.x, best.height];
  }
  return { xs, heights };
}

/** The least or greatest height so far; NaN once one of them is, where the function is not defined all through. */
class Best {
  x = NaN;
  height: number;

  constructor(private readonly rule: 'lower' | 'upper') {
    this.height = rule === 'lower' ? Infinity : -Infinity;
  }

  take(x: number, height: number): void {
    const isBetter = this.rule === 'lower' ? height < this.height : height > this.height;
    if (isBetter || Number.isNaN(height) || Number.isNaN(this.x)) {
      if (Number.isNaN(this.height)) return;
      this.x = x;
      this.height = height;
    }
  }
}
