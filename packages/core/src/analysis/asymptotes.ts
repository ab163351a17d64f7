import * as tree from '../language/tree.ts';
import type { Expression } from '../language/tree.ts';
import { limitOfFormula } from '../limit/growth/limitOfFormula.ts';

/** A number by its digits and as a formula. */
export interface KnownForm {
  readonly value: number;
  readonly exact: Expression;
}

/** A line y = slope·x + intercept that a curve comes ever closer to; level where the slope is 0. */
export interface Asymptote {
  readonly towards: 'left' | 'right';
  readonly slope: KnownForm;
  readonly intercept: KnownForm;
}

export interface Asymptotes {
  readonly asymptotes: readonly Asymptote[];
  /** The sides on which nothing shows whether there is one. */
  readonly undecided: readonly Asymptote['towards'][];
}

/**
 * The level and slanting asymptotes of a function, by m = lim f(x)/x and b = lim (f(x) − m x) as x tends to ±∞.
 * Vertical ones are the poles among the key points.
 * @param body a formula in the variable alone
 */
export function asymptotes(body: Expression, variable: string): Asymptotes {
  const asymptotes: Asymptote[] = [];
  const undecided: Asymptote['towards'][] = [];
  for (const towards of ['left', 'right'] as const) {
    const found = lineTowards(towards, body, variable);
    if (found === 'undecided') undecided.push(towards);
    else if (found) asymptotes.push({ towards, ...found });
  }
  return { asymptotes, undecided };
}

/** The line on one side; null where it is shown that there is none. */
function lineTowards(
  towards: Asymptote['towards'],
  body: Expression,
  variable: string,
): Omit<Asymptote, 'towards'> | 'undecided' | null {
  const limit = (formula: Expression): KnownForm | 'undecided' | null => {
    const found = limitOfFormula(formula, { variable, target: towards === 'left' ? -1 : 1, side: 1 });
    if (found === null || found === 'undecided') return 'undecided';
    return found.kind === 'finite' ? found : null;
  };
  const x = tree.name(variable);
  const slope = limit(tree.divide(body, x));
  if (slope === null || slope === 'undecided') return slope;
  const intercept = limit(tree.subtract(body, tree.multiply(slope.exact, x)));
  if (intercept === null || intercept === 'undecided') return intercept;
  return { slope, intercept };
}
