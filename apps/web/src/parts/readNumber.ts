import { rational } from '@yperkine/core';
import { settingValue } from '@yperkine/demonstration';

/** What a typed text is as decimal text, or the sentence that says why it is none. */
export function readNumber(
  typed: string,
  takesFractions = false,
): { value: string } | { message: string; correction?: string } {
  const plain = typed.trim().replace('−', '-');
  if (rational.parseDecimal(plain)) return { value: plain };
  const packed = plain.replaceAll(' ', '');
  if (takesFractions && settingValue(packed)) return { value: packed };
  const withPoint = plain.replace(',', '.');
  if (/^[^,]*,[^,]*$/.test(plain) && rational.parseDecimal(withPoint)) {
    return { message: `Write the decimal mark as a point: ${withPoint}.`, correction: withPoint };
  }
  return { message: `Please type a number such as 2.5${takesFractions ? ' or 4/3' : ''}.` };
}
