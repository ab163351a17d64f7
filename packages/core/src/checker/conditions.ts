import type { Condition, Relation } from '../language/tree.ts';
import type { SignedStretch } from './claims.ts';

/** What two compared formulas differ by: its signs on stretches, and at single numbers. */
export interface SignedDifference {
  readonly stretches: readonly SignedStretch[];
  /** Where stretches end; null where it has no value. */
  readonly ends: readonly { readonly at: number; readonly sign: -1 | 0 | 1 | null }[];
}

/** A stretch on which a condition is said to hold; one number where it begins and ends at the same. */
export interface HeldStretch {
  readonly from: number;
  readonly to: number;
  readonly includesFrom: boolean;
  readonly includesTo: boolean;
}

/**
 * Whether a condition holds where it is said to, and nowhere else: between two neighbouring ends no difference of a
 * compared pair changes its sign, so that the signs tell on which parts, and at which of the ends, it holds.
 * @param differences of each pair of neighbours that the condition compares, from left to right
 */
export function followsCondition(
  condition: Condition,
  differences: readonly SignedDifference[],
  held: readonly HeldStretch[],
  [from, to]: readonly [number, number],
): boolean {
  const places = [from, to, ...differences.flatMap(({ ends }) => ends.map(({ at }) => at))];
  const ends = [...new Set(places)].sort((a, b) => a - b);
  const holdsBy = (signOf: (difference: SignedDifference) => Sign): boolean => {
    const signs = differences.map(signOf);
    return truthOf(condition, signs.values()) === true;
  };
  const isRight = (x: number, holds: boolean): boolean => holds === held.some((one) => holdsAt(one, x));
  return ends.every((end, i) => {
    const atEnd = isRight(
      end,
      holdsBy((difference) => signAt(difference, end)),
    );
    const next = ends[i + 1];
    if (next === undefined) return atEnd;
    const middle = end + (next - end) / 2;
    // Neighbouring doubles have nothing between them.
    if (!(end < middle && middle < next)) return atEnd;
    return (
      atEnd &&
      isRight(
        middle,
        holdsBy((difference) => signOn(difference, middle)),
      )
    );
  });
}

const holdsAt = ({ from, to, includesFrom, includesTo }: HeldStretch, x: number): boolean =>
  (from < x && x < to) || (x === from && includesFrom) || (x === to && includesTo);

type Sign = -1 | 0 | 1 | null;

const signOn = ({ stretches }: SignedDifference, x: number): Sign =>
  stretches.find(({ from, to }) => from < x && x < to)?.sign ?? null;

function signAt(difference: SignedDifference, x: number): Sign {
  const end = difference.ends.find(({ at }) => at === x);
  return end ? end.sign : signOn(difference, x);
}

/** Null where something that has no value would have to be compared; signs are taken from left to right. */
function truthOf(condition: Condition, signs: Iterator<Sign>): boolean | null {
  switch (condition.kind) {
    case 'comparison':
      return allOf(condition.relations.map((relation) => compared(relation, signs.next().value as Sign)));
    case 'not': {
      const truth = truthOf(condition.operand, signs);
      return truth === null ? null : !truth;
    }
    default: {
      const [left, right] = [truthOf(condition.left, signs), truthOf(condition.right, signs)];
      if (condition.kind === 'and') return allOf([left, right]);
      return left === true || right === true ? true : left === null || right === null ? null : false;
    }
  }
}

const allOf = (truths: readonly (boolean | null)[]): boolean | null =>
  truths.includes(false) ? false : truths.includes(null) ? null : true;

function compared(relation: Relation, sign: Sign): boolean | null {
  if (sign === null) return null;
  switch (relation) {
    case '<':
      return sign < 0;
    case '≤':
      return sign <= 0;
    case '>':
      return sign > 0;
    case '≥':
      return sign >= 0;
    case '=':
      return sign === 0;
    case '≠':
      return sign !== 0;
  }
}
