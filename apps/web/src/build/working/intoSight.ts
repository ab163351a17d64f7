import type { Id } from '@yperkine/demonstration';

/** The name of an entry's card among the elements of the page. */
export const cardOf = (id: Id): string => `card-${id}`;

/** Frames, half a second of them, in which cards that were far off may take up more room than was thought. */
const mostFrames = 30;

/** Scrolls the working, where it scrolls by itself, until a card is seen; a page that scrolls as a whole stays at its graph. */
export function bringIntoSight(id: Id, frames = mostFrames): void {
  const card = document.getElementById(cardOf(id));
  const working = card?.parentElement;
  if (!card || !working || working.scrollHeight <= working.clientHeight) return;
  const above = card.offsetTop - working.scrollTop;
  const isSeen =
    above >= 0 && above + Math.min(card.offsetHeight, working.clientHeight) <= working.clientHeight;
  if (!isSeen) working.scrollTo({ top: Math.max(0, card.offsetTop - working.clientHeight / 5) });
  if (frames > 1) requestAnimationFrame(() => bringIntoSight(id, frames - 1));
}
