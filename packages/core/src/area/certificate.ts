import { programOf } from '../analysis/programs.ts';
import type { OpenEnd } from '../checker/areaEnds.ts';
import {
  checkArea,
  checkAreas,
  type AreaCertificate,
  type AreaClaim,
  type CheckedArea,
} from '../checker/areas.ts';
import * as tree from '../language/tree.ts';
import type { Expression } from '../language/tree.ts';
import { above, below } from '../numbers/directed.ts';
import { enclosedParts, integrandOf } from '../evaluate/enclosedArea.ts';
import { enclose } from '../evaluate/enclosures.ts';
import { valueAt } from './endValues.ts';
import type { IntegralFound } from './parts.ts';
import { valueOf, type IntegralCertainty } from './parts.ts';
import { isFinitePlace, stretchesOf, type Stretch } from './stretches.ts';

/** Relative to the area of |f|: as narrow as doubles make it. */
const tolerance = 1e-12;

/**
 * What there is to show for an integral over a finite interval: the parts over which its bounds are told, chosen by
 * interval arithmetic in doubles. Whether bounds over them hold is for the checker to say.
 * @param interval from a smaller to a larger number
 */
function certificateOfArea(
  body: Expression,
  variable: string,
  [a, b]: readonly [number, number],
): AreaCertificate {
  const parts = enclosedParts(integrandOf(programOf(body, variable)), a, b, tolerance);
  return { body, variable, ends: [a, ...parts.map(({ to }) => to)] };
}

/**
 * What there is to show for an integral with ends at which the function has no value, or at an infinity: stretch by stretch
 * the area between doubles, and from where to where it goes on. Null where the function falls into no such stretches.
 * @param isOpenEverywhere whether also ends at which the function has a value are left to how it grows there
 */
function certificatesOfArea(
  body: Expression,
  variable: string,
  interval: readonly [number, number],
  isOpenEverywhere = false,
): readonly AreaCertificate[] | null {
  const { stretches, undecided } = stretchesOf(body, variable, interval, false);
  if (undecided.length > 0) return cutFarOut(body, variable, interval, isOpenEverywhere);
  const found = stretches.map((stretch) => ofStretch(stretch, body, variable, isOpenEverywhere));
  return found.every((one) => one !== null) ? found : null;
}

/** How far out a function is cut that does something ever again, as |sin x| does: beyond it is told as a whole. */
const farCut = 64;

function cutFarOut(
  body: Expression,
  variable: string,
  [a, b]: readonly [number, number],
  isOpen: boolean,
): readonly AreaCertificate[] | null {
  const [low, high] = [a === -Infinity ? -farCut : a, b === Infinity ? farCut : b];
  if (!(low < high) || (a === low && b === high)) return null;
  const inside = certificatesOfArea(body, variable, [low, high], isOpen);
  const left: AreaCertificate = { body, variable, ends: [low], from: 'infinity' };
  const right: AreaCertificate = { body, variable, ends: [high], to: 'infinity' };
  return inside && [...(a < low ? [left] : []), ...inside, ...(b > high ? [right] : [])];
}

/** How far out the part of an infinite interval begins that is left to how the function grows. */
const farOut = 4;

function ofStretch(
  stretch: Stretch,
  body: Expression,
  variable: string,
  isOpen: boolean,
): AreaCertificate | null {
  const [from, to] = (['from', 'to'] as const).map((which) => openEndOf(stretch, which, variable, isOpen));
  const [a, b] = [valueOf(stretch.from), valueOf(stretch.to)];
  if (!stretch.body || from === null || to === null) return null;
  const [low, high] = [Math.max(a, Math.min(-farOut, 2 * b)), Math.min(b, Math.max(farOut, 2 * a))];
  const middle = low + (high - low) / 2;
  const isPlace = (end: OpenEnd | undefined): boolean => end !== undefined && end !== 'infinity';
  const start = isPlace(from) ? middle : low;
  const end = isPlace(to) ? middle : high;
  const ends = start < end ? certificateOfArea(body, variable, [start, end]).ends : [start];
  return { body, variable, ends, ...(from && { from }), ...(to && { to }) };
}

/** Undefined for an end up to which doubles tell the area; null for one that is known by its digits alone. */
function openEndOf(
  stretch: Stretch,
  which: 'from' | 'to',
  variable: string,
  isOpen: boolean,
): OpenEnd | undefined | null {
  const end = stretch[which];
  if (!isFinitePlace(end)) return 'infinity';
  if (!isOpen && valueAt(stretch.body as Expression, variable, end) !== null) return undefined;
  return end.exact;
}

