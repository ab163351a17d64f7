import type { Certificate, Claim, Listed, ListedSolutions, SignedStretch } from './claims.ts';

/** A claim with the signs that were shown. */
export interface LookedAt extends Claim {
  /** Of a part without a zero; 0 where it is not known. */
  readonly sign: -1 | 0 | 1;
  /** At both ends of a part with a zero; null where they are not known. */
  readonly sides: readonly [-1 | 1, -1 | 1] | null;
  /** Of a part with a zero: whether it is at a number, as near as doubles tell; null where that is not known. */
  readonly isAt: (x: number) => boolean | null;
}

type Joints = Certificate['joints'];

export const isAtJoint = (joints: Joints, x: number): boolean =>
  joints.some(({ low, high }) => low <= x && x <= high);

/** What is listed on a part, not at a joint; where two parts meet it is on the one before. */
const inside = ({ from, to }: Claim, joints: Joints, x: number): boolean =>
  x > from && x <= to && !isAtJoint(joints, x);

/** What the zeros of the function, its slope and its bend are in a list. */
const kindsOf: readonly (readonly string[])[] = [['zero'], ['maximum', 'minimum'], ['inflection']];

/** Kinds of points that stand at joints alone. */
export const kindsOfJoints: ReadonlySet<string> = new Set([
  'endpoint',
  'openEnd',
  'pole',
  'jump',
  'hole',
  'corner',
  'cusp',
]);

/** Whether a list of key points has inside a part what its claim says, and nothing else of that sort; null where that is not known. */
export function followsKeyPoints(
  claim: LookedAt,
  { joints, orders: [lowest = 0] }: Certificate,
  list: readonly Listed[],
): boolean | null {
  const above = claim.order - lowest;
  if (list.some(({ kind, x }) => kindsOfJoints.has(kind) && inside(claim, joints, x))) return false;
  const kinds = kindsOf[above] ?? [];
  const listed = list.filter(({ kind, x }) => kinds.includes(kind) && inside(claim, joints, x));
  const due = claim.zeros === 1 ? dueOf(claim, above) : null;
  if (due === undefined) return null;
  if (due === null) return listed.length === 0;
  const [only] = listed;
  return listed.length === 1 && only?.kind === due ? claim.isAt(only.x) : false;
}

/** What a single zero of a derivative makes of its place, by the signs on both sides; undefined where they are not known. */
function dueOf({ sides }: LookedAt, above: number): string | null | undefined {
  if (above === 0) return 'zero';
  if (!sides) return undefined;
  const [left, right] = sides;
  if (left === right) return null;
  return above === 2 ? 'inflection' : left > 0 ? 'maximum' : 'minimum';
}

const covers = (stretch: { from: number; to: number }, { from, to }: Claim): boolean =>
  stretch.from <= from && to <= stretch.to;
const meets = (stretch: { from: number; to: number }, { from, to }: Claim): boolean =>
  stretch.from < to && from < stretch.to;

/** Whether a list of solutions has inside a part what its claim says: one, none, or all numbers of it. */
export function followsSolutions(
  claim: LookedAt,
  { joints }: Certificate,
  { at, everywhere }: ListedSolutions,
): boolean | null {
  const listed = at.filter((x) => inside(claim, joints, x));
  if (claim.zeros === 'all') return listed.length === 0 && everywhere.some((one) => covers(one, claim));
  if (everywhere.some((one) => meets(one, claim))) return false;
  const [only] = listed;
  if (claim.zeros !== 1) return listed.length === 0;
  return only !== undefined && listed.length === 1 ? claim.isAt(only) : false;
}

/** Whether the stretches of a list have on a part the signs that were shown; null where none were. */
export function followsSigns(claim: LookedAt, list: readonly SignedStretch[]): boolean | null {
  const met = list.filter((stretch) => meets(stretch, claim));
  const [first, second] = met;
  switch (claim.zeros) {
    case 'nowhere':
      return met.length === 0;
    case 'all':
      return met.length === 1 && first?.sign === 0 && covers(first, claim);
    case 0:
      if (met.length !== 1 || !first || !covers(first, claim)) return false;
      return claim.sign === 0 ? null : first.sign === claim.sign;
    case 1: {
      if (met.length !== 2 || !first || !second || first.to !== second.from) return false;
      const reaches = first.from <= claim.from && claim.to <= second.to;
      if (!claim.sides) return reaches ? null : false;
      const [left, right] = claim.sides;
      return reaches && first.sign === left && second.sign === right ? claim.isAt(first.to) : false;
    }
  }
}
