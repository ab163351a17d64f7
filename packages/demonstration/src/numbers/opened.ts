import { rational, type KnownNumber } from '@yperkine/core';
import { typeset, type RoundingRule } from './format.ts';
import { withoutNoise } from './withoutNoise.ts';

/** A number in full: what is behind the digits that are shown. */
export interface OpenedNumber {
  /** Every digit that is known. */
  readonly digits: string;
  /** Whether these digits are the number itself. */
  readonly isExact: boolean;
  /** Its exact form, where one is proved that says more than the digits: 64/3, √2. */
  readonly form: string | null;
}

/** Longer fractions and decimals explain nothing. */
const longest = 40;

/**
 * A number opened to full digits and its exact form.
 * @param form its exact form as text, where one is proved
 */
export function openedNumber(number: KnownNumber, form: string | null, rule: RoundingRule): OpenedNumber {
  const { value, exact } = number;
  const decimal = exact && rational.toDecimal(exact, longest);
  if (exact && decimal !== null) return { digits: typeset(decimal, rule), isExact: true, form };
  return { digits: writtenDouble(value, rule), isExact: false, form: form ?? (exact && fractionText(exact)) };
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
