import type { EntryOf, Id } from '../schema/document.ts';
import type { Trail } from './trails.ts';
import type { Mark } from '../marks/mark.ts';
import type { Tone } from '../fields/tone.ts';
import type { TierView } from '../marks/view.ts';

/** What a moving point has left behind, as dots or as a line. */
export function trailMarks(
  id: Id,
  { drawn }: EntryOf<'trail'>,
  trail: Trail | undefined,
  tone: Tone,
  view: TierView,
): Mark[] {
  if (!trail || trail.tier !== view.id || trail.length === 0) return [];
  const places = trail.places();
  if (drawn === 'dots') {
    const points = places.flatMap(([x, y]) => (Number.isNaN(x) ? [] : [view.toX(x), view.toY(y)]));
    return [{ kind: 'dots', points, tone, size: 2.5 }];
  }
  const runs: number[][] = [[]];
  for (const [x, y] of places) {
    if (Number.isNaN(x)) runs.push([]);
    else runs.at(-1)?.push(view.toX(x), view.toY(y));
  }
  const drawnRuns = runs.filter((run) => run.length > 2).map((run) => Float64Array.from(run));
  return [{ kind: 'track', entry: id, runs: drawnRuns, tone, dash: [], weight: 2 }];
}
