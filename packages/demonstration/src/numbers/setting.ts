import { rational, type Rational } from '@yperkine/core';

/** Digits of a decimal that stands for a number exactly. */
const places = 15;

const fraction = /^(-?\d{1,25})\/(0*[1-9]\d{0,24})$/;

/** The number that a slider's text is: a decimal, or a fraction of whole numbers; null for any other text. */
export function settingValue(text: string): Rational | null {
  const [, numerator, denominator] = fraction.exec(text) ?? [];
  return numerator !== undefined && denominator !== undefined
    ? rational.rational(BigInt(numerator), BigInt(denominator))
    : rational.parseDecimal(text);
}

/** A number as the text of a slider, exactly: a decimal where it ends, else a fraction. */
export const settingText = (value: Rational): string =>
  rational.toDecimal(value, places) ?? `${value.numerator}/${value.denominator}`;
