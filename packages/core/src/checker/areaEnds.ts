import * as tree from '../language/tree.ts';
import type { Expression } from '../language/tree.ts';
import { AreaParts } from './areaParts.ts';
import { numberOf } from './evaluate.ts';
import { Growths } from './growth.ts';
import { withinRules } from './literals.ts';
import { moved, turned } from './moved.ts';
import * as n from './numbers.ts';
import type { Float, Range } from './numbers.ts';
import { rateAt, waveTail, wavesIn } from './waveTails.ts';

/** A number at which a function has no value of its own, or an infinity. */
export type OpenEnd = Expression | 'infinity';

/** What lies between the doubles of a certificate and its open ends. */
export interface OpenArea {
  readonly body: Expression;
  readonly variable: string;
  readonly ends: readonly number[];
  readonly from?: OpenEnd;
  readonly to?: OpenEnd;
}

/**
 * Bounds of the area beside each open end; null for one beside which nothing is shown.
 * @param allowed the width that they should have
 */
export function besideEnds({ body, variable, ends, from, to }: OpenArea, allowed: number): (Range | null)[] {
  const common = { body, variable, allowed };
  const left = from !== undefined && { ...common, end: from, side: 1 as const, start: ends[0] as number };
  const right = to !== undefined && { ...common, end: to, side: -1 as const, start: ends.at(-1) as number };
  return [left, right].map((beside) => (beside ? withinRules(() => besideEnd(beside)) : n.whole(0)));
}

/** Halvings of the distance from an end after which the rest is told by how the function grows there. */
const depths = [4, 8, 16, 24, 32, 48, 64, 96, 128, 192, 256, 384, 512];
/** Parts between a distance and its half. */
const partsOfOctave = 4;

/** What lies between an open end and a double. */
interface Beside {
  readonly body: Expression;
  readonly variable: string;
  readonly end: OpenEnd;
  /** The way from the end into the area. */
  readonly side: 1 | -1;
  readonly start: number;
  /** The width that its bounds should have. */
  readonly allowed: number;
}

/** Part by part up to somewhere near the end, and from there on by the growth of the function. Null where nothing is shown. */
const besideEnd = (beside: Beside): Range | null =>
  beside.end === 'infinity' ? farOut(beside) : nearPlace(beside, beside.end);

/** With t the distance from the end as the variable, in which small distances are exact. */
function nearPlace({ body, variable, side, start, allowed }: Beside, end: Expression): Range | null {
  const place = numberOf(end);
  if (!place) return null;
  const t = tree.name(variable);
  const inside = moved(body, variable, side > 0 ? tree.add(end, t) : tree.subtract(end, t));
  const way = n.subtract(n.point(n.fromDouble(start)), place);
  const distance = side > 0 ? way : n.negate(way);
  if (n.signOfRange(distance) !== 1 || !n.isBounded(distance)) return null;
  const whole = powerBelow(distance.low);
  const area = new AreaParts(inside, variable);
  const sliver = area.sliver(whole, distance, allowed);
  if (!sliver) return null;
  // Waves that grow ever shorter towards the end are even ones in u = 1/t: ∫ f dt is ∫ f/u² du.
  const waves = besideWaves(turned(inside, variable), variable, 1 / whole, allowed);
  if (waves) return n.add(waves, sliver);
  const rest = restBelow(inside, variable, whole, allowed);
  if (!rest) return null;
  const count = rest.depth * partsOfOctave;
  const ends = Array.from({ length: count + 1 }, (_, k) => whole * 2 ** ((k - count) / partsOfOctave));
  const known = area.within(ends, allowed);
  return known && [rest.range, known, sliver].reduce(n.add);
}

/** From a power of 2 on with t = 1/x: ∫ f(x) dx is ∫ f(1/t)/t² dt. */
function farOut({ body, variable, side, start, allowed }: Beside): Range | null {
  if (start * side >= 0 || Math.abs(start) > largestStart) return null;
  // What runs to −∞ is turned round.
  const f = side > 0 ? moved(body, variable, tree.negate(tree.name(variable))) : body;
  const from = Math.abs(start);
  let first = 1;
  while (first < from) first *= 2;
  const known = first > from ? new AreaParts(f, variable).within([from, first], allowed) : n.whole(0);
  if (!known) return null;
  const waves = besideWaves(f, variable, first, allowed);
  if (waves) return n.add(known, waves);
  const rest = fallingFrom(f, variable, first, allowed);
  return rest && n.add(known, rest);
}

