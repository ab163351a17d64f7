import type { Id } from '../schema/document.ts';
import type { Scene } from './scene.ts';

export interface NearCurve {
  readonly tier: Id;
  readonly entry: Id;
  /** Pixels of the curve's point under or over the pointer. */
  readonly x: number;
  readonly y: number;
  readonly distance: number;
}

/**
 * The curve nearest to a pixel within `tolerance` pixels, and the point of it with the pointer's x:
 * where a click would land.
 */
export function nearestCurve(scene: Scene, x: number, y: number, tolerance: number): NearCurve | null {
  let best: NearCurve | null = null;
  for (const { id, view, marks } of scene.tiers) {
    const { left, top, width, height } = view.frame;
    if (x < left || x > left + width || y < top || y > top + height) continue;
    for (const mark of marks) {
      if (mark.kind !== 'curve' || mark.isAside) continue;
      const found = nearestInRuns(mark.runs, x, y);
      if (found && found.distance <= tolerance && found.distance < (best?.distance ?? Infinity)) {
        best = { tier: id, entry: mark.entry, ...found };
      }
    }
  }
  return best;
}

/** How near the pointer has to be to a point or a straight line, in pixels. */
const pointReach = 11;
const lineReach = 6;

/** The entry whose point or straight line lies under a pixel; points come first, then what lies on top. */
export function entryAt(scene: Scene, x: number, y: number): Id | null {
  const tier = scene.tiers.find(
    ({ view: { frame } }) => y >= frame.top - 9 && y <= frame.top + frame.height + 9,
  );
  const marks = [...(tier?.marks ?? [])].reverse();
  const point = marks.find(
    (mark) =>
      (mark.kind === 'point' || mark.kind === 'vertex') && Math.hypot(mark.x - x, mark.y - y) <= pointReach,
  );
  const found =
    point ??
    marks.find(
      (mark) =>
        mark.kind === 'line' && distanceToSegment(x, y, mark.x0, mark.y0, mark.x1, mark.y1) <= lineReach,
    );
  return found && 'entry' in found ? found.entry : null;
}

/** Distance to the drawn curve, and its height straight above or below the pixel. */
function nearestInRuns(runs: readonly Float64Array[], x: number, y: number) {
  let distance = Infinity;
  let height: number | null = null;
  for (const run of runs) {
    for (let i = 0; i + 3 < run.length; i += 2) {
      const [x0, y0, x1, y1] = [run[i], run[i + 1], run[i + 2], run[i + 3]] as [
        number,
        number,
        number,
        number,
      ];
      distance = Math.min(distance, distanceToSegment(x, y, x0, y0, x1, y1));
      if (x0 <= x && x <= x1) height = x1 === x0 ? y0 : y0 + ((y1 - y0) * (x - x0)) / (x1 - x0);
    }
  }
  return height === null ? null : { x, y: height, distance };
}

function distanceToSegment(px: number, py: number, x0: number, y0: number, x1: number, y1: number): number {
  const [dx, dy] = [x1 - x0, y1 - y0];
  const lengthSquared = dx * dx + dy * dy;
  const t =
    lengthSquared === 0 ? 0 : Math.max(0, Math.min(1, ((px - x0) * dx + (py - y0) * dy) / lengthSquared));
  return Math.hypot(px - x0 - t * dx, py - y0 - t * dy);
}
