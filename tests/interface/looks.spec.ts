import { expect, test } from './teacher.ts';
import type { Page } from '@playwright/test';

/** What the canvas shows. */
const picture = (page: Page): Promise<string> =>
  page.locator('canvas').evaluate((canvas: HTMLCanvasElement) => canvas.toDataURL());

test('an entry has a colour, line, point and label of its own', async ({ teacher }) => {
  await teacher.begin('f(x) = x^2/2', 'Tangent');
  await teacher.chooseFor('Tangent to f at x = a', 'Look …');
  const look = teacher.working.getByRole('group', { name: 'Look' });
  await look.getByRole('radio', { name: 'Green-teal' }).click();
  await look.getByLabel('Lines', { exact: true }).selectOption('dotted');
  await look.getByLabel('Weight of lines').fill('20');
  await look.getByLabel('Weight of lines').press('Enter');
  await expect(look.getByText('This is a number of pixels from 0.5 to 12.')).toBeVisible();
  await look.getByLabel('Weight of lines').fill('4');
  await look.getByLabel('Weight of lines').press('Enter');
  await look.getByLabel('Points', { exact: true }).selectOption('square');
  await look.getByLabel('Label', { exact: true }).selectOption('own text');
  await look.getByLabel('Text of the label').fill('touches here');
  await look.getByLabel('Text of the label').press('Enter');
  await look.getByLabel('Layer').selectOption('at the very front');
  await teacher.untilSaved();
  const entry = Object.values((await teacher.stored()).entries).find(({ kind }) => kind === 'tangent');
  expect(entry?.look).toEqual({
    tone: 'f2',
    line: 'dotted',
    weight: 4,
    point: 'square',
    size: null,
    label: 'text',
    text: 'touches here',
    layer: 2,
  });
  await look.getByRole('button', { name: 'The usual look' }).click();
  await look.getByRole('button', { name: 'Done' }).click();
  await expect(look).toHaveCount(0);
});

test('the demonstration is on slate for everybody, without grid and numbers, with a key and a scale of π', async ({
  page,
  teacher,
}) => {
  await teacher.begin('f(x) = 2 sin x', 'Tangent');
  await page.getByRole('button', { name: 'Looks' }).click();
  await page.getByLabel('Background').selectOption('slate');
  await expect(page.locator('html')).toHaveAttribute('data-theme', 'night');
  await expect(page.getByRole('button', { name: 'Paper and ink' })).toHaveCount(0);
  await page.getByLabel('Key of the lines').selectOption('top left');
  await page.getByRole('checkbox', { name: 'Multiples of π along x' }).check();
  await page.getByRole('checkbox', { name: 'Same scale on both axes' }).check();
  await page.getByRole('checkbox', { name: 'Grid' }).uncheck();
  await page.getByLabel('Decimal places').fill('13');
  await page.getByLabel('Decimal places').press('Enter');
  await expect(page.getByText('Decimal places are a whole number from 0 to 12.')).toBeVisible();
  await page.getByLabel('Decimal places').fill('4');
  await page.getByLabel('Decimal places').press('Enter');
  await page.getByLabel('Decimal mark').selectOption('comma: 4,250');
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Axes' }).click();
  await page.getByLabel('Ticks every … π').fill('0.5');
  await page.getByLabel('Ticks every … π').press('Enter');
  await page.keyboard.press('Escape');
  // Numbers of the axis in fractions of π are typeset.
  await expect(teacher.graph.locator('.katex-mathml mfrac').first()).toBeAttached();
  const key = page.getByRole('list', { name: 'Key' });
  await expect(key.getByRole('listitem')).toHaveText([/f/, 'Tangent to f at x = a']);
  await expect(teacher.entry(/^Tangent/)).toContainText(/\d,\d{4}/);
  await key.getByRole('listitem').nth(1).hover();
  await expect(teacher.entry(/^Tangent/)).toHaveClass(/before:bg-here/);
  await page.getByRole('link', { name: 'Library' }).click();
  await expect(page.locator('html')).toHaveAttribute('data-theme', 'day');
});

test('titles take typeset mathematics, a typeface and a size', async ({ page, teacher }) => {
  await teacher.begin('h(t) = t^2/4');
  await page.getByRole('button', { name: 'Axes' }).click();
  const panel = page.getByRole('group', { name: 'Heights of h' });
  await panel.getByLabel('Title').fill('height $h(t)$, rising by $t/2$');
  await panel.getByLabel('Title').press('Enter');
  await page.keyboard.press('Escape');
  const graphs = page.getByRole('region', { name: 'Graphs' });
  await expect(graphs.locator('.katex-mathml mfrac')).toHaveCount(1);
  const title = graphs.getByText('height', { exact: false }).first();
  const before = await title.evaluate((element) => getComputedStyle(element).fontSize);
  await page.getByRole('button', { name: 'Looks' }).click();
  await page.getByLabel('Titles: size').selectOption('very large');
  await page.getByLabel('Titles: typeface').selectOption('as in formulas');
  await page.keyboard.press('Escape');
  await expect
    .poll(() => title.evaluate((element) => parseFloat(getComputedStyle(element).fontSize)))
    .toBeGreaterThan(parseFloat(before));
  expect(await title.evaluate((element) => getComputedStyle(element).fontFamily)).toContain('KaTeX');
});

test('pointing at a mark or focusing an entry makes both stand out', async ({ page, teacher }) => {
  await teacher.begin('f(x) = x', 'Tangent');
  const card = teacher.entry(/^Tangent/);
  const place = await teacher.placeOnPage();
  await teacher.handle.hover();
  await expect(card).toHaveClass(/before:bg-here/);
  const away = place(-3, 3);
  await page.mouse.move(away.x, away.y);
  await expect(card).not.toHaveClass(/before:bg-here/);
  await teacher.handle.focus();
  await expect(card).toHaveClass(/before:bg-here/);
  await page.getByRole('textbox', { name: 'Title' }).focus();
  await expect(card).not.toHaveClass(/before:bg-here/);
  // The page changes at once, the canvas in the next frame.
  await page.evaluate(() => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done))));
  const plain = await picture(page);
  await teacher.entry('Given').getByRole('button', { name: /^More/ }).focus();
  await expect(teacher.entry('Given')).toHaveClass(/before:bg-here/);
  await expect.poll(() => picture(page)).not.toBe(plain);
  await page.getByRole('textbox', { name: 'Title' }).focus();
  await expect.poll(() => picture(page)).toBe(plain);
});

test('a number opens to all its digits and its exact form', async ({ page, teacher }) => {
  await teacher.openNew();
  await teacher.state('m = 64/3');
  const number = teacher.entry('Value of m').getByRole('button', { name: '21.333' });
  await number.click();
  await expect(page.getByText('exactly 64/3')).toBeVisible();
  await expect(page.getByText('≈ 21.3333333333333')).toBeVisible();
  await number.press('Escape');
  await expect(page.getByText('exactly 64/3')).toHaveCount(0);

  await teacher.state('f(x) = √x/3');
  await teacher.add('Secant');
  const table = teacher.entry(/^Secant/).getByRole('table');
  await table.getByRole('button').first().focus();
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Enter');
  await expect(page.getByText(/^[=≈] \d\.\d{6,}/)).toBeVisible();
  await page.keyboard.press('Escape');
  expect(await table.locator('button[tabindex="0"]').count()).toBe(1);
});
