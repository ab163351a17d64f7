import { chooseYRange } from '@yperkine/core';
import {
  closedTierEdits,
  curvesDrawn,
  curvesIn,
  firstTier,
  inOrder,
  lastOrder,
  newTier,
  primed,
  plottedOf,
  shownX,
  type Edit,
  type Entry,
  type Id,
} from '@yperkine/demonstration';
import { newId } from './actions.ts';
import type { Workbench } from './workbench.ts';

/** On which tier a curve is drawn. Each move is one change. */

interface TierChoice {
  readonly id: Id;
  /** The curve that is drawn there first. */
  readonly name: string;
}

/** The tiers that a curve could be laid on beside the one it is on. */
export function otherTiers(workbench: Workbench, id: Id): TierChoice[] {
  const { document } = workbench.state;
  const own = tierOf(document.entries[id]);
  return inOrder(document.tiers).flatMap(([tier]) => {
    const curve = curvesIn(workbench.current(), tier)[0]?.curve;
    return curve && tier !== own ? [{ id: tier, name: primed(curve.name, curve.order) }] : [];
  });
}

/** What a tier is called: its first curve, else its title. */
export function nameOfTier(workbench: Workbench, tier: Id): string {
  const [first] = curvesIn(workbench.current(), tier);
  return first
    ? primed(first.curve.name, first.curve.order)
    : (workbench.state.document.tiers[tier]?.title ?? tier);
}

const tierOf = (entry: Entry | undefined): Id | null => (entry && 'tier' in entry ? entry.tier : null);

const isShared = (workbench: Workbench, id: Id, tier: Id): boolean =>
  Object.entries(workbench.state.document.entries).some(
    ([other, entry]) => other !== id && tierOf(entry) === tier,
  );

/** Whether a curve is the only one on its tier. */
export function isInOwnTier(workbench: Workbench, id: Id): boolean {
  const tier = tierOf(workbench.state.document.entries[id]);
  return tier !== null && !isShared(workbench, id, tier);
}

/** Draws a curve on a tier that is there, or without one on a new tier under the others; a tier that is left empty goes. */
export function moveToTier(workbench: Workbench, id: Id, to?: Id): void {
  const { document, stage } = workbench.state;
  const from = tierOf(document.entries[id]);
  const curve = curvesDrawn(workbench.current(), id).findLast((one) => one.tier === from);
  if (from === null || !curve || from === to) return;
  const target = to ?? newId();
  const edits: Edit[] = [{ at: 'field', of: 'entries', id, field: 'tier', old: from, new: target }];
  if (to === undefined) {
    const frame = newTier(
      lastOrder(document.tiers),
      chooseYRange([plottedOf(curve, shownX(document, stage))], shownX(document, stage)),
    );
    edits.unshift({ at: 'tiers', id: target, old: null, new: frame });
  }
  if (from !== firstTier && !isShared(workbench, id, from)) {
    edits.push(...closedTierEdits(document, from));
  }
  workbench.change(edits);
}
