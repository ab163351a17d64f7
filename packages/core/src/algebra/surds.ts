import {
  baseAndExponent,
  callOf,
  difference,
  negative,
  power,
  product,
  quotient,
  splitCoefficient,
  sum,
  whole,
  type Canonical,
} from './canonical.ts';
import { expanded } from './expand.ts';
import { mapped } from './parts.ts';
import { isPositive } from './positive.ts';
import * as rational from '../numbers/rational.ts';

/** Two constants above 0 of which one is taken from the other, and the difference of their squares. */
interface Apart {
  readonly more: Canonical;
  readonly less: Canonical;
  readonly squares: Canonical;
}

function apart(form: Canonical): Apart | null {
  if (form.kind !== 'sum' || form.terms.length !== 2) return null;
  const isLess = (term: Canonical): boolean => rational.isNegative(splitCoefficient(term).coefficient);
  const [more] = form.terms.filter((term) => !isLess(term));
  const [taken] = form.terms.filter(isLess);
  if (!more || !taken) return null;
  const less = negative(taken);
  if (!isPositive(more) || !isPositive(less)) return null;
  const squares = expanded(difference(power(more, whole(2)), power(less, whole(2))));
  return { more, less, squares };
}

/** |√2 − 1| as √2 − 1. */
export function withoutBars(form: Canonical): Canonical {
  if (form.kind !== 'call' || form.name !== 'abs') return form;
  const [inner] = form.operands as [Canonical];
  const found = apart(inner);
  if (!found) return form;
  if (isPositive(found.squares)) return inner;
  return isPositive(negative(found.squares)) ? negative(inner) : form;
}

/** 1/(√5 − 1) as (√5 + 1)/4, where a number comes to stand below the line. */
export function rationalized(form: Canonical): Canonical {
  const { base, exponent } = baseAndExponent(form);
  if (base.kind !== 'sum' || base.terms.length !== 2 || exponent.key !== whole(-1).key) return form;
  const [first, second] = base.terms as unknown as readonly [Canonical, Canonical];
  const squares = [first, second].map((term) => product([term, term]));
  const size = difference(squares[0] as Canonical, squares[1] as Canonical);
  if (squares.some(({ kind }) => kind !== 'number') || size.kind !== 'number') return form;
  return rational.isZero(size.value) ? form : quotient(difference(first, second), size);
}

/** ln(√5 − 1) as ln 4 − ln(√5 + 1): logarithms of a number and its conjugate become one. */
export const withSumsInLogarithms = (form: Canonical): Canonical =>
  mapped(form, (part) => {
    const found = part.kind === 'call' && part.name === 'ln' ? apart(part.operands[0] as Canonical) : null;
    if (!found || !isPositive(found.squares)) return part;
    return difference(callOf('ln', [found.squares]), callOf('ln', [sum([found.more, found.less])]));
  });
