import { rational, type Rational } from '../numbers/rational.ts';

/** Digits beyond which a decimal stands for a number that it only rounds. */
const exactDigits = 13;
/** Parts of π that angles are measured in. */
const partsOfPi = [1, 2, 3, 4, 6, 12];

/** Whether a double is a decimal that someone may have typed. */
export function isShort(x: number): boolean {
  const digits = String(x).replace(/e.*$/, '').replace(/[-.]/g, '').replace(/^0+/, '');
  return digits.length <= exactDigits;
}

/** r where x is the double nearest to r·π with a simple r; null for any other, and for short decimals. */
export function multipleOfPi(x: number): Rational | null {
  if (isShort(x) || !Number.isFinite(x)) return null;
  for (const parts of partsOfPi) {
    const multiple = Math.round((x / Math.PI) * parts);
    const isNearest = Math.abs((multiple * Math.PI) / parts - x) <= Math.abs(x) * 2 ** -52;
    if (multiple !== 0 && Math.abs(multiple) < 1000 && isNearest) return rational(multiple, parts);
  }
  return null;
}
