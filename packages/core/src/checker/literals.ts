import type { Expression } from '../language/tree.ts';
import * as n from './numbers.ts';
import type { Range } from './numbers.ts';

/** Numbers as they are written in a formula. */

/** What the checker has no rule for: nothing is said of such a formula. */
export class NoRule extends Error {}

/** A decimal as it is written: 0.1 is one tenth. */
export function decimal(text: string): Range {
  const [mantissa = '', exponent = '0'] = text.split('E');
  const [before = '', behind = ''] = mantissa.split('.');
  const power = Number(exponent) - behind.length;
  if (Math.abs(power) > 5000) throw new NoRule('too large');
  const digits = BigInt(`${before}${behind}` || '0');
  return power >= 0 ? n.whole(digits * 10n ** BigInt(power)) : n.fraction(digits, 10n ** BigInt(-power));
}

/** A number that is written as a whole number or a fraction of two; null for anything else. */
export function ratioOf(node: Expression): { p: number; q: number } | null {
  if (node.kind === 'negate') {
    const inner = ratioOf(node.operand);
    return inner && { p: -inner.p, q: inner.q };
  }
  if (node.kind === 'number') {
    const [, before = '', behind = ''] = /^(\d*)\.?(\d*)$/.exec(node.text) ?? [];
    if (`${before}${behind}` === '' || `${before}${behind}`.length > 12) return null;
    return lowest(Number(`${before}${behind}`), 10 ** behind.length);
  }
  if (node.kind !== 'divide') return null;
  const [above, below] = [ratioOf(node.left), ratioOf(node.right)];
  if (!above || !below || below.p === 0) return null;
  const sign = below.p < 0 ? -1 : 1;
  return lowest(sign * above.p * below.q, Math.abs(above.q * below.p));
}

function lowest(p: number, q: number): { p: number; q: number } | null {
  if (!Number.isSafeInteger(p) || !Number.isSafeInteger(q)) return null;
  let [a, b] = [Math.abs(p), q];
  while (b > 0) [a, b] = [b, a % b];
  return { p: p / (a || 1), q: q / (a || 1) };
}

/** A number that is written as a whole one; null for anything else. */
export function wholeNumber(node: Expression): number | null {
  const ratio = ratioOf(node);
  return ratio && ratio.q === 1 ? ratio.p : null;
}

/** Null where the checker has no rule, or numbers leave its reach. */
export function withinRules<T>(look: () => T | null): T | null {
  try {
    return look();
  } catch (error) {
    if (error instanceof NoRule || error instanceof RangeError) return null;
    throw error;
  }
}
