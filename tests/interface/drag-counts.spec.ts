import { boxOf, expect, test } from './teacher.ts';

/** Counts, not milliseconds: what one move of the point may cost. */
test('a dragged point paints once a frame, and only what depends on it changes in the page', async ({
  teacher,
  page,
}) => {
  await page.addInitScript(() => {
    const counts = { paints: 0, frames: 0, typeset: 0, changed: {} as Record<string, number> };
    Object.assign(window, { counts });
    const clearRect = CanvasRenderingContext2D.prototype.clearRect;
    CanvasRenderingContext2D.prototype.clearRect = function (...args) {
      counts.paints++;
      clearRect.apply(this, args);
    };
    const countFrame = () => {
      counts.frames++;
      requestAnimationFrame(countFrame);
    };
    requestAnimationFrame(countFrame);
  });
  await teacher.openNew();
  await teacher.buildTangent();
  await teacher.setValue('a', '-1');
  await teacher.untilSaved();
  const grip = await boxOf(teacher.handle);
  const start = { x: grip.x + grip.width / 2, y: grip.y + grip.height / 2 };
  await page.evaluate(() => {
    const { counts } = window as unknown as { counts: { changed: Record<string, number>; typeset: number } };
    for (const region of document.querySelectorAll('aside section')) {
      const name = region.getAttribute('aria-label') ?? '';
      counts.changed[name] = 0;
      new MutationObserver((records) => {
        counts.changed[name] = (counts.changed[name] ?? 0) + records.length;
        counts.typeset += records.filter(({ addedNodes }) =>
          [...addedNodes].some((node) => node.nodeType === 1),
        ).length;
      }).observe(region, { subtree: true, childList: true, characterData: true });
    }
  });
  const before = await page.evaluate(() => ({
    ...(window as unknown as { counts: { paints: number; frames: number } }).counts,
  }));
  const moves = 60;
  let requests = 0;
  page.on('request', () => requests++);
  await page.mouse.move(start.x, start.y);
  await page.mouse.down();
  await page.mouse.move(start.x + 240, start.y, { steps: moves });
  const during = requests;
  await page.mouse.up();
  const after = await page.evaluate(() => ({
    ...(
      window as unknown as {
        counts: { paints: number; frames: number; typeset: number; changed: Record<string, number> };
      }
    ).counts,
  }));
  const paints = after.paints - before.paints;
  expect(paints).toBeGreaterThan(3);
  expect(paints).toBeLessThanOrEqual(after.frames - before.frames + 2);
  expect(paints).toBeLessThanOrEqual(moves + 3);
  expect(after.typeset).toBe(0);
  expect(after.changed).toMatchObject({ Given: 0, 'Slope f′': 0 });
  // Two live numbers in the slope, two in the equation, one sentence.
  expect(after.changed['Tangent to f at x = a']).toBeLessThanOrEqual(6 * paints);
  expect(during).toBe(0);
  await teacher.untilSaved();
  expect(requests).toBe(1);
});
