import type { Expression } from '../../language/tree.ts';
import { ifWithin } from '../../budget/effort.ts';
import { callOf, canonical, difference, sum, type Canonical } from '../canonical.ts';
import { withoutDerivatives } from '../differentiate.ts';
import { expanded, factored } from '../expand.ts';
import { hasWaves, withQuotientsNamed } from '../identities.ts';
import { isTooLarge } from '../../budget/tooLarge.ts';
import { mapped, partsOf } from '../parts.ts';
import { isPositive } from '../positive.ts';
import { polynomialOf, toCanonical } from '../polynomial.ts';
import { numberStyle, shortest } from '../shortest.ts';
import { written, type NumberStyle } from '../written.ts';
import { Search, type Method } from './integrand.ts';
import { byFractionOfExponential } from './exponentialFraction.ts';
import { byHyperbolics } from './hyperbolics.ts';
import { byPartsOnce, byPolynomialParts, byRepeatedParts, byReturningParts } from './parts.ts';
import { byFractionRoot, byLinearRoot, byQuadraticRoot } from './radicals.ts';
import { byPartialFractions } from './rationalFunction.ts';
import { byConjugate, byRootOverPower, byShiftedRoot } from './rootsOfSquares.ts';
import { byLogarithm, bySubstitution } from './substitution.ts';
import { byLinearity, byTable } from './table.ts';
import { vanishes } from '../vanishes.ts';
import { byRatioOfWaves, byReciprocalOfWaves } from './waveQuotients.ts';
import { byOddWave, byTangentRoot } from './waveSubstitution.ts';
import { byWaveProduct, byWaves } from './waves.ts';

/** The integrand in another arrangement, where that is another one. */
const byRearranging: Method = (form, search) => {
  for (const other of [withQuotientsNamed(form), expanded(form), factored(form)]) {
    const isOther = other.key !== form.key && (other.kind !== form.kind || hasWaves(form));
    const found = isOther ? search.of(other) : null;
    if (found) return found;
  }
  return null;
};

/** The methods in the order in which they are tried: a row of the table before anything that takes apart. */
const methods: readonly Method[] = [
  byLinearity,
  byTable,
  byRepeatedParts,
  byReturningParts,
  byFractionOfExponential,
  byPartialFractions,
  byQuadraticRoot,
  byRootOverPower,
  byShiftedRoot,
  byWaves,
  byWaveProduct,
  byHyperbolics,
  byReciprocalOfWaves,
  byRatioOfWaves,
  bySubstitution,
  byOddWave,
  byTangentRoot,
  byLogarithm,
  byPartsOnce,
  byLinearRoot,
  byFractionRoot,
  byConjugate,
  byPolynomialParts,
  byRearranging,
];

/**
 * A formula whose derivative is the given one, for the integrals of school: powers, ax + b inside any function of the
 * table, integration by parts, partial fractions, roots, powers of sines and cosines, simple substitutions. What the
 * methods find is differentiated, and believed only if algebra shows that this gives the formula back.
 * @returns null where nothing was found, or nothing that could be verified
 */
export function antiderivative(body: Expression, variable: string): Expression | null {
  const form = bounded(() => canonical(withoutDerivatives(body)));
  if (!form) return null;
  const style = numberStyle(body);
  const key = JSON.stringify([variable, style, form.key]);
  const before = known.get(key);
  if (before !== undefined) return before;
  const result = ifWithin(mostOperations, () => bounded(() => searched(form, variable, style)));
  if (known.size >= mostKnown) known.clear();
  known.set(key, result);
  return result;
}

/** Operations that one search may take: fifty times as many as any of those that succeed in the tests. */
const mostOperations = 30_000_000;

/** What comes of work; null where it grew beyond the limits. */
function bounded<T>(work: () => T): T | null {
  try {
    return work();
  } catch (error) {
    if (isTooLarge(error)) return null;
    throw error;
  }
}

/** What was found last, by form: an interval that is dragged asks for the same formula with every move. */
const known = new Map<string, Expression | null>();
const mostKnown = 100;

function searched(form: Canonical, variable: string, style: NumberStyle): Expression | null {
  const search = new Search(variable, methods);
  const found = search.of(form);
  if (!found || !isAntiderivative(found, form, search)) return null;
  const powers = hasPowerOfSum(found) ? null : polynomialOf(expanded(found), variable);
  return powers
    ? written(toCanonical(powers, variable))
    : shortest(tidy(withoutConstants(found, search)), style);
}

/** Any constant may be added to an antiderivative: those that the methods leave behind tell nobody anything. */
const withoutConstants = (found: Canonical, search: Search): Canonical =>
  found.kind === 'sum' ? sum(found.terms.filter((term) => search.moves(term))) : found;

/** Whether the derivative of one form is another, by algebra. */
function isAntiderivative(found: Canonical, form: Canonical, search: Search): boolean {
  return vanishes(difference(search.derivative(withoutSizes(found)), form));
}

/** Whether a bracket stands in a power, (3x + 1)⁶, which nobody multiplies out. */
const hasPowerOfSum = (form: Canonical): boolean =>
  (form.kind === 'power' && form.base.kind === 'sum') || partsOf(form).some(hasPowerOfSum);

/** Without bars around what cannot be negative. */
const tidy = (form: Canonical): Canonical =>
  mapped(form, (part) => {
    if (part.kind !== 'call' || part.name !== 'abs') return part;
    const [inner] = part.operands as [Canonical];
    return isPositive(inner) ? inner : part;
  });

/** ln |u| has the derivative of ln u, u′/u. */
const withoutSizes = (form: Canonical): Canonical =>
  mapped(form, (part) => {
    if (part.kind !== 'call' || part.name !== 'ln') return part;
    const [inner] = part.operands as [Canonical];
    return inner.kind === 'call' && inner.name === 'abs' ? callOf('ln', inner.operands) : part;
  });
