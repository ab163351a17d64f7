import { curveOf, type CurveResult, type Id, type Resolution } from '@yperkine/demonstration';

export interface Curve {
  readonly id: Id;
  readonly curve: CurveResult;
}

/** Every curve that could be worked out, in the order of the working. */
export const curvesOf = (resolution: Resolution): Curve[] =>
  [...resolution.entries.keys()].flatMap((id) => {
    const curve = curveOf(resolution, id);
    return curve ? [{ id, curve }] : [];
  });
