import type { Id } from '../schema/fields.ts';
import type { MarkOf } from './mark.ts';
import type { Tone } from './tone.ts';
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
