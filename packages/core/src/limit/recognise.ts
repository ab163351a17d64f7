import { parseDecimal } from '../algebra/rational.ts';
import * as big from './bigFloat.ts';
import type { BigFloat } from './bigFloat.ts';

/** Digits beyond which a decimal stands for a number that it only rounds. */
const exactDigits = 15;
/** Parts of π that angles are measured in. */
const partsOfPi = [1, 2, 3, 4, 6, 12];

/**
 * The number that a double stands for: a short decimal is that decimal (0.1 is one tenth), the double
 * nearest to a twelfth multiple of π is that multiple, anything else is itself.
 */
export function preciseValue(x: number, bits: number): BigFloat {
  const text = String(x).toUpperCase();
  const digits = text.replace(/E.*$/, '').replace(/[-.]/g, '').replace(/^0+/, '');
  const decimal = parseDecimal(text);
  if (digits.length <= exactDigits && decimal) return big.fromRational(decimal, bits);
  for (const parts of partsOfPi) {
    const multiple = Math.round((x / Math.PI) * parts);
    if (multiple !== 0 && Math.abs(multiple) < 1000 && isNearest(x, multiple, parts)) {
      const turns = big.multiply(big.pi(bits), big.fromInteger(BigInt(multiple)), bits);
      return big.divide(turns, big.fromInteger(BigInt(parts)), bits);
    }
  }
  return big.fromDouble(x);
}

const isNearest = (x: number, multiple: number, parts: number): boolean =>
  Math.abs((multiple * Math.PI) / parts - x) <= Math.abs(x) * 2 ** -52;
