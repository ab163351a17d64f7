import type { Page } from '@playwright/test';

interface Finger {
  readonly x: number;
  readonly y: number;
}

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
    await send('touchEnd', []);
  };
  return { send, drag };
}
