import { rational } from '@yperkine/core';
import {
  nearestMultiple,
  roundStep,
  writePoints,
  type NearCurve,
  type Scene,
  type ThroughPointsResult,
} from '@yperkine/demonstration';
import type { Workbench } from '../../state/workbench.ts';

/** Puts a further point on a function through points, where its line was double-clicked. Returns whether it did. */
export function addVertex(
  workbench: Workbench,
  scene: Scene | null,
  { entry, tier, x, y }: NearCurve,
): boolean {
  const resolved = workbench.current().entries.get(entry);
  const view = scene?.tiers.find(({ id }) => id === tier)?.view;
  if (!view || resolved?.entry.kind !== 'throughPoints' || !resolved.outcome.ok) return false;
  const { points } = resolved.outcome.result as ThroughPointsResult;
  const added = {
    x: nearestMultiple(view.fromX(x), roundStep(view.x, 100)),
    y: nearestMultiple(view.fromY(y), roundStep(view.y, 100)),
  };
  if (points.some((point) => rational.equals(point.x, added.x))) return false;
  const all = [...points, added].sort((p, q) => rational.compare(p.x, q.x));
  workbench.showText(entry, writePoints(all));
  workbench.settle(entry);
  return true;
}
