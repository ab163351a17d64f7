import { literal } from '../algebra/literal.ts';
import type { Rational } from '../numbers/rational.ts';
import { exactValue } from '../algebra/exact.ts';
import type { Program } from '../evaluate/program.ts';
import * as tree from '../language/tree.ts';
import type { Expression } from '../language/tree.ts';
import { formulaOfProgram, ownVariable } from '../limit/formulaOfProgram.ts';
import { limitOfFormula, type ProvedLimit } from '../limit/growth/limitOfFormula.ts';
import { numberFormula } from '../limit/numberFormula.ts';
import { isExactlyZero } from '../limit/constantSign.ts';

/** A number together with its exact rational value, where that is proved. */
export interface KnownNumber {
  readonly value: number;
  readonly exact: Rational | null;
}

/** A slope with the number itself as a formula; null where it is vertical. */
export interface SideSlope extends KnownNumber {
  readonly form: Expression | null;
}

/** What the slope is on either side of a place, by the definition's limit: ±Infinity where the curve leaves vertically. */
export interface Sides {
  /** Null where there is no curve, it does not go on from its value, or nothing shows its slope. */
  readonly left: SideSlope | null;
  readonly right: SideSlope | null;
  /** Whether there is no curve on that side, so that the place is an end of the domain. */
  readonly endsLeft: boolean;
  readonly endsRight: boolean;
}

const remembered = new WeakMap<Program, { readonly key: string; readonly sides: Sides }>();

/**
 * The slopes of f on either side of a place at which it has a value: lim (f(x) − f(a))/(x − a) as x tends to a from
 * there, by series.
 * @param parameters values in the order of `program.parameters`
 */
export function slopesBeside(
  program: Program,
  { value, exact }: KnownNumber,
  parameters: readonly number[] = [],
): Sides {
  const at = exact ? literal(exact) : numberFormula(value);
  const key = JSON.stringify([value, String(exact?.numerator), String(exact?.denominator), parameters]);
  const known = remembered.get(program);
  if (known?.key === key) return known.sides;
  const formula = formulaOfProgram(program, parameters);
  const sides = formula ? new Beside(formula, at).sides() : nothingShown;
  remembered.set(program, { key, sides });
  return sides;
}

const nothingShown: Sides = { left: null, right: null, endsLeft: false, endsRight: false };

class Beside {
  private readonly rise: Expression;

  constructor(
    formula: Expression,
    private readonly at: Expression,
  ) {
    this.rise = tree.subtract(formula, tree.substitute(formula, ownVariable, at));
  }

  sides(): Sides {
    const [left, right] = [this.from(-1), this.from(1)];
    return { left: left.slope, right: right.slope, endsLeft: left.isEnd, endsRight: right.isEnd };
  }

  private from(side: 1 | -1): { slope: SideSlope | null; isEnd: boolean } {
    const run = tree.subtract(tree.name(ownVariable), this.at);
    const limit = this.limit(tree.divide(this.rise, run), side);
    if (!limit) return { slope: null, isEnd: false };
    if (limit.kind === 'finite') {
      const exact = exactValue(limit.exact, new Map());
      return { slope: { value: limit.value, exact, form: limit.exact }, isEnd: false };
    }
    // A jump has quotients that grow beyond all bounds, too.
    const isVertical = limit.kind === 'infinite' && this.goesOn(side);
    return {
      slope: isVertical ? { value: limit.sign * Infinity, exact: null, form: null } : null,
      isEnd: limit.kind === 'undefined',
    };
  }

  private goesOn(side: 1 | -1): boolean {
    const limit = this.limit(this.rise, side);
    return limit?.kind === 'finite' && isExactlyZero(limit.exact);
  }

  private limit(formula: Expression, side: 1 | -1): ProvedLimit | null {
    const found = limitOfFormula(formula, { variable: ownVariable, target: { exact: this.at }, side });
    return found === 'undecided' ? null : found;
  }
}

/** Slopes that are shown to be the same; at a cusp both sides are vertical. */
export function areSameSlope(a: SideSlope, b: SideSlope): boolean {
  if (a.form && b.form) return isExactlyZero(tree.subtract(a.form, b.form));
  return !a.form && !b.form;
}
