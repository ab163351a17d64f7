/** Why a number cannot be a count of decimal places; null where it can. */
export const refuseDecimals = (text: string): string | null =>
  /^(?:\d|1[0-2])$/.test(text) ? null : 'Decimal places are a whole number from 0 to 12.';
