import { canonical } from '../algebra/canonical.ts';
import { antiderivative } from '../algebra/antiderivative/antiderivative.ts';
import { Arcs } from '../analysis/arcs.ts';
import type { Box } from '../analysis/isolate.ts';
import { programOf } from '../analysis/programs.ts';
import { evaluateAt } from '../values/values.ts';
import { exactPlace, isStrictlyBetween, type Place } from '../analysis/place.ts';
import { numberFormula } from '../limit/numberFormula.ts';
import { piecesOf, signInside } from '../analysis/pieces.ts';
import { shortest } from '../algebra/shortest.ts';
import * as tree from '../language/tree.ts';
import type { Expression } from '../language/tree.ts';

/** An end of a stretch: a place, or an infinity. */
export type End = Place | 1 | -1;

/** A part of the axis on which a function is one analytic formula, or not defined at all. */
export interface Stretch {
  readonly from: End;
  readonly to: End;
  /** Null where the function is not defined. */
  readonly body: Expression | null;
  /** A formula with that derivative, continuous inside; null where none is known. */
  readonly antiderivative: Expression | null;
  /** −1, 0 or 1 where the function keeps its sign; NaN where that was not asked for or is not known. */
  readonly sign: number;
}

export interface Stretches {
  readonly stretches: readonly Stretch[];
  /** Parts in which the function may do more than is known. */
  readonly undecided: readonly Box[];
}

/** The ends of an interval as formulas, where the doubles are only near to them. */
export type ExactEnds = readonly [Expression | null, Expression | null];

export const isFinitePlace = (end: End): end is Place => typeof end !== 'number';

/**
 * A function on an interval, which may be infinite, taken apart into stretches with their antiderivatives.
 * @param interval doubles, or ±Infinity
 * @param bySign whether a stretch ends where the function changes its sign, too
 * @throws TooLarge where the function falls into too many pieces
 */
export function stretchesOf(
  body: Expression,
  variable: string,
  [a, b]: readonly [number, number],
  bySign: boolean,
  ends: ExactEnds = [null, null],
): Stretches {
  const below = Number.isFinite(a) ? null : tail(body, variable, -1, Math.min(b, -1), bySign);
  const above = Number.isFinite(b) ? null : tail(body, variable, 1, Math.max(a, 1), bySign);
  const [from, to] = [below?.begins ?? a, above?.begins ?? b];
  const place = (isFinite: boolean, exact: Expression | null, x: number): number | Place =>
    (isFinite && exact && exactPlace(exact)) || x;
  const interval = [place(!below, ends[0], from), place(!above, ends[1], to)] as const;
  const inner = from < to ? finiteStretches(body, variable, interval, bySign) : nothing;
  return {
    stretches: [...(below?.stretches ?? []), ...inner.stretches, ...(above?.stretches ?? [])],
    undecided: [...(below?.undecided ?? []), ...inner.undecided, ...(above?.undecided ?? [])],
  };
}

const nothing: Stretches = { stretches: [], undecided: [] };

function finiteStretches(
  body: Expression,
  variable: string,
  interval: readonly [number | Place, number | Place],
  bySign: boolean,
): Stretches {
  const arcs = new Arcs(body, variable, interval, 0);
  const unknown: Box[] = [];
  const stretches = arcs.arcs.flatMap((arc): Stretch[] => {
    const formula = arcs.bodyOf(arc, 0);
    if (!formula && (arc.isOpen || hasValueAt(body, variable, (arc.from.value + arc.to.value) / 2))) {
      unknown.push({ low: arc.from.value, high: arc.to.value });
      return [];
    }
    if (!formula) return [{ from: arc.from, to: arc.to, body: null, antiderivative: null, sign: NaN }];
    const whole = antiderivativeOn(arcs, formula, arc.from, arc.to);
    if (!bySign) return [{ from: arc.from, to: arc.to, body: formula, antiderivative: whole, sign: NaN }];
    return arcs
      .signsOn(arc, 0)
      .map(({ from, to, sign }) => ({ from, to, body: formula, antiderivative: whole, sign }));
  });
  // Looking for signs may leave more of it undecided.
  return { stretches, undecided: [...unknown, ...arcs.undecided] };
}

/** An antiderivative of a formula without a break between two places, in terms that hold there: ln (−x) for ln |x|. */
function antiderivativeOn(
  { zeros, variable }: Arcs,
  formula: Expression,
  from: Place,
  to: Place,
): Expression | null {
  const found = antiderivative(formula, variable);
  if (!found) return null;
  const { pieces, undecided } = piecesOf(found, zeros, from, to);
  const [only] = pieces;
  if (pieces.length !== 1 || !only?.body) return null;
  const breaks = zeros.breaksOfBody(only.body);
  const isBroken =
    breaks.roots.some((place) => isStrictlyBetween(place, from, to)) ||
    [...undecided, ...breaks.undecided].some((box) => box.high > from.value && box.low < to.value);
  return isBroken ? null : only.body;
}

interface Tail extends Stretches {
  /** Where the tail begins, finite. */
  readonly begins: number;
}

/** How far beyond the last place at which something happens a tail begins. */
const beyond = 2;

/**
 * The far part of a function, where nothing happens any more: x = ±1/t shows the whole of it on a bounded interval.
 * @param least the size of x from which on the tail may begin
 */
function tail(body: Expression, variable: string, side: 1 | -1, least: number, bySign: boolean): Tail {
  const t = tree.name(variable);
  const turned = tree.substitute(body, variable, tree.divide(tree.number(side), t));
  const arcs = new Arcs(shortest(canonical(turned), 'fraction'), variable, [0, 1 / Math.abs(least)], 0);
  const first = arcs.arcs[0];
  if (!first) return { ...nothing, begins: least };
  const zeros = bySign ? arcs.zerosOn(first, 0) : [];
  const end = zeros[0] ?? first.to;
  const isWhole = arcs.arcs.length === 1 && zeros.length === 0;
  const begins = isWhole ? least : (side * beyond) / end.value;
  const start = exactPlace(numberFormula(begins)) as Place;
  const farBody = arcs.bodyOf(first, 0) && farFormula(body, variable, begins);
  // Far out it is defined, but by no single formula that is known.
  if (!farBody && hasValueAt(body, variable, begins * beyond))
    return { ...nothing, undecided: [farBox(begins)], begins };
  const between = exactPlace(numberFormula(begins * beyond)) as Place;
  const [from, to]: [End, End] = side > 0 ? [start, 1] : [-1, start];
  const sign = farBody && bySign ? signInside(farBody, variable, start, between) : NaN;
  const found = farBody && antiderivative(farBody, variable);
  return {
    begins,
    stretches: [{ from, to, body: farBody, antiderivative: found, sign }],
    undecided: arcs.undecided.filter(({ low }) => low < end.value / beyond).map(() => farBox(begins)),
  };
}

const hasValueAt = (body: Expression, variable: string, x: number): boolean =>
  !Number.isNaN(evaluateAt(programOf(body, variable), x));

const farBox = (begins: number): Box =>
  begins > 0 ? { low: begins, high: Infinity } : { low: -Infinity, high: begins };

/** The formula that a function is far out. */
function farFormula(body: Expression, variable: string, begins: number): Expression | null {
  const far = begins * beyond;
  const arcs = new Arcs(body, variable, begins > 0 ? [begins, far] : [far, begins], 0);
  return arcs.arcs.length === 1 ? arcs.bodyOf(arcs.arcs[0] ?? null, 0) : null;
}
