import { rational, type KnownNumber } from '@yperkine/core';
import { reliable } from './withoutNoise.ts';

/** How a demonstration shows its numbers. */
export interface RoundingRule {
  /** Decimal places of results, 0 to 12. */
  readonly decimals: number;
  readonly decimalMark: '.' | ',';
}

export interface FormattedNumber {
  readonly text: string;
  /** Whether the text is the number itself, so that it may stand after an equals sign. */
  readonly isExact: boolean;
}

/** Beyond this size a result is written in powers of ten, and below this one. */
const largestPlain = 1e9;
const smallestPlain = 1e-5;

/**
 * A result at the fixed decimals of the rule, trailing zeros kept: 4.250; rounded from the exact number where that is
 * known. A value that would show as zero or by its last places only, and a very large one, is written in powers of ten.
 * Undefined values are a dash.
 */
export function format(number: KnownNumber, rule: RoundingRule): FormattedNumber {
  const { value, exact } = number;
  if (Number.isNaN(value)) return { text: '–', isExact: false };
  if (!Number.isFinite(value)) return { text: value > 0 ? '∞' : '−∞', isExact: false };
  const isZeroLooking = value !== 0 && Math.abs(value) < 0.5 * 10 ** -rule.decimals;
  const terminating = exact && rational.toDecimal(exact, rule.decimals);
  const isTiny = value !== 0 && Math.abs(value) < smallestPlain && terminating === null;
  if (isZeroLooking || isTiny || Math.abs(value) >= largestPlain) return inPowersOfTen(value, rule);
  const digits = exact
    ? rational.toFixed(exact, rule.decimals)
    : value.toFixed(knownPlaces(value, rule.decimals));
  return { text: typeset(digits, rule), isExact: terminating !== null };
}

/** Places after the point, as many as a double knows. */
function knownPlaces(value: number, decimals: number): number {
  const before = value === 0 ? 1 : Math.max(1, Math.floor(Math.log10(Math.abs(value))) + 1);
  return Math.max(0, Math.min(decimals, reliable - before));
}

/** A number inside an equation: an exact one without trailing zeros (2.5, not 2.500), others as results. */
export function formatTidily(number: KnownNumber, rule: RoundingRule): FormattedNumber {
  const terminating = number.exact && rational.toDecimal(number.exact, rule.decimals);
  if (terminating === null || Math.abs(number.value) >= largestPlain) return format(number, rule);
  return { text: typeset(terminating, rule), isExact: true };
}

/** A setting, with the digits that it was given. */
export function formatSetting(text: string, rule: RoundingRule): string {
  return typeset(text.trim(), rule);
}

/** A true minus sign, never minus zero, and the decimal mark of the rule. */
export function typeset(digits: string, rule: RoundingRule): string {
  const unsigned = digits.replace(/^[-−]/, '');
  const isZero = /^[0.]*$/.test(unsigned);
  const sign = /^[-−]/.test(digits) && !isZero ? '−' : '';
  return sign + unsigned.replace('.', rule.decimalMark);
}

const superscripts = '⁰¹²³⁴⁵⁶⁷⁸⁹';

function inPowersOfTen(value: number, rule: RoundingRule): FormattedNumber {
  const [mantissa = '', exponent = '0'] = value.toExponential(Math.min(rule.decimals, 3)).split('e');
  return { text: timesPowerOfTen(mantissa, exponent, rule), isExact: false };
}

function timesPowerOfTen(mantissa: string, exponent: string, rule: RoundingRule): string {
  const raised = [...exponent.replace('+', '')].map((d) => (d === '-' ? '⁻' : superscripts[Number(d)]));
  return `${typeset(mantissa, rule)}·10${raised.join('')}`;
}

/** Below it a double has no three digits. */
const leastSteps = 1e-300;

/** A number beside which all others on one side are told: three digits, rounded to the other side; null for ±∞. */
export function formatBound(x: number, way: 'down' | 'up', rule: RoundingRule): string | null {
  if (!Number.isFinite(x)) return null;
  if (x === 0) return '0';
  const step = way === 'down' ? -1 : 1;
  if (Math.abs(x) < leastSteps)
    return x * step < 0 ? '0' : timesPowerOfTen(step < 0 ? '-1' : '1', '-300', rule);
  const place = Math.floor(Math.log10(Math.abs(x))) - 2;
  let steps = way === 'down' ? Math.floor(x / 10 ** place) : Math.ceil(x / 10 ** place);
  const bound = (): number => Number(`${steps}e${place}`);
  // A decimal number is not quite the double that is nearest to it; a whole one is.
  const isSafe = (): boolean => (bound() - x) * step > 0 || (bound() === x && Number.isSafeInteger(x));
  while (!isSafe()) steps += step;
  const size = Math.abs(bound());
  if (size >= smallestPlain && size < largestPlain) return typeset(String(bound()), rule);
  const [mantissa = '', exponent = '0'] = bound().toExponential().split('e');
  return timesPowerOfTen(mantissa, exponent, rule);
}

/** The sign between the two sides of a statement. */
export const relation = (isExact: boolean): '=' | '≈' => (isExact ? '=' : '≈');
