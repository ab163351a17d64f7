import type { Expression } from '../language/tree.ts';
import { withinRules } from './literals.ts';
import { WrittenOut } from './writtenOut.ts';

/** Whether a formula is 0 wherever it has a value, as writing it out shows. */
export const isIdenticallyZero = (formula: Expression): boolean =>
  withinRules(() => new WrittenOut('').of(formula).above.size === 0) ?? false;

/**
 * The derivative of an order as a formula in lowest terms: that of x ln x is ln |x| + 1, without x/x. It is the derivative
 * wherever there is one; null where there is no rule.
 */
export const derivativeWrittenOut = (
  formula: Expression,
  variable: string,
  order: number,
): Expression | null =>
  withinRules(() => {
    const out = new WrittenOut(variable);
    let form = out.of(formula);
    for (let i = 0; i < order; i++) form = out.slopeOf(form);
    return out.written(form);
  });
