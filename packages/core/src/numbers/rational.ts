/** An exact fraction in lowest terms with a positive denominator. */
export interface Rational {
  readonly numerator: bigint;
  readonly denominator: bigint;
}

const magnitude = (n: bigint): bigint => (n < 0n ? -n : n);

function greatestCommonDivisor(a: bigint, b: bigint): bigint {
  let [x, y] = [magnitude(a), magnitude(b)];
  while (y > 0n) [x, y] = [y, x % y];
  return x;
}

/** @throws RangeError for a denominator of zero */
export function rational(numerator: bigint | number, denominator: bigint | number = 1n): Rational {
  const n = BigInt(numerator);
  const d = BigInt(denominator);
  if (d === 1n) return { numerator: n, denominator: d };
  if (d === 0n) throw new RangeError('a fraction needs a denominator other than zero');
  const divisor = greatestCommonDivisor(n, d) * (d < 0n ? -1n : 1n);
  return { numerator: n / divisor, denominator: d / divisor };
}

export const zero = rational(0);
export const one = rational(1);
export const minusOne = rational(-1);

export const isZero = (r: Rational): boolean => r.numerator === 0n;
export const isOne = (r: Rational): boolean => r.numerator === 1n && r.denominator === 1n;
export const isInteger = (r: Rational): boolean => r.denominator === 1n;
export const isNegative = (r: Rational): boolean => r.numerator < 0n;
export const equals = (a: Rational, b: Rational): boolean =>
  a.numerator === b.numerator && a.denominator === b.denominator;

export const add = (a: Rational, b: Rational): Rational =>
  rational(a.numerator * b.denominator + b.numerator * a.denominator, a.denominator * b.denominator);
export const negate = (a: Rational): Rational => ({ numerator: -a.numerator, denominator: a.denominator });
export const subtract = (a: Rational, b: Rational): Rational => add(a, negate(b));
export const multiply = (a: Rational, b: Rational): Rational =>
  rational(a.numerator * b.numerator, a.denominator * b.denominator);
/** @throws RangeError for b = 0 */
export const divide = (a: Rational, b: Rational): Rational =>
  rational(a.numerator * b.denominator, a.denominator * b.numerator);
export const absolute = (a: Rational): Rational => (isNegative(a) ? negate(a) : a);
export const compare = (a: Rational, b: Rational): number => {
  const difference = a.numerator * b.denominator - b.numerator * a.denominator;
  return difference < 0n ? -1 : difference > 0n ? 1 : 0;
};
/** The greatest integer that is at most r. */
export function floor(r: Rational): bigint {
  const quotient = r.numerator / r.denominator;
  return isNegative(r) && quotient * r.denominator !== r.numerator ? quotient - 1n : quotient;
}

/** Bits that a numerator or denominator may have before exact work is given up. */
const longestBits = 4096;
const isTooLong = (r: Rational): boolean =>
  r.numerator.toString(16).length * 4 > longestBits || r.denominator.toString(16).length * 4 > longestBits;

/** rⁿ, or null for 0 to a negative power and where the digits would grow beyond reason. */
export function integerPower(r: Rational, n: number): Rational | null {
  if (n < 0) return isZero(r) ? null : integerPower(divide(one, r), -n);
  const bits = Math.max(magnitude(r.numerator).toString(2).length, r.denominator.toString(2).length);
  if (bits * n > longestBits) return magnitude(r.numerator) <= 1n && isInteger(r) ? smallPower(r, n) : null;
  return { numerator: r.numerator ** BigInt(n), denominator: r.denominator ** BigInt(n) };
}

const smallPower = (r: Rational, n: number): Rational =>
  r.numerator === -1n && n % 2 === 1 ? minusOne : isZero(r) && n > 0 ? zero : one;

/** The exact n-th root (real, of the sign of r for odd n), or null where it is not rational. */
export function exactRoot(r: Rational, n: number): Rational | null {
  if (isNegative(r)) {
    if (n % 2 === 0) return null;
    const root = exactRoot(negate(r), n);
    return root && negate(root);
  }
  if (isTooLong(r)) return null;
  const numerator = integerRoot(r.numerator, n);
  const denominator = integerRoot(r.denominator, n);
  return numerator === null || denominator === null ? null : { numerator, denominator };
}

