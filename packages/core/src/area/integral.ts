import { canonical, product, sum, whole, type Canonical } from '../algebra/canonical.ts';
import { TooLarge } from '../budget/tooLarge.ts';
import { shortest } from '../algebra/shortest.ts';
import { exactPlace } from '../analysis/place.ts';
import { programOf } from '../analysis/programs.ts';
import { splineOf } from '../evaluate/program.ts';
import { printText } from '../language/printText.ts';
import * as tree from '../language/tree.ts';
import type { Expression } from '../language/tree.ts';
import { byAntiderivative } from './byAntiderivative.ts';
import { byQuadrature, largestError, roundingShare } from './byQuadrature.ts';
import { hasInfiniteArea, integralOfSwings, integralOfWaves } from './farWaves.ts';
import { ledIntegral } from './led.ts';
import {
  roundingOf,
  valueOf,
  writtenNumber,
  type Found,
  type DefiniteIntegral,
  type IntegralCertainty,
  type IntegralPart,
} from './parts.ts';
import { byTheorem } from './theorems.ts';
import { stretchesOf, type ExactEnds, type Stretch } from './stretches.ts';

/**
 * ∫ f from a to b, or the area between the curve and the axis (`isTotal`). Each stretch between joints is worked out by
 * an antiderivative that was verified by differentiation, or by quadrature with proved bounds where there are such.
 * Improper ends are told to converge or to diverge. For b < a the integral changes its sign; a total area does not.
 * @param body a formula in the variable alone
 * @param interval finite numbers, or ±Infinity
 * @param options `ends` are what the numbers of the interval are the nearest doubles of, where they are that only: 2/3
 */
export function integral(
  body: Expression,
  variable: string,
  [a, b]: readonly [number, number],
  { isTotal = false, ends = [null, null] }: { isTotal?: boolean; ends?: ExactEnds } = {},
): DefiniteIntegral {
  if (a > b) {
    const [from, to] = ends;
    return turned(integral(body, variable, [b, a], { isTotal, ends: [to, from] }), isTotal);
  }
  if (a === b) return ofNothing;
  const found = between(body, variable, [a, b], isTotal, ends);
  const known = isTotal ? null : byTheorem(body, variable, [a, b]);
  return known ? asKnown(found, known) : found;
}

/** Share by which the number of a theorem and quadrature may differ: a safeguard, far above what either leaves open. */
const agreement = 1e-6;

/** The number that a theorem gives, where quadrature agrees with it. */
function asKnown(found: DefiniteIntegral, known: Expression): DefiniteIntegral {
  const place = exactPlace(known);
  const isConfirmed = place && Math.abs(found.value - place.value) <= agreement * Math.abs(place.value);
  if (!isConfirmed || found.certainty === 'exact') return found;
  return { ...found, value: place.value, exact: known, bound: roundingOf(place), certainty: 'exact' };
}

function between(
  body: Expression,
  variable: string,
  [a, b]: readonly [number, number],
  isTotal: boolean,
  ends: ExactEnds,
): DefiniteIntegral {
  if (splineOf(programOf(body, variable)) && !isTotal) return withoutArcs(body, variable, [a, b], isTotal);
  const unsigned = isTotal ? body : insideBars(body);
  if (unsigned && hasInfiniteArea(unsigned, variable, [a, b])) return { ...withoutValue, diverges: true };
  try {
    const waves = isTotal
      ? null
      : integralOfWaves(body, variable, [a, b], (f, on) => integral(f, variable, on));
    if (waves) return waves;
    const { stretches, undecided } = stretchesOf(body, variable, [a, b], isTotal, ends);
    const undefinedOn = stretches.flatMap(({ body: formula, from, to }) =>
      formula ? [] : [{ low: valueOf(from), high: valueOf(to) }],
    );
    if (undefinedOn.length > 0) return { ...withoutValue, undefinedOn };
    if (undecided.length === 0 || !isTotal) {
      const found = stretches.map((stretch) => ofStretch(stretch, variable));
      const joined = joinedParts(found, isTotal);
      if (undecided.length === 0 || joined.diverges) return joined;
    }
  } catch (error) {
    if (!(error instanceof TooLarge)) throw error;
  }
  return withoutArcs(body, variable, [a, b], isTotal);
}

