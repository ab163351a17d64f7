import type { PointRule, SignThroughout } from '@yperkine/core';
import { z } from 'zod';

/** The rules that a sum can go by. */
export const sumRuleSchema = z.enum([
  'left',
  'midpoint',
  'right',
  'fraction',
  'random',
  'lower',
  'upper',
  'trapezoid',
  'simpson',
]);
export type SumRuleName = z.infer<typeof sumRuleSchema>;

/** What the rules are called on cards. */
export const ruleNames: Readonly<Record<SumRuleName, string>> = {
  left: 'left',
  midpoint: 'middle',
  right: 'right',
  fraction: 'in between',
  random: 'random',
  lower: 'lower',
  upper: 'upper',
  trapezoid: 'trapezoids',
  simpson: 'parabolas',
};

/** "left sum", "sum of trapezoids". */
export const sumName = (rule: SumRuleName): string =>
  rule === 'trapezoid' || rule === 'simpson' ? `sum of ${ruleNames[rule]}` : `${ruleNames[rule]} sum`;

/** The rule of the core for one of those with a point in each part. */
export function pointRule(
  name: Exclude<SumRuleName, 'lower' | 'upper' | 'trapezoid' | 'simpson'>,
  fraction: number,
  seed: number,
): PointRule {
  if (name === 'fraction') return { fraction };
  return name === 'random' ? { seed } : name;
}

/** The degree up to which a rule takes polynomials exactly, however many parts there are. */
export const exactDegrees: Readonly<Record<SumRuleName, number>> = {
  left: 0,
  midpoint: 1,
  right: 0,
  fraction: 0,
  random: 0,
  lower: 0,
  upper: 0,
  trapezoid: 1,
  simpson: 3,
};

export type Side = 'below' | 'above';

/** On which side of the area a sum lies by its rule alone, and why; null where that is not decided. */
export function sideByRule(
  rule: SumRuleName,
  slope: SignThroughout | null,
  bend: SignThroughout | null,
  name: string,
): { readonly side: Side; readonly reason: string } | null {
  const direction = slope === 1 ? 'rises' : slope === -1 ? 'falls' : null;
  const curving = bend === 1 ? 'bends up (concave up)' : bend === -1 ? 'bends down (concave down)' : null;
  switch (rule) {
    case 'lower':
      return { side: 'below', reason: 'each rectangle is as high as the lowest point over it' };
    case 'upper':
      return { side: 'above', reason: 'each rectangle is as high as the highest point over it' };
    case 'left':
    case 'right': {
      if (direction === null) return null;
      const isLow = (rule === 'left') === (slope === 1);
      const where = isLow ? 'lowest' : 'highest';
      return {
        side: isLow ? 'below' : 'above',
        reason: `${name} ${direction}, so each ${rule} end is the ${where} point of its part`,
      };
    }
    case 'midpoint':
    case 'trapezoid': {
      if (curving === null) return null;
      const isBelow = (rule === 'midpoint') === (bend === 1);
      const lines = rule === 'midpoint' ? 'the tangent in the middle of each part lies' : 'each secant lies';
      const place = isBelow ? 'under' : 'over';
      return {
        side: isBelow ? 'below' : 'above',
        reason: `${name} ${curving}, so ${lines} ${place} the curve`,
      };
    }
    case 'fraction':
    case 'random':
    case 'simpson':
      return null;
  }
}
