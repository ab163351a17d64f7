import {
  baseAndExponent,
  callOf,
  difference,
  euler,
  negative,
  numeric,
  power,
  product,
  quotient,
  sum,
  whole,
  type Canonical,
} from './canonical.ts';
import { mapped, partsOf } from './parts.ts';
import * as rational from '../numbers/rational.ts';

const waves: ReadonlySet<string> = new Set(['sin', 'cos', 'tan', 'cot', 'sec', 'csc']);
/** Those that are quotients of the first two. */
export const quotientNames: ReadonlySet<string> = new Set(['tan', 'cot', 'sec', 'csc']);

/** Whether a form has a circular function in it, or one of the given ones, so that identities may shorten it. */
export function hasWaves(c: Canonical, names: ReadonlySet<string> = waves): boolean {
  return (c.kind === 'call' && names.has(c.name)) || partsOf(c).some((part) => hasWaves(part, names));
}

/** The form with tan, cot, sec and csc written through sin and cos. */
export function inSinesAndCosines(c: Canonical): Canonical {
  return mapped(c, (part) => {
    if (part.kind !== 'call') return part;
    const [u] = part.operands as [Canonical];
    const [sine, cosine] = [callOf('sin', [u]), callOf('cos', [u])];
    switch (part.name) {
      case 'tan':
        return product([sine, power(cosine, whole(-1))]);
      case 'cot':
        return product([cosine, power(sine, whole(-1))]);
      case 'sec':
        return power(cosine, whole(-1));
      case 'csc':
        return power(sine, whole(-1));
      default:
        return part;
    }
  });
}

const hyperbolics: ReadonlySet<string> = new Set(['sinh', 'cosh', 'tanh', 'coth', 'sech', 'csch']);

/** The form with hyperbolic functions written through exponentials. */
export function inExponentials(c: Canonical): Canonical {
  return mapped(c, (part) => {
    if (part.kind !== 'call' || !hyperbolics.has(part.name)) return part;
    const [u] = part.operands as [Canonical];
    const [up, down] = [power(euler, u), power(euler, negative(u))];
    const [sine, cosine] = [difference(up, down), sum([up, down])];
    const half = numeric(rational.rational(1, 2));
    switch (part.name) {
      case 'sinh':
        return product([half, sine]);
      case 'cosh':
        return product([half, cosine]);
      case 'tanh':
        return quotient(sine, cosine);
      case 'coth':
        return quotient(cosine, sine);
      case 'sech':
        return quotient(whole(2), cosine);
      default:
        return quotient(whole(2), sine);
    }
  });
}

/** The form with sin² u + cos² u = 1 and its relatives used. */
export const withSquaresJoined = (c: Canonical): Canonical => mapped(c, withSquares);

/** The form with sin u/cos u written as tan u, and its reciprocal as cot u. */
export const withQuotientsNamed = (c: Canonical): Canonical => mapped(c, withQuotients);

/** a·rest + b·rest = c·rest for squares of functions of one argument, with the sign of b before it. */
const squares: readonly { of: string; sign: 1 | -1; and: string; become: string }[] = [
  { of: 'sin', sign: 1, and: 'cos', become: '1' },
  { of: '1', sign: -1, and: 'sin', become: 'cos' },
  { of: '1', sign: -1, and: 'cos', become: 'sin' },
  { of: '1', sign: 1, and: 'tan', become: 'sec' },
  { of: 'sec', sign: -1, and: 'tan', become: '1' },
];

const squareOf = (name: string, u: Canonical): Canonical =>
  name === '1' ? whole(1) : power(callOf(name, [u]), whole(2));

function withSquares(c: Canonical): Canonical {
  if (c.kind !== 'sum') return c;
  const keys = new Map(c.terms.map((term) => [term.key, term]));
  for (const term of c.terms) {
    for (const { name, operand } of squaresIn(term)) {
      for (const { of, sign, and, become } of squares) {
        if (and !== name) continue;
        const rest = product([whole(sign), term, power(squareOf(and, operand), whole(-1))]);
        const partner = keys.get(product([rest, squareOf(of, operand)]).key);
        if (!partner || partner === term) continue;
        const others = c.terms.filter((other) => other !== term && other !== partner);
        return withSquares(sum([...others, product([rest, squareOf(become, operand)])]));
      }
    }
  }
  return c;
}

/** The functions that stand squared, or in a higher power, in a term. */
function squaresIn(term: Canonical): { name: string; operand: Canonical }[] {
  const factors = term.kind === 'product' ? term.factors : [term];
  return factors.flatMap((factor) => {
    const { base, exponent } = baseAndExponent(factor);
    const isSquare =
      exponent.kind === 'number' && rational.compare(exponent.value, rational.rational(2)) >= 0;
    const [operand] = base.kind === 'call' ? base.operands : [];
    return isSquare && base.kind === 'call' && operand ? [{ name: base.name, operand }] : [];
  });
}

function withQuotients(c: Canonical): Canonical {
  if (c.kind !== 'product') return c;
  for (const factor of c.factors) {
    const { base, exponent } = baseAndExponent(factor);
    if (base.kind !== 'call' || exponent.kind !== 'number' || rational.isNegative(exponent.value)) continue;
    const other = base.name === 'sin' ? 'cos' : base.name === 'cos' ? 'sin' : undefined;
    const divisor = other && power(callOf(other, base.operands), product([whole(-1), exponent]));
    if (!divisor || !c.factors.some(({ key }) => key === divisor.key)) continue;
    const quotient = power(callOf(base.name === 'sin' ? 'tan' : 'cot', base.operands), exponent);
    const inverse = (part: Canonical): Canonical => power(part, whole(-1));
    return product([c, inverse(factor), inverse(divisor), quotient]);
  }
  return c;
}