/** From a power of 2 to ∞: octave by octave, and from somewhere far out on by the growth of the function. */
function fallingFrom(body: Expression, variable: string, first: number, allowed: number): Range | null {
  const rest = restBelow(turned(body, variable), variable, 1 / first, allowed);
  if (!rest) return null;
  const count = rest.depth * partsOfOctave;
  const octaves = Array.from({ length: count + 1 }, (_, k) => first * 2 ** (k / partsOfOctave));
  const between = new AreaParts(body, variable).within(octaves, allowed);
  if (between) return n.add(rest.range, between);
  // What jumps ever again is told from here on as a whole.
  return restAt(turned(body, variable), variable, 1 / first);
}
const largestStart = 2 ** 40;

/** How much the argument of a wave changes from 0 to where its tail is told by parts, if it goes on as there. */
const turnsBefore = 64;
/** Parts that are looked at before, none wider than an octave's parts. */
const mostParts = 1000;
const widest = 2 ** (1 / partsOfOctave) - 1;

/** The area from a power of 2 on to ∞ under a sum of waves. */
function besideWaves(body: Expression, variable: string, first: number, allowed: number): Range | null {
  const summands = wavesIn(body, variable);
  const waves = summands?.filter(({ wave }) => wave !== null);
  if (!summands || !waves?.length) return null;
  const rates = (x: number): number[] =>
    waves.map((one) => {
      const rate = rateAt(one, variable, x);
      return rate ? Math.abs(n.toDouble(rate.low)) : NaN;
    });
  let from = first;
  while (from < largestStart && Math.min(...rates(from)) * from < turnsBefore) from *= 2;
  const tails = summands.map((summand) =>
    summand.wave ? waveTail(summand, variable, from) : fallingFrom(summand.envelope, variable, from, allowed),
  );
  if (!tails.every((tail) => tail !== null)) return null;
  const ends = [first];
  for (let x = first; x < from && ends.length < mostParts; ends.push(x))
    x = Math.min(from, x + Math.min(widest * x, 1 / Math.max(...rates(x))));
  if (ends.at(-1) !== from) return null;
  const known = from > first ? new AreaParts(body, variable).within(ends, allowed) : n.whole(0);
  return known && tails.reduce(n.add, known);
}

const isWithin = ({ low, high }: Range, allowed: number): boolean =>
  n.compare(n.subtract(n.point(high), n.point(low)).high, n.fromDouble(allowed)) <= 0;

/** The area below a part of a distance that is small enough to tell it, as narrowly as asked for if that can be had. */
function restBelow(
  body: Expression,
  variable: string,
  whole: number,
  allowed: number,
): { readonly depth: number; readonly range: Range } | null {
  let best: { readonly depth: number; readonly range: Range } | null = null;
  for (const depth of depths) {
    const epsilon = whole / 2 ** depth;
    if (epsilon > largestRest) continue;
    if (epsilon < smallestRest) break;
    const range = restAt(body, variable, epsilon);
    if (!range) continue;
    best = { depth, range };
    if (isWithin(range, allowed)) break;
  }
  return best;
}

/** The area from 0 to a distance by how the function grows there. */
function restAt(body: Expression, variable: string, epsilon: number): Range | null {
  const range = withinRules(() => {
    const growths = new Growths(variable, epsilon);
    const growth = growths.of(body);
    return growth && growths.area(growth);
  });
  return range && n.isBounded(range) ? range : null;
}
const largestRest = 0.25;
const smallestRest = 1e-290;

/** The largest power of 2 that is not above a number. */
function powerBelow(x: Float): number {
  const near = 2 ** Math.floor(Math.log2(n.toDouble(x)));
  return n.compare(n.fromDouble(near), x) > 0 ? near / 2 : near;
}
