import { canonical, type Canonical } from '../algebra/canonical.ts';
import { shortest } from '../algebra/shortest.ts';
import { exactPlace, type Place } from '../analysis/place.ts';
import { programOf } from '../analysis/programs.ts';
import * as tree from '../language/tree.ts';
import type { Expression } from '../language/tree.ts';
import * as big from '../limit/bigFloat.ts';
import { oneSided } from '../limit/limit.ts';
import { limitForm, type LimitForm } from '../limit/limitForm.ts';
import { evaluatePrecisely, NotPrecise } from '../limit/precise.ts';
import { isFinitePlace, type End } from './stretches.ts';

/** The value of an antiderivative at an end. */
export interface EndNumber {
  readonly form: Canonical | null;
  readonly value: big.BigFloat;
  readonly isProved: boolean;
}

/** Binary digits to which values at ends are worked out. */
export const valueBits = 200;

/** 'diverges' for an infinite limit, 'swings' for none, null where nothing is known. */
export function endValue(
  formula: Expression,
  variable: string,
  end: End,
  side: 1 | -1,
): EndNumber | 'diverges' | 'swings' | null {
  const there = isFinitePlace(end) ? valueAt(formula, variable, end) : null;
  if (there) return there;
  const exact = exactLimit(formula, variable, end, side);
  if (exact?.kind === 'infinite') return 'diverges';
  if (exact?.kind === 'finite') {
    const place = exactPlace(shortest(exact.form, 'fraction'));
    return place && { form: exact.form, value: place.at(valueBits), isProved: true };
  }
  const seen = oneSided(programOf(formula, variable), isFinitePlace(end) ? end.at : end * Infinity, side);
  if (seen.kind === 'finite') return { form: null, value: big.fromDouble(seen.value), isProved: false };
  return seen.kind === 'infinite' ? 'diverges' : seen.kind === 'none' ? 'swings' : null;
}

/** The value of a formula at a place, exactly where the place is known so; null where it has none. */
export function valueAt(formula: Expression, variable: string, place: Place): EndNumber | null {
  if (place.exact) {
    const form = canonical(tree.substitute(formula, variable, place.exact));
    const known = preciseAt(() => exactPlace(shortest(form, 'fraction'))?.at(valueBits) ?? null);
    return known && isOfUsualSize(known) ? { form, value: known, isProved: true } : null;
  }
  const program = programOf(formula, variable);
  const value = preciseAt(() => evaluatePrecisely(program, place.at(2 * valueBits), [], valueBits));
  return value && isOfUsualSize(value) ? { form: null, value, isProved: true } : null;
}

/** Beyond this, a value is what rounding makes of a pole. */
const usualOrder = 120n;
const isOfUsualSize = (value: big.BigFloat): boolean => big.isZero(value) || big.order(value) < usualOrder;

function preciseAt(work: () => big.BigFloat | null): big.BigFloat | null {
  try {
    return work();
  } catch (error) {
    if (error instanceof NotPrecise || error instanceof big.OutOfRange) return null;
    throw error;
  }
}

function exactLimit(formula: Expression, variable: string, end: End, side: 1 | -1): LimitForm | null {
  if (!isFinitePlace(end)) return limitForm(canonical(formula), { variable, target: end * Infinity, side });
  if (!end.exact) return null;
  const target = { form: canonical(end.exact), at: end.at };
  return limitForm(canonical(formula), { variable, target, side });
}
