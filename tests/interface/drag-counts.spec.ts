import type { Page } from '@playwright/test';
import { boxOf, expect, test } from './teacher.ts';

test.use({ ownWindow: true });

/** Counts paints, pieces of lines, frames and changes of the page's text from now on. */
async function countPaints(page: Page): Promise<void> {
  await page.addInitScript(() => {
    const counts = { paints: 0, lines: 0, frames: 0, typeset: 0, changed: {} as Record<string, number> };
    Object.assign(window, { counts });
    const clearRect = CanvasRenderingContext2D.prototype.clearRect;
    CanvasRenderingContext2D.prototype.clearRect = function (...args) {
      if (this.canvas.isConnected) counts.paints++;
      clearRect.apply(this, args);
    };
    const lineTo = CanvasRenderingContext2D.prototype.lineTo;
    CanvasRenderingContext2D.prototype.lineTo = function (...args) {
      if (this.canvas.isConnected) counts.lines++;
      lineTo.apply(this, args);
    };
    const countFrame = () => {
      counts.frames++;
      requestAnimationFrame(countFrame);
    };
    requestAnimationFrame(countFrame);
  });
}

interface Counts {
  readonly paints: number;
  /** Pieces of lines that were drawn in the picture itself. */
  readonly lines: number;
  readonly frames: number;
  readonly typeset: number;
  readonly changed: Readonly<Record<string, number>>;
}
const countsOf = (page: Page): Promise<Counts> =>
  page.evaluate(() => structuredClone((window as unknown as { counts: Counts }).counts));

/** Watches elements by their names: how often something in them is replaced, and how often it is more than text. */
const watch = (page: Page, selector: string): Promise<void> =>
  page.evaluate((wanted) => {
    const { counts } = window as unknown as { counts: { changed: Record<string, number>; typeset: number } };
    for (const region of document.querySelectorAll(wanted)) {
      const heading = document.getElementById(region.getAttribute('aria-labelledby') ?? '');
      const name = region.getAttribute('aria-label') ?? heading?.textContent ?? '';
      counts.changed[name] = 0;
      new MutationObserver((records) => {
        counts.changed[name] = (counts.changed[name] ?? 0) + records.length;
        counts.typeset += records.filter(({ addedNodes }) =>
          [...addedNodes].some((node) => node.nodeType === 1),
        ).length;
      }).observe(region, { subtree: true, childList: true, characterData: true });
    }
  }, selector);

/** Counts, not milliseconds: what one move of the point may cost. */
test('a dragged point paints once a frame, and only what depends on it changes in the page', async ({
  teacher,
  page,
}) => {
  await countPaints(page);
  await teacher.openNew();
  await teacher.buildTangent();
  await teacher.setValue('a', '-1');
  await teacher.untilSaved();
  const grip = await boxOf(teacher.handle);
  const start = { x: grip.x + grip.width / 2, y: grip.y + grip.height / 2 };
  await watch(page, 'aside section');
  const before = await countsOf(page);
  const moves = 60;
  let requests = 0;
  page.on('request', () => requests++);
  await page.mouse.move(start.x, start.y);
  await page.mouse.down();
  await page.mouse.move(start.x + 240, start.y, { steps: moves });
  const during = requests;
  await page.mouse.up();
  const after = await countsOf(page);
  const paints = after.paints - before.paints;
  expect(paints).toBeGreaterThan(3);
  expect(paints).toBeLessThanOrEqual(after.frames - before.frames + 2);
  expect(paints).toBeLessThanOrEqual(moves + 3);
  // The two curves have more than a thousand pieces; while the point moves they are copied, not drawn.
  expect(after.lines - before.lines).toBeLessThanOrEqual(5000 + 100 * paints);
  expect(after.typeset).toBe(0);
  expect(after.changed).toMatchObject({ Given: 0, 'Slope f′': 0 });
  // Two live numbers in the slope, two in the equation, one sentence.
  expect(after.changed['Tangent to f at x = a']).toBeLessThanOrEqual(6 * paints);
  expect(during).toBe(0);
  await teacher.untilSaved();
  expect(requests).toBe(1);
});

test('while a lane plays with trail, note and lens, each frame paints once and changes only the numbers that move', async ({
  teacher,
  page,
}) => {
  await countPaints(page);
  await teacher.begin('f(x) = sin x', 'Tangent', 'Lens', 'Derivative', 'Note');
  await page.getByRole('textbox', { name: 'Text of the note' }).fill('At {a} the height is {f(a)}: $f(x)$.');
  await page.getByRole('button', { name: 'Done' }).click();
  await teacher.state('g(x) = x/2');
  await teacher.chooseFor('Tangent to f at x = a', 'Let it leave a trail');
  await teacher.untilSaved();
  await watch(page, 'aside section, [data-standing]');
  let requests = 0;
  page.on('request', () => requests++);
  await page.getByRole('button', { name: 'Play a', exact: true }).click();
  const before = await countsOf(page);
  await page.waitForTimeout(2000);
  const after = await countsOf(page);
  await page.getByRole('button', { name: 'Stop a', exact: true }).click();
  const paints = after.paints - before.paints;
  expect(paints).toBeGreaterThan(10);
  expect(paints).toBeLessThanOrEqual(after.frames - before.frames + 2);
  expect(after.typeset).toBe(0);
  expect(after.changed).toMatchObject({
    Given: 0,
    'Slope f′': 0,
    'Trail of tangent to f at x = a': 0,
  });
  // Two live numbers, in the card and on the graph.
  const changed = (name: string) => (after.changed[name] ?? NaN) - (before.changed[name] ?? NaN);
  expect(changed('Note; arrow keys move it')).toBeLessThanOrEqual(2 * paints + 4);
  expect(changed('Note; arrow keys move it')).toBeGreaterThan(paints / 2);
  expect(changed('Note')).toBeLessThanOrEqual(2 * paints + 4);
  expect(requests).toBe(0);
});

