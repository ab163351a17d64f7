import { rational } from '@yperkine/core';

/** What a typed text is as decimal text, or the sentence that says why it is none. */
export function readNumber(typed: string): { value: string } | { message: string; correction?: string } {
  const plain = typed.trim().replace('−', '-');
  if (rational.parseDecimal(plain)) return { value: plain };
  const withPoint = plain.replace(',', '.');
  if (/^[^,]*,[^,]*$/.test(plain) && rational.parseDecimal(withPoint)) {
    return { message: `Write the decimal mark as a point: ${withPoint}.`, correction: withPoint };
  }
  return { message: 'Please type a number such as 2.5.' };
}
