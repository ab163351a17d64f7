import type { Document, Id } from '../schema/document.ts';
import type { Edit } from './change.ts';

/**
 * The edits that take a tier away; a sign strip that stood under it stands with its curve again.
 * @param gone entries that the same change takes out
 */
export function closedTierEdits(
  { entries, tiers }: Document,
  tier: Id,
  gone: ReadonlySet<Id> = new Set(),
): Edit[] {
  const value = tiers[tier];
  if (!value) return [];
  const strips = Object.entries(entries).flatMap(([id, entry]): Edit[] =>
    entry.kind === 'signStrip' && entry.under === tier && !gone.has(id)
      ? [{ at: 'field', of: 'entries', id, field: 'under', old: tier, new: null }]
      : [],
  );
  return [...strips, { at: 'tiers', id: tier, old: value, new: null }];
}
