import { ownNames } from '../../language/ownNames.ts';
import {
  baseAndExponent,
  callOf,
  difference,
  euler,
  isNumber,
  negative,
  power,
  product,
  quotient,
  sum,
  whole,
  type Canonical,
} from '../canonical.ts';
import { isPositive } from '../positive.ts';
import { linear, type Method } from './integrand.ts';

const square = (u: Canonical): Canonical => power(u, whole(2));
const root = (u: Canonical): Canonical => callOf('sqrt', [u]);
const ln = (u: Canonical): Canonical => callOf('ln', [u]);
/** ln |u|, without the bars where u cannot be negative. */
export const logarithmOfSize = (u: Canonical): Canonical => ln(isPositive(u) ? u : callOf('abs', [u]));

const half = (u: Canonical): Canonical => quotient(u, whole(2));
const wave = (name: string, u: Canonical): Canonical => callOf(name, [u]);

/** An antiderivative of each function in its own argument: the table of every calculus textbook. */
const rows = ownNames<(u: Canonical) => Canonical>({
  sin: (u) => negative(wave('cos', u)),
  cos: (u) => wave('sin', u),
  tan: (u) => negative(logarithmOfSize(wave('cos', u))),
  cot: (u) => logarithmOfSize(wave('sin', u)),
  sec: (u) => logarithmOfSize(sum([wave('sec', u), wave('tan', u)])),
  csc: (u) => negative(logarithmOfSize(sum([wave('csc', u), wave('cot', u)]))),
  sinh: (u) => wave('cosh', u),
  cosh: (u) => wave('sinh', u),
  tanh: (u) => ln(wave('cosh', u)),
  ln: (u) => difference(product([u, ln(u)]), u),
  log: (u) => quotient(difference(product([u, ln(u)]), u), ln(whole(10))),
  arcsin: (u) => sum([product([u, wave('arcsin', u)]), root(difference(whole(1), square(u)))]),
  arccos: (u) => difference(product([u, wave('arccos', u)]), root(difference(whole(1), square(u)))),
  arctan: (u) => difference(product([u, wave('arctan', u)]), half(ln(sum([whole(1), square(u)])))),
  arsinh: (u) => difference(product([u, wave('arsinh', u)]), root(sum([whole(1), square(u)]))),
  artanh: (u) => sum([product([u, wave('artanh', u)]), half(ln(difference(whole(1), square(u))))]),
});

/** A constant, or the sum of the antiderivatives of terms, or a constant factor before one. */
export const byLinearity: Method = (form, search) => {
  if (!search.moves(form)) return product([form, search.x]);
  if (form.kind === 'sum') {
    const parts = form.terms.map((term) => search.of(term));
    return parts.includes(null) ? null : sum(parts as Canonical[]);
  }
  if (form.kind !== 'product') return null;
  const moving = form.factors.filter((factor) => search.moves(factor));
  const constant = quotient(form, product(moving));
  if (isNumber(constant, 1)) return null;
  const inner = search.of(product(moving));
  return inner && product([constant, inner]);
};

/** A row of the table, a power, or an exponential, of ax + b. */
export const byTable: Method = (form, search) => {
  if (form.kind === 'call') {
    const [argument, second] = form.operands as [Canonical, Canonical | undefined];
    if (form.name === 'logBase' && second && !search.moves(argument)) {
      const inner = search.of(ln(second));
      return inner && quotient(inner, ln(argument));
    }
    const row = Object.hasOwn(rows, form.name) ? rows[form.name] : undefined;
    const line = row && linear(argument, search);
    return row && line ? quotient(row(argument), line.a) : null;
  }
  const { base, exponent } = baseAndExponent(form);
  if (!search.moves(exponent)) {
    const line = linear(base, search);
    if (!line) return null;
    if (isNumber(exponent, -1)) return quotient(logarithmOfSize(base), line.a);
    const raised = sum([exponent, whole(1)]);
    return quotient(power(base, raised), product([line.a, raised]));
  }
  const line = search.moves(base) ? null : linear(exponent, search);
  if (!line) return null;
  const rate = base.key === euler.key ? line.a : product([line.a, ln(base)]);
  return quotient(form, rate);
};