function integerRoot(value: bigint, n: number): bigint | null {
  // 2ⁿ is more.
  if (value > 1n && n >= value.toString(2).length) return null;
  const guess = BigInt(Math.round(Number(value) ** (1 / n)) || 0);
  for (const candidate of [guess - 1n, guess, guess + 1n]) {
    if (candidate >= 0n && candidate ** BigInt(n) === value) return candidate;
  }
  return null;
}

/** Reads `12`, `-1.5`, `.5`, `1E-3`; null for any other text or an exponent beyond ±400. */
export function parseDecimal(text: string): Rational | null {
  const match = /^([+-]?)(\d*)\.?(\d*)(?:E([+-]?\d{1,3}))?$/.exec(text.trim().replace('−', '-'));
  if (!match) return null;
  const [, sign, whole = '', fraction = '', exponentText = '0'] = match;
  const exponent = Number(exponentText) - fraction.length;
  if (whole + fraction === '' || Math.abs(exponent) > 10_400) return null;
  const digits = BigInt(whole + fraction) * (sign === '-' ? -1n : 1n);
  return exponent >= 0
    ? rational(digits * 10n ** BigInt(exponent))
    : rational(digits, 10n ** BigInt(-exponent));
}

/** The nearest double, also for numerators and denominators beyond the range of doubles. */
export function toNumber(r: Rational): number {
  const quotient = Number(r.numerator) / Number(r.denominator);
  const isSafe = magnitude(r.numerator) < 2n ** 53n && r.denominator < 2n ** 53n;
  if (isSafe) return quotient;
  const bits = r.denominator.toString(2).length - magnitude(r.numerator).toString(2).length + 80;
  const shift = BigInt(Math.max(0, bits));
  const scaled = (r.numerator << shift) / r.denominator;
  return scaleDown(Number(scaled), Number(shift));
}

function scaleDown(value: number, bits: number): number {
  let result = value;
  for (let rest = bits; rest > 0; rest -= 1000) result /= 2 ** Math.min(1000, rest);
  return result;
}

/** The exact rational value of a finite double. */
export function fromDouble(x: number): Rational {
  let numerator = x;
  let denominator = 1n;
  while (!Number.isInteger(numerator)) {
    numerator *= 2;
    denominator *= 2n;
  }
  return rational(BigInt(numerator), denominator);
}

/**
 * The decimal digits of r when it has at most `places` of them after the point, else null:
 * 5/4 with 3 places is "1.25", 1/3 is null. No trailing zeros, a plain minus sign.
 */
export function toDecimal(r: Rational, places: number): string | null {
  const scale = 10n ** BigInt(places);
  if ((r.numerator * scale) % r.denominator !== 0n) return null;
  const digits = magnitude((r.numerator * scale) / r.denominator)
    .toString()
    .padStart(places + 1, '0');
  const whole = digits.slice(0, digits.length - places);
  const fraction = digits.slice(digits.length - places).replace(/0+$/, '');
  return `${isNegative(r) ? '-' : ''}${whole}${fraction === '' ? '' : `.${fraction}`}`;
}

/** r rounded to a number of places after the point, halves away from 0: 2.5005 to 3 places is "2.501". */
export function toFixed(r: Rational, places: number): string {
  const scaled = magnitude(r.numerator) * 10n ** BigInt(places);
  const digits = ((2n * scaled + r.denominator) / (2n * r.denominator)).toString().padStart(places + 1, '0');
  const whole = digits.slice(0, digits.length - places);
  const sign = isNegative(r) ? '-' : '';
  return places === 0 ? sign + whole : `${sign}${whole}.${digits.slice(digits.length - places)}`;
}

/** `64/3` or `-5`. */
export const toText = (r: Rational): string =>
  isInteger(r) ? String(r.numerator) : `${String(r.numerator)}/${String(r.denominator)}`;