/** Parts between doubles beyond which an integral with open ends is left as it is: a check would take too long. */
const mostParts = 600;

/** Relative to the value: bounds of an integral that is estimated prove it where they are as narrow. */
const narrow = 1e-9;
/** The width of bounds that is asked for where no value is known. */
const wanted = 1e-6;

/**
 * An integral looked at by the checker: what is proved or exact as it is told, what is estimated for whether bounds are
 * narrow enough to prove it, and what has no value for bounds alone. Null where nothing of it can be looked at.
 */
export function checkedIntegral(
  body: Expression,
  variable: string,
  interval: readonly [number, number],
  told: IntegralFound,
  isTotal: boolean,
): CheckedArea | null {
  if (told.diverges || told.undefinedOn.length > 0) return null;
  return checked(body, variable, interval, claimOf(told), isTotal);
}

function claimOf({ value, bound, exact, certainty }: IntegralFound): AreaClaim {
  if (Number.isNaN(value)) return { value: 0, bound: wanted, exact: null };
  if (certainty === 'estimated') return { value, bound: narrow * Math.abs(value), exact: null };
  return { value, bound, exact };
}

/** How sure an integral is once the checker has looked at it, and between which bounds it lies. */
export interface ShownIntegral {
  readonly certainty: IntegralCertainty;
  readonly bound: number;
  readonly bounds: readonly [number, number] | null;
}

/** What is refused is estimated; what was estimated is proved by bounds that are narrow. */
export function shownIntegral(
  { value, bound, certainty }: IntegralFound,
  found: CheckedArea | null,
): ShownIntegral {
  const bounds = found?.bounds ?? null;
  if (Number.isNaN(value) || !found?.isAccepted) return { certainty: 'estimated', bound, bounds };
  if (certainty !== 'estimated' || !bounds) return { certainty, bound, bounds };
  return { certainty: 'proved', bound: Math.max(value - bounds[0], bounds[1] - value), bounds };
}

/** How far from a number its nearest double may be, relative to it; twice that, for what is rounded on the way. */
const nearest = 2 ** -52;

/**
 * Bounds of an integral between doubles as bounds of one between the numbers that these are nearest to, such as π. Null where
 * the function has no bounds beside such an end; a whole number beside which it has none is taken as it is.
 */
export function boundsBetweenNumbers(
  body: Expression,
  variable: string,
  interval: readonly [number, number],
  [low, high]: readonly [number, number],
): readonly [number, number] | null {
  let slack = 0;
  for (const x of interval.filter(Number.isFinite)) {
    const reach = Math.abs(x) * nearest;
    const values = enclose(programOf(body, variable), x - reach, x + reach);
    const height = Math.max(Math.abs(values.low), Math.abs(values.high));
    if (height < Infinity) slack += height * reach;
    else if (!Number.isInteger(x)) return null;
  }
  return slack === 0 ? [low, high] : [below(low - above(slack)), above(high + above(slack))];
}

function checked(
  body: Expression,
  variable: string,
  [a, b]: readonly [number, number],
  { value, bound, exact }: AreaClaim,
  isTotal: boolean,
): CheckedArea | null {
  if (a === b) return null;
  const sign = a < b || isTotal ? 1 : -1;
  const f = isTotal ? tree.call('abs', body) : body;
  const whole = sign > 0 ? f : tree.negate(f);
  const interval: [number, number] = a < b ? [a, b] : [b, a];
  const claim = { value, bound, exact };
  const opened = (isOpenEverywhere: boolean): CheckedArea | null => {
    const certificates = certificatesOfArea(whole, variable, interval, isOpenEverywhere);
    const isOpen = certificates?.some(({ from, to }) => from !== undefined || to !== undefined);
    const count = certificates?.reduce((all, { ends }) => all + ends.length, 0) ?? 0;
    return certificates && isOpen && count <= mostParts ? checkAreas(certificates, interval, claim) : null;
  };
  const found = opened(false);
  if (found?.isAccepted) return found;
  const isFinite = interval.every(Number.isFinite);
  const plain = isFinite ? checkArea(certificateOfArea(whole, variable, interval), claim) : null;
  if (plain?.isAccepted || found?.bounds || plain?.bounds) return plain ?? found;
  // Where an end has a value by convention, as 0⁰ has.
  return opened(true) ?? plain ?? found;
}
