import type { Expression } from '../language/tree.ts';
import {
  areApart,
  besideJoint,
  courseBeside,
  edgesOf,
  growth,
  isNowhereBeside,
  near,
  nearer,
  steepEnough,
  type Joint,
} from './approach.ts';
import type { Certificate, ListedSolutions } from './claims.ts';
import { numberOf } from './evaluate.ts';
import type { AtJoints } from './joints.ts';
import type { Jet } from './jets.ts';
import { withinRules } from './literals.ts';
import * as n from './numbers.ts';
import type { Range } from './numbers.ts';
import { divided } from './quotients.ts';
import { bounded, rangeOf, valueAt } from './values.ts';

/**
 * Whether a list of zeros says of each joint what is so: contradicted are those that are shown not to be 0, or to have no
 * value, and are listed, and those that are 0 to all digits of the checker and are not; open is whether one is listed of
 * which nothing is known, or one that may be 0 is not.
 */
export function zerosAtJoints(certificate: Certificate, list: ListedSolutions): AtJoints {
  const { body, variable, joints, orders } = certificate;
  const { at, everywhere } = list;
  if (orders[0] !== 0) return zerosOfDerivative(certificate, list);
  let isOpen = false;
  const contradicted = joints.filter((joint) => {
    const { low, high } = joint;
    if (everywhere.some(({ from, to }) => from <= high && low <= to)) return false;
    const isListed = at.some((x) => low <= x && x <= high);
    const exact = joint.at ? withinRules(() => numberOf(joint.at as Expression)) : null;
    const value = valueAt(body, variable, exact ?? n.between(low, high), joint.at);
    isOpen ||= value === undefined && isListed;
    if (value === undefined) return false;
    if (value === null || areApart(value, n.whole(0))) return isListed;
    const isKnown = exact !== null || low === high;
    isOpen ||= !isListed && !isKnown;
    return !isListed && isKnown;
  });
  return { contradicted, isOpen };
}

/**
 * The same of a derivative. There is none where the function has no value, jumps, or is defined on one side only; one that
 * may be 0 and is not listed leaves the list open, as does one of which too little is known.
 */
function zerosOfDerivative(certificate: Certificate, { at, everywhere }: ListedSolutions): AtJoints {
  const { body, variable } = certificate;
  let isOpen = false;
  const contradicted = certificate.joints.filter((joint) => {
    const { low, high } = joint;
    if (everywhere.some(({ from, to }) => from <= high && low <= to)) return false;
    const isListed = at.some((x) => low <= x && x <= high);
    const value = valueAt(body, variable, rangeOf(joint), joint.at);
    const sides = ([-1, 1] as const).map((way) => slopeBeside(certificate, joint, way));
    const isNone =
      value === null ||
      sides.some((side) => side === null || side.isSteep || areApart(side.limit, value)) ||
      sides.some((side) => areApart(side?.slope, n.whole(0)));
    isOpen ||= !isNone && !(isListed && sides.every((side) => side?.slope !== undefined));
    return isNone && isListed;
  });
  return { contradicted, isOpen };
}

/** To what the function and a derivative come at a joint from one side. */
interface SlopeBeside {
  readonly limit: Range | undefined;
  readonly slope: Range | undefined;
  /** Whether the derivative is seen to grow beyond all bounds. */
  readonly isSteep: boolean;
}

/** Null where the function is not defined on that side. */
function slopeBeside(
  { body, variable, orders: [order = 0] }: Certificate,
  joint: Joint,
  way: -1 | 1,
): SlopeBeside | null {
  if (isNowhereBeside(body, variable, edgesOf(joint), way)) return null;
  const beside = courseBeside(body, variable, joint.at ?? null, edgesOf(joint), way, besideJoint);
  if (!beside) return { limit: undefined, slope: undefined, isSteep: false };
  const place = rangeOf(joint);
  const jetAt = (share: number): Jet => {
    const step = n.point(n.fromDouble(way * besideJoint * share));
    const found = withinRules(() => beside.course.at(n.add(place, step), order + 1));
    return found ? divided(found) : [];
  };
  const slopeAt = (share: number): Range | undefined => bounded(jetAt(share)[order]);
  const slope = slopeAt(0);
  const isSteep = !slope && growth(slopeAt(near), slopeAt(nearer), steepEnough) !== 0;
  return { limit: bounded(jetAt(0)[0]), slope, isSteep };
}
