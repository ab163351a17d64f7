import { product, sum, whole } from '../algebra/canonical.ts';
import { exactPlace } from '../analysis/place.ts';
import type { Expression } from '../language/tree.ts';
import * as big from '../numbers/bigFloat.ts';
import { convergenceAt, estimated } from './byQuadrature.ts';
import { endValue, valueBits, type EndNumber } from './endValues.ts';
import { partOf, roundingOf, writtenNumber, type Found } from './parts.ts';
import type { Stretch } from './stretches.ts';

/** F(to) − F(from); null where that cannot be told, or where quadrature does not agree. */
export function byAntiderivative(stretch: Stretch, formula: Expression, variable: string): Found | null {
  const low = limitOrDivergence(formula, stretch, variable, 'from');
  const high = limitOrDivergence(formula, stretch, variable, 'to');
  if (low === 'diverges' || high === 'diverges')
    return {
      part: partOf(stretch, NaN, null),
      bound: NaN,
      magnitude: NaN,
      certainty: 'proved',
      convergence: 'diverges',
    };
  if (!low || !high) return null;
  const difference = differenceOf(low, high);
  if (!difference || !isConfirmed(difference.value, stretch, variable)) return null;
  const { value, exact, bound, isProved } = difference;
  return {
    part: partOf(stretch, value, exact),
    bound,
    magnitude: Math.abs(value),
    certainty: exact ? 'exact' : isProved ? 'proved' : 'estimated',
    convergence: 'converges',
  };
}

function limitOrDivergence(
  formula: Expression,
  stretch: Stretch,
  variable: string,
  which: 'from' | 'to',
): EndNumber | 'diverges' | null {
  const found = endValue(formula, variable, stretch[which], which === 'from' ? 1 : -1);
  if (found !== 'swings') return found;
  return convergenceAt(stretch, variable, which) === 'converges' ? null : 'diverges';
}

interface Difference {
  readonly value: number;
  readonly exact: Expression | null;
  readonly bound: number;
  readonly isProved: boolean;
}

function differenceOf(low: EndNumber, high: EndNumber): Difference | null {
  if (low.form && high.form) {
    const exact = writtenNumber(sum([high.form, product([whole(-1), low.form])]));
    const place = exactPlace(exact);
    if (!place || !Number.isFinite(place.value)) return null;
    return { value: place.value, exact, bound: roundingOf(place), isProved: true };
  }
  const value = big.toDouble(big.subtract(high.value, low.value, valueBits));
  const size = Math.max(Math.abs(big.toDouble(low.value)), Math.abs(big.toDouble(high.value)));
  const isProved = low.isProved && high.isProved;
  const bound = isProved ? Math.abs(value) * Number.EPSILON : size * 2 * Number.EPSILON;
  return { value, exact: null, bound, isProved };
}

/** Share by which an exact value and quadrature may differ: a safeguard, far above what either leaves open. */
const agreement = 1e-6;

function isConfirmed(value: number, stretch: Stretch, variable: string): boolean {
  const { value: seen, error, magnitude } = estimated(stretch, variable);
  const isBlind = !(error < agreement * magnitude);
  return isBlind || Math.abs(seen - value) <= agreement * Math.max(magnitude, Math.abs(value));
}
