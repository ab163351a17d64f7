import {
  baseAndExponent,
  callOf,
  difference,
  numeric,
  power,
  product,
  quotient,
  splitCoefficient,
  sum,
  whole,
  type Canonical,
  type Power,
} from './canonical.ts';
import { expanded, factored } from './expand.ts';
import { inSinesAndCosines } from './identities.ts';
import { mapped } from './parts.ts';
import * as rational from '../numbers/rational.ts';

const mostRounds = 5;

/**
 * Whether a form is 0 wherever it has a value, by algebra alone; false where algebra cannot tell. Denominators are
 * dropped, products multiplied out, and even powers of cosines (hyperbolic ones too) written in sines, which leaves one
 * form for all formulas that are equal by these laws.
 */
export function vanishes(form: Canonical): boolean {
  let rest = inFewerTerms(form);
  for (let round = 0; round < mostRounds; round++) {
    if (rest.kind === 'number') return rational.isZero(rest.value);
    const once = expanded(mapped(withoutDivisors(factored(rest)), withoutEvenCosines));
    // What was taken out of a sum may hide brackets in its terms.
    const next = once.key === rest.key ? expanded(once) : once;
    if (next.key === rest.key) return false;
    rest = next;
  }
  return rest.kind === 'number' && rational.isZero(rest.value);
}

/** Everything through sin, cos, sinh, cosh and ln of as few different things as possible. */
function inFewerTerms(form: Canonical): Canonical {
  return mapped(inSinesAndCosines(form), (part) => {
    if (part.kind === 'power') return inOneFraction(withoutContent(part));
    if (part.kind !== 'call') return part;
    const [u, second] = part.operands as [Canonical, Canonical | undefined];
    switch (part.name) {
      case 'tanh':
        return quotient(callOf('sinh', [u]), callOf('cosh', [u]));
      case 'coth':
        return quotient(callOf('cosh', [u]), callOf('sinh', [u]));
      case 'sech':
      case 'csch':
        return quotient(whole(1), callOf(part.name === 'sech' ? 'cosh' : 'sinh', [u]));
      case 'log':
        return quotient(callOf('ln', [u]), callOf('ln', [whole(10)]));
      case 'logBase':
        return second ? quotient(callOf('ln', [second]), callOf('ln', [u])) : part;
      case 'sin':
      case 'cos':
        return ofSimpleAngle(part.name, u);
      default:
        return part;
    }
  });
}

/** 1/(a + b/c) as c/(ac + b). */
function inOneFraction(form: Canonical): Canonical {
  if (form.kind !== 'power' || form.base.kind !== 'sum' || form.exponent.kind !== 'number') return form;
  const isBelow = rational.isInteger(form.exponent.value) && rational.isNegative(form.exponent.value);
  const base = isBelow ? factored(form.base) : form.base;
  return base.kind === 'product' ? power(base, form.exponent) : form;
}

/** √(4 − 4x²) as 2√(1 − x²): what stands under a root is multiplied out, and its common number taken out. */
function withoutContent(form: Power): Canonical {
  const { exponent } = form;
  const isComposed = form.base.kind === 'sum' || form.base.kind === 'product';
  if (!isComposed || exponent.kind !== 'number' || rational.isInteger(exponent.value)) return form;
  const base = expanded(form.base);
  const split = factored(base);
  const common = split.kind === 'product' ? split.coefficient : rational.one;
  if (rational.isOne(common) || rational.isNegative(common)) return power(base, exponent);
  return product([
    power(numeric(common), exponent),
    power(expanded(quotient(base, numeric(common))), exponent),
  ]);
}

/** Multiples of an angle up to which waves are written through it. */
const largestMultiple = 16;

/** sin 2u, cos 3u and the like through sin u and cos u. */
export const inSimpleAngles = (form: Canonical): Canonical =>
  mapped(form, (part) =>
    part.kind === 'call' && (part.name === 'sin' || part.name === 'cos')
      ? ofSimpleAngle(part.name, part.operands[0] as Canonical)
      : part,
  );

/** sin ku and cos ku through sin u and cos u, for a small whole k, by the addition theorems. */
function ofSimpleAngle(name: 'sin' | 'cos', angle: Canonical): Canonical {
  const { coefficient, rest } = splitCoefficient(angle);
  const k = Number(coefficient.numerator);
  const u = product([numeric(rational.rational(1, coefficient.denominator)), rest]);
  if (k < 2 || k > largestMultiple) return callOf(name, [angle]);
  const [sine, cosine] = [callOf('sin', [u]), callOf('cos', [u])];
  let [s, c] = [sine, cosine];
  for (let i = 1; i < k; i++) {
    [s, c] = [
      expanded(sum([product([s, cosine]), product([c, sine])])),
      expanded(difference(product([c, cosine]), product([s, sine]))),
    ];
  }
  return name === 'sin' ? s : c;
}

/** A product is 0 where one of its factors is: those that cannot be, reciprocals and powers of e, are left out. */
function withoutDivisors(form: Canonical): Canonical {
  if (form.kind !== 'product') return form;
  return product(
    form.factors.filter((factor) => {
      const { exponent } = baseAndExponent(factor);
      return exponent.kind !== 'number' || !rational.isNegative(exponent.value);
    }),
  );
}

/** cos² u = 1 − sin² u, and cosh² u = 1 + sinh² u. */
function withoutEvenCosines(form: Canonical): Canonical {
  if (form.kind !== 'power' || form.base.kind !== 'call' || form.exponent.kind !== 'number') return form;
  const { name, operands } = form.base;
  if ((name !== 'cos' && name !== 'cosh') || !rational.isInteger(form.exponent.value)) return form;
  const n = Number(form.exponent.value.numerator);
  if (n < 2) return form;
  const sine = callOf(name === 'cos' ? 'sin' : 'sinh', operands);
  const square = sum([whole(1), product([whole(name === 'cos' ? -1 : 1), power(sine, whole(2))])]);
  return product([power(square, whole(Math.floor(n / 2))), power(form.base, whole(n % 2))]);
}
