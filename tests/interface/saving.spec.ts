import AxeBuilder from '@axe-core/playwright';
import { TestServer } from './server.ts';
import { expect, test, Teacher } from './teacher.ts';

/** Saving, two windows, undo: driven through the real interface. */

test('9. everything saves itself; after a reload it is there', async ({ teacher, page }) => {
  await teacher.openNew();
  await teacher.buildTangent();
  await page.getByRole('textbox', { name: 'Title' }).fill('Slope of the jetty');
  await teacher.setValue('a', '1.25');
  await page.keyboard.type('unfinished = ');
  await teacher.nextGiven.click();
  await page.keyboard.type('k(x) = 2 +');
  await teacher.untilSaved();
  await page.reload();
  await expect(page.getByRole('textbox', { name: 'Title' })).toHaveValue('Slope of the jetty');
  await expect(teacher.lane('a').getByRole('textbox')).toHaveValue('1.25');
  await expect(teacher.entry(/Tangent to f/)).toBeVisible();
  await expect(teacher.nextGiven).toHaveText('k(x) = 2 +');
  // A window that was closed leaves its half-typed line to the next one.
  const next = await page.context().newPage();
  await next.goto(page.url());
  await expect(new Teacher(next, teacher.server).nextGiven).toHaveText('k(x) = 2 +');
  await next.close();
});

test('9. the server stops: a notice, work goes on, nothing is lost, and it saves when the server is back', async ({
  browser,
}) => {
  const server = await TestServer.launch();
  const page = await browser.newPage();
  const teacher = new Teacher(page, server);
  try {
    await teacher.signUp();
    await teacher.openNew();
    await teacher.buildTangent();
    await teacher.untilSaved();
    await server.stop();
    await teacher.setValue('a', '0.75');
    await expect(page.getByRole('alert')).toContainText('The server is away.');
    await teacher.state('g(x) = x^3');
    await expect(teacher.working).toContainText('g(x)');
    await server.start();
    await teacher.untilSaved();
    await expect(page.getByRole('alert')).toHaveCount(0);
    await page.reload();
    await expect(teacher.lane('a').getByRole('textbox')).toHaveValue('0.75');
    await expect(teacher.working).toContainText('g(x)');

    // Closed while the server is away: the next window brings it along.
    await server.stop();
    await teacher.setValue('a', '1.5');
    await expect(page.getByRole('alert')).toContainText('The server is away.');
    const address = page.url();
    await server.start();
    await page.goto('about:blank');
    await page.goto(address);
    await expect(teacher.lane('a').getByRole('textbox')).toHaveValue('1.5');
    await teacher.untilSaved();
    expect(JSON.stringify(await teacher.stored())).toContain('"1.5"');
  } finally {
    await page.close();
    await server.stop();
  }
});

test('9. two windows: different changes are joined and told, the same place is asked', async ({
  teacher,
  page,
  context,
}) => {
  await teacher.openNew();
  await teacher.buildTangent();
  await teacher.untilSaved();
  const second = await context.newPage();
  const other = new Teacher(second, teacher.server);
  await second.goto(page.url());
  await expect(other.handle).toBeVisible();

  await teacher.setValue('a', '1');
  await teacher.untilSaved();
  await second.getByRole('textbox', { name: 'Title' }).fill('From the second window');
  await expect(second.getByRole('alert')).toContainText('Another window changed this demonstration too');
  await expect(other.lane('a').getByRole('textbox')).toHaveValue('1');
  await other.untilSaved();

  await page.getByRole('textbox', { name: 'Title' }).fill('From the first window');
  const dialog = page.getByRole('dialog');
  await expect(dialog).toContainText('Changed in two windows');
  await expect(dialog).toContainText('From the second window');
  const { violations } = await new AxeBuilder({ page }).include('[role="dialog"]').analyze();
  expect(violations.map(({ id }) => id)).toEqual([]);
  await dialog.getByRole('radio', { name: /The other window/ }).click();
  await dialog.getByRole('button', { name: 'Keep the chosen ones' }).click();
  await expect(page.getByRole('textbox', { name: 'Title' })).toHaveValue('From the second window');
  await teacher.untilSaved();
  expect((await teacher.stored()).title).toBe('From the second window');
  await second.close();
});

test('10. undo and redo, by button and by key, over everything', async ({ teacher, page }) => {
  await teacher.openNew();
  await teacher.buildTangent();
  await teacher.setValue('a', '1');
  await teacher.setValue('a', '2');
  await page.getByRole('button', { name: /^Undo \(/ }).click();
  await expect(teacher.lane('a').getByRole('textbox')).toHaveValue('1');
  await page.getByRole('button', { name: /Redo/ }).click();
  await expect(teacher.lane('a').getByRole('textbox')).toHaveValue('2');
  await teacher.chooseFor('Tangent to f at x = a', 'Delete');
  await expect(teacher.entry(/Tangent to f/)).toHaveCount(0);
  await teacher.graph.focus();
  await page.keyboard.press('Control+z');
  await expect(teacher.entry(/Tangent to f/)).toBeVisible();
  for (let i = 0; i < 12; i++) await page.keyboard.press('Control+z');
  await expect(teacher.working).toContainText('Begin with a function');
  await expect(page.getByRole('button', { name: /^Undo \(/ })).toBeDisabled();
  for (let i = 0; i < 12; i++) await page.keyboard.press('Control+Shift+z');
  await expect(teacher.entry(/Tangent to f/)).toHaveCount(0);
  await expect(teacher.entry('Slope f′')).toBeVisible();
});
