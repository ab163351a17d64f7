import type { Page } from '@playwright/test';
import { faultsOn } from './accessibility.ts';
import { boxOf, expect, test, type Teacher } from './teacher.ts';
import { touchOn } from './touch.ts';

/** One of everything that stands on the graphs, with a reveal. */
async function fillTheGraphs(page: Page, teacher: Teacher): Promise<void> {
  await teacher.begin('f(x) = x^2/4', 'Tangent', 'Note');
  await page.getByRole('textbox', { name: 'Text of the note' }).fill("At {a} the slope is {f'(a)}: $f(x)$.");
  await page.getByRole('button', { name: 'Done' }).click();
  for (const study of ['Marker', 'Large number', 'Heading']) await teacher.add(study);
  await teacher.working.getByLabel('Heading', { exact: true }).press('Escape');
  await teacher.chooseFor('Tangent to f at x = a', 'Let it leave a trail');
  await teacher.chooseFor('Tangent to f at x = a', 'Put it on the graph');
  await teacher.ofDeck('Add a reveal');
  await teacher.ofDeck('Keep this as a step');
  await page.getByRole('button', { name: 'Keep this trial' }).click();
}

test('deck, notes, reveals and looks are free of accessibility faults that a checker can find', async ({
  teacher,
  page,
}) => {
  await fillTheGraphs(page, teacher);
  expect(await faultsOn(page)).toEqual([]);
  await teacher.chooseFor('Note', 'Change the note');
  await teacher.chooseFor('Tangent to f at x = a', 'Look …');
  await teacher.chooseFor('Tangent to f at x = a', 'Shown when …');
  await teacher
    .entry(/^Tangent/)
    .getByLabel('Shown when')
    .fill('2 <');
  await page.keyboard.press('Enter');
  await teacher.chooseFor('Tangent to f at x = a', 'Look …');
  expect(await faultsOn(page, 'aside')).toEqual([]);
  await page.getByRole('button', { name: 'Looks' }).click();
  await page.getByLabel('Key of the lines').selectOption('bottom left');
  expect(await faultsOn(page, '#headlessui-portal-root')).toEqual([]);
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Settings of a' }).click();
  await page.getByLabel('Students', { exact: true }).selectOption('only see it');
  expect(await faultsOn(page, '#headlessui-portal-root')).toEqual([]);
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Settings of Step 1' }).click();
  expect(await faultsOn(page, '#headlessui-portal-root')).toEqual([]);
  await page.keyboard.press('Escape');
  await teacher.ofDeck('Show the lanes as students see them');
  await teacher.ofDeck('What shows when …');
  expect(await faultsOn(page, '[role="dialog"]')).toEqual([]);
  await page.keyboard.press('Escape');
  await teacher.chooseFor('Tangent to f at x = a', 'Delete');
  await expect(page.getByRole('status').filter({ hasText: 'Deleted' })).toBeVisible();
  expect(await faultsOn(page, '[role="status"]')).toEqual([]);
});

test('by keyboard alone: a note is written and moved, a reveal switched, the lane played and the start restored', async ({
  page,
  teacher,
}) => {
  await teacher.begin('f(x) = x^2/4', 'Tangent');
  const press = async (name: string | RegExp, ...keys: readonly string[]) => {
    await page.getByRole('button', { name, exact: true }).focus();
    for (const key of ['Enter', ...keys]) await page.keyboard.press(key);
  };
  await press('Add');
  await page.keyboard.type('title text');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('textbox', { name: 'Text of the note' })).toBeFocused();
  await page.keyboard.type('Watch the slope.');
  await page.keyboard.press('Escape');
  const note = page.getByRole('group', { name: 'Note; arrow keys move it' });
  await note.focus();
  const before = await boxOf(note);
  await page.keyboard.press('ArrowDown');
  await expect.poll(async () => (await boxOf(note)).y).toBeGreaterThan(before.y + 5);

  await press('More for the deck', 'ArrowDown', 'Enter');
  const reveal = page.getByRole('switch', { name: 'Question 1' });
  await reveal.focus();
  await page.keyboard.press('Space');
  await expect(reveal).toBeChecked();

  const value = page.getByRole('textbox', { name: 'Value of a' });
  const start = await value.inputValue();
  await teacher.graph.focus();
  await page.keyboard.press('Space');
  await expect(value).not.toHaveValue(start);
  await page.keyboard.press('Space');
  await expect(page.getByRole('button', { name: 'Play a', exact: true })).toBeVisible();
  await press('Restore the start');
  await expect(value).toHaveValue(start);
  await expect(reveal).not.toBeChecked();
});

test.describe('on a phone, by touch', () => {
  test.use({ ownWindow: true, viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true });

  test('a note follows a finger, a reveal and the start are tapped; nothing sticks out sideways', async ({
    page,
    teacher,
  }) => {
    await fillTheGraphs(page, teacher);
    const sticksOut = () =>
      page.evaluate(() => document.documentElement.scrollWidth - document.documentElement.clientWidth);
    expect(await sticksOut()).toBe(0);
    const note = page.getByRole('group', { name: 'Note; arrow keys move it' });
    await note.scrollIntoViewIfNeeded();
    const before = await boxOf(note);
    const middle = { x: before.x + before.width / 2, y: before.y + 8 };
    const touch = await touchOn(page);
    await touch.drag(middle, { x: middle.x, y: middle.y + 60 });
    await expect.poll(async () => (await boxOf(note)).y).toBeGreaterThan(before.y + 30);

    await teacher.untilSaved();
    await page.getByRole('switch', { name: 'Question 1' }).tap();
    await expect(page.getByRole('switch', { name: 'Question 1' })).toBeChecked();
    await page.getByRole('button', { name: 'Step 1', exact: true }).tap();
    await expect(page.getByRole('switch', { name: 'Question 1' })).not.toBeChecked();
    await page.getByRole('switch', { name: 'Question 1' }).tap();
    await page.getByRole('button', { name: 'Restore the start' }).tap();
    await expect(page.getByRole('switch', { name: 'Question 1' })).not.toBeChecked();
    await page.getByRole('button', { name: 'Looks' }).tap();
    await expect(page.getByLabel('Background')).toBeInViewport();
    expect(await sticksOut()).toBe(0);
  });
});
