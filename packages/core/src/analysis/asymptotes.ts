import { compile } from '../evaluate/program.ts';
import * as tree from '../language/tree.ts';
import type { Expression } from '../language/tree.ts';
import { limitOfProgram } from '../limit/limit.ts';
import { numberFormula } from './question.ts';

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
    const target = towards === 'left' ? -Infinity : Infinity;
    const limit = (formula: Expression): number | null => {
      const found = limitOfProgram(compile(formula, variable), target, 'both');
      return found.kind === 'finite' ? found.value : null;
    };
    const x = tree.name(variable);
    const slope = limit(tree.divide(body, x));
    if (slope === null) return [];
    const intercept = limit(tree.subtract(body, tree.multiply(numberFormula(slope), x)));
    return intercept === null ? [] : [{ towards, slope, intercept }];
  });
}
