import { curveOf, isShown } from '../resolve/resolve.ts';
import type { Resolution } from '../resolve/resolution.ts';
import {
  inOrder,
  tickPixels,
  titlePixels,
  type Document,
  type Id,
  type Looks,
  type Tier,
} from '../schema/document.ts';
import type { Frame } from '../marks/view.ts';

export interface SceneSize {
  readonly width: number;
  readonly height: number;
  /** Device pixels for one pixel of the scene. */
  readonly density: number;
  /** Whether titles, axis numbers and their room are wanted; a small picture does without. */
  readonly furniture: boolean;
  /** Whether numbers that are more than decimals are typeset over the picture, and left out of it. */
  readonly isTypesetOver?: boolean;
}

export interface TierFrame {
  readonly id: Id;
  readonly frame: Frame;
  /** Pixels under the frame that its sign strips take. */
  readonly stripRoom: number;
}

/** A row of signs under a tier, and the room around it. */
export const stripRow = { height: 24, gap: 5 } as const;

/** How many strips stand under a tier: of signs, which may choose it, and of what proves key points. */
function stripsUnder(document: Document, resolution: Resolution, tier: Id): number {
  return Object.entries(document.entries).filter(([id, entry]) => {
    const isProof = entry.kind === 'keyPoints' && entry.proof !== null;
    if (!(isProof || entry.kind === 'signStrip') || !isShown(resolution, id)) return false;
    const chosen = entry.kind === 'signStrip' ? entry.under : null;
    return (chosen ?? curveOf(resolution, entry.on)?.tier) === tier;
  }).length;
}

/** Widths in pixels of what surrounds the graphs. */
export const furniture = { left: 54, right: 18, title: 34, xNumbers: 30, xTitle: 20 } as const;

/** The first tier is this much taller than each one under it. */
const firstTierWeight = 1.7;

interface Room {
  readonly left: number;
  readonly right: number;
  /** Over each tier. */
  readonly title: number;
  /** Under the last one. */
  readonly xNumbers: number;
  readonly xTitle: number;
}
const noRoom: Room = { left: 0, right: 0, title: 0, xNumbers: 0, xTitle: 0 };

/** What a fraction is taller than a decimal. */
const fractionGrowth = 12;

/** What titles and numbers of the chosen sizes take up. */
function roomFor({ titles, tickNumbers, numbers, piScale }: Looks, hasXTitle: boolean): Room {
  const titleGrowth = Math.max(0, titlePixels[titles.size] - titlePixels.medium);
  const tickGrowth = Math.max(0, tickPixels[tickNumbers.size] - tickPixels.medium);
  return {
    left: numbers ? furniture.left + 3 * tickGrowth : furniture.right,
    right: furniture.right,
    title: furniture.title + titleGrowth,
    xNumbers: numbers
      ? furniture.xNumbers + tickGrowth + (piScale ? fractionGrowth : 0)
      : furniture.right / 2,
    xTitle: hasXTitle ? furniture.xTitle + titleGrowth : 0,
  };
}

/** The tiers with something to show: one whose entries are all away just now leaves its room to the others. */
function tiersShown(document: Document, resolution: Resolution): (readonly [Id, Tier])[] {
  const { entries } = document;
  const members = Object.entries(entries).flatMap(([id, entry]) => {
    // A study stays on the graph when its curve is hidden.
    const drawn = 'tier' in entry ? entry : 'on' in entry ? entries[entry.on] : undefined;
    return drawn && 'tier' in drawn ? [{ tier: drawn.tier, isHere: isShown(resolution, id) }] : [];
  });
  const all = inOrder(document.tiers);
  const shown = all.filter(([id]) => {
    const own = members.filter(({ tier }) => tier === id);
    return own.length === 0 || own.some(({ isHere }) => isHere);
  });
  return shown.length > 0 ? shown : all.slice(0, 1);
}

/** The frames of the tiers from top to bottom; all have the same left and right. A title of the x-axis takes a line of its own. */
export function layOut(
  document: Document,
  resolution: Resolution,
  size: SceneSize,
  hasXTitle = false,
): TierFrame[] {
  const tiers = tiersShown(document, resolution);
  const room = size.furniture ? roomFor(document.looks, hasXTitle) : noRoom;
  const weights = tiers.map((_, i) => (i === 0 ? firstTierWeight : 1));
  const total = weights.reduce((sum, weight) => sum + weight, 0);
  const strips = tiers.map(([id]) =>
    size.furniture ? stripsUnder(document, resolution, id) * (stripRow.height + stripRow.gap) : 0,
  );
  const under = strips.reduce((sum, height) => sum + height, 0);
  const available = Math.max(
    tiers.length,
    size.height - room.xNumbers - room.xTitle - tiers.length * room.title - under,
  );
  const left = room.left;
  const width = Math.max(1, size.width - room.left - room.right);
  let top = 0;
  return tiers.map(([id], i) => {
    const height = (available * (weights[i] as number)) / total;
    const frame = { left, top: top + room.title, width, height };
    const stripRoom = strips[i] as number;
    top = frame.top + height + stripRoom;
    return { id, frame, stripRoom };
  });
}
