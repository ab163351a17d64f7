import { faultsOn } from './accessibility.ts';
import { boxOf, expect, test } from './teacher.ts';

/** Stating a function and choosing its window: driven through the real interface. */

test('3. a typed function is typeset live, and its curve appears in a window that shows zeros and low point', async ({
  teacher,
  page,
}) => {
  await teacher.openNew();
  await page.keyboard.type('f(x) = 3x^2 - 5x - 2');
  await expect(page.getByTestId('preview').locator('math')).toContainText('f(x)=3x2−5x−2');
  await page.keyboard.press('Enter');
  await expect(teacher.entry('Given')).toContainText('f(x)');
  await teacher.untilSaved();
  const { x, tiers } = await teacher.stored();
  expect(x.from).toBeLessThan(-1 / 3);
  expect(x.to).toBeGreaterThan(2);
  expect(tiers['tier-f']?.y.from).toBeLessThan(-49 / 12);
  expect(tiers['tier-f']?.y.to).toBeGreaterThan(0);
});

test('3. drag pans, the wheel zooms at the pointer, an axis is stretched alone, limits and ticks are typed, Fit fits', async ({
  teacher,
  page,
}) => {
  await teacher.openNew();
  await teacher.state('f(x) = 3x^2 - 5x - 2');
  await teacher.untilSaved();
  const box = await boxOf(teacher.graph);
  const width = (range: { from: number; to: number }) => range.to - range.from;
  const windows = async () => {
    await teacher.untilSaved();
    const { x, tiers } = await teacher.stored();
    return { x, y: tiers['tier-f']?.y ?? x };
  };
  const start = await windows();

  await page.mouse.move(box.x + 200, box.y + 450);
  await page.mouse.down();
  await page.mouse.move(box.x + 300, box.y + 430, { steps: 5 });
  await page.mouse.up();
  const panned = await windows();
  expect(panned.x.from).toBeLessThan(start.x.from);
  expect(width(panned.x)).toBeCloseTo(width(start.x), 9);
  expect(panned.y.from).toBeLessThan(start.y.from);

  await page.mouse.move(box.x + 300, box.y + 300);
  const share = (300 - 54) / (box.width - 54 - 18);
  const under = panned.x.from + share * width(panned.x);
  await page.mouse.wheel(0, -240);
  await expect.poll(async () => width((await windows()).x)).toBeLessThan(width(panned.x) * 0.9);
  const zoomed = await windows();
  expect(zoomed.x.from + share * width(zoomed.x)).toBeCloseTo(under, 6);

  await page.mouse.move(box.x + 400, box.y + box.height - 10);
  await page.mouse.down();
  await page.mouse.move(box.x + 500, box.y + box.height - 10, { steps: 4 });
  await page.mouse.up();
  const stretchedX = await windows();
  expect(width(stretchedX.x)).toBeLessThan(width(zoomed.x));
  expect(stretchedX.y).toEqual(zoomed.y);

  await page.mouse.move(box.x + 20, box.y + 300);
  await page.mouse.down();
  await page.mouse.move(box.x + 20, box.y + 220, { steps: 4 });
  await page.mouse.up();
  const stretchedY = await windows();
  expect(width(stretchedY.y)).toBeLessThan(width(stretchedX.y));
  expect(stretchedY.x).toEqual(stretchedX.x);

  await page.getByRole('button', { name: 'Axes' }).click();
  const along = page.getByRole('group', { name: 'Along x' });
  await along.getByRole('textbox', { name: 'From' }).fill('-4');
  await along.getByRole('textbox', { name: 'From' }).press('Enter');
  await along.getByRole('textbox', { name: 'To', exact: true }).fill('1,5');
  await along.getByRole('textbox', { name: 'To', exact: true }).press('Enter');
  await expect(along.getByRole('alert')).toContainText('Write the decimal mark as a point: 1.5.');
  await along.getByRole('button', { name: 'Use 1.5' }).click();
  await along.getByRole('textbox', { name: 'Ticks every' }).fill('0.5');
  await along.getByRole('textbox', { name: 'Ticks every' }).press('Enter');
  const heights = page.getByRole('group', { name: 'Heights of f' });
  await heights.getByRole('textbox', { name: 'Ticks every' }).fill('2.5');
  await heights.getByRole('textbox', { name: 'Ticks every' }).press('Enter');
  await along.getByRole('textbox', { name: 'From' }).fill('7');
  await along.getByRole('textbox', { name: 'From' }).press('Enter');
  await expect(along.getByRole('alert')).toHaveText('The first limit must be smaller than the second.');
  const typed = await windows();
  expect(typed.x).toEqual({ from: -4, to: 1.5 });
  expect(await teacher.stored()).toMatchObject({ xTicks: 0.5, tiers: { 'tier-f': { yTicks: 2.5 } } });
  await page.keyboard.press('Escape');

  // With x-limits typed, Fit chooses the height alone.
  await page.getByRole('button', { name: 'Fit', exact: true }).click();
  await expect.poll(async () => (await windows()).y).not.toEqual(typed.y);
  const fitted = await windows();
  expect(fitted.x).toEqual(typed.x);
  expect(fitted.y.from).toBeLessThan(-49 / 12);
});

test('3. near the curve it stands out and a ghost shows where a click will land; the click offers a tangent there', async ({
  teacher,
  page,
}) => {
  await teacher.openNew();
  await teacher.state('f(x) = 0.2x + 0.2');
  const toPage = await teacher.placeOnPage();
  const place = toPage(2, 0.6);
  const ghost = page.getByTestId('ghost');
  await page.mouse.move(place.x + 3, place.y - 60);
  await expect(ghost).toBeHidden();
  await page.mouse.move(place.x + 3, place.y - 9);
  await expect(ghost).toBeVisible();
  const shown = await boxOf(ghost);
  // The ghost has caught on x = 2 and lies on the curve, not under the pointer.
  expect(Math.abs(shown.x + shown.width / 2 - place.x)).toBeLessThan(1);
  expect(Math.abs(shown.y + shown.height / 2 - place.y)).toBeLessThan(1);
  await expect(teacher.entry('Given')).toHaveClass(/bg-here/);
  await page.mouse.click(place.x + 3, place.y - 9);
  expect(await faultsOn(page, '[role="dialog"]')).toEqual([]);
  await page.getByRole('button', { name: 'Tangent', exact: true }).click();
  await expect(teacher.entry(/Tangent to f/)).toContainText('y');
  await teacher.untilSaved();
  const parameter = Object.values((await teacher.stored()).entries).find(({ kind }) => kind === 'parameter');
  expect(parameter).toMatchObject({ name: 'a', value: '2' });
});
