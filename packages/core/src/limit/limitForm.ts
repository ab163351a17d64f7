import { ownNames } from '../language/ownNames.ts';
import {
  baseAndExponent,
  callOf,
  canonical,
  euler,
  numeric,
  power,
  product,
  sum,
  whole,
  type Canonical,
  type Power,
  type Product,
} from '../algebra/canonical.ts';
import { factored } from '../algebra/expand.ts';
import { dependsOn } from '../algebra/parts.ts';
import { polynomialOf } from '../algebra/polynomial.ts';
import * as rational from '../algebra/rational.ts';
import { written } from '../algebra/written.ts';
import { compile } from '../evaluate/program.ts';
import * as tree from '../language/tree.ts';
import * as big from './bigFloat.ts';
import { oneSided, type Limit, type PrecisePlace } from './limit.ts';
import { evaluatePrecisely } from './precise.ts';

/** A limit that is known exactly: a number as a form, or an infinity. */
export type LimitForm =
  | { readonly kind: 'finite'; readonly form: Canonical }
  | { readonly kind: 'infinite'; readonly sign: 1 | -1 };

/** Where a variable tends to: ±Infinity, or a number that is known exactly, from one side (1 from the right). */
export interface Approach {
  readonly variable: string;
  readonly target: number | { readonly form: Canonical; readonly at: PrecisePlace };
  readonly side: 1 | -1;
}

const finite = (form: Canonical): LimitForm => ({ kind: 'finite', form });
const infinite = (sign: number): LimitForm => ({ kind: 'infinite', sign: sign > 0 ? 1 : -1 });
const isZero = (limit: LimitForm | null): boolean =>
  limit?.kind === 'finite' && limit.form.kind === 'number' && rational.isZero(limit.form.value);

/**
 * The limit of a form by the laws of limits: sums, products, powers and functions of limits, and that exponentials
 * outgrow powers and powers logarithms. Null where these do not decide.
 */
export function limitForm(form: Canonical, approach: Approach): LimitForm | null {
  if (!dependsOn(form, approach.variable)) return finite(form);
  switch (form.kind) {
    case 'atom':
      return typeof approach.target === 'number' ? infinite(approach.target) : finite(approach.target.form);
    case 'sum': {
      const leading = ofPolynomial(form, approach);
      if (leading) return leading;
      const limits = form.terms.map((term) => limitForm(term, approach));
      return sumOf(limits) ?? ofLogarithms(form.terms, approach) ?? ofSplit(form, approach);
    }
    case 'product':
      return ofProduct(form, approach);
    case 'power':
      return ofPower(form, approach);
    case 'call':
      return ofCall(form.name, form.operands, approach);
    default:
      return null;
  }
}

/** Towards infinity a polynomial goes where its leading term goes. */
function ofPolynomial(form: Canonical, { variable, target }: Approach): LimitForm | null {
  const p = typeof target === 'number' ? polynomialOf(form, variable) : null;
  const leading = p?.at(-1);
  if (!p || !leading || p.length < 2) return null;
  const isTurned = Number(target) < 0 && p.length % 2 === 0;
  return infinite(rational.isNegative(leading) === isTurned ? 1 : -1);
}

function sumOf(limits: readonly (LimitForm | null)[]): LimitForm | null {
  const forms: Canonical[] = [];
  const signs = new Set<1 | -1>();
  for (const limit of limits) {
    if (!limit) return null;
    if (limit.kind === 'finite') forms.push(limit.form);
    else signs.add(limit.sign);
  }
  const [sign] = signs;
  if (signs.size > 1) return null;
  return sign === undefined ? finite(sum(forms)) : infinite(sign);
}

