import type { Range } from '@yperkine/core';
import type { Document, Id } from '../schema/document.ts';
import type { Edit } from './change.ts';

/**
 * The edits that give an axis a window which was chosen with care, by Fit or by typing: restoring the start comes back
 * to it. Looking around changes the window alone.
 */
export function windowEdits(document: Document, axis: 'x' | Id, range: Range): Edit[] {
  if (axis === 'x') {
    return [
      { at: 'document', field: 'x', old: document.x, new: range },
      { at: 'document', field: 'startX', old: document.startX, new: range },
    ];
  }
  const tier = document.tiers[axis];
  if (!tier) return [];
  const of = { at: 'field', of: 'tiers', id: axis } as const;
  return [
    { ...of, field: 'y', old: tier.y, new: range },
    { ...of, field: 'startY', old: tier.startY, new: range },
  ];
}
