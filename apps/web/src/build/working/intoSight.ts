import type { Id } from '@yperkine/demonstration';

/** The name of an entry's card among the elements of the page. */
export const cardOf = (id: Id): string => `card-${id}`;

/** Frames, a second of them, for which a card has to keep its place: those over it may take up more room than was thought. */
const calmFrames = 60;
/** Frames after which it is left where it is, however restless. */
const mostFrames = 900;

let sought: Id | null = null;
const forget = (): void => {
  sought = null;
};

/**
 * Scrolls the working, where it scrolls by itself, until a card is seen or somebody scrolls; a page that scrolls as a whole
 * stays at its graph. Of several cards the last counts.
 */
export function bringIntoSight(id: Id): void {
  sought = id;
  window.addEventListener('wheel', forget, { once: true, passive: true });
  window.addEventListener('pointerdown', forget, { once: true });
  approach(id, { calm: calmFrames, top: NaN }, mostFrames);
}

function approach(id: Id, { calm, top }: { calm: number; top: number }, frames: number): void {
  if (sought !== id) return;
  const card = document.getElementById(cardOf(id));
  const working = card?.parentElement;
  if (card && working && working.scrollHeight > working.clientHeight) {
    const above = card.offsetTop - working.scrollTop;
    const room = working.clientHeight;
    const isSeen = above >= 0 && above + Math.min(card.offsetHeight, room) <= room;
    if (!isSeen) working.scrollTo({ top: Math.max(0, card.offsetTop - room / 5) });
  }
  const now = card?.offsetTop ?? NaN;
  const left = now === top ? calm - 1 : calmFrames;
  if (left > 0 && frames > 1) requestAnimationFrame(() => approach(id, { calm: left, top: now }, frames - 1));
}