/** ln |x − 1| − ln |x + 1| is the logarithm of a quotient. */
function ofLogarithms(terms: readonly Canonical[], approach: Approach): LimitForm | null {
  const isLogarithm = (term: Canonical): boolean =>
    term.kind === 'call'
      ? term.name === 'ln'
      : term.kind === 'product' && term.factors.length === 1 && isLogarithm(term.factors[0] as Canonical);
  const logarithms = terms.filter(isLogarithm);
  if (logarithms.length < 2) return null;
  const scale = logarithms.reduce(
    (most, term) => (term.kind === 'product' ? lcm(most, term.coefficient.denominator) : most),
    1n,
  );
  const factors = logarithms.map((term) => {
    const coefficient = term.kind === 'product' ? term.coefficient : rational.one;
    const call = term.kind === 'product' ? (term.factors[0] as Canonical) : term;
    const [inner] = call.kind === 'call' ? call.operands : [];
    const plain = inner?.kind === 'call' && inner.name === 'abs' ? (inner.operands[0] as Canonical) : inner;
    const exponent = rational.multiply(coefficient, rational.rational(scale));
    return power(plain as Canonical, whole(Number(exponent.numerator)));
  });
  const ratio = limitForm(product(factors), approach);
  if (ratio?.kind !== 'finite' || isZero(ratio)) return null;
  const size = callOf('ln', [callOf('abs', [ratio.form])]);
  const logarithm = product([power(whole(Number(scale)), whole(-1)), size]);
  const others = terms.filter((term) => !isLogarithm(term)).map((term) => limitForm(term, approach));
  return sumOf([finite(logarithm), ...others]);
}

const gcd = (a: bigint, b: bigint): bigint => (b === 0n ? a : gcd(b, a % b));
const lcm = (a: bigint, b: bigint): bigint => (a / gcd(a, b)) * b;

/** A sum of infinities as a product. */
function ofSplit(form: Canonical, approach: Approach): LimitForm | null {
  const split = factored(form);
  return split.kind === 'product' && split.factors.every(({ key }) => key !== form.key)
    ? limitForm(split, approach)
    : null;
}

function ofProduct(form: Product, approach: Approach): LimitForm | null {
  const limits = form.factors.map((factor) => limitForm(factor, approach));
  const forms: Canonical[] = [];
  let isInfinite = false;
  const isKept = form.factors.every((factor, i) => limits[i]?.kind === 'finite' || isBounded(factor));
  if (isKept && limits.some(isZero)) return finite(whole(0));
  let sign = rational.isNegative(form.coefficient) ? -1 : 1;
  for (const limit of limits) {
    if (!limit) return null;
    if (limit.kind === 'finite') forms.push(limit.form);
    else isInfinite = true;
    sign *= limit.kind === 'finite' ? signOf(limit.form) : limit.sign;
  }
  if (!isInfinite) return finite(product([...forms, numeric(form.coefficient)]));
  return limits.some(isZero) || sign === 0 ? byGrowth(form, approach) : infinite(sign);
}

const bounded: ReadonlySet<string> = new Set(['sin', 'cos', 'arctan', 'tanh', 'arcsin', 'arccos']);

/** Whether a form stays between two bounds wherever it has a value. */
function isBounded(form: Canonical): boolean {
  switch (form.kind) {
    case 'call':
      return bounded.has(form.name);
    case 'sum':
      return form.terms.every(isBounded);
    case 'product':
      return form.factors.every(isBounded);
    case 'power':
      return (
        form.exponent.kind === 'number' && !rational.isNegative(form.exponent.value) && isBounded(form.base)
      );
    default:
      return form.kind === 'number';
  }
}

/** The sign of a number. */
function signOf(form: Canonical): number {
  const value = evaluatePrecisely(compile(written(form), ''), big.zero, [], valueBits);
  return value ? big.sign(value) : 0;
}

/** Something that is infinite by the laws: its sign by evaluation. */
function bySign(form: Canonical, approach: Approach): LimitForm | null {
  const seen = seenLimit(form, approach);
  return seen.kind === 'infinite' ? infinite(seen.sign) : null;
}

/**
 * 0 · ∞ of powers, exponentials and logarithms: one of them outgrows the others, so the limit is 0, infinite, or, of
 * quotients of polynomials, the quotient of their leading coefficients.
 */
function byGrowth(form: Product, approach: Approach): LimitForm | null {
  const leading = leadingQuotient(form, approach);
  if (leading) return leading;
  if (!form.factors.every((factor) => isOnScale(factor, approach.variable))) return null;
  const seen = seenLimit(form, approach);
  if (seen.kind === 'infinite') return infinite(seen.sign);
  return seen.kind === 'finite' && seen.value === 0 ? finite(whole(0)) : null;
}

