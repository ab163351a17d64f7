import { programOf } from '../analysis/programs.ts';
import { checkArea, type AreaCertificate, type CheckedArea } from '../checker/areas.ts';
import * as tree from '../language/tree.ts';
import type { Expression } from '../language/tree.ts';
import { enclosedParts, integrandOf } from '../evaluate/enclosedArea.ts';
import type { DefiniteIntegral } from './integral.ts';

/** Relative to the area of |f|: as narrow as doubles make it. */
const tolerance = 1e-12;

/**
 * What there is to show for an integral over a finite interval: the parts over which its bounds are told, chosen by
 * interval arithmetic in doubles. Whether bounds over them hold is for the checker to say.
 * @param interval from a smaller to a larger number
 */
export function certificateOfArea(
  body: Expression,
  variable: string,
  [a, b]: readonly [number, number],
): AreaCertificate {
  const parts = enclosedParts(integrandOf(programOf(body, variable)), a, b, tolerance);
  return { body, variable, ends: [a, ...parts.map(({ to }) => to)] };
}

/**
 * An integral that is called proved or exact, looked at by the checker; null where nothing of it can be, over an infinite
 * interval or of an integral that is estimated.
 */
export function checkedIntegral(
  body: Expression,
  variable: string,
  [a, b]: readonly [number, number],
  { value, bound, exact, certainty }: Pick<DefiniteIntegral, 'value' | 'bound' | 'exact' | 'certainty'>,
  isTotal: boolean,
): CheckedArea | null {
  if (!Number.isFinite(a) || !Number.isFinite(b) || a === b || certainty === 'estimated') return null;
  const sign = a < b || isTotal ? 1 : -1;
  const f = isTotal ? tree.call('abs', body) : body;
  const whole = sign > 0 ? f : tree.negate(f);
  const certificate = certificateOfArea(whole, variable, a < b ? [a, b] : [b, a]);
  return checkArea(certificate, { value, bound, exact });
}
