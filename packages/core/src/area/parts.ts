import type { Canonical } from '../algebra/canonical.ts';
import { inConstantForms } from '../algebra/constantForms.ts';
import { expanded } from '../algebra/expand.ts';
import { withJoinedLogarithms } from '../algebra/logarithms.ts';
import { shortest } from '../algebra/shortest.ts';
import { withSumsInLogarithms } from '../algebra/surds.ts';
import type { Box } from '../analysis/isolate.ts';
import type { Place } from '../analysis/place.ts';
import { printText } from '../language/printText.ts';
import type { Expression } from '../language/tree.ts';
import type { Convergence } from './convergence.ts';
import { isFinitePlace, type End, type Stretch } from './stretches.ts';

/** How sure a value is: a number known exactly, one with a proved bound, or one with an estimated error. */
export type IntegralCertainty = 'exact' | 'proved' | 'estimated';

/** The integral over one stretch on which the function is one formula and, where asked for, keeps its sign. */
export interface IntegralPart {
  readonly from: number;
  readonly to: number;
  readonly value: number;
  readonly exact: Expression | null;
  /** −1, 0, 1; NaN where it was not asked for. */
  readonly sign: number;
  /** A formula with the function as its derivative on this part. */
  readonly antiderivative: Expression | null;
}

/** What is known of one stretch. */
export interface Found {
  readonly part: IntegralPart;
  /** How far the value may be from the integral, and ∫ |f|, against which that is measured. */
  readonly bound: number;
  readonly magnitude: number;
  readonly certainty: IntegralCertainty;
  readonly convergence: Convergence;
}

/** What was found of an integral as a whole. */
export interface IntegralFound {
  /** NaN where there is no value: the integral diverges, or the function is not defined throughout. */
  readonly value: number;
  readonly exact: Expression | null;
  /** How far the value may be from the integral. */
  readonly bound: number;
  readonly certainty: IntegralCertainty;
  readonly diverges: boolean;
  /** Where the function is not defined. */
  readonly undefinedOn: readonly Box[];
}

/** A definite integral with what each stretch gives to it. */
export interface DefiniteIntegral extends IntegralFound {
  readonly parts: readonly IntegralPart[];
}

export const valueOf = (end: End): number => (isFinitePlace(end) ? end.value : end * Infinity);

export const partOf = (stretch: Stretch, value: number, exact: Expression | null): IntegralPart => ({
  from: valueOf(stretch.from),
  to: valueOf(stretch.to),
  value,
  exact,
  sign: stretch.sign,
  antiderivative: stretch.antiderivative,
});

/** How far the double nearest to an exact place may be from it. */
export const roundingOf = ({ value, low, high }: Place): number =>
  low === high ? 0 : (Math.abs(value) * Number.EPSILON) / 2;

/** A number in its shortest form, with one logarithm for all. */
export function writtenNumber(number: Canonical): Expression {
  const form = inConstantForms(number);
  const joined = (one: Canonical): Expression =>
    shortest(withJoinedLogarithms(one.kind === 'sum' ? one : expanded(one)), 'fraction');
  const plain = joined(form);
  const inSums = withSumsInLogarithms(form);
  if (inSums.key === form.key) return plain;
  const other = joined(expanded(inSums));
  return printText(other).length < printText(plain).length ? other : plain;
}
