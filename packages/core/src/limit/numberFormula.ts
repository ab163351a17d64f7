import { nearbyFraction } from '../numbers/nearbyFraction.ts';
import { literal } from '../algebra/literal.ts';
import * as rational from '../numbers/rational.ts';
import * as tree from '../language/tree.ts';
import type { Expression } from '../language/tree.ts';
import { isShort, multipleOfPi } from './recognise.ts';

/**
 * A double as the number that it stands for: 0.1 is one tenth, −3 is minus 3, and the double nearest to a simple
 * multiple of π, a small power of e or a square root of a simple fraction is that number.
 */
export function numberFormula(value: number): Expression {
  if (value === 0) return tree.number(0);
  if (value < 0) return tree.negate(numberFormula(-value));
  const turns = multipleOfPi(value);
  if (turns) return tree.multiply(literal(turns), tree.constant('pi'));
  const named = powerOfEuler(value) ?? rootOfFraction(value);
  if (named) return named;
  return tree.number(String(value).toUpperCase().replace('E+', 'E'));
}

/** Denominators of exponents of e, and of numbers under a root, that are recognised. */
const largestExponentDenominator = 6;
const largestRadicand = 100;
const largestExponent = 20;

/** e^r where x is the double nearest to it with a simple r. */
function powerOfEuler(x: number): Expression | null {
  const exponent = isShort(x) ? null : nearbyFraction(Math.log(x), largestExponentDenominator);
  const power = exponent && rational.toNumber(exponent);
  if (!power || Math.abs(power) > largestExponent || !isNearest(Math.exp(power), x)) return null;
  return power === 1 ? tree.constant('e') : tree.power(tree.constant('e'), literal(exponent));
}

/** √r where x is the double nearest to it with a simple r. */
function rootOfFraction(x: number): Expression | null {
  const square = isShort(x) ? null : nearbyFraction(x * x, largestRadicand);
  if (!square || !isNearest(Math.sqrt(rational.toNumber(square)), x)) return null;
  return tree.call('sqrt', literal(square));
}

const isNearest = (value: number, x: number): boolean => Math.abs(value - x) <= x * 2 ** -52;
