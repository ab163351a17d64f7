import { baseAndExponent, difference, nameOf, power, product, whole, type Canonical } from '../canonical.ts';
import { derivative } from '../differentiate.ts';
import { expanded } from '../expand.ts';
import { dependsOn, withParts } from '../parts.ts';
import * as rational from '../../numbers/rational.ts';

/** Forms that one search for an antiderivative may look at. */
const mostForms = 400;
/** How many rules may be applied inside one another. */
const deepest = 12;

/** Finds an antiderivative of a form, or null where the method does not apply. */
export type Method = (form: Canonical, search: Search) => Canonical | null;

/** A search for antiderivatives in one variable: it counts what it looks at, and hands forms to the methods in turn. */
export class Search {
  readonly x: Canonical;
  private depth = 0;

  constructor(
    readonly variable: string,
    private readonly methods: readonly Method[],
    private readonly spent = { forms: 0, withoutResult: new Map<string, number>() },
  ) {
    this.x = nameOf(variable);
  }

  /** An antiderivative of a form; null where none was found. */
  of(form: Canonical): Canonical | null {
    const { withoutResult } = this.spent;
    // What led to nothing, or is being looked at, is not looked at again with less room.
    if ((withoutResult.get(form.key) ?? deepest) <= this.depth || this.spent.forms >= mostForms) return null;
    withoutResult.set(form.key, this.depth);
    this.spent.forms++;
    this.depth++;
    try {
      for (const method of this.methods) {
        const found = method(form, this);
        if (!found) continue;
        withoutResult.delete(form.key);
        return found;
      }
      return null;
    } finally {
      this.depth--;
    }
  }

  /** A search of the same kind in another variable, within the same bounds. */
  in(variable: string): Search {
    const other = new Search(variable, this.methods, this.spent);
    other.depth = this.depth;
    return other;
  }

  moves(form: Canonical): boolean {
    return dependsOn(form, this.variable);
  }

  derivative(form: Canonical): Canonical {
    return derivative(form, this.variable);
  }
}

/** a and b of a form a·x + b whose a is not 0; null for any other. */
export function linear(form: Canonical, search: Search): { a: Canonical; b: Canonical } | null {
  if (!search.moves(form)) return null;
  const a = expanded(search.derivative(form));
  if (search.moves(a)) return null;
  const b = expanded(difference(form, product([a, search.x])));
  return search.moves(b) ? null : { a, b };
}

/**
 * A form with tᵃᵏ for powers a of a base, whose k-th root is t.
 * @param x what stands for the variable itself
 */
export function inRootOf(
  base: Canonical,
  k: number,
  t: Canonical,
  x: Canonical,
  variable: string,
): (form: Canonical) => Canonical {
  const inT = (part: Canonical): Canonical => {
    const { base: inner, exponent } = baseAndExponent(part);
    if (inner.key === base.key && exponent.kind === 'number') return power(t, product([exponent, whole(k)]));
    return part.key === variable ? x : withParts(part, inT);
  };
  return inT;
}

/** Highest power for which antiderivatives are written out term by term. */
const highestPower = 12;

/** A polynomial, its coefficients any constants. */
export const isPolynomial = (form: Canonical, search: Search): boolean =>
  degreeOf(expanded(form), search) <= highestPower;

function degreeOf(form: Canonical, search: Search): number {
  if (!search.moves(form)) return 0;
  const degrees = (parts: readonly Canonical[]): number[] => parts.map((part) => degreeOf(part, search));
  switch (form.kind) {
    case 'atom':
      return 1;
    case 'sum':
      return Math.max(...degrees(form.terms));
    case 'product':
      return degrees(form.factors).reduce((total, degree) => total + degree, 0);
    case 'power': {
      const { exponent } = form;
      const isCounted = exponent.kind === 'number' && rational.isInteger(exponent.value);
      if (!isCounted || rational.isNegative(exponent.value)) return Infinity;
      return degreeOf(form.base, search) * Number(exponent.value.numerator);
    }
    default:
      return Infinity;
  }
}
