import { expect, test, type Teacher } from './teacher.ts';

/** f with a tangent at a, and a slider t. */
async function begin(teacher: Teacher): Promise<void> {
  await teacher.begin('f(x) = x^2/2', 'Tangent');
  await teacher.state('t = 0');
}

test('an entry is there exactly while its condition holds, alone and joined with reveals', async ({
  page,
  teacher,
}) => {
  await begin(teacher);
  await teacher.ofDeck('Add a reveal');
  await teacher.ofDeck('Add a reveal');
  await teacher.chooseFor('Tangent to f at x = a', 'Shown when …');
  const field = teacher.working.getByRole('textbox', { name: 'Shown when' });
  const isThere = async (there: boolean) => expect(teacher.handle).toHaveCount(there ? 1 : 0);
  const setCondition = async (text: string) => {
    await field.fill(text);
    await field.press('Enter');
  };

  await setCondition('2 < t < 5');
  await expect(teacher.entry(/^Tangent/)).toContainText('not shown just now');
  for (const [t, there] of [
    ['2', false],
    ['2.1', true],
    ['4.9', true],
    ['5', false],
  ] as const) {
    await teacher.setValue('t', t);
    await isThere(there);
  }

  await setCondition('2 < t < 5 and question2');
  await teacher.setValue('t', '3');
  await isThere(false);
  await page.getByRole('switch', { name: 'Question 2' }).click();
  await isThere(true);

  await setCondition('question1 or question2');
  await isThere(true);
  await page.getByRole('switch', { name: 'Question 2' }).press('Space');
  await isThere(false);
  await page.getByRole('switch', { name: 'Question 1' }).click();
  await isThere(true);

  await setCondition('2 < t and');
  await expect(teacher.entry(/^Tangent/).getByRole('alert')).toHaveText(/\.\s*$/);
  await isThere(true);
});

test('one table says which reveal shows what, and changes it', async ({ page, teacher }) => {
  await begin(teacher);
  await teacher.ofDeck('What shows when …');
  const dialog = page.getByRole('dialog', { name: 'What shows when' });
  await dialog.getByRole('button', { name: 'Add a reveal' }).click();
  await dialog.getByRole('textbox', { name: 'Its switch says' }).fill('The slope');
  await dialog.getByRole('textbox', { name: 'Its switch says' }).press('Enter');
  await dialog.getByRole('button', { name: 'Add a reveal' }).click();
  await expect(dialog.getByRole('rowheader')).toHaveText([
    'Given: f',
    'Slider a',
    'Tangent to f at x = a',
    'Slider t',
  ]);
  const tick = (reveal: string) =>
    dialog.getByRole('checkbox', { name: `${reveal} shows Tangent to f at x = a` });
  const condition = dialog.getByRole('textbox', { name: 'Tangent to f at x = a is shown when' });
  await tick('The slope').check();
  await expect(condition).toHaveValue('question1');
  await tick('Question 2').check();
  await expect(condition).toHaveValue('question1 or question2');
  await tick('The slope').uncheck();
  await expect(condition).toHaveValue('question2');
  const names = dialog.getByRole('textbox', { name: 'Name in conditions' });
  await names.nth(1).fill('steep');
  await names.nth(1).press('Enter');
  await expect(condition).toHaveValue('steep');
  await names.nth(1).fill('question1');
  await names.nth(1).press('Enter');
  await expect(dialog.getByRole('alert')).toHaveText(
    '“question1” is already taken; please choose another name.',
  );
  await names.nth(1).press('Escape');
  await condition.fill('not steep');
  await condition.press('Enter');
  await expect(tick('Question 2')).toBeDisabled();
  await dialog.getByRole('button', { name: 'Done' }).click();
  await expect(teacher.handle).toBeVisible();
  await page.getByRole('switch', { name: 'Question 2' }).click();
  await expect(teacher.handle).toHaveCount(0);
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect(teacher.handle).toBeVisible();
});

test('the start comes back with one action, and the present state can be made the start', async ({
  page,
  teacher,
}) => {
  await begin(teacher);
  await teacher.ofDeck('Add a reveal');
  await teacher.untilSaved();
  const before = await teacher.stored();
  await teacher.setValue('a', '-1.5');
  await page.getByRole('switch', { name: 'Question 1' }).click();
  await teacher.graph.focus();
  await page.keyboard.press('ArrowRight');
  await teacher.untilSaved();
  expect((await teacher.stored()).x).not.toEqual(before.x);
  await page.getByRole('button', { name: 'Restore the start' }).click();
  await teacher.untilSaved();
  await expect.poll(async () => teacher.stored()).toEqual(before);

  await teacher.setValue('a', '2');
  await teacher.ofDeck('Make this the start');
  await teacher.setValue('a', '3');
  await page.getByRole('button', { name: 'Restore the start' }).click();
  await expect(page.getByRole('textbox', { name: 'Value of a' })).toHaveValue('2');

  await page.getByRole('button', { name: 'Settings of a' }).click();
  await page.getByLabel('At the start').fill('-3');
  await page.getByLabel('At the start').press('Enter');
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Restore the start' }).click();
  await expect(page.getByRole('textbox', { name: 'Value of a' })).toHaveValue('−3');
});
