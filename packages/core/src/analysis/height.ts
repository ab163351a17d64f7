import { isNested, type Program } from '../evaluate/program.ts';
import { evaluateAt } from '../values/values.ts';
import * as tree from '../language/tree.ts';
import type { Expression } from '../language/tree.ts';
import * as balls from '../numbers/ball.ts';
import type { Enclosed } from '../numbers/ball.ts';
import * as big from '../numbers/bigFloat.ts';
import type { BigFloat } from '../numbers/bigFloat.ts';
import { ballOfConstant, signOfConstant } from '../limit/constantSign.ts';
import { enclosedOrUnsure } from '../limit/enclosed.ts';
import type { Place } from './place.ts';
import { programOf } from './programs.ts';
import { hasKinks, settled, Unsettled } from '../limit/settled.ts';

/** A value or limit of a function: a number that is known to any number of digits, by a formula, or only found. */
export interface Height {
  /** To some thirty digits. */
  readonly value: BigFloat;
  /** The number itself; null where no formula of it is known. */
  readonly exact: Expression | null;
  /** Bounds with as many binary digits as are asked for; 'unsure' for a number that was only found by evaluation. */
  readonly ball: (bits: number) => Enclosed;
}

/** Binary digits to which heights are worked out. */
const valueBits = 120;

export const zeroHeight: Height = { value: big.zero, exact: tree.number(0), ball: () => balls.zero };

/** The height that a formula without names stands for; null where it has none. */
export function heightOf(exact: Expression): Height | null {
  const ball = balls.remembered((bits: number): Enclosed => ballOfConstant(exact, bits));
  const known = ball(valueBits);
  return known === null || known === 'unsure' ? null : { value: known.middle, exact, ball };
}

/** What is known of a number by evaluation alone. */
export const foundHeight = (value: number): Height => ({
  value: big.fromDouble(value),
  exact: null,
  ball: () => 'unsure',
});

/**
 * The height of a formula at a place; null where it has none, and where nothing shows that it has one.
 * @param isZeroThere whether a formula is known to be 0 at the place
 * @param whenOpen called where nothing shows whether it has one
 */
export function heightAt(
  body: Expression,
  variable: string,
  place: Place,
  isZeroThere: (formula: Expression) => boolean = () => false,
  whenOpen: () => void = () => undefined,
): Height | null {
  const plain = hasKinks(body) ? 'unsure' : heightOfPlain(body, variable, place);
  if (plain !== 'unsure') return plain;
  try {
    const there = settled(body, (formula) => signAt(formula, variable, place, isZeroThere));
    const found = heightOfPlain(there, variable, place);
    if (found !== 'unsure') return found;
  } catch (error) {
    if (!(error instanceof Unsettled)) throw error;
  }
  whenOpen();
  return null;
}

function heightOfPlain(body: Expression, variable: string, place: Place): Height | null | 'unsure' {
  const program = programOf(body, variable);
  const ball = balls.remembered((bits: number): Enclosed =>
    enclosedOrUnsure(program, place.ball(bits), [], bits),
  );
  const known = ball(valueBits);
  if (known === 'unsure' && holdsIntegral(program)) return searchedHeight(program, place);
  if (known === null || known === 'unsure') return known;
  const exact = place.exact && tree.substitute(body, variable, place.exact);
  return { value: known.middle, exact, ball };
}

/** Integrals and limits within a formula are worked out in doubles. */
const holdsIntegral = ({ steps }: Program): boolean => steps.some(isNested);

function searchedHeight(program: Program, place: Place): Height | null {
  const value = evaluateAt(program, place.value);
  return Number.isFinite(value) ? foundHeight(value) : null;
}

function signAt(
  formula: Expression,
  variable: string,
  place: Place,
  isZeroThere: (formula: Expression) => boolean,
): number {
  const height = heightOfPlain(formula, variable, place);
  if (height === null || height === 'unsure') return NaN;
  // What is compared is settled already, and so has no kinks left.
  const sign = signOfHeight(height);
  return Number.isNaN(sign) && isZeroThere(formula) ? 0 : sign;
}

/** Digits to which two heights are told apart, one after another. */
const precisions = [70, 250, 1000];

/** −1, 0 or 1 as a is smaller than b, the same, or larger: by their balls or by algebra; NaN where nothing shows it. */
export function compareHeights(a: Height, b: Height): number {
  if (a === b) return 0;
  for (const [i, bits] of precisions.entries()) {
    const [p, q] = [a.ball(bits), b.ball(bits)];
    if (!balls.isBall(p) || !balls.isBall(q)) return NaN;
    const sign = balls.signOf(balls.subtract(p, q, bits));
    if (sign !== undefined) return sign;
    if (i === 0 && a.exact && b.exact) {
      const shown = signOfConstant(tree.subtract(a.exact, b.exact));
      if (!Number.isNaN(shown)) return shown;
    }
  }
  return NaN;
}

/** Whether a height is shown to be 0. */
export const isZeroHeight = (height: Height): boolean => compareHeights(height, zeroHeight) === 0;

/** The sign of a height; NaN where nothing shows it. */
export const signOfHeight = (height: Height): number => compareHeights(height, zeroHeight);

/** Binary digits in which two numbers that nothing tells apart have to agree, to be taken for one. */
const agreement = 45n;

/** Whether two heights agree in almost all digits of a double; it shows nothing. */
export function seemSame(a: Height, b: Height): boolean {
  const difference = big.subtract(a.value, b.value, valueBits);
  if (big.isZero(difference)) return true;
  const size = big.order(a.value) > big.order(b.value) ? big.order(a.value) : big.order(b.value);
  return big.order(difference) < size - agreement;
}
