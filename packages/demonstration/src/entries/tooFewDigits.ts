import type { RoundingRule } from '../numbers/format.ts';
import type { Bounds } from '../numbers/line.ts';
import { betweenBounds } from '../numbers/opened.ts';

/** What is said of an integral without digits: between which bounds it lies, where those are proved. */
export function tooFewDigits(bounds: Bounds | null, rule: RoundingRule): string {
  const between = bounds && `, but it lies between ${betweenBounds(bounds, rule)} (proved)`;
  return `This integral could not be worked out to enough digits${between ?? ''}.`;
}
