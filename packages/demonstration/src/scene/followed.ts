import type { Range } from '@yperkine/core';
import type { SecantResult } from '../entries/secant/secant.ts';
import { isShown } from '../resolve/resolve.ts';
import type { Resolution } from '../resolve/resolution.ts';
import type { Document, Id } from '../schema/document.ts';
import { isDrawable } from '../marks/view.ts';

/** The share of the window's width that a step takes, whatever it shrinks to. */
const share = 0.35;
/** Where the place of a secant stands between the left and the right end of the window. */
const placeAt = { forward: 0.3, backward: 0.7, symmetric: 0.5 } as const;

export interface FollowedWindows {
  readonly x: Range;
  readonly y: Readonly<Record<Id, Range>>;
}

/**
 * The windows that a secant asks for which keeps its size while its step shrinks. Heights are scaled like widths, so
 * that slopes look the same. Null where no secant asks for one, or where it would be too narrow to be drawn.
 */
export function followedWindows(document: Document, resolution: Resolution): FollowedWindows | null {
  for (const { id, entry, outcome } of resolution.entries.values()) {
    if (entry.kind !== 'secant' || !entry.windowFollows || !isShown(resolution, id) || !outcome.ok) continue;
    return windowsOf(document, outcome.result as SecantResult);
  }
  return null;
}

function windowsOf(
  document: Document,
  { curve, at, step, secant, direction }: SecantResult,
): FollowedWindows | null {
  const width = Math.abs(step.value.value) / share;
  const start = at.value.value - placeAt[direction] * width;
  const x = { from: start, to: start + width };
  const tier = document.tiers[curve.tier];
  const middle = (secant.from.y + secant.to.y) / 2;
  if (!tier || !Number.isFinite(middle) || !isDrawable(x)) return null;
  const height = ((tier.y.to - tier.y.from) * width) / (document.x.to - document.x.from);
  const y = { from: middle - height / 2, to: middle + height / 2 };
  return isDrawable(y) ? { x, y: { [curve.tier]: y } } : null;
}