/** A quotient of polynomials of one degree, towards infinity. */
function leadingQuotient(form: Product, { variable, target }: Approach): LimitForm | null {
  if (typeof target !== 'number') return null;
  let [coefficient, degree] = [form.coefficient, 0];
  for (const factor of form.factors) {
    const { base, exponent } = baseAndExponent(factor);
    const p = polynomialOf(base, variable);
    if (!p || exponent.kind !== 'number' || !rational.isInteger(exponent.value)) return null;
    const n = Number(exponent.value.numerator);
    const raised = rational.integerPower(p.at(-1) ?? rational.zero, n);
    if (!raised) return null;
    coefficient = rational.multiply(coefficient, raised);
    degree += n * (p.length - 1);
  }
  if (degree !== 0) return null;
  return finite(numeric(coefficient));
}

/** Powers of ax + b or of polynomials, e to a polynomial, and powers of logarithms: no two grow alike. */
function isOnScale(factor: Canonical, variable: string): boolean {
  const { base, exponent } = baseAndExponent(factor);
  if (!dependsOn(base, variable)) return polynomialOf(exponent, variable) !== null;
  if (exponent.kind !== 'number') return false;
  if (polynomialOf(base, variable)) return true;
  const [inner] = base.kind === 'call' && base.name === 'ln' ? base.operands : [];
  const plain = inner?.kind === 'call' && inner.name === 'abs' ? inner.operands[0] : inner;
  return plain !== undefined && polynomialOf(plain, variable) !== null;
}

function ofPower(form: Power, approach: Approach): LimitForm | null {
  const { base, exponent } = form;
  const [b, e] = [limitForm(base, approach), limitForm(exponent, approach)];
  if (!b || !e) return null;
  if (e.kind === 'infinite') {
    // e^u, and a^u for other fixed a > 1 in the same way.
    if (base.key !== euler.key) return null;
    return e.sign > 0 ? infinite(1) : finite(whole(0));
  }
  if (exponent.kind !== 'number')
    return b.kind === 'finite' && !dependsOn(base, approach.variable) ? finite(power(b.form, e.form)) : null;
  const isBelow = rational.isNegative(exponent.value);
  if (b.kind === 'infinite') return isBelow ? finite(whole(0)) : bySign(form, approach);
  if (!isZero(b)) return finite(power(b.form, e.form));
  return isBelow ? bySign(form, approach) : finite(whole(0));
}

/** What bounded rising functions tend to. */
const quarterTurn = canonical(tree.divide(tree.constant('pi'), tree.number(2)));
const atInfinity = ownNames<Canonical>({ arctan: quarterTurn, tanh: whole(1) });
/** Functions that are continuous wherever they are defined. */
const continuous: ReadonlySet<string> = new Set([
  ...['sin', 'cos', 'tan', 'cot', 'sec', 'csc', 'arcsin', 'arccos', 'arctan'],
  ...['sinh', 'cosh', 'tanh', 'arsinh', 'arcosh', 'artanh', 'ln', 'log', 'abs'],
]);

function ofCall(name: string, operands: readonly Canonical[], approach: Approach): LimitForm | null {
  const [operand, ...others] = operands as [Canonical, ...Canonical[]];
  const inner = others.length === 0 ? limitForm(operand, approach) : null;
  if (!inner) return null;
  if (inner.kind === 'infinite') {
    if (name === 'ln' || name === 'abs') return infinite(1);
    const bound = Object.hasOwn(atInfinity, name) ? atInfinity[name] : undefined;
    return bound ? finite(product([whole(inner.sign), bound])) : null;
  }
  if (name === 'ln' && isZero(inner)) return infinite(-1);
  if (!continuous.has(name)) return null;
  const value = callOf(name, [inner.form]);
  return isDefined(value) ? finite(value) : null;
}

/** Binary digits to which a number is looked at, and a size that only what is infinite has. */
const valueBits = 200;
const largest = 100n;

/** Whether a number has a value: tan π/2, evaluated, is only very large. */
function isDefined(form: Canonical): boolean {
  const value = evaluatePrecisely(compile(written(form), ''), big.zero, [], valueBits);
  return value !== null && (big.isZero(value) || big.order(value) < largest);
}

/** The limit by evaluation. */
const seenLimit = (form: Canonical, { variable, target, side }: Approach): Limit =>
  oneSided(compile(written(form), variable), typeof target === 'number' ? target : target.at, side);
