import type { Migration } from './migration.ts';
import { each } from './toVersion3.ts';

/** From version 7: key points have asymptotes as a kind of their own; poles were among the breaks. */
export const toVersion8: Migration = (document) => ({
  ...document,
  entries: each(document.entries, ({ kind, shows }) => {
    const isShowingBreaks = kind === 'keyPoints' && Array.isArray(shows) && shows.includes('breaks');
    return isShowingBreaks ? { shows: [...(shows as unknown[]), 'asymptotes'] } : {};
  }),
});
