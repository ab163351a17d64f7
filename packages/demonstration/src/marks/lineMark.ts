import type { Id } from '../fields/fields.ts';
import type { MarkOf } from './mark.ts';
import type { Tone } from '../fields/tone.ts';
import type { TierView } from './view.ts';

/** A straight line through a point of a tier, from one side of its window to the other. */
export function lineMark(
  entry: Id,
  through: { readonly x: number; readonly y: number },
  slope: number,
  tier: TierView,
  tone: Tone,
): MarkOf<'line'> {
  // From the point outward, so that a steep or distant line keeps its digits near the point.
  const heightAt = (x: number) => tier.toY(through.y + slope * (x - through.x));
  const { from, to } = tier.x;
  const ends = { x0: tier.toX(from), y0: heightAt(from), x1: tier.toX(to), y1: heightAt(to) };
  return { kind: 'line', entry, ...ends, tone, weight: 2, dash: [] };
}

/** A vertical line over the whole height of a tier. */
export function verticalMark(entry: Id, at: number, tier: TierView, tone: Tone): MarkOf<'line'> {
  const x = tier.toX(at);
  const { top, height } = tier.frame;
  return { kind: 'line', entry, x0: x, y0: top, x1: x, y1: top + height, tone, weight: 2, dash: [] };
}

/** The half of a straight line on one side of its point; of a vertical one the half above (1) or below (−1). */
export function halfLineMark(
  entry: Id,
  through: { readonly x: number; readonly y: number },
  slope: number,
  side: 'left' | 'right',
  tier: TierView,
  tone: Tone,
): MarkOf<'line'> {
  const [x0, y0] = [tier.toX(through.x), tier.toY(through.y)];
  const outward = side === 'right' ? 1 : -1;
  if (!Number.isFinite(slope)) {
    const { top, height } = tier.frame;
    const y1 = slope * outward > 0 ? top : top + height;
    return { ...verticalMark(entry, through.x, tier, tone), y0, y1 };
  }
  const line = lineMark(entry, through, slope, tier, tone);
  return side === 'right' ? { ...line, x0, y0 } : { ...line, x1: x0, y1: y0 };
}