const insideBars = (body: Expression): Expression | null =>
  (body.kind === 'call' && body.name === 'abs' && body.arguments[0]) || null;

const ofNothing: DefiniteIntegral = {
  value: 0,
  exact: tree.number(0),
  bound: 0,
  certainty: 'exact',
  diverges: false,
  undefinedOn: [],
  parts: [],
};
const withoutValue: DefiniteIntegral = {
  ...ofNothing,
  value: NaN,
  exact: null,
  bound: NaN,
  certainty: 'proved',
};

function turned(found: DefiniteIntegral, isTotal: boolean): DefiniteIntegral {
  if (isTotal) return found;
  return {
    ...found,
    value: -found.value,
    exact: found.exact && shortest(canonical(tree.negate(found.exact)), 'fraction'),
  };
}

function joinedParts(found: readonly Found[], isTotal: boolean): DefiniteIntegral {
  const parts = found.map(({ part }) => part);
  const diverges = found.some((one) => one.convergence === 'diverges');
  const add = (total: number, one: number): number => total + one;
  const error = found.map(({ bound }) => bound).reduce(add, 0);
  const magnitude = found.map((one) => one.magnitude).reduce(add, 0);
  const isSettled = error <= Math.max(largestError * magnitude, negligible);
  if (diverges || !isSettled || parts.some((part) => Number.isNaN(part.value)))
    return { ...withoutValue, diverges, certainty: 'estimated', parts };
  const factor = ({ sign }: IntegralPart): 1 | -1 => (isTotal && sign < 0 ? -1 : 1);
  const exact = exactSum(parts, factor);
  const place = exact && exactPlace(exact);
  const rounding = parts.reduce((total, part) => total + Math.abs(part.value), 0) * Number.EPSILON;
  return {
    value: place ? place.value : parts.reduce((total, part) => total + factor(part) * part.value, 0),
    exact: exact && isReadable(exact) ? exact : null,
    bound: place ? roundingOf(place) : error + rounding,
    certainty: exact && !isReadable(exact) ? 'proved' : worst(found.map(({ certainty }) => certainty)),
    diverges: false,
    undefinedOn: [],
    parts,
  };
}

/** Characters beyond which an exact form tells nobody anything: the ends were no numbers of school. */
const longestForm = 80;
const isReadable = (exact: Expression): boolean => printText(exact).length <= longestForm;

function exactSum(parts: readonly IntegralPart[], factor: (part: IntegralPart) => 1 | -1): Expression | null {
  const terms: Canonical[] = [];
  for (const part of parts) {
    if (!part.exact) return null;
    terms.push(product([whole(factor(part)), canonical(part.exact)]));
  }
  return writtenNumber(sum(terms));
}

/** What underflow leaves: an error beside which nothing else is to be seen. */
const negligible = 1e-280;

const worst = (certainties: readonly IntegralCertainty[]): IntegralCertainty =>
  (['estimated', 'proved', 'exact'] as const).find((one) => certainties.includes(one)) ?? 'exact';

const ofStretch = (stretch: Stretch, variable: string): Found =>
  (stretch.antiderivative && byAntiderivative(stretch, stretch.antiderivative, variable)) ??
  integralOfSwings(stretch, variable, (body, on) => integral(body, variable, on)) ??
  byQuadrature(stretch, variable);

/** Without arcs: what quadrature over the whole tells. A table alone is integrated piece by piece. */
function withoutArcs(
  body: Expression,
  variable: string,
  [a, b]: readonly [number, number],
  isTotal: boolean,
): DefiniteIntegral {
  const program = programOf(isTotal ? tree.call('abs', body) : body, variable);
  const { value, error, magnitude, bounds } = ledIntegral(program, a, b);
  const byKnots = splineOf(program)?.integral(a, b) ?? NaN;
  const isKnown = bounds !== null && byKnots >= bounds.low && byKnots <= bounds.high;
  const isSettled = error <= largestError * magnitude;
  if (!isSettled) return { ...withoutValue, certainty: 'estimated' };
  return {
    ...withoutValue,
    value: isKnown ? byKnots : value,
    bound: bounds ? bounds.high - bounds.low : Math.max(error, magnitude * roundingShare),
    certainty: bounds ? 'proved' : 'estimated',
  };
}
