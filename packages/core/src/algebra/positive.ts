import type { Canonical } from './canonical.ts';
import * as rational from '../numbers/rational.ts';

/** Whether a form is plainly positive wherever it has a value. */
export function isPositive(form: Canonical): boolean {
  switch (form.kind) {
    case 'number':
      return rational.compare(form.value, rational.zero) > 0;
    case 'sum':
      return form.terms.every(isNotNegative) && form.terms.some(isPositive);
    case 'product':
      return rational.compare(form.coefficient, rational.zero) > 0 && form.factors.every(isPositive);
    case 'power':
      return isPositive(form.base);
    case 'atom':
      return form.node.kind === 'constant';
    default:
      return form.kind === 'call' && form.name === 'cosh';
  }
}

function isNotNegative(form: Canonical): boolean {
  if (form.kind === 'product')
    return rational.compare(form.coefficient, rational.zero) > 0 && form.factors.every(isNotNegative);
  if (form.kind !== 'power' || form.exponent.kind !== 'number') return isPositive(form);
  const { numerator, denominator } = form.exponent.value;
  return numerator % 2n === 0n || denominator % 2n === 0n || isNotNegative(form.base);
}
