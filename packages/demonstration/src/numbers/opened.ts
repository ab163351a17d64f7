import { rational } from '@yperkine/core';
import { formatBound, typeset, type RoundingRule } from './format.ts';
import type { Bounds, NumberInFull } from './line.ts';
import { withoutNoise } from './withoutNoise.ts';

/** A number in full: what is behind the digits that are shown. */
export interface OpenedNumber {
  /** Every digit that is known. */
  readonly digits: string;
  /** Whether these digits are the number itself. */
  readonly isExact: boolean;
  /** Its exact form, where one is proved that says more than the digits: 64/3, √2. */
  readonly form: string | null;
  /** `1.64481 and 1.64532`: between which it is proved to lie, where that is known and it has no exact form. */
  readonly between: string | null;
}

/** Longer fractions and decimals explain nothing. */
const longest = 40;

/** A number opened to full digits, its exact form and its bounds. */
export function openedNumber({ number, form, bounds }: NumberInFull, rule: RoundingRule): OpenedNumber {
  const { value, exact } = number;
  const decimal = exact && rational.toDecimal(exact, longest);
  if (exact && decimal !== null)
    return { digits: typeset(decimal, rule), isExact: true, form, between: null };
  const known = form ?? (exact && fractionText(exact));
  const between = bounds && known === null ? betweenBounds(bounds, rule) : null;
  const digits = between && bounds ? digitsBetween(value, bounds, rule) : writtenDouble(value, rule);
  return { digits, isExact: false, form: known, between };
}

/** Decimals beyond which a double knows nothing of a number of school size, and below which size three digits say more. */
const mostDecimals = 15;
const leastSize = 1e-4;

/** Two bounds, rounded apart to two digits of the distance between them. */
export function betweenBounds([low, high]: Bounds, rule: RoundingRule): string {
  const needed = Math.max(rule.decimals, 1 - Math.floor(Math.log10(high - low)));
  const decimals = Math.min(needed, mostDecimals);
  const isTiny = Math.max(-low, high) < leastSize;
  const text = (x: number, way: 'down' | 'up'): string | null =>
    isTiny || !Number.isFinite(x) ? formatBound(x, way, rule) : typeset(roundedApart(x, way, decimals), rule);
  return `${text(low, 'down') ?? '−∞'} and ${text(high, 'up') ?? '∞'}`;
}

/** The decimals of a value that its bounds let tell anything: no more than one beyond where they part. */
function digitsBetween(value: number, [low, high]: Bounds, rule: RoundingRule): string {
  const decimals = Math.max(rule.decimals, -Math.floor(Math.log10(high - low)));
  const isPlain = decimals <= mostDecimals && Math.abs(value) >= leastSize && Math.abs(value) < 1e15;
  return isPlain ? typeset(value.toFixed(decimals), rule) : writtenDouble(value, rule);
}

/** The decimal below or above a double. */
function roundedApart(x: number, way: 'down' | 'up', decimals: number): string {
  const scale = rational.rational(10n ** BigInt(decimals));
  const scaled = rational.multiply(rational.fromDouble(x), scale);
  const whole = way === 'down' ? rational.floor(scaled) : -rational.floor(rational.negate(scaled));
  return rational.toFixed(rational.divide(rational.rational(whole), scale), decimals);
}

/** The digits of a double that are right. */
function writtenDouble(value: number, rule: RoundingRule): string {
  if (!Number.isFinite(value)) return Number.isNaN(value) ? '–' : value > 0 ? '∞' : '−∞';
  const [mantissa = '', exponent] = String(withoutNoise(value)).split('e');
  return (
    typeset(mantissa, rule) +
    (exponent === undefined ? '' : ` · 10^${exponent.replace('+', '').replace('-', '−')}`)
  );
}

function fractionText({ numerator, denominator }: { numerator: bigint; denominator: bigint }): string | null {
  const text = `${String(numerator).replace('-', '−')}/${String(denominator)}`;
  return text.length <= longest ? text : null;
}
