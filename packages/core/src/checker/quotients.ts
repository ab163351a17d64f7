import * as jets from './jets.ts';
import type { Jet } from './jets.ts';

/** A function over a part of the axis as one jet over another, so that what stands above can be looked at beside a pole. */
export interface Quotient {
  readonly above: Jet;
  /** Null where nothing is divided by. */
  readonly below: Jet | null;
}

export const whole = (above: Jet): Quotient => ({ above, below: null });
export const divided = ({ above, below }: Quotient): Jet => (below ? jets.divide(above, below) : above);

export function added(u: Quotient, v: Quotient): Quotient {
  if (!u.below && !v.below) return whole(jets.add(u.above, v.above));
  const left = v.below ? jets.multiply(u.above, v.below) : u.above;
  const right = u.below ? jets.multiply(v.above, u.below) : v.above;
  return { above: jets.add(left, right), below: product(u.below, v.below) };
}

const product = (u: Jet | null, v: Jet | null): Jet | null => (u && v ? jets.multiply(u, v) : (u ?? v));

export const multiplied = (u: Quotient, v: Quotient): Quotient => ({
  above: u.above === v.above ? jets.integerPower(u.above, 2) : jets.multiply(u.above, v.above),
  below: product(u.below, v.below),
});

export const quotient = (u: Quotient, v: Quotient): Quotient => ({
  above: v.below ? jets.multiply(u.above, v.below) : u.above,
  below: product(u.below, v.above),
});

export const raised = ({ above, below }: Quotient, p: number): Quotient => ({
  above: jets.integerPower(above, p),
  below: below && jets.integerPower(below, p),
});
