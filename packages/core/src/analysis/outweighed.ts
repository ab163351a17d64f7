import {
  baseAndExponent,
  callOf,
  canonical,
  euler,
  power,
  product,
  whole,
  type Canonical,
} from '../algebra/canonical.ts';
import { derivativeOf } from '../algebra/differentiate.ts';
import { expanded, factored } from '../algebra/expand.ts';
import { hasWaves, inExponentials } from '../algebra/identities.ts';
import { isTooLarge } from '../budget/tooLarge.ts';
import { dependsOn, factorsOf, mapped } from '../algebra/parts.ts';
import * as rational from '../numbers/rational.ts';
import { written } from '../algebra/written.ts';
import { enclose } from '../evaluate/enclosures.ts';
import type { Stretch } from './isolate.ts';
import { comparePlaces, type Place } from './place.ts';
import { programOf } from './programs.ts';
import type { ZeroSet } from './zeroSet.ts';

/** Terms among which one is looked for that outweighs the others. */
const mostTerms = 8;
/** Shares of the way to the next place at which something changes that are tried, the largest first. */
const shares = [0.98, 0.9, ...Array.from({ length: 60 }, (_, i) => 2 ** (-i - 1))];

const hyperbolics: ReadonlySet<string> = new Set(['sinh', 'cosh', 'tanh']);

/**
 * A stretch without the parts beside its ends on which one term of a sum is larger than all others together, so that
 * there is no zero: e^(1/x) beside 0 and beside x. The ratio of another term to that one is largest at the far end of
 * the part where its logarithm has a slope of one sign.
 * @param zerosOf the zeros of a form on an interval that holds the stretch
 */
export function withoutOutweighed(
  form: Canonical,
  variable: string,
  stretch: Stretch,
  zerosOf: (form: Canonical) => ZeroSet,
): Stretch {
  if (!hasExponential(form, variable)) return stretch;
  const { low, high } = enclose(programOf(written(form), variable), stretch.from, stretch.to);
  if (!stretch.fromPlace && !stretch.toPlace && Number.isFinite(high - low)) return stretch;
  try {
    const terms = termsInExponentials(form);
    if (!terms) return stretch;
    const search = { terms, variable, stretch, zerosOf };
    const [from, to] = [partBeside('from', search), partBeside('to', search)];
    const isLeft = from === null || to === null || from < to;
    return {
      ...stretch,
      ...(from === null ? {} : { from, fromPlace: null }),
      ...(to === null || !isLeft ? {} : { to, toPlace: null }),
    };
  } catch (error) {
    if (isTooLarge(error)) return stretch;
    throw error;
  }
}

function hasExponential(form: Canonical, variable: string): boolean {
  if (hasWaves(form, hyperbolics)) return true;
  let found = false;
  mapped(form, (part) => {
    found ||= part.kind === 'power' && !dependsOn(part.base, variable) && dependsOn(part.exponent, variable);
    return part;
  });
  return found;
}

/** The terms of a sum that has the zeros of a form, hyperbolic functions written as exponentials; null where it is none. */
function termsInExponentials(form: Canonical): readonly Canonical[] | null {
  const quotients = factored(mapped(form, tanhAsQuotient));
  const factors = factorsOf(quotients);
  const moving = factors.filter((factor) => !hasNoZero(factor));
  const [only] = moving;
  if (moving.length !== 1 || !only) return null;
  const terms = expanded(inExponentials(only));
  return terms.kind === 'sum' && terms.terms.length <= mostTerms ? terms.terms : null;
}

/** Whether a factor is without zeros where it has values. */
function hasNoZero(factor: Canonical): boolean {
  const { base, exponent } = baseAndExponent(factor);
  if (base.key === euler.key || (base.kind === 'call' && base.name === 'cosh')) return true;
  return exponent.kind === 'number' && rational.isNegative(exponent.value);
}

function tanhAsQuotient(part: Canonical): Canonical {
  if (part.kind !== 'call' || part.name !== 'tanh') return part;
  return product([callOf('sinh', part.operands), power(callOf('cosh', part.operands), whole(-1))]);
}

interface Search {
  readonly terms: readonly Canonical[];
  readonly variable: string;
  readonly stretch: Stretch;
  readonly zerosOf: (form: Canonical) => ZeroSet;
}

/** How far a part without zeros goes from one end of a stretch; null where no term is shown to outweigh the others. */
function partBeside(end: 'from' | 'to', search: Search): number | null {
  for (const term of search.terms) {
    const inverse = power(term, whole(-1));
    const ratios = search.terms.filter((other) => other !== term).map((other) => product([other, inverse]));
    const slopes = ratios.map((ratio) => relativeSlope(ratio, search.variable));
    let far = end === 'from' ? search.stretch.to : search.stretch.from;
    for (const form of [term, ...slopes]) far = nearestTo(end, far, form, search);
    const reach = outweighing(ratios, slopes, end, far, search);
    if (reach !== null) return reach;
  }
  return null;
}

/** (ln r)′ = r′/r. */
const relativeSlope = (ratio: Canonical, variable: string): Canonical =>
  factored(expanded(product([canonical(derivativeOf(written(ratio), variable)), power(ratio, whole(-1))])));

/** The zero or break of a form that is nearest to an end of the stretch, where it is nearer than what is known. */
function nearestTo(end: 'from' | 'to', known: number, form: Canonical, search: Search): number {
  const { from, to, fromPlace, toPlace } = search.stretch;
  if (!dependsOn(form, search.variable)) return known;
  const { roots, breaks, undecided } = search.zerosOf(form);
  const isInside = (place: Place): boolean =>
    (fromPlace ? comparePlaces(place, fromPlace) > 0 : place.high >= from) &&
    (toPlace ? comparePlaces(place, toPlace) < 0 : place.low <= to);
  const boxes = [
    ...[...roots, ...breaks].filter(isInside),
    ...undecided.filter(({ low, high }) => high >= from && low <= to),
  ];
  return boxes.reduce(
    (nearest, { low, high }) => (end === 'from' ? Math.min(nearest, low) : Math.max(nearest, high)),
    known,
  );
}

/** The farthest place tried up to which all ratios together are below 1, each of them growing on the way there. */
function outweighing(
  ratios: readonly Canonical[],
  slopes: readonly Canonical[],
  end: 'from' | 'to',
  far: number,
  { stretch, variable }: Search,
): number | null {
  const near = stretch[end];
  const way = end === 'from' ? 1 : -1;
  const [sizes, rises] = [ratios, slopes].map((forms) =>
    forms.map((form) => programOf(written(form), variable)),
  ) as [ReturnType<typeof programOf>[], ReturnType<typeof programOf>[]];
  for (const share of shares) {
    const reach = near + (far - near) * share;
    if (!((reach - near) * way > 0)) return null;
    const isGrowing = slopes.every((slope, k) => {
      const { low, high } = enclose(rises[k] as (typeof rises)[number], reach, reach);
      return isZero(slope) || (way > 0 ? low > 0 : high < 0);
    });
    if (!isGrowing) return null;
    const together = sizes.reduce((total, size) => {
      const { low, high } = enclose(size, reach, reach);
      return total + Math.max(Math.abs(low), Math.abs(high));
    }, 0);
    if (together < farBelow) return reach;
  }
  return null;
}

/** Below 1 by more than a few sums of doubles can be wrong. */
const farBelow = 1 - 1e-9;

const isZero = (form: Canonical): boolean => form.kind === 'number' && rational.isZero(form.value);
