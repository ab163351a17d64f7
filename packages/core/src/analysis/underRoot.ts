import { nameOf, numeric, power, product, sum, whole, type Canonical } from '../algebra/canonical.ts';
import { expanded } from '../algebra/expand.ts';
import { partsOf, withParts } from '../algebra/parts.ts';
import { degree, polynomialOf, type Polynomial } from '../algebra/polynomial.ts';
import * as rational from '../numbers/rational.ts';
import type { Rational } from '../numbers/rational.ts';
import { written } from '../algebra/written.ts';
import type { Expression } from '../language/tree.ts';

/** The name of the root that is put in: tⁿ = a x + b. */
export const rootName = '#t';
/** Which roots are looked at, and the power of t by which a form is multiplied at most, to be rid of denominators. */
const highestRoot = 12n;
const highestPower = 60;

/** A root of a linear expression: t = (a x + b)^(1/n). */
interface Root {
  readonly a: Rational;
  readonly b: Rational;
  readonly n: number;
}

/** A form in x as a polynomial in such a root t, divided by a power of t. */
export interface UnderRoot extends Root {
  readonly polynomial: Polynomial;
  /** Whether the form has a value where t is 0. */
  readonly hasValueAtZero: boolean;
}

/**
 * A form that becomes a polynomial when one root of a linear expression is taken as the variable: x − 3√x + 2 with t = √x
 * is t² − 3t + 2. Null for any other.
 */
export function underRoot(form: Canonical, variable: string): UnderRoot | null {
  const bases = new Map<string, Canonical>();
  let n = 1n;
  const look = (part: Canonical): void => {
    if (
      part.kind === 'power' &&
      part.exponent.kind === 'number' &&
      !rational.isInteger(part.exponent.value)
    ) {
      bases.set(part.base.key, part.base);
      n = lcm(n, part.exponent.value.denominator);
    }
    for (const inner of partsOf(part)) look(inner);
  };
  look(form);
  const [base, ...others] = bases.values();
  if (!base || others.length > 0 || n > highestRoot) return null;
  const line = polynomialOf(expanded(base), variable);
  if (!line || degree(line) !== 1) return null;
  const [b, a] = line as [Rational, Rational];
  const root: Root = { a, b, n: Number(n) };
  const inRoot = substituted(form, variable, base, root);
  for (let times = 0; times <= highestPower; times = times === 0 ? root.n : 2 * times) {
    const raised = product([inRoot, power(t, whole(times))]);
    const polynomial = polynomialOf(expanded(raised), rootName);
    if (polynomial) return { polynomial, ...root, hasValueAtZero: times === 0 };
  }
  return null;
}

const t = nameOf(rootName);

/** x by t: (tⁿ − b)/a. */
const xByRoot = ({ a, b, n }: Root): Canonical =>
  product([
    numeric(rational.divide(rational.one, a)),
    sum([power(t, whole(n)), numeric(rational.negate(b))]),
  ]);

/** x by t, as a formula. */
export const placeByRoot = (root: Root): Expression => written(xByRoot(root));

function substituted(form: Canonical, variable: string, base: Canonical, root: Root): Canonical {
  const x = xByRoot(root);
  const visit = (part: Canonical): Canonical => {
    if (part.kind === 'power' && part.base.key === base.key && part.exponent.kind === 'number')
      return power(t, numeric(rational.multiply(part.exponent.value, rational.rational(root.n))));
    if (part.kind === 'atom' && part.node.kind === 'name' && part.node.name === variable) return x;
    return partsOf(part).length === 0 ? part : withParts(part, visit);
  };
  return visit(form);
}

const gcd = (p: bigint, q: bigint): bigint => (q === 0n ? p : gcd(q, p % q));
const lcm = (p: bigint, q: bigint): bigint => (p / gcd(p, q)) * q;
