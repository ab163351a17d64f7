import type { Page } from '@playwright/test';

interface Finger {
  readonly x: number;
  readonly y: number;
}

/** Milliseconds after which a finger does not fling any more. */
const rest = 120;

/** Fingers on the page, as the browser's own events. */
export async function touchOn(page: Page) {
  const session = await page.context().newCDPSession(page);
  const send = (type: 'touchStart' | 'touchMove' | 'touchEnd', fingers: readonly Finger[]) =>
    session.send('Input.dispatchTouchEvent', {
      type,
      touchPoints: fingers.map((finger, id) => ({ ...finger, id })),
    });
  const drag = async (from: Finger, to: Finger) => {
    await send('touchStart', [from]);
    for (let part = 1; part <= 6; part++) {
      const along = (a: number, b: number): number => a + ((b - a) * part) / 6;
      await send('touchMove', [{ x: along(from.x, to.x), y: along(from.y, to.y) }]);
    }
    // A finger that comes to rest before it is lifted: lifted in full motion it would fling, and the browser takes the
    // next tap for one that stops the fling.
    await page.waitForTimeout(rest);
    await send('touchMove', [to]);
    await send('touchEnd', []);
  };
  return { send, drag };
}