test('a card that is scrolled away says nothing while something plays, and follows every frame once it is seen', async ({
  teacher,
  page,
}) => {
  await countPaints(page);
  await teacher.begin('f(x) = sin x', 'Tangent', 'Secant', 'Lens', 'Derivative', 'Note');
  const card = teacher.entry('Tangent to f at x = a');
  await teacher.untilSaved();
  await expect(card).not.toBeInViewport();
  await watch(page, 'aside section');
  const changesIn = async (milliseconds: number) => {
    const before = await countsOf(page);
    await page.waitForTimeout(milliseconds);
    const after = await countsOf(page);
    const name = 'Tangent to f at x = a';
    return {
      paints: after.paints - before.paints,
      changed: (after.changed[name] ?? NaN) - (before.changed[name] ?? NaN),
    };
  };
  await page.getByRole('button', { name: 'Play a', exact: true }).click();
  // That it plays is seen at once; what moves then is not.
  await changesIn(300);
  const away = await changesIn(2000);
  expect(away.paints).toBeGreaterThan(20);
  expect(away.changed).toBe(0);
  await card.scrollIntoViewIfNeeded();
  const seen = await changesIn(1000);
  expect(seen.changed).toBeGreaterThan(2 * seen.paints);
  await page.getByRole('button', { name: 'Stop a', exact: true }).click();
  const value = await page.getByRole('textbox', { name: 'Value of a' }).inputValue();
  await expect(card).toContainText(`At x = ${value}`);
});

test('value and slider of a lane follow a motion without being rendered', async ({ teacher, page }) => {
  await teacher.begin('f(x) = sin x', 'Tangent');
  const lane = teacher.lane('a');
  const slider = lane.getByRole('slider', { name: 'a', exact: true });
  const value = lane.getByRole('textbox', { name: 'Value of a' });
  await page.evaluate(() => {
    const renders = { attributes: [] as (string | null)[] };
    Object.assign(window, { renders });
    new MutationObserver((records) => {
      renders.attributes.push(...records.map(({ attributeName }) => attributeName));
    }).observe(document.querySelector('section[aria-label="Deck"]') as Element, {
      subtree: true,
      attributes: true,
      attributeFilter: ['name', 'type', 'value', 'min', 'max', 'step', 'class'],
    });
  });
  const attributes = () =>
    page.evaluate(() =>
      (window as unknown as { renders: { attributes: string[] } }).renders.attributes.splice(0),
    );
  await page.getByRole('button', { name: 'Play a', exact: true }).click();
  await expect(value).toHaveValue(/\d\.\d{3}$/);
  await attributes();
  const [before, place] = [await value.inputValue(), await slider.inputValue()];
  await expect(value).not.toHaveValue(before);
  await expect(slider).not.toHaveValue(place);
  expect(await attributes()).toEqual([]);
  await page.getByRole('button', { name: 'Stop a', exact: true }).click();
  // At rest the slider, its words for screen readers and the field say the same.
  const text = await value.inputValue();
  await expect(slider).toHaveAttribute('aria-valuetext', text);
  expect(Math.abs(Number(await slider.inputValue()) - Number(text.replace('−', '-')))).toBeLessThan(0.05);
});

test('a thousand rectangles with their table: one paint a frame, a dozen rows on the page, no request', async ({
  teacher,
  page,
}) => {
  await countPaints(page);
  await teacher.begin('f(x) = 4 - x^2', 'Rectangle sum');
  await teacher.setValue('n', '1000');
  const card = teacher.entry(/^Rectangles/);
  await expect(card).toContainText('the area by');
  await teacher.untilSaved();
  const end = page.getByRole('slider', { name: /^End of the interval/ });
  const grip = await boxOf(end);
  const start = { x: grip.x + grip.width / 2, y: grip.y + grip.height / 2 };
  await watch(page, 'aside section');
  const before = await countsOf(page);
  const moves = 40;
  let requests = 0;
  page.on('request', (request) => {
    if (request.url().includes('/api/')) requests++;
  });
  await page.mouse.move(start.x, start.y);
  await page.mouse.down();
  await page.mouse.move(start.x - 160, start.y, { steps: moves });
  const during = requests;
  const rows = await card.getByRole('row').count();
  await page.mouse.up();
  const after = await countsOf(page);
  const paints = after.paints - before.paints;
  expect(paints).toBeGreaterThan(3);
  expect(paints).toBeLessThanOrEqual(after.frames - before.frames + 2);
  expect(rows).toBeLessThanOrEqual(20);
  expect(after.changed.Given).toBe(0);
  expect(during).toBe(0);
});
