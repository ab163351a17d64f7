import { canonical } from '../algebra/canonical.ts';
import { separationBits } from '../algebra/separation.ts';
import { vanishes } from '../algebra/vanishes.ts';
import { compile } from '../evaluate/program.ts';
import type { Expression } from '../language/tree.ts';
import * as balls from '../numbers/ball.ts';
import type { Ball, Enclosed } from '../numbers/ball.ts';
import { enclosedOrUnsure } from './enclosed.ts';

/** What is known of the names in a formula: the balls in which their values lie, and where algebra shows a 0. */
export interface Known {
  readonly ballOf: (name: string, bits: number) => Ball | null;
  /** Whether a formula of these names is shown to be 0 by what else is known of them. */
  readonly isZero?: (formula: Expression) => boolean;
}

const nothingKnown: Known = { ballOf: () => null };

/**
 * The ball in which a formula lies that holds no names, or known ones.
 * @param bits binary digits that are kept on the way
 */
export function ballOfConstant(formula: Expression, bits: number, known: Known = nothingKnown): Enclosed {
  const program = compile(formula, '');
  const values = program.parameters.map((name) => known.ballOf(name, bits));
  return values.every((value) => value !== null)
    ? enclosedOrUnsure(program, balls.zero, values, bits)
    : 'unsure';
}

/** Digits to which the sign of a constant is looked for, one after another. */
const precisions = [80, 320, 1300];
const mostSeparation = 12_000;

/**
 * The sign of a formula without names, or of known ones: a ball shows it, or algebra, or a bound of how near to 0 such a
 * number can come, that it is 0. NaN where it has no value, and where nothing shows its sign.
 */
export function signOfConstant(formula: Expression, known: Known = nothingKnown): number {
  let enough: number | null = null;
  for (let i = 0; i < precisions.length + 1; i++) {
    const bits = precisions[i] ?? (enough !== null && enough < mostSeparation ? enough + 40 : 0);
    const ball = bits > 0 ? ballOfConstant(formula, bits, known) : 'unsure';
    if (ball === null) return NaN;
    if (ball === 'unsure') continue;
    const sign = balls.signOf(ball);
    if (sign !== undefined) return sign;
    if (i === 0) {
      if (vanishes(canonical(formula)) || known.isZero?.(formula)) return 0;
      enough = separationBits(formula);
    }
    if (enough !== null && balls.isBelow(ball, { mantissa: 1n, exponent: BigInt(-enough) })) return 0;
  }
  return NaN;
}

/** Whether a formula without names is shown to be 0. */
export const isExactlyZero = (formula: Expression): boolean => signOfConstant(formula) === 0;
