import type { SumResult } from '../entries/sum/result.ts';
import type { Resolution } from '../resolve/resolution.ts';
import type { Id } from '../schema/document.ts';
import type { Scene } from './scene.ts';

export interface FoundStrip {
  readonly entry: Id;
  readonly index: number;
}

/** The strip of a sum that lies under a pixel; of several sums the last one in the working. */
export function stripAt(scene: Scene, { entries }: Resolution, x: number, y: number): FoundStrip | null {
  const tier = scene.tiers.find(({ view: { frame } }) => y >= frame.top && y <= frame.top + frame.height);
  if (!tier) return null;
  const drawn = new Set(tier.marks.flatMap((mark) => (mark.kind === 'span' ? [mark.entry] : [])));
  const [at, height] = [tier.view.fromX(x), tier.view.fromY(y)];
  let found: FoundStrip | null = null;
  for (const { id, entry, outcome } of entries.values()) {
    if (entry.kind !== 'sum' || !outcome.ok || !drawn.has(id)) continue;
    const index = stripUnder(outcome.result as SumResult, at, height);
    if (index !== null) found = { entry: id, index };
  }
  return found;
}

/** The strip over x whose rectangle reaches to a height. */
function stripUnder({ sum }: SumResult, x: number, height: number): number | null {
  if (!sum || !(x >= (sum.ends[0] as number) && x <= (sum.ends.at(-1) as number))) return null;
  let [low, high] = [0, sum.xs.length - 1];
  while (low < high) {
    const middle = (low + high) >> 1;
    if ((sum.ends[middle + 1] as number) < x) low = middle + 1;
    else high = middle;
  }
  const top = sum.heights[low] as number;
  return height * top >= 0 && Math.abs(height) <= Math.abs(top) ? low : null;
}
