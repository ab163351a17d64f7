import * as tree from '../language/tree.ts';
import type { Expression } from '../language/tree.ts';
import { limitOfFormula } from '../limit/growth/limitOfFormula.ts';

/** A line y = slope·x + intercept that a curve comes ever closer to; level where the slope is 0. */
export interface Asymptote {
  readonly towards: 'left' | 'right';
  readonly slope: number;
  readonly intercept: number;
}

/**
 * The level and slanting asymptotes of a function, by m = lim f(x)/x and b = lim (f(x) − m x) as x tends to ±∞.
 * Vertical ones are the poles among the key points.
 * @param body a formula in the variable alone
 */
export function asymptotes(body: Expression, variable: string): Asymptote[] {
  return (['left', 'right'] as const).flatMap((towards) => {
    const limit = (formula: Expression): { exact: Expression; value: number } | null => {
      const found = limitOfFormula(formula, { variable, target: towards === 'left' ? -1 : 1, side: 1 });
      return found && found !== 'undecided' && found.kind === 'finite' ? found : null;
    };
    const x = tree.name(variable);
    const slope = limit(tree.divide(body, x));
    if (slope === null) return [];
    const intercept = limit(tree.subtract(body, tree.multiply(slope.exact, x)));
    return intercept === null ? [] : [{ towards, slope: slope.value, intercept: intercept.value }];
  });
}
